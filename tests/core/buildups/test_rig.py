"""Every build-up on a rig of simple houses: nothing lies in anything, the four lines close, notes and pieces match."""

from __future__ import annotations

from collections import Counter

import pytest
from shapely.affinity import translate

from deepsection.core.buildups import built_fact, built_of, made_of, note_of
from deepsection.core.buildups.clashes import clashes_in
from deepsection.core.buildups.library import BUILD_UPS, SITES
from deepsection.core.buildups.parameters import Values
from deepsection.core.document.motion import Motion
from deepsection.core.drawing import Text
from deepsection.core.edits import Transform, apply_edits, put
from deepsection.core.junctions import found_junctions, grouped
from deepsection.core.junctions.sizes import DETAIL_SIZES
from deepsection.core.model import Project
from deepsection.core.resolve import resolve
from deepsection.core.view import draw_view
from deepsection.core.view.continuity import continuity_in
from deepsection.core.view.details.making import missing_details
from deepsection.demo import DEMOS
from tests.campaigns import share

from .rig import cut_at, framed, houses, masonry, places, wide

EXPECTED = {
    "lap": {
        "eave": "eave-closed",
        "head": "head-flanged",
        "sill": "sill-flanged",
        "threshold": "threshold-framed",
        "wall_foot": "foot-slab",
        "footing": "footing-strip",
    },
    "brick": {
        "eave": "eave-closed",
        "head": "head-veneer",
        "sill": "sill-rowlock",
        "threshold": "threshold-framed",
        "wall_foot": "foot-veneer",
        "footing": "footing-strip",
    },
    "cavity": {
        "eave": "eave-masonry",
        "head": "head-concrete",
        "sill": "sill-stone",
        "threshold": "threshold-cavity",
        "wall_foot": "foot-cavity",
        "footing": "footing-masonry",
    },
}


@pytest.mark.parametrize(("name", "project"), list(houses()), ids=[name for name, _ in houses()])
def test_each_house_is_built_as_its_walls_ask_without_clashes_and_with_closed_lines(
    name: str, project: Project
) -> None:
    building = resolve(project)
    seen = Counter[str]()
    for junction, place in places(building):
        built = built_of(building, junction)
        wanted = EXPECTED[name.split(maxsplit=1)[0]].get(junction.kind)
        if wanted is not None:
            assert built is not None and built.build_up.id == wanted, junction.id
        held, cut = cut_at(building, place)
        found = clashes_in(held, place.frame, place.window.outline)
        assert [(one.first.key, one.second.key, round(one.depth, 1)) for one in found] == []
        if built is None:
            continue
        seen[junction.kind] += 1
        lines = continuity_in(held, cut, place.window)
        assert [(junction.id, line.line, line.gaps) for line in lines if line.is_there and not line.closes] == []
        assert any(line.is_there for line in lines) or junction.kind == "footing"
    assert {"eave", "head", "sill", "threshold", "ceiling_edge", "wall_foot", "footing"} <= set(seen)


