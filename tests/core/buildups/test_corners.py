"""Corners of outer walls: their build-ups, and that the pieces close them at any angle, inside and outside."""

from __future__ import annotations

import math

import pytest
import shapely

from deepsection.core.buildups import built_of, made_of
from deepsection.core.buildups.clashes import clashes_in
from deepsection.core.edits import apply_edits, changed, put
from deepsection.core.geometry import LevelFrame
from deepsection.core.junctions import Junction, found_junctions
from deepsection.core.model import Project
from deepsection.core.resolve import Building, resolve
from deepsection.core.view.continuity import continuity_in
from deepsection.demo.pieces import ring
from tests.builders import box_house, cavity_box
from tests.turning import turned

from .rig import cut_at, places

MAKE_UPS = {"lap": "wall-lap", "brick": "wall-brick", "cavity": "wall-cavity"}


def cornered(angle: float, walls: str) -> Project:
    """A house with a corner of an angle outside (or inside, beyond 180 degrees) between two walls of 5 m, closed far
    away, on plain walls."""
    base = cavity_box(8400.0, 6000.0) if walls == "cavity" else box_house(8400, 6000, make_up=MAKE_UPS[walls])
    make_up = base.walls[0].make_up
    turn = math.radians(angle)
    tip = 5000.0 * math.cos(turn), 5000.0 * math.sin(turn)
    far = (-4000.0, 9000.0) if angle < 180 else (-9000.0, 4000.0)
    corners = (("a", 5000.0, 0.0), ("b", 5500.0, 9000.0), ("c", *far), ("d", *tip), ("o", 0.0, 0.0))
    bare = changed(base, walls=(), joints=(), foundations=(), floors=(), roofs=(), openings=(), ceilings=())
    return apply_edits(bare, [ring(corners, ("r", "t", "l", "m", "n"), make_up)])


def corner_of(project: Project) -> tuple[Building, Junction]:
    building = resolve(project)
    return building, next(
        held for held in found_junctions(building) if held.kind == "wall_corner" and set(held.elements) == {"m", "n"}
    )


@pytest.mark.parametrize("walls", MAKE_UPS)
@pytest.mark.parametrize("angle", [62.0, 90.0, 135.0, 211.0, 270.0, 300.0])
def test_a_corner_of_any_angle_is_built_of_pieces_that_neither_gape_nor_overlap(angle: float, walls: str) -> None:
    """Leaves that are bonded cover what they covered mitred: nothing is lost, nothing lies double."""
    building, junction = corner_of(cornered(angle, walls))
    facts = dict(junction.facts)
    assert facts["turn"] == ("inside" if angle > 180 else "outside")
    assert facts["angle"] == pytest.approx(min(angle, 360.0 - angle), abs=0.1)
    built = built_of(building, junction)
    assert built is not None and built.build_up.id == ("corner-masonry" if walls == "cavity" else "corner-framed")
    (place,) = (place for held, place in places(building, "wall_corner") if held.id == junction.id)
    after, cut = cut_at(building, place)
    assert clashes_in(after, place.frame, place.window.outline) == []
    gaps = [line.gaps for line in continuity_in(after, cut, place.window) if line.is_there and not line.closes]
    assert gaps == []
    for role in ("structure", "cladding"):
        laid = [one.polygon for one in cut if one.part.role == role and one.part.material in ("brick_modular", "block")]
        made = [part for piece, part, _ in made_of(building, junction, 4.0) if piece.id.startswith("quoin")]
        if laid and any(part.role == role for part in made):
            frame = place.frame
            assert isinstance(frame, LevelFrame)
            plain = [one for part in building.parts if part.role == role for one in [part.solid.section(frame)]]
            before = shapely.union_all(plain).intersection(place.window.outline)
            same = [one for one in laid if one.intersects(before)]
            assert shapely.union_all(same).symmetric_difference(before).area < 60.0
            assert sum(one.area for one in same) == pytest.approx(before.area, abs=60.0)


@pytest.mark.parametrize("angle", [62.0, 90.0, 135.0, 270.0])
def test_sheets_lap_as_far_as_they_say_on_both_walls(angle: float) -> None:
    """A membrane of 0.8 mm, 304.8 each way: its area, less or more what its corner takes, by hand."""
    building, junction = corner_of(cornered(angle, "lap"))
    built = built_of(building, junction)
    assert built is not None
    wrap = next(piece for piece in built.pieces if piece.id == "wrap")
    half = math.radians(min(angle, 360.0 - angle)) / 2
    tip = 0.8**2 / math.tan(half) * (1 if angle < 180 else -1)
    assert wrap.shape.area == pytest.approx(2 * 304.8 * 0.8 + tip, rel=1e-6)
    assert {"wrap", "corner-flashing", "vapour-lap"} <= {piece.id for piece in built.pieces}


def test_what_is_no_usual_corner_has_none_or_less() -> None:
    """Walls of two kinds have no pieces in common; boards on the corner stand for a flashing; a turned house has the
    same."""
    mixed = cornered(90.0, "lap")
    mixed = put(mixed, changed(mixed.find("m"), make_up="wall-brick"))
    assert built_of(*corner_of(mixed)) is None
    plain = cornered(90.0, "lap")
    up = next(held for held in plain.make_ups if held.id == "wall-lap")
    boards = built_of(*corner_of(put(plain, changed(up, corner_boards=88.9))))
    assert boards is not None and "corner-flashing" not in {piece.id for piece in boards.pieces}
    one, other = built_of(*corner_of(plain)), built_of(*corner_of(turned(plain, 37.0, 1)))
    assert one is not None and other is not None
    assert [piece.id for piece in one.pieces] == [piece.id for piece in other.pieces]
