"""What a new project starts with, in either unit: levels, make-ups, foundation, ceiling, a sheet.

Sizes are common practice (no source) but for dressed lumber, which the catalogue holds.
"""

from __future__ import annotations

from typing import Literal, TypeVar

from ..catalog import lumber
from ..edits import floor_terms
from ..errors import BadInput
from ..model.project import Project
from ..trades.drawings.model import Sheet
from ..trades.floors.model import Ceiling, Floor
from ..trades.foundations.model import Foundation
from ..trades.levels.model import Rung, Term
from ..trades.makeups.model import Framing, Function, Layer, MakeUp, Tradition
from ..trades.openings.kinds import starting_kinds
from ..units import FOOT, INCH, Units
from .masonry import new_masonry_project

Value = TypeVar("Value", float, str)
Ground = Literal["slab", "joists"]
"""What the lowest storey stands on: a slab on the ground, or joists over a foundation wall and a crawl space."""


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
    brick = _pick(units, "brick_modular", "brick")
    studs = Framing(spacing=centres, thickness=t, infill="quilt")
    lining = _layer("lining", "gypsum board", "gypsum", "lining", board)
    core = (
        _layer("wrap", "weather membrane", "membrane", "membrane", 0.5),
        _layer("sheathing", "sheathing", "plywood", "sheathing", sheet),
        _layer("frame", _pick(units, "2x6 studs", "140 studs"), "softwood", "structure", deep, studs),
        _layer("vapour", "vapour control", "vapour_control", "membrane", 0.2),
        lining,
    )
    partition = Framing(spacing=centres, thickness=t, top_plates=1)
    rafters = Framing(spacing=_pick(units, 24 * INCH, 600.0), thickness=t, bottom_plates=0, top_plates=0)
    floor_depth = _pick(units, lumber()["2x10"].depth, 235.0)
    floor_frame = Framing(spacing=centres, thickness=t, bottom_plates=0, top_plates=0)
    floor_name = _pick(units, "2x10 joists", "235 joists")
    subfloor = _layer("deck", "subfloor", "plywood", "sheathing", _pick(units, 0.75 * INCH, 18.0))
    floor_quilt = floor_frame.model_copy(update={"infill": "quilt"})
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
            id="wall-brick",
            name=_pick(units, "2x6 frame, brick outside", "140 frame, brick outside"),
            use="wall",
            layers=(
                _layer("brick", "facing brick", brick, "cladding", _pick(units, 3.625 * INCH, 102.5)),
                _layer("gap", "drained gap", "air", "cavity", _pick(units, 1 * INCH, 25.0)),
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
            id="floor-joists",
            name="joist floor, boarded below",
            use="floor",
            layers=(subfloor, _layer("joists", floor_name, "softwood", "structure", floor_depth, floor_frame), lining),
        ),
        MakeUp(
            id="floor-ground",
            name="joist floor over a crawl space",
            use="floor",
            layers=(subfloor, _layer("joists", floor_name, "softwood", "structure", floor_depth, floor_quilt)),
        ),
        MakeUp(
            id="ground-cover",
            name="ground cover of a crawl space",
            use="slab",
            layers=(
                _layer("vapour", "ground membrane", "membrane", "membrane", 0.3),
                _layer("gravel", "gravel", "gravel", "finish", _pick(units, 3 * INCH, 75.0)),
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
    above = Term(id="above-grade", name="floor above grade", value=_pick(units, FOOT, 300.0))
    floor = Rung(id="floor", name="Main floor", surface="slab", from_rung="grade", terms=(above,), free=above.id)
    return (_plate(units), floor, *_ground_rungs(units))


def _rungs_over_crawl(units: Units, floor: MakeUp) -> tuple[Rung, ...]:
    """As `rungs`, with a joist floor on a sill plate on a foundation wall, and the ground below it dug out."""
    parts = floor_terms(floor)
    stem = Term(id="above-grade", name="wall above grade", value=_pick(units, 10 * INCH, 250.0))
    sill = Term(id="sill", name="sill plate", value=_pick(units, 1.5 * INCH, 38.0))
    dug = Term(id="dug", name="dug below grade", value=_pick(units, 10 * INCH, 250.0))
    return (
        _plate(units),
        Rung(id="floor", name="Main floor", surface="deck", from_rung="sill", terms=parts, free=parts[0].id),
        Rung(id="sill", name="Sill plate", surface="sill", from_rung="stem", terms=(sill,), free=sill.id),
        Rung(id="stem", name="Top of foundation", surface="foundation", from_rung="grade", terms=(stem,), free=stem.id),
        Rung(
            id="crawl",
            name="Crawl space",
            surface="finish",
            from_rung="grade",
            direction="down",
            terms=(dug,),
            free=dug.id,
        ),
        *_ground_rungs(units),
    )


def _plate(units: Units) -> Rung:
    stud, plate = _pick(units, 92.625 * INCH, 2386.0), _pick(units, 1.5 * INCH, 38.0)
    return Rung(
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
    )


def _ground_rungs(units: Units) -> tuple[Rung, Rung]:
    frost = Term(id="frost", name="frost depth", value=_pick(units, 3.5 * FOOT, 1050.0))
    return (
        Rung(id="grade", name="Grade", surface="grade"),
        Rung(
            id="footing",
            name="Footing",
            surface="footing",
            from_rung="grade",
            direction="down",
            terms=(frost,),
            free=frost.id,
        ),
    )


def new_timber_project(id: str, name: str, units: Units, ground: Ground = "slab") -> Project:
    """An empty project with everything in place to draw the first wall."""
    shipped = make_ups(units)
    over = next(held for held in shipped if held.id == "floor-ground")
    foundation = Foundation(
        id="foundation",
        name="Foundation",
        level="floor",
        footing="footing",
        stem_thickness=_pick(units, 8 * INCH, 200.0),
        footing_width=_pick(units, 16 * INCH, 400.0),
        footing_depth=_pick(units, 8 * INCH, 200.0),
        slab="slab",
    )
    floors: tuple[Floor, ...] = ()
    if ground == "joists":
        foundation = foundation.model_copy(
            update={"slab": "ground-cover", "slab_level": "crawl", "top": "stem", "sill": "sill"}
        )
        floors = (Floor(id="main-floor", name="Main floor", level="floor", bearing="sill", make_up=over.id),)
    return Project(
        id=id,
        name=name,
        units=units,
        scale=48.0 if units == "ft-in" else 50.0,
        make_ups=shipped,
        kinds=starting_kinds(units, trim=_pick(units, 3.5 * INCH, 90.0)),
        rungs=rungs(units) if ground == "slab" else _rungs_over_crawl(units, over),
        foundations=(foundation,),
        floors=floors,
        ceilings=(Ceiling(id="ceiling-1", name="Ceiling", level="plate", make_up="ceiling"),),
        sheets=(Sheet(id="sheet-1", number="A1", name="Drawings", paper="ARCH B" if units == "ft-in" else "A3"),),
    )


def new_project(id: str, name: str, units: Units, tradition: Tradition = "timber", ground: Ground = "slab") -> Project:
    """An empty project of a tradition. Raises: BadInput, for masonry in feet and inches or on joists."""
    if tradition == "timber":
        return new_timber_project(id, name, units, ground)
    if units != "mm":
        raise BadInput("the masonry starter is in millimetres", field="units", value=units)
    if ground != "slab":
        raise BadInput("the masonry starter stands on a slab", field="ground", value=ground)
    return new_masonry_project(id, name)
