"""Cross bridging and open-web joists: how many, how much of them, and that they lie in nothing else."""

from __future__ import annotations

import math

import pytest

from deepsection.core.drawing import Text
from deepsection.core.edits import changed, put
from deepsection.core.model import Framing, MakeUp, Project
from deepsection.core.resolve import Part, resolve
from deepsection.core.trades.floors.members import floor_members
from deepsection.core.trades.floors.place import FLOORS
from deepsection.core.view import draw_view
from tests.builders import two_storeys
from tests.overlaps import overlapping
from tests.turning import turned


def bridged(between: str = "bridging", **framing: object) -> Project:
    house = two_storeys(9000.0, 7000.0)
    floor = house.floors[-1]
    make_up = next(held for held in house.make_ups if held.id == floor.make_up)
    layers = tuple(
        changed(layer, framing=changed(layer.framing, **framing)) if layer.framing and framing else layer
        for layer in make_up.layers
    )
    return put(house, changed(make_up, layers=layers), changed(floor, between=between))


def parts(house: Project, role: str) -> list[Part]:
    floor = house.floors[-1].id
    return [part for part in resolve(house).parts if (part.element, part.role) == (floor, role)]


def pairs(house: Project) -> int:
    flat = resolve(house)[FLOORS][-1]
    framing = next(layer.framing for layer in make_up_of(house).layers if layer.framing)
    members = floor_members(flat.bays, flat.rims, framing, flat.floor.between)
    return sum(len(held.pieces) for held in members.of("bridging"))


def make_up_of(house: Project) -> MakeUp:
    return next(held for held in house.make_ups if held.id == house.floors[-1].make_up)


def upright(rise: float, width: float) -> float:
    """How deep a bar of 38 is measured upright, from top to bottom of neighbours: found by halving."""
    low, high = 38.0, rise
    for _ in range(80):
        middle = (low + high) / 2
        low, high = (middle, high) if 38.0 * math.hypot(1.0, (rise - middle) / width) > middle else (low, middle)
    return low


def test_a_row_of_pairs_stands_where_a_row_of_blocks_would() -> None:
    """Joists of 235 at 400 over 7 m: two rows (7000 less 2 x 38 and 150 is over 2 x 8 ft), in each a pair between
    each two neighbours.
    """
    house = bridged()
    joists = len(parts(house, "joist"))
    assert pairs(house) == 2 * (joists - 1)
    blocks = bridged("blocks")
    areas = sum(len(list(part.solid.manifold.decompose())) for part in parts(blocks, "blocking"))
    assert areas == pairs(house)
    assert not parts(bridged("nothing"), "bridging") and not parts(house, "blocking")


def test_bars_run_from_the_top_of_a_joist_to_the_bottom_of_the_next() -> None:
    """The upright depth of an inclined bar solves u = 38 sqrt(1 + ((235 - u) / gap)2); its volume is u x gap x 38."""
    house = bridged()
    bars = [piece for part in parts(house, "bridging") for piece in part.solid.manifold.decompose()]
    assert len(bars) == 2 * pairs(house)
    bounds = resolve(house).levels[house.floors[-1].bearing].z
    for bar in bars:
        x0, _, z0, x1, _, z1 = bar.bounding_box()
        assert (z0, z1) == (pytest.approx(bounds), pytest.approx(bounds + 235.0))
        gap = x1 - x0
        assert bar.volume() == pytest.approx(upright(235.0, gap) * gap * 38.0, rel=0.01)


@pytest.mark.parametrize("turn", [0.0, 33.0])
@pytest.mark.parametrize("profile", ["solid", "open", "I"])
def test_bars_and_webs_lie_in_nothing_else(profile: str, turn: float) -> None:
    thick = {"solid": 38.0, "open": 89.0, "I": 63.0}[profile]
    house = bridged(profile=profile, thickness=thick, web=9.5 if profile == "I" else 38.0)
    house = turned(house, turn) if turn else house
    own = [part for part in resolve(house).parts if part.element == house.floors[-1].id]
    assert overlapping(own, most=1.0) == []


def test_an_open_web_joist_is_chords_and_webs_that_hang_together() -> None:
    """Chords of 38 at top and bottom over the whole length; half panels of 600 at least, and posts at the ends."""
    house = bridged("nothing", profile="open", thickness=89.0, web=38.0, flange=38.0)
    joist = max(parts(house, "joist"), key=lambda part: part.solid.volume)
    assert len(joist.solid.manifold.decompose()) == 1
    box = joist.solid.bounds
    length = max(box.x1 - box.x0, box.y1 - box.y0)
    chords, whole = 2 * 38.0 * 89.0 * length, 235.0 * 89.0 * length
    assert chords < joist.solid.volume < whole
    # Over half a panel a web of 38 rises 159: measured along the joist it is 38 / sin(slope) wide.
    panels = int((length - 76.0) // 600.0)
    step = (length - 76.0) / (2 * panels)
    slope = math.atan2(235.0 - 76.0, step)
    webs = 2 * panels * (235.0 - 76.0) * 38.0 / math.sin(slope) * 89.0
    posts = 2 * 38.0 * (235.0 - 76.0) * 89.0
    # Where two webs meet at a chord they share a little.
    assert joist.solid.volume == pytest.approx(chords + webs + posts, rel=0.08)


def test_the_plan_crosses_pairs_and_counts_them() -> None:
    house = bridged()
    drawing = draw_view(resolve(house), house, f"plan:framing:{house.floors[-1].id}", 50)
    said = [mark.text for mark in drawing.marks if isinstance(mark, Text) and mark.feature == "schedule"]
    at = said.index("X1")
    assert said[at + 1] == str(pairs(house)) and said[at + 2] == "pair of bars" and said[at + 3] == "38 x 38"


def test_a_framing_of_each_profile_goes_round() -> None:
    for profile in ("solid", "I", "open", "T"):
        framing = Framing(spacing=400.0, thickness=89.0, profile=profile)
        assert Framing.model_validate_json(framing.model_dump_json()) == framing
        assert framing.timber == (profile != "T")
