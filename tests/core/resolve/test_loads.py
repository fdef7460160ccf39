"""What carries what: every load of every demo reaches the ground, and what stands on nothing is said at its place."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from deepsection.core.edits import apply_edits, changed, put
from deepsection.core.model import Beam, BeamEnd, LevelRule, Post, Project
from deepsection.core.particulars import describe_element
from deepsection.core.resolve import resolve
from deepsection.core.trades.loads.placed import LOADS, Loads
from deepsection.demo import DEMOS, larkmoor_house, otterfold_house
from deepsection.demo.pieces import bearing, on, partition
from tests.builders import two_storeys

OURS = {"beam-end-free", "post-on-joists", "bearing-offset"}


def by_tables(house: Project) -> Project:
    return put(house, *(changed(floor, sized="by tables") for floor in house.floors))


def found(project: Project) -> list[tuple[str, str]]:
    return [(held.code, held.element) for held in resolve(project).diagnostics if held.code in OURS]


@pytest.mark.parametrize("make", DEMOS)
def test_every_load_reaches_the_ground(make: Callable[[], Project]) -> None:
    """The last that carries is a foundation, or a post that stands in the ground or on a pad."""
    project = make()
    loads = resolve(project)[LOADS]
    floors = {floor.level for floor in project.floors}
    grounded = {held.id for held in (*project.foundations, *project.porch_slabs)}
    grounded |= {post.id for post in project.posts if post.base.level not in floors}
    for held in (*project.walls, *project.floors, *project.beams, *project.roofs):
        assert loads.carriers[held.id], held.id
        ends = {id for step in loads.down_from(held.id) for id in step if not loads.carriers[id]}
        assert ends and ends <= grounded, (held.id, ends)


def test_a_load_is_followed_by_hand() -> None:
    """The beam over the living room is on two walls and a post, that on the girder, this on posts and foundation."""
    loads = resolve(otterfold_house())[LOADS]
    assert loads.carriers["living-beam-2"] == ("living-post", "east")
    assert loads.carriers["living-post"] == ("girder-3", "girder-4")
    assert loads.carriers["girder-5"] == ("girder-post-4", "foundation")
    assert loads.carriers["upper-south"] == ("south",) and loads.carriers["hall"] == ("girder-2",)
    steps = loads.down_from("between")
    assert steps[0] == ("living-beam-1",) and set(steps[1]) == {"hall", "wash", "living-post"}
    assert "foundation" in {id for step in steps for id in step}
    larkmoor = resolve(larkmoor_house())[LOADS]
    assert larkmoor.carriers["roof-dormer-1"] == ("dormer-1-w", "dormer-1-s", "dormer-1-e")
    assert larkmoor.carriers["dormer-1-s"] == ("roof-main",)
    assert larkmoor.down_from("roof-dormer-1")[-1] == ("foundation",)


def test_a_path_names_each_element_once_even_in_a_circle() -> None:
    loads = Loads({"a": ("b",), "b": ("a", "c"), "c": ()})
    assert loads.down_from("a") == (("b",), ("c",)) and loads.down_from("nobody") == ()


def test_particulars_say_it_in_words() -> None:
    project = otterfold_house()
    steps = describe_element(project, resolve(project), "upper-south").carried
    assert [step.elements for step in steps] == [("south",), ("foundation",)]
    assert describe_element(project, resolve(project), "project").carried == ()


def test_a_beam_end_in_the_air_is_said_at_its_place() -> None:
    house = two_storeys(9000.0, 7000.0)
    top = LevelRule(level="plate")
    ends = BeamEnd(x=0.0, y=3000.0), BeamEnd(x=4000.0, y=3000.0)
    house = put(house, Beam(id="beam", start=ends[0], end=ends[1], width=90.0, depth=235.0, top=top))
    assert found(house) == [("beam-end-free", "beam")]
    held = next(d for d in resolve(house).diagnostics if d.code == "beam-end-free")
    assert held.at == (4000.0, 3000.0) and held.severity == "blocking"
    post = Post(id="post", x=4000.0, y=3000.0, width=90.0, base=LevelRule(level="floor"), top=top)
    ended = put(house, post, changed(house.beams[0], end=BeamEnd(post="post")))
    assert found(ended) == []
    # Another beam under its end does as well.
    cross = Beam(
        id="cross", start=BeamEnd(x=4000.0, y=0.0), end=BeamEnd(x=4000.0, y=7000.0), width=90.0, depth=235.0, top=top
    )
    assert found(put(house, cross)) == []
    assert resolve(put(house, cross))[LOADS].carriers["beam"][-1] == "cross"


def test_a_post_on_joists_alone_is_pointed_out() -> None:
    house = by_tables(two_storeys(9000.0, 7000.0))
    post = Post(id="post", x=4000.0, y=3000.0, width=90.0, base=LevelRule(level="floor"), top=LevelRule(level="plate"))
    assert ("post-on-joists", "post") in found(put(house, post))
    ends = BeamEnd(x=100.0, y=3000.0), BeamEnd(x=8900.0, y=3000.0)
    girder = Beam(id="g", start=ends[0], end=ends[1], width=114.0, depth=235.0, top=LevelRule(level="sill"))
    assert ("post-on-joists", "post") not in found(put(house, post, girder))
    assert resolve(put(house, post, girder))[LOADS].carriers["post"] == ("g",)


def test_a_wall_that_bears_across_joists_needs_something_under_it() -> None:
    """IRC R502.4, from memory: one that runs along them has joists doubled; one across stands over their bearing."""
    house = by_tables(two_storeys(9000.0, 7000.0))
    house = put(house, *(changed(floor, span="north-south") for floor in house.floors))
    across = apply_edits(house, (partition("w", on("p1", "west", 4000.0), on("p2", "east", 3000.0)),))
    assert ("bearing-offset", "w") not in found(across), "it bears nothing"
    assert ("bearing-offset", "w") in found(bearing(across, "w"))
    ends = BeamEnd(x=100.0, y=3000.0), BeamEnd(x=8900.0, y=3000.0)
    girder = Beam(id="g", start=ends[0], end=ends[1], width=114.0, depth=235.0, top=LevelRule(level="sill"))
    assert ("bearing-offset", "w") not in found(put(bearing(across, "w"), girder))
    along = apply_edits(house, (partition("w", on("p1", "south", 4000.0), on("p2", "north", 5000.0)),))
    assert ("bearing-offset", "w") not in found(bearing(along, "w"))
