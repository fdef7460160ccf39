"""Volumes of every layer of twenty walls with openings, worked out by hand: length x height x thickness less holes."""

from __future__ import annotations

from dataclasses import dataclass

import pytest

from deepsection.core.edits import put
from deepsection.core.model import BaseRule, FreeJoint, Layer, MakeUp, Opening, Project, SetOut, TopRule, Wall
from deepsection.core.resolve import resolve
from deepsection.core.starters.projects import new_project

Hole = tuple[float, float]


@dataclass(frozen=True)
class Case:
    """A wall that stands alone: length, height, thicknesses of layers, holes (width, height), and the answers."""

    length: float
    height: float
    layers: tuple[float, ...]
    holes: tuple[Hole, ...]
    volumes: tuple[float, ...]
    facts: tuple[tuple[str, float], ...] = ()


CASES = (
    # Plain: 6 x 2.7 m.
    Case(6000, 2700, (200,), (), (3.24e9,)),
    Case(6000, 2700, (12, 140, 13), (), (194.4e6, 2.268e9, 210.6e6)),
    Case(3000, 2400, (100, 50, 100), (), (720e6, 360e6, 720e6)),
    Case(1000, 1000, (10,), (), (10e6,)),
    # One window of 1.2 x 1.2 m: 16.2 - 1.44 = 14.76 m2.
    Case(6000, 2700, (200,), ((1200, 1200),), (2.952e9,)),
    Case(6000, 2700, (12, 140, 13), ((1200, 1200),), (177.12e6, 2.0664e9, 191.88e6)),
    # A door of 0.9 x 2.1 m: 12.96 - 1.89 = 11.07 m2.
    Case(5400, 2400, (90, 12.5), ((900, 2100),), (996.3e6, 138.375e6)),
    # A door and a window: 19.2 - 1.89 - 1.8 = 15.51 m2.
    Case(8000, 2400, (100,), ((900, 2100), (1500, 1200)), (1.551e9,)),
    Case(
        8000,
        2400,
        (20, 100, 120, 100, 15),
        ((900, 2100), (1500, 1200)),
        (310.2e6, 1.551e9, 1.8612e9, 1.551e9, 232.65e6),
    ),
    # Three windows of 0.6 x 0.9: 24 - 1.62 = 22.38 m2.
    Case(10000, 2400, (150,), ((600, 900), (600, 900), (600, 900)), (3.357e9,)),
    # Thick stone: 4 x 1.5 m.
    Case(4000, 1500, (600,), (), (3.6e9,)),
    Case(4000, 1500, (600,), ((500, 700),), (3.39e9,)),
    # In feet and inches: 20' x 8' of 1/2", 5 1/2", 5/8" (6096 x 2438.4; 12.7, 139.7, 15.875): 14.8644864 m2.
    Case(6096, 2438.4, (12.7, 139.7, 15.875), (), (188778977.28, 2076568750.08, 235973721.6)),
    # Less a window of 4' x 3' (1219.2 x 914.4 = 1.11483648 m2): 13.74964992 m2.
    Case(6096, 2438.4, (12.7, 139.7), ((1219.2, 914.4),), (174620553.984, 1920826093.824)),
    # Leaning: the same volumes, since every level has the same plan.
    Case(6000, 2700, (200,), ((1200, 1200),), (2.952e9,), (("lean", 8.0),)),
    Case(3000, 2400, (100, 50, 100), (), (720e6, 360e6, 720e6), (("lean", -5.0),)),
    # Tapered from 600 to 400: mean thickness 500; a hole in the middle is 500 deep on average too.
    Case(4000, 1500, (600,), (), (3e9,), (("taper", 200.0),)),
    Case(4000, 1500, (600,), ((500, 700),), (2.825e9,), (("taper", 200.0),)),
    # Raked by 600 over its length: mean height 2.7 + 0.3 m; stepped it would be the same at half its length.
    Case(6000, 2700, (200,), (), (3.6e9,), (("end_rise", 600.0),)),
    Case(6000, 2700, (200,), ((1200, 1200),), (3.312e9,), (("end_rise", 600.0),)),
)


def built(case: Case) -> Project:
    layers = tuple(
        Layer(
            id=f"l{k}", name=f"layer {k}", material="block", function="structure" if k == 0 else "lining", thickness=t
        )
        for k, t in enumerate(case.layers)
    )
    facts = dict(case.facts)
    top = TopRule(kind="fixed", level="floor", height=case.height, end_rise=facts.pop("end_rise", 0.0))
    wall = Wall(
        id="wall",
        start="a",
        end="b",
        make_up="held",
        set_out=SetOut(layer="l0"),
        status="inner",
        base=BaseRule(level="floor"),
        top=top,
        **facts,  # type: ignore[arg-type]
    )
    free = [sum(width for width, _ in case.holes[:k]) + width / 2 for k, (width, _) in enumerate(case.holes)]
    gap = (case.length - sum(width for width, _ in case.holes)) / (len(case.holes) + 1)
    openings = [
        Opening.model_validate(
            {
                "id": f"o{k}",
                "wall": "wall",
                "end": "start",
                "distance": at + gap * (k + 1),
                "sill": 100,
                "unit": "window",
            }
            | {"width": width, "height": height, "number": f"O{k}"}
        )
        for k, (at, (width, height)) in enumerate(zip(free, case.holes))
    ]
    make_up = MakeUp(id="held", name="held", use="wall", layers=layers)
    ends = (FreeJoint(id="a", x=0, y=0), FreeJoint(id="b", x=case.length, y=0))
    return put(new_project("p", "Wall", "mm"), make_up, *ends, wall, *openings)


@pytest.mark.parametrize("number", range(len(CASES)))
def test_layers_have_their_volumes(number: int) -> None:
    case = CASES[number]
    parts = {part.key.split("/")[2]: part for part in resolve(built(case)).parts if part.element == "wall"}
    held: dict[str, float] = {}
    for part in resolve(built(case)).parts:
        if part.element == "wall":
            layer = part.key.split("/")[2]
            held[layer] = held.get(layer, 0.0) + part.solid.volume
    assert len(parts) == len(case.layers)
    assert [held[f"l{k}"] for k in range(len(case.layers))] == pytest.approx(list(case.volumes), rel=1e-6)


def test_a_wall_shorter_than_it_is_thick_is_refused_with_its_limit() -> None:
    found = {held.code: held for held in resolve(built(Case(500, 1500, (600,), (), ()))).diagnostics}
    assert found["wall-too-short"].limit == 600 and found["wall-too-short"].field == "length"
