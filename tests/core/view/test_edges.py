"""Lines between visible faces: outlines heavy, joints of one plane not drawn, each line once."""

from __future__ import annotations

from collections import Counter

import pytest
import shapely

from deepsection.core.geometry import Frame, bar_along
from deepsection.core.resolve import Building, Part
from deepsection.core.view.edges import Edge, visible_edges
from deepsection.core.view.faces import faces_of
from deepsection.core.view.visible import visible_faces


def block(
    key: str, x: float, depth: float, *, width: float = 1000.0, material: str = "lap_board", front: float = 0.0
) -> Part:
    """A block 2000 high that looks south, its face `front` mm behind the origin."""
    solid = bar_along((x, 0.0, x + width, 2000.0), (0.0, front + depth), (1.0, 0.0), depth)
    return Part(key, key, "cladding", material, solid)


def edges_of(*parts: Part) -> tuple[Edge, ...]:
    frame = Frame.looking(90.0)
    faces = visible_faces([face for held in faces_of(parts, frame.dx, frame.dy) for face in held])
    return visible_edges(tuple(faces))


def upright_at(edges: tuple[Edge, ...], u: float) -> list[Edge]:
    return [edge for edge in edges if abs(edge.start[0] - u) < 0.1 and abs(edge.end[0] - u) < 0.1]


def test_a_block_against_the_sky_has_a_heavy_outline_of_four_lines() -> None:
    edges = edges_of(block("a", 0.0, 100.0))
    assert Counter(edge.pen for edge in edges) == {"outline": 4}
    assert sum(shapely.LineString([edge.start, edge.end]).length for edge in edges) == pytest.approx(6000)


def test_one_plane_and_one_material_shows_no_joint() -> None:
    assert upright_at(edges_of(block("a", 0.0, 100.0), block("b", 1000.0, 100.0)), 1000.0) == []


def test_two_materials_in_one_plane_show_a_fine_line() -> None:
    (line,) = upright_at(edges_of(block("a", 0.0, 100.0), block("b", 1000.0, 100.0, material="render")), 1000.0)
    assert line.pen == "fine"


@pytest.mark.parametrize(("behind", "pen"), [(10.0, "crease"), (200.0, "edge"), (2000.0, "outline")])
def test_the_deeper_the_jump_the_heavier_the_line(behind: float, pen: str) -> None:
    """Drawing practice: line weight follows depth."""
    edges = edges_of(block("a", 0.0, 100.0), block("b", 1000.0, 100.0, front=behind))
    lines = upright_at(edges, 1000.0)
    assert [line.pen for line in lines] == [pen]
    assert lines[0].face.part.key == "a", "a line belongs to the nearer part"


def test_a_coincident_face_is_that_of_the_outer_material() -> None:
    """Cladding before frame: the order means something, whatever the keys are."""
    frame = Frame.looking(90.0)
    for first, second in (("a", "z"), ("z", "a")):
        parts = (block(first, 0.0, 100.0, material="softwood"), block(second, 0.0, 50.0, material="lap_board"))
        faces = visible_faces([face for held in faces_of(parts, frame.dx, frame.dy) for face in held])
        assert {face.part.material for face in faces} == {"lap_board"}


def test_no_line_of_the_demo_is_drawn_twice(building: Building) -> None:
    frame = Frame.looking(90.0)
    outside = [part for part in building.parts if part.outside]
    faces = tuple(visible_faces([face for held in faces_of(outside, frame.dx, frame.dy) for face in held]))
    lines = shapely.linestrings([[edge.start, edge.end] for edge in visible_edges(faces)])
    total = sum(line.length for line in lines)
    assert shapely.unary_union(lines).length == pytest.approx(total, rel=1e-5)
