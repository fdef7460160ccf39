"""Simple houses on which every build-up is tried: two pitches, three make-ups of walls, both units, corners, angles."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from deepsection.core.buildups import Built, Wanted, built_of, set_build_ups, with_pieces
from deepsection.core.buildups.clashes import clashes_in
from deepsection.core.edits import apply_edits, changed, put
from deepsection.core.junctions import Junction, found_junctions
from deepsection.core.junctions.sizes import DETAIL_SIZES
from deepsection.core.model import Project, SetIn
from deepsection.core.resolve import Building, resolve
from deepsection.core.view.continuity import continuity_in
from deepsection.core.view.cut import CutPart, cut_parts
from deepsection.core.view.details.making import detail_of
from deepsection.core.view.details.place import DetailPlace, detail_place
from tests.builders import box_house, cavity_box, gable, window
from tests.turning import turned

FINE = 4.0


def framed(pitch: float = 0.5, make_up: str = "wall-lap", overhang: float = 450.0) -> Project:
    """A framed box with a gable roof, two windows and a door; lap boards or brick."""
    plain = gable(box_house(8400, 6000, "ft-in", make_up=make_up), pitch, overhang=overhang, rake=300)
    return _opened(plain)


def masonry(pitch: float = 0.6) -> Project:
    """A box with cavity walls on a slab, with a gable roof."""
    box = cavity_box(8400.0, 6000.0)
    return _opened(gable(box, pitch, overhang=450, rake=200), 75.0)


def wide(pitch: float = 0.6) -> Project:
    """The same with 200 of insulation in its cavity, on a foundation that is as much wider."""
    house = masonry(pitch)
    up = next(held for held in house.make_ups if held.id == house.walls[0].make_up)
    layers = (changed(held, thickness=200.0) if held.function == "insulation" else held for held in up.layers)
    (base,) = house.foundations
    broad = changed(base, stem_thickness=base.stem_thickness + 100.0, footing_width=base.footing_width + 100.0)
    return put(house, changed(up, layers=tuple(layers)), broad)


def _opened(plain: Project, back: float = 0.0) -> Project:
    """With two windows and a door, their frames so far behind the outer face."""
    held = (
        window("w1", "south", 2100.0, sill=900.0),
        window("w2", "east", 3000.0, sill=900.0),
        changed(window("d1", "north", 4200.0, sill=0.0, width=1000.0, height=2100.0), unit="door"),
    )
    return put(plain, *(changed(one, set_in=SetIn(distance=back)) if back else one for one in held))


def houses() -> Iterator[tuple[str, Project]]:
    """Every house of the rig by name."""
    for pitch in (0.4, 0.7):
        out = 450.0 if pitch < 0.6 else 300.0
        yield f"lap {pitch}", framed(pitch, overhang=out)
        yield f"brick {pitch}", framed(pitch, "wall-brick", out)
        yield f"cavity {pitch}", masonry(max(pitch, 0.5))
    yield "cavity wide", wide()
    yield "lap turned", turned(framed(), 31.0, 1)
    yield "cavity turned", turned(masonry(), -117.0, 1)


def places(building: Building, *kinds: str) -> Iterator[tuple[Junction, DetailPlace]]:
    """The junctions of some kinds with where their usual details cut them."""
    for junction in found_junctions(building):
        if junction.kind in DETAIL_SIZES and (not kinds or junction.kind in kinds):
            place = detail_place(building, detail_of(junction, "d", "d"), junction)
            if place is not None:
                yield junction, place


def cut_at(building: Building, place: DetailPlace) -> tuple[Building, list[CutPart]]:
    """A building with the pieces near a place, and what its plane cuts there."""
    built = with_pieces(building, place.frame, place.window, FINE)
    return built, cut_parts(built, place.frame, place.window)


def of_kind(building: Building, kind: str) -> list[Junction]:
    return [held for held in found_junctions(building) if held.kind == kind]


def built(building: Building, junction: Junction) -> Built:
    found = built_of(building, junction)
    assert found is not None
    return found


def is_whole(building: Building, kind: str) -> int:
    """How many details of a kind there are, in which nothing lies in anything, and which keep the weather out: where
    what keeps it out goes on to both edges of their windows, as it does in one of them at least. (Valleys of dormers
    show too little of them.)"""
    looked, seen = 0, 0
    for junction, place in places(building, kind):
        whole, cut = cut_at(building, place)
        assert clashes_in(whole, place.frame, place.window.outline) == []
        lines = {line.line: line for line in continuity_in(whole, cut, place.window, frame=place.frame)}
        assert not lines["weather"].gaps, (junction.id, lines["weather"].gaps)
        seen += lines["weather"].is_there
        looked += 1
    assert seen or not looked or kind == "valley"
    return looked


def after(project: Project, kind: str, **wanted: Any) -> Project:
    """A project in which something was set for all junctions of a kind."""
    return apply_edits(project, set_build_ups(project, resolve(project), kind, None, Wanted(**wanted)))
