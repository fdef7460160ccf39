"""The masonry starter: cavity walls, ground-bearing slab, strip footings, tiles on rafters; millimetres and A3.

Sizes are common practice (no source): blocks 440 x 215 x 100 with 10 joints, courses of 225.
"""

from __future__ import annotations

from ..model.project import Project
from ..trades.drawings.model import Sheet
from ..trades.floors.model import Ceiling
from ..trades.foundations.model import Foundation
from ..trades.levels.model import Rung, Term
from ..trades.makeups.model import Framing, Layer, Lintels, MakeUp, WallPlate
from ..trades.openings.kinds import starting_kinds

LINTEL = Lintels(depth=140.0, bearing=150.0)


def _make_ups() -> tuple[MakeUp, ...]:
    rafters = Framing(spacing=600.0, thickness=47.0, bottom_plates=0, top_plates=0)
    joists = Framing(spacing=600.0, thickness=47.0, bottom_plates=0, top_plates=0, infill="quilt")
    plate = WallPlate(depth=75.0)
    return (
        MakeUp(
            id="wall-cavity",
            name="cavity wall 350, rendered",
            use="wall",
            layers=(
                Layer(id="render", name="render", material="render", function="finish", thickness=20.0, reveal="frame"),
                Layer(
                    id="outer",
                    name="outer leaf",
                    material="block",
                    function="structure",
                    thickness=100.0,
                    lintels=LINTEL,
                    reveal="frame",
                ),
                Layer(id="cavity", name="clear cavity", material="air", function="cavity", thickness=50.0),
                Layer(id="boards", name="cavity boards", material="rigid", function="insulation", thickness=100.0),
                Layer(
                    id="inner",
                    name="inner leaf",
                    material="block",
                    function="structure",
                    thickness=100.0,
                    wall_plate=plate,
                    lintels=LINTEL,
                ),
                Layer(
                    id="plaster",
                    name="plaster",
                    material="plaster",
                    function="lining",
                    thickness=15.0,
                    reveal="frame",
                ),
            ),
        ),
        MakeUp(
            id="wall-inner",
            name="block inner wall 100",
            use="wall",
            layers=(
                Layer(id="plaster-a", name="plaster", material="plaster", function="lining", thickness=15.0),
                Layer(
                    id="block", name="block", material="block", function="structure", thickness=100.0, lintels=LINTEL
                ),
                Layer(id="plaster-b", name="plaster", material="plaster", function="lining", thickness=15.0),
            ),
        ),
        MakeUp(
            id="slab",
            name="ground-bearing slab",
            use="slab",
            layers=(
                Layer(id="screed", name="screed", material="screed", function="finish", thickness=65.0),
                Layer(id="boards", name="floor boards", material="rigid", function="insulation", thickness=120.0),
                Layer(id="slab", name="concrete slab", material="concrete", function="structure", thickness=150.0),
                Layer(id="dpm", name="damp-proof membrane", material="membrane", function="membrane", thickness=0.5),
                Layer(id="hardcore", name="hardcore", material="gravel", function="finish", thickness=200.0),
            ),
        ),
        MakeUp(
            id="roof",
            name="tiles on 175 rafters",
            use="roof",
            layers=(
                Layer(id="tiles", name="tiles on battens", material="tile", function="cladding", thickness=60.0),
                Layer(id="underlay", name="underlay", material="membrane", function="membrane", thickness=0.5),
                Layer(
                    id="rafters",
                    name="175 x 47 rafters",
                    material="softwood",
                    function="structure",
                    thickness=175.0,
                    framing=rafters,
                ),
            ),
        ),
        MakeUp(
            id="ceiling",
            name="150 joists and quilt",
            use="ceiling",
            layers=(
                Layer(
                    id="joists",
                    name="150 x 47 joists",
                    material="softwood",
                    function="structure",
                    thickness=150.0,
                    framing=joists,
                ),
                Layer(id="lining", name="plasterboard", material="gypsum", function="lining", thickness=12.5),
            ),
        ),
    )


def _rungs() -> tuple[Rung, ...]:
    return (
        Rung(
            id="plate",
            name="Plate",
            surface="plate",
            from_rung="floor",
            terms=(
                Term(id="courses", name="block course", value=225.0, count=11),
                Term(id="closing", name="closing course", value=75.0),
                Term(id="plate", name="wall plate", value=75.0),
            ),
            free="closing",
        ),
        Rung(
            id="floor",
            name="Ground floor",
            surface="slab",
            from_rung="grade",
            terms=(Term(id="above-ground", name="floor above ground", value=150.0),),
            free="above-ground",
        ),
        Rung(id="grade", name="Ground", surface="grade"),
        Rung(
            id="footing",
            name="Footing",
            surface="footing",
            from_rung="grade",
            direction="down",
            terms=(Term(id="depth", name="footing depth", value=900.0),),
            free="depth",
        ),
    )


def new_masonry_project(id: str, name: str) -> Project:
    """An empty project with everything in place to draw the first cavity wall."""
    return Project(
        id=id,
        name=name,
        units="mm",
        tradition="masonry",
        scale=50.0,
        make_ups=_make_ups(),
        kinds=starting_kinds("mm", trim=0.0),
        rungs=_rungs(),
        foundations=(
            Foundation(
                id="foundation",
                name="Foundation",
                level="floor",
                footing="footing",
                stem_thickness=350.0,
                footing_width=600.0,
                footing_depth=225.0,
                slab="slab",
            ),
        ),
        ceilings=(Ceiling(id="ceiling-1", name="Ceiling", level="plate", make_up="ceiling"),),
        sheets=(Sheet(id="sheet-1", number="A1", name="Drawings", paper="A3"),),
    )