@pytest.mark.parametrize("demo", DEMOS, ids=lambda make: make.__name__)
def test_pieces_of_the_demos_lie_in_nothing(demo: object) -> None:
    building = resolve(demo())  # type: ignore[operator]
    every = [pair for pair in places(building) if built_of(building, pair[0]) is not None]
    for junction, place in every[:: max(1, len(every) // share(12, 60))]:
        held, _ = cut_at(building, place)
        found = clashes_in(held, place.frame, place.window.outline)
        assert [(junction.id, one.first.key, one.second.key, round(one.depth, 1)) for one in found] == []


@pytest.mark.parametrize("kind", ["wall_foot", "eave", "jamb"])
def test_thick_insulation_lies_in_two_layers_and_its_ties_are_an_engineers(kind: str) -> None:
    """200 mm: the outer half is a piece of its own at feet, eaves and jambs; 100 mm is of one layer. Ties lie in bed
    joints: 225 over a foot, and multiples of that under a plate."""
    for project, thick in ((wide(), True), (masonry(), False)):
        building = resolve(project)
        for junction, _ in places(building, kind):
            built = built_of(building, junction)
            assert built is not None
            layers = [piece for piece in built.pieces if piece.id == "second-layer"]
            assert len(layers) == thick
            for piece in layers:
                x0, _, x1, _ = piece.shape.bounds
                assert x1 - x0 == pytest.approx(100.0)
            if kind == "jamb":
                continue
            (tie,) = (piece for piece in built.pieces if piece.id == "tie")
            assert ("by engineer" in tie.note) == thick
            assert any("engineer" in rule.words for rule in built.rules) == thick
            base = junction.runs[0].start[2]
            assert (tie.shape.bounds[3] - 3.0 - base) / 225.0 % 1.0 == pytest.approx(0.0, abs=1e-6)


AS_HIGH_AS_THE_GROUND = {"damp-proofing", "bell"}
"""Pieces that go up to the ground before their wall, wherever that lies."""


@pytest.mark.parametrize("demo", DEMOS, ids=lambda make: make.__name__)
def test_what_is_in_one_group_is_built_of_equal_pieces(demo: object) -> None:
    """Equal keys give equal pieces to 0.01 mm, wherever they lie: higher, lower where a foundation steps, turned."""
    building = resolve(demo())  # type: ignore[operator]
    compared = 0
    for group in grouped(found_junctions(building), lambda junction: built_fact(building, junction)):
        every = [built for one in group.junctions if (built := built_of(building, one)) is not None and built.pieces]
        for built in every[1:]:
            assert [piece.id for piece in built.pieces] == [piece.id for piece in every[0].pieces]
            base, other = (held.pieces[0].shape.bounds[1] for held in (every[0], built))
            for first, second in zip(every[0].pieces, built.pieces):
                if first.id not in AS_HIGH_AS_THE_GROUND:
                    moved = translate(second.shape, yoff=base - other)
                    apart = first.shape.symmetric_difference(moved).area
                    assert apart < 0.01 * first.shape.length, (group.about.name, first.id)
                    compared += 1
    assert compared > 30


def test_a_mirrored_house_has_the_same_pieces() -> None:
    """Mirrored about north, its pieces are the same in number and size."""
    for project in (framed(), masonry()):
        ids = tuple(held.id for held in project.elements() if held.about.movable)
        mirror = apply_edits(project, [Transform(elements=ids, motion=Motion(mirror=90.0))])
        sizes = []
        for house in (project, mirror):
            building = resolve(house)
            parts = [
                part
                for junction in found_junctions(building)
                if junction.kind in DETAIL_SIZES
                for _, part, _ in made_of(building, junction, 4.0)
            ]
            volumes = Counter[str]()
            for part in parts:
                volumes[part.key.split("/")[2]] += part.solid.volume
            sizes.append({key: round(value / 1e5) for key, value in volumes.items()})
        assert sizes[0] == sizes[1] and len(sizes[0]) > 30


def test_pieces_reach_around_corners_in_mitres() -> None:
    """A gasket of 1 mm around 8.4 by 6 m, but for the door of 1 m: its plan is the ring between two rectangles, so that
    nothing lies double and nothing is missing at the corners."""
    building, frame = resolve(framed()), 139.7
    feet = [held for held in found_junctions(building) if held.kind == "wall_foot"]
    made = [(piece, part) for held in feet for piece, part, _ in made_of(building, held, 4.0)]
    volume = sum(part.solid.volume for piece, part in made if piece.id == "gasket")
    ring = 8400.0 * 6000.0 - (8400.0 - 2 * frame) * (6000.0 - 2 * frame)
    assert volume == pytest.approx(ring - 1000.0 * frame, rel=1e-6)


@pytest.mark.parametrize("project", [framed(), masonry()], ids=["framed", "masonry"])
def test_notes_and_pieces_are_one_to_one(project: Project) -> None:
    """Each piece of a detail that its plane cuts is noted, once; each note is of a piece or of a part that is cut."""
    plain = resolve(project)
    project = put(project, *missing_details(project, plain))
    building = resolve(project)
    junctions = {held.id: held for held in found_junctions(building)}
    checked = 0
    for detail in project.details:
        junction = junctions[detail.junction]
        built = built_of(building, junction)
        if built is None:
            continue
        scale = DETAIL_SIZES[junction.kind].scale(project.units)
        drawing = draw_view(building, project, f"detail:{detail.id}", scale, on_paper=True)
        texts = [
            mark for mark in drawing.marks if isinstance(mark, Text) and (mark.annotation or "").startswith("piece:")
        ]
        keys = {mark.annotation for mark in texts}
        firsts = Counter(mark.annotation for mark in texts if mark.feature == "note")
        assert all(count == 1 for count in firsts.values())
        place = next(place for held, place in places(building, junction.kind) if held.id == junction.id)
        _, cut = cut_at(building, place)
        there = {
            one.part.key.split("/")[2]
            for one in cut
            if one.part.key.split("/")[3].startswith(junction.id.replace("/", "~"))
        }
        for piece in built.shown:
            if piece.id in there and piece.tier >= scale:
                assert f"piece:{note_of(piece, built, project.units)}" in keys, (junction.id, piece.id)
                checked += 1
    assert checked > 40


LONGEST = 114
"""What is said of a piece goes with its key into the document, where that is changed."""


@pytest.mark.parametrize(("project", "other"), [(framed(), " mm"), (masonry(), '"')], ids=["ft-in", "mm"])
def test_rules_speak_in_the_units_of_the_house(project: Project, other: str) -> None:
    """With every parameter at either of its limits: what rules say, and why build-ups do not fit."""
    building, said = resolve(project), list[str]()
    for junction in found_junctions(building):
        kind = SITES.get(junction.kind)
        site = kind.site(building, junction) if kind else None
        for held in BUILD_UPS[junction.kind] if site is not None else ():
            for ends in ("least", "most"):
                values = Values(held.parameters, {p.id: getattr(p, ends) for p in held.parameters}, project.units)
                why = held.bars(site, values)
                sizes = {p.id: p.written(getattr(p, ends), project.units) for p in held.parameters}
                notes = [] if why else [piece.note.format_map(sizes) for piece in held.pieces(site, values)]
                assert [note for note in notes if len(note) > LONGEST] == []
                said += [why] if why else [rule.words for rule in held.rules(site, values)]
    assert len(said) > 100 and any(any(sign.isdigit() for sign in words) for words in said)
    assert [words for words in said if other in words] == []
