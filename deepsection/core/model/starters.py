"""What a new project starts with, in either unit: levels, make-ups, foundation, ceiling, a sheet.

Sizes are common practice (no source) but for dressed lumber, which the catalogue holds.
"""

from __future__ import annotations

from typing import TypeVar

from ..catalog import lumber
from ..errors import BadInput
from ..units import FOOT, INCH, Units
from .elements import Ceiling, Foundation, Framing, Function, Layer, MakeUp, Rung, Sheet, Term, Tradition
from .masonry import new_masonry_project
from .project import Project

Value = TypeVar("Value", float, str)


def _layer(
    id: str, name: str, material: str, function: Function, thickness: float, framing: Framing | None = None
) -> Layer:
    return Layer(id=id, name=name, material=material, function=function, thickness=thickness, framing=framing)


def _pick(units: Units, imperial: Value, metric: Value) -> Value:
    return imperial if units == "ft-in" else metric


def make_ups(units: Units) -> tuple[MakeUp, ...]:
    """The make-ups that ship: frame walls with two claddings, partition, slab, roof, ceiling."""
    t = _pick(units, lumber()["2x4"].thickness, 38.0)
    deep, shallow = _pick(units, lumber()["2x6"].depth, 140.0), _pick(units, lumber()["2x4"].depth, 89.0)
    rafter = _pick(units, lumber()["2x10"].depth, 235.0)
    board, sheet = _pick(units, 0.5 * INCH, 12.5), _pick(units, 0.5 * INCH, 12.0)
    centres = _pick(units, 16 * INCH, 400.0)
    studs = Framing(spacing=centres, thickness=t, infill="quilt")
    lining = _layer("lining", "gypsum board", "gypsum", "lining", board)
    core = (
        _layer("wrap", "weather membrane", "membrane", "membrane", 0.5),
        _layer("sheathing", "sheathing", "plywood", "sheathing", sheet),
        _layer("frame", _pick(units, "2x6 studs", "140 studs"), "softwood", "structure", deep, studs),
        _layer("vapour", "vapour control", "membrane", "membrane", 0.2),
        lining,
    )
    partition = Framing(spacing=centres, thickness=t, top_plates=1)
    rafters = Framing(spacing=_pick(units, 24 * INCH, 600.0), thickness=t, bottom_plates=0, top_plates=0)
    joists = Framing(spacing=_pick(units, 24 * INCH, 600.0), thickness=t, bottom_plates=0, top_plates=0, infill="quilt")
    return (
        MakeUp(
            id="wall-lap",
            name=_pick(units, "2x6 frame, lap boards", "140 frame, lap boards"),
            use="wall",
            layers=(_layer("cladding", "lap boards", "lap_board", "cladding", _pick(units, 0.75 * INCH, 20.0)), *core),
        ),
        MakeUp(
            id="wall-batten",
            name=_pick(units, "2x6 frame, board and batten", "140 frame, board and batten"),
            use="wall",
            layers=(
                _layer("cladding", "board and batten", "board_batten", "cladding", _pick(units, 0.75 * INCH, 20.0)),
                *core,
            ),
        ),
        MakeUp(
            id="wall-inner",
            name=_pick(units, "2x4 inner wall", "89 inner wall"),
            use="wall",
            layers=(
                _layer("lining-a", "gypsum board", "gypsum", "lining", board),
                _layer("frame", _pick(units, "2x4 studs", "89 studs"), "softwood", "structure", shallow, partition),
                _layer("lining-b", "gypsum board", "gypsum", "lining", board),
            ),
        ),
        MakeUp(
            id="slab",
            name="slab on insulation",
            use="slab",
            layers=(
                _layer("slab", "concrete slab", "concrete", "structure", _pick(units, 4 * INCH, 100.0)),
                _layer("vapour", "vapour barrier", "membrane", "membrane", 0.3),
                _layer("rigid", "rigid insulation", "rigid", "insulation", _pick(units, 2 * INCH, 75.0)),
                _layer("gravel", "gravel", "gravel", "finish", _pick(units, 4 * INCH, 150.0)),
            ),
        ),
        MakeUp(
            id="roof",
            name="shingles on rafters",
            use="roof",
            layers=(
                _layer("shingles", "asphalt shingles", "shingle", "cladding", _pick(units, 0.375 * INCH, 10.0)),
                _layer("underlay", "underlay", "membrane", "membrane", 1.0),
                _layer("deck", "roof sheathing", "plywood", "sheathing", _pick(units, 0.625 * INCH, 15.0)),
                _layer(
                    "rafters",
                    _pick(units, "2x10 rafters", "235 rafters"),
                    "softwood",
                    "structure",
                    rafter,
                    rafters,
                ),
            ),
        ),
        MakeUp(
            id="ceiling",
            name="ceiling joists and quilt",
            use="ceiling",
            layers=(
                _layer("joists", _pick(units, "2x6 joists", "140 joists"), "softwood", "structure", deep, joists),
                _layer("lining", "gypsum board", "gypsum", "lining", board),
            ),
        ),
    )


def rungs(units: Units) -> tuple[Rung, ...]:
    """Grade as the datum, footing below it, floor and plate above; the stud is the plate's free term."""
    stud, plate = _pick(units, 92.625 * INCH, 2386.0), _pick(units, 1.5 * INCH, 38.0)
    return (
        Rung(
            id="plate",
            name="Plate",
            surface="plate",
            from_rung="floor",
            terms=(
                Term(id="bottom-plate", name="bottom plate", value=plate),
                Term(id="stud", name="stud", value=stud),
                Term(id="top-plate", name="top plate", value=plate, count=2),
            ),
            free="stud",
        ),
        Rung(
            id="floor",
            name="Main floor",
            surface="slab",
            from_rung="grade",
            terms=(Term(id="above-grade", name="floor above grade", value=_pick(units, FOOT, 300.0)),),
            free="above-grade",
        ),
        Rung(id="grade", name="Grade", surface="grade"),
        Rung(
            id="footing",
            name="Footing",
            surface="footing",
            from_rung="grade",
            direction="down",
            terms=(Term(id="frost", name="frost depth", value=_pick(units, 3.5 * FOOT, 1050.0)),),
            free="frost",
        ),
    )


def new_timber_project(id: str, name: str, units: Units) -> Project:
    """An empty project with everything in place to draw the first wall."""
    return Project(
        id=id,
        name=name,
        units=units,
        scale=48.0 if units == "ft-in" else 50.0,
        make_ups=make_ups(units),
        rungs=rungs(units),
        foundations=(
            Foundation(
                id="foundation",
                name="Foundation",
                level="floor",
                footing="footing",
                stem_thickness=_pick(units, 8 * INCH, 200.0),
                footing_width=_pick(units, 16 * INCH, 400.0),
                footing_depth=_pick(units, 8 * INCH, 200.0),
                slab="slab",
            ),
        ),
        ceilings=(Ceiling(id="ceiling-1", name="Ceiling", level="plate", make_up="ceiling"),),
        sheets=(Sheet(id="sheet-1", number="A1", name="Drawings", paper="ARCH B" if units == "ft-in" else "A3"),),
    )


def new_project(id: str, name: str, units: Units, tradition: Tradition = "timber") -> Project:
    """An empty project of a tradition. Raises: BadInput, for masonry in feet and inches."""
    if tradition == "timber":
        return new_timber_project(id, name, units)
    if units != "mm":
        raise BadInput("the masonry starter is in millimetres", field="units", value=units)
    return new_masonry_project(id, name)
