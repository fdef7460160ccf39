"""The document and its edits: frozen values, no geometry engine."""

from .bands import Band, Bands, bearing_layer, drift_of, layer_bands, outline_reach, outward_of
from .declaring import PartGroup
from .documents import (
    dump_project,
    load_project,
)
from .drawn import Anchor, Annotation, ElevationView, Note, PlacedView, SectionLine, Sheet, ShowKind, ViewShow
from .edits import (
    EDITS,
    DrawWalls,
    Edit,
    MoveJoint,
    MoveOpening,
    MoveWall,
    Remove,
    SetTerm,
    SetTotal,
    apply_edits,
    changed,
    put,
    rebuild,
)
from .floors import Ceiling, Floor, Foundation
from .ground import GroundSpot, GroundStep
from .lines import ConstructionLine, GridLine
from .makeups import Framing, Layer, MakeUp
from .onroofs import Chimney, Downpipe, RoofFitting
from .openings import (
    DESIGN_FIELDS,
    OPERATIONS,
    Design,
    Kind,
    Opening,
    SetIn,
)
from .outdoors import OutsideSteps, Rail
from .places import (
    along_from_start,
    along_wall,
    corner_point,
    joint_point,
    wall_axis,
    wall_length,
    wall_points,
)
from .posts import Beam, BeamEnd, Post
from .project import (
    SCHEMA_VERSION,
    Project,
)
from .rises import (
    plate_of,
    rise,
    term_value,
)
from .roofs import RAKED, SLOPING, Corner, OverhangFrom, RoofBlock, RoofEdge
from .rooms import Room
from .rungs import BaseRule, LayerRef, LevelRule, Rung, Term
from .values import Element
from .walls import FreeJoint, HostedJoint, Joint, Moulding, PlanSpot, SectionSpot, SetOut, TopRule, TopStep, Wall

__all__ = [
    "DESIGN_FIELDS",
    "EDITS",
    "OPERATIONS",
    "RAKED",
    "SCHEMA_VERSION",
    "SLOPING",
    "Anchor",
    "Annotation",
    "Band",
    "Bands",
    "BaseRule",
    "Beam",
    "BeamEnd",
    "Ceiling",
    "Chimney",
    "ConstructionLine",
    "Corner",
    "Design",
    "Downpipe",
    "DrawWalls",
    "Edit",
    "Element",
    "ElevationView",
    "Floor",
    "Foundation",
    "Framing",
    "FreeJoint",
    "GridLine",
    "GroundSpot",
    "GroundStep",
    "HostedJoint",
    "Joint",
    "Kind",
    "Layer",
    "LayerRef",
    "LevelRule",
    "MakeUp",
    "Moulding",
    "MoveJoint",
    "MoveOpening",
    "MoveWall",
    "Note",
    "Opening",
    "OutsideSteps",
    "OverhangFrom",
    "PartGroup",
    "PlacedView",
    "PlanSpot",
    "Post",
    "Project",
    "Rail",
    "Remove",
    "RoofBlock",
    "RoofEdge",
    "RoofFitting",
    "Room",
    "Rung",
    "SectionLine",
    "SectionSpot",
    "SetIn",
    "SetOut",
    "SetTerm",
    "SetTotal",
    "Sheet",
    "ShowKind",
    "Term",
    "TopRule",
    "TopStep",
    "ViewShow",
    "Wall",
    "along_from_start",
    "along_wall",
    "apply_edits",
    "bearing_layer",
    "changed",
    "corner_point",
    "drift_of",
    "dump_project",
    "joint_point",
    "layer_bands",
    "load_project",
    "outline_reach",
    "outward_of",
    "plate_of",
    "put",
    "rebuild",
    "rise",
    "term_value",
    "wall_axis",
    "wall_length",
    "wall_points",
]
