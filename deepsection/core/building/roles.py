"""Roles of parts: what each is called, what it is in the standard for building models, and how views treat it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..model import PartGroup

Drag = Literal["level", "eave", "move_post", "move_chimney", "move_steps", "move_rail"]
"""What a drag on it in an elevation edits: the height of its level lines, an eave, or its place."""


Beyond = Literal["seen", "as a member", "when cut"]
"""Behind the plane of a section: seen; seen where the section asks for members; never, since it lies within others."""


@dataclass(frozen=True, slots=True)
class Role:
    """What a part is.

    `ifc`: class and predefined type, none for what is part of a window or door; source: ISO 16739-1 (IFC 4 ADD2 TC1),
    from memory. `group`: what a view leaves it out as, where that is not the group of its element. `fine`: its lines
    are drawn fine, as those of units and their trims; `opens`: symbols of opening are drawn on it; `overhangs`: it
    reaches past the walls where overhangs are measured; `below_ground`: it is drawn dashed below the ground; `beyond`:
    how it is shown behind the plane of a section; `upright`: it stands as a post does, and has no start, end, outside
    or inside to measure from.
    """

    id: str
    words: str
    ifc: tuple[str, str | None] | None = None
    group: PartGroup | None = None
    fine: bool = False
    opens: bool = False
    drag: Drag | None = None
    overhangs: bool = False
    below_ground: bool = False
    beyond: Beyond = "seen"
    upright: bool = False


IN_BUILDING = (
    Role("barge", "barge board", ifc=("IfcCovering", "MOLDING"), overhangs=True),
    Role("beam", "beam", ifc=("IfcBeam", "BEAM")),
    Role("blocking", "blocking", ifc=("IfcMember", "MEMBER"), beyond="when cut"),
    Role("bridging", "cross bridging", ifc=("IfcMember", "BRACE"), beyond="as a member"),
    Role("cap", "chimney cap", ifc=("IfcCovering", None)),
    Role("chimney", "chimney stack", ifc=("IfcChimney", None), drag="move_chimney"),
    Role("cladding", "cladding", ifc=("IfcCovering", "CLADDING"), drag="level"),
    Role("collar", "flashing collar", ifc=("IfcCovering", "ROOFING"), upright=True),
    Role("corner_board", "corner board", ifc=("IfcCovering", "MOLDING"), group="trims"),
    Role("cricket", "cricket", ifc=("IfcSlab", "ROOF")),
    Role("downpipe", "downpipe", ifc=("IfcPipeSegment", "RIGIDSEGMENT"), upright=True),
    Role("fascia", "fascia", ifc=("IfcCovering", "MOLDING"), drag="eave", overhangs=True),
    Role("finish", "finish", ifc=("IfcCovering", None), drag="level"),
    Role("footing", "footing", ifc=("IfcFooting", "STRIP_FOOTING"), below_ground=True, beyond="when cut"),
    Role("gutter", "gutter", ifc=("IfcPipeSegment", "GUTTER"), group="gutters", drag="eave"),
    Role("hatch", "flap of a hatch", ifc=("IfcDoor", "TRAPDOOR")),
    Role("hatch_lining", "lining of a hatch", ifc=("IfcCovering", "MOLDING"), beyond="when cut"),
    Role("header", "header", ifc=("IfcMember", "MEMBER"), beyond="when cut"),
    Role("hip_flashing", "hip flashing", ifc=("IfcCovering", "ROOFING")),
    Role("hip_rafter", "hip rafter", ifc=("IfcMember", "RAFTER"), beyond="as a member"),
    Role("infill", "infill between members", ifc=("IfcCovering", "INSULATION"), beyond="when cut"),
    Role("header_joist", "header of joists", ifc=("IfcBeam", "JOIST"), beyond="as a member"),
    Role("insulation", "insulation", ifc=("IfcCovering", "INSULATION"), beyond="when cut"),
    Role("joist", "joist", ifc=("IfcBeam", "JOIST"), beyond="as a member"),
    Role("lining", "lining", ifc=("IfcCovering", "CEILING")),
    Role("lintel", "lintel", ifc=("IfcBeam", "LINTEL")),
    Role("membrane", "membrane", ifc=("IfcCovering", "MEMBRANE"), beyond="when cut"),
    Role("moulding", "moulding", ifc=("IfcCovering", "MOLDING"), group="trims"),
    Role("pad", "pad footing", ifc=("IfcFooting", "PAD_FOOTING"), below_ground=True, upright=True),
    Role("pipe", "vent pipe", ifc=("IfcPipeSegment", "RIGIDSEGMENT"), upright=True),
    Role("plate", "plate", ifc=("IfcMember", "PLATE"), beyond="when cut"),
    Role("porch_slab", "porch slab", ifc=("IfcSlab", "BASESLAB"), below_ground=True),
    Role("post", "post", ifc=("IfcColumn", "COLUMN"), drag="move_post", upright=True),
    Role("rafter", "rafter", ifc=("IfcMember", "RAFTER"), beyond="as a member"),
    Role("rail_bars", "balusters and rails", ifc=("IfcRailing", None), drag="move_rail"),
    Role("rail_posts", "rail posts", ifc=("IfcRailing", None)),
    Role("ramp", "ramp", ifc=("IfcRamp", None), drag="move_steps"),
    Role("return", "return of a layer", ifc=("IfcCovering", None)),
    Role("ridge_board", "ridge board", ifc=("IfcMember", "MEMBER"), beyond="as a member"),
    Role("ridge_flashing", "ridge flashing", ifc=("IfcCovering", "ROOFING"), drag="level"),
    Role("ledger", "ledger", ifc=("IfcBeam", "JOIST")),
    Role("rim_joist", "rim joist", ifc=("IfcBeam", "JOIST")),
    Role("roof_frame", "frame of a roof window", ifc=("IfcWindow", "SKYLIGHT")),
    Role("roof_glass", "glass of a roof window", ifc=("IfcWindow", "SKYLIGHT")),
    Role("roofing", "roof covering", ifc=("IfcCovering", "ROOFING"), drag="level", overhangs=True),
    Role("rough_sill", "rough sill", ifc=("IfcMember", "MEMBER"), beyond="when cut"),
    Role("sheathing", "sheathing", ifc=("IfcPlate", "SHEET"), drag="level", beyond="when cut"),
    Role("sill_plate", "sill plate", ifc=("IfcMember", "PLATE"), beyond="when cut"),
    Role("slab", "suspended slab", ifc=("IfcSlab", "FLOOR")),
    Role("slab_edge", "edge of a slab", ifc=("IfcFooting", "STRIP_FOOTING"), below_ground=True),
    Role("soffit", "soffit", ifc=("IfcCovering", "CEILING")),
    Role("stem", "foundation wall", ifc=("IfcFooting", "FOOTING_BEAM"), below_ground=True),
    Role("steps", "steps", ifc=("IfcStair", None), drag="move_steps"),
    Role("structure", "structure", ifc=("IfcSlab", None), drag="level", below_ground=True),
    Role("stud", "stud", ifc=("IfcMember", "STUD"), beyond="when cut"),
    Role("trimmer_joist", "trimmer joist", ifc=("IfcBeam", "JOIST"), beyond="as a member"),
    Role("trimmer", "trimmer", ifc=("IfcMember", "RAFTER"), beyond="as a member"),
    Role("upstand", "upstand of a slab", ifc=("IfcBeam", "BEAM")),
    Role("valley_flashing", "valley flashing", ifc=("IfcCovering", "ROOFING")),
    Role("valley_rafter", "valley rafter", ifc=("IfcMember", "RAFTER"), beyond="as a member"),
    Role("vent", "roof vent", ifc=("IfcAirTerminal", None), upright=True),
    Role("wall_plate", "wall plate", ifc=("IfcMember", "PLATE")),
)
IN_BUILD_UPS = (
    Role("baffle", "baffle", ifc=("IfcCovering", None), beyond="when cut"),
    Role("collar_tie", "collar tie", ifc=("IfcMember", "MEMBER"), beyond="as a member"),
    Role("fixing", "fixing", ifc=("IfcMechanicalFastener", None), beyond="when cut"),
    Role("flashing", "flashing", ifc=("IfcCovering", "ROOFING"), beyond="when cut"),
    Role("foam", "foam", ifc=("IfcCovering", "INSULATION"), beyond="when cut"),
    Role("frieze", "frieze board", ifc=("IfcCovering", "MOLDING"), group="trims"),
    Role("sealant", "sealant", ifc=("IfcCovering", None), beyond="when cut"),
    Role("strip", "strip", ifc=("IfcMember", "MEMBER"), beyond="when cut"),
    Role("sub_fascia", "sub-fascia", ifc=("IfcMember", "MEMBER"), beyond="as a member"),
    Role("tape", "tape", ifc=("IfcCovering", "MEMBRANE"), beyond="when cut"),
    Role("vent_strip", "vent strip", ifc=("IfcAirTerminal", None), beyond="when cut"),
)
"""What only build-ups have."""
IN_STAIRS = (
    Role("balusters", "balusters", ifc=("IfcRailing", "BALUSTRADE"), upright=True),
    Role("carriage", "cut string", ifc=("IfcMember", "STRINGER")),
    Role("handrail", "handrail", ifc=("IfcRailing", "HANDRAIL")),
    Role("landing_frame", "frame of a landing", ifc=("IfcBeam", "JOIST")),
    Role("newel", "newel", ifc=("IfcMember", "POST"), upright=True),
    Role("riser", "riser", ifc=("IfcPlate", "SHEET")),
    Role("stair_flight", "flight", ifc=("IfcStairFlight", "STRAIGHT")),
    Role("stair_landing", "landing", ifc=("IfcSlab", "LANDING")),
    Role("stair_panel", "panel below a stair", ifc=("IfcCovering", "CLADDING")),
    Role("string", "string", ifc=("IfcMember", "STRINGER")),
    Role("tread", "tread", ifc=("IfcPlate", "SHEET")),
)
"""What stairs are made of."""
IN_UNITS = (
    Role("bar", "glazing bar", fine=True, opens=True),
    Role("frame", "frame of a window or door", fine=True),
    Role("glass", "glass", fine=True, opens=True),
    Role("leaf", "door leaf", fine=True, opens=True),
    Role("louvre", "louvres"),
    Role("panel", "panel", fine=True, opens=True),
    Role("reveal", "reveal board", fine=True),
    Role("sash", "sash", fine=True, opens=True),
    Role("shutter", "shutter", group="trims"),
    Role("sill", "sill", fine=True),
    Role("threshold", "threshold"),
    Role("trim", "trim", group="trims", fine=True),
)
"""What a window or door, and what is around it, is made of."""

ROLES = {role.id: role for role in (*IN_BUILDING, *IN_BUILD_UPS, *IN_STAIRS, *IN_UNITS)}
"""Every role by its id."""
