"""A length typed for a figure moves what it runs to, in plans, fronts and sections, however the house is turned."""

from __future__ import annotations

import random
from collections.abc import Callable

import pytest

from deepsection.core.drawing import Dimension
from deepsection.core.edits import apply_edits, put
from deepsection.core.errors import BadInput, BadLength, RefusedEdit
from deepsection.core.model import Opening, Post, Project
from deepsection.core.resolve import resolve
from deepsection.core.units import parse_length
from deepsection.core.view import draw_view, figure_edits
from deepsection.demo import fernacre_bungalow, larkmoor_house, quillback_house
from tests.builders import box_house, window
from tests.campaigns import share
from tests.turning import turned


def figures(project: Project, view: str, look: float | None = None) -> dict[str, Dimension]:
    drawing = draw_view(resolve(project), project, view, 20.0, look_deg=look)
    return {m.annotation or "": m for m in drawing.marks if isinstance(m, Dimension) and m.between}


def typed(project: Project, view: str, key: str, text: str, look: float | None = None) -> Project:
    return apply_edits(project, figure_edits(project, view, key, text, 20.0, look))


def test_a_window_a_wall_and_a_level_by_hand() -> None:
    house = put(box_house(8000, 6000), window("w1", "south", 2000, width=1200))
    nearer = typed(house, "plan", "string:bottom:openings:start-w1", "1850")
    assert nearer.openings[0].distance == pytest.approx(1850.0)
    # To the far corner: the window moves, since the corner is but the end of all.
    farther = typed(house, "plan", "string:bottom:openings:w1-end", "6300mm")
    assert farther.openings[0].distance == pytest.approx(1700.0)
    plate = resolve(house).levels["plate"].z
    higher = typed(house, "elevation:south", "height:level:plate", "2700")
    assert resolve(higher).levels["plate"].z == pytest.approx(plate + 2700 - parse_length(
        figures(house, "elevation:south")["height:level:plate"].text, "mm"), abs=1.0)  # fmt: skip


HOUSES = [(make, degrees) for make in (quillback_house, fernacre_bungalow) for degrees in (0.0, 31.0)]
LARGE = [(larkmoor_house, degrees) for degrees in share((), (0.0, 31.0))]


@pytest.mark.parametrize(("make", "degrees"), [*HOUSES, *LARGE])
def test_what_was_typed_is_what_is_measured_then_or_it_is_refused(make: Callable[[], Project], degrees: float) -> None:
    project = turned(make(), degrees) if degrees else make()
    choice = random.Random(7)
    done = 0
    for view in ("plan", "elevation:south", f"section:{project.sections[0].id}"):
        held = figures(project, view)
        for key in choice.sample(sorted(held), min(5, len(held))):
            before = held[key]
            length = parse_length(before.text.rpartition("= ")[2] or "0", project.units) if before.text else 0.0
            if length < 300.0 or "x" in before.text:
                continue
            wanted = length + 50.8
            try:
                after = typed(project, view, key, f"{wanted}mm")
            except RefusedEdit:
                continue
            found = figures(after, view).get(key)
            if found is None or not found.text:
                continue
            step = 25.4 / 16 if project.units == "ft-in" else 1.0
            assert parse_length(found.text, project.units) == pytest.approx(wanted, abs=step), (view, key)
            done += 1
    assert done > (4 if degrees == 0.0 else 1)


def test_a_post_moves_by_its_figure() -> None:
    house = put(box_house(8000, 6000))
    post = Post.model_validate(
        {"id": "p", "x": 3000.0, "y": 2500.0, "shape": "square", "width": 140.0, "depth": 140.0,
         "material": "softwood", "base": {"level": "floor"}, "top": {"level": "plate"}}
    )  # fmt: skip
    held = put(house, post)
    key = next(key for key in figures(held, "plan") if key.startswith("string:inside:across") and key.endswith("-p"))
    moved = typed(held, "plan", key, "3400")
    assert moved.posts[0].x == pytest.approx(3400.0) and moved.posts[0].y == pytest.approx(2500.0)


def test_bad_lengths_and_what_moves_nothing_are_refused() -> None:
    house = put(box_house(8000, 6000), window("w1", "south", 2000, width=1200))
    key = "string:bottom:openings:start-w1"
    for text in ("", "wide", "0", "-5"):
        with pytest.raises((BadInput, BadLength)):
            typed(house, "plan", key, text)
    with pytest.raises(BadInput, match="no figure"):
        typed(house, "plan", "string:bottom:openings:gone", "1000")
    with pytest.raises(RefusedEdit, match="nothing that this figure measures"):
        typed(house, "plan", "string:bottom:overall:start-end", "9000")
    assert typed(house, "plan", key, "2000") == house
    assert isinstance(house.openings[0], Opening)
