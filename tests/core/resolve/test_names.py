"""Names that last: keys of wall layers, edges and corners of roofs through edits, notes whose part is renamed."""

from __future__ import annotations

from deepsection.core.document.motion import Motion
from deepsection.core.edits import (
    MoveRoofEdge,
    ProposeRoof,
    PutNote,
    PutRoof,
    Remove,
    SetRoofEdge,
    Transform,
    apply_edits,
    changed,
    put,
)
from deepsection.core.model import Corner, Note, PartAnchor, Project, RoofBlock
from deepsection.core.resolve import resolve
from deepsection.core.view import draw_view
from tests.builders import box_house
from tests.core.resolve.test_roofs import over


def layer_keys(project: Project, wall: str) -> set[str]:
    return {part.key for part in resolve(project).parts if part.element == wall and part.function == "cladding"}


def lean_to() -> Project:
    """A box with a gable roof, and a lean-to against its south wall beside a roof of its own."""
    return over(box_house(12_000, 8000), "gable")


def test_keys_of_a_walls_layers_do_not_change_when_another_roof_meets_it() -> None:
    project = lean_to()
    alone = layer_keys(project, "east")
    porch = tuple(Corner(x=x, y=y) for x, y in ((12_000, 2000), (15_000, 2000), (15_000, 6000), (12_000, 6000)))
    more = apply_edits(project, (ProposeRoof(id="porch", form="single", level="floor", plate="plate", outline=porch),))
    assert alone and alone <= layer_keys(more, "east")


def test_a_note_stays_on_its_layer_when_a_roof_comes_over_the_wall() -> None:
    bare = box_house(12_000, 8000)
    (key,) = layer_keys(bare, "south")
    note = Note(id="n", view="elevation:south", text="Lap siding", anchor=PartAnchor.on(key), offset=(10.0, 10.0))
    noted = apply_edits(bare, (PutNote(note=note),))
    roofed = put(noted, *over(bare, "hip").roofs)
    assert key not in resolve(roofed).by_key
    drawing = draw_view(resolve(roofed), roofed, "elevation:south", 50)
    assert not any("lost" in message for message in drawing.messages)
    gone = apply_edits(roofed, (Remove(elements=("south",)),))
    assert any("lost" in message for message in draw_view(resolve(gone), gone, "elevation:south", 50).messages)


def test_edges_and_corners_keep_their_ids_through_edits() -> None:
    project = lean_to()
    (roof,) = project.roofs
    edges, corners = [edge.id for edge in roof.edges], [corner.id for corner in roof.outline]
    assert edges == ["e1", "e2", "e3", "e4"] and corners == ["c1", "c2", "c3", "c4"]
    for edit in (
        SetRoofEdge(roof=roof.id, edge="e2", to="half_hip"),
        MoveRoofEdge(roof=roof.id, edge="e3", by=500.0),
        Transform(elements=(roof.id, *(wall.id for wall in project.walls)), motion=Motion(turn=37.0)),
        Remove(elements=("east",)),
    ):
        after = apply_edits(project, (edit,)).roofs[0]
        assert [edge.id for edge in after.edges] == edges and [corner.id for corner in after.outline] == corners


def test_a_mirrored_roof_keeps_each_edge_with_its_treatment() -> None:
    project = apply_edits(lean_to(), (SetRoofEdge(roof="roof-1", edge="e2", to="half_hip"),))
    walls = tuple(wall.id for wall in project.walls)
    mirror = Transform(elements=("roof-1", *walls), motion=Motion(mirror=90.0))
    after = apply_edits(project, (mirror,)).roofs[0]
    before = {edge.id: edge.kind for edge in project.roofs[0].edges}
    assert {edge.id: edge.kind for edge in after.edges} == before
    assert [edge.id for edge in after.edges] != [edge.id for edge in project.roofs[0].edges]


def test_a_corner_more_gets_ids_that_are_free_and_the_others_keep_theirs() -> None:
    roof: RoofBlock = lean_to().roofs[0]
    corner, edge = Corner(x=-500.0, y=4000.0), changed(roof.edges[0], id=None)
    wider = changed(roof, outline=(*roof.outline, corner), edges=(*roof.edges, edge))
    assert [held.id for held in wider.edges] == ["e1", "e2", "e3", "e4", "e5"]
    without = changed(wider, outline=wider.outline[1:], edges=wider.edges[1:])
    assert [held.id for held in without.edges] == ["e2", "e3", "e4", "e5"]
    again = changed(without, outline=(corner, *without.outline), edges=(edge, *without.edges))
    assert [held.id for held in again.edges] == ["e1", "e2", "e3", "e4", "e5"]
    twice = changed(roof, edges=(roof.edges[0], *roof.edges[1:3], roof.edges[0]))
    assert len({held.id for held in twice.edges}) == 4
    assert apply_edits(lean_to(), (PutRoof(roof=twice),)).roofs[0].edges == twice.edges
