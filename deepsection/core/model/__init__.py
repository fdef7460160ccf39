"""The document: frozen values, no geometry engine."""

from ..document.anchors import Anchor, GridAnchor, JointAnchor, LevelAnchor, PartAnchor, PointAnchor
from ..document.declaring import PartGroup
from ..document.values import Element
from ..trades.backgrounds.model import Background, ModelBody
from ..trades.buildups.model import BuildUpSetting, ParameterValue, PieceSwitch
from ..trades.ceilings.model import Ceiling
from ..trades.comments.model import Comment
from ..trades.decks.model import Deck, DeckCorner
from ..trades.drawings.model import (
    Annotation,
    Detail,
    DetailEnd,
    Dimensioning,
    ElevationView,
    InsideBreak,
    Note,
    PlacedView,
    SectionLine,
    SectionStep,
    Sheet,
    ShowKind,
    StringShow,
    StripBreak,
    ViewShow,
    WallSection,
)
from ..trades.floors.model import Floor, FloorHole, Joisted
from ..trades.foundations.model import Foundation, FoundationStep, SetDown
from ..trades.ground.model import GroundSpot, GroundStep
from ..trades.levels.model import BaseRule, LayerRef, LevelRule, Rung, Term
from ..trades.levels.rises import plate_of, rise, term_value
from ..trades.lines.model import ConstructionLine, GridLine
from ..trades.lofts.model import LoftHatch
from ..trades.makeups.model import Framing, Layer, MakeUp, Profile, Sheets
from ..trades.onroofs.model import Chimney, Downpipe, RoofFitting
from ..trades.openings.model import DESIGN_FIELDS, OPERATIONS, Design, Kind, Opening, SetIn
from ..trades.outdoors.model import OutsideSteps, Rail
from ..trades.posts.model import Beam, BeamEnd, Pad, Post
from ..trades.readings.model import MOST_READ, PlanRead, ReadOpening, ReadWall
from ..trades.roofs.model import RAKED, SLOPING, Corner, OverhangFrom, RoofBlock, RoofEdge
from ..trades.rooms.model import Room
from ..trades.slabs.model import PorchSlab
from ..trades.stairs.model import Stair, StairTurn
from ..trades.walls.bands import Band, Bands, bearing_layer, drift_of, layer_bands, outline_reach, outward_of
from ..trades.walls.model import (
    FreeJoint,
    Joint,
    Moulding,
    PlanSpot,
    SectionSpot,
    SetOut,
    TeeJoint,
    TopRule,
    TopStep,
    Wall,
)
from ..trades.walls.saved_model import SavedWall
from .documents import dump_file, dump_project, load_file, load_project
from .places import (
    OnWall,
    along_from_start,
    along_wall,
    corner_point,
    joint_point,
    standing_on,
    wall_axis,
    wall_length,
    wall_points,
)
from .project import SCHEMA_VERSION, Project

__all__ = [
    "DESIGN_FIELDS",
    "MOST_READ",
    "OPERATIONS",
    "RAKED",
    "SCHEMA_VERSION",
    "SLOPING",
    "Anchor",
    "Annotation",
    "Background",
    "Band",
    "Bands",
    "BaseRule",
    "Beam",
    "BeamEnd",
    "BuildUpSetting",
    "Ceiling",
    "Chimney",
    "Comment",
    "ConstructionLine",
    "Corner",
    "Deck",
    "DeckCorner",
    "Design",
    "Detail",
    "DetailEnd",
    "Dimensioning",
    "Downpipe",
    "Element",
    "ElevationView",
    "Floor",
    "FloorHole",
    "Foundation",
    "FoundationStep",
    "Framing",
    "FreeJoint",
    "GridAnchor",
    "GridLine",
    "GroundSpot",
    "GroundStep",
    "InsideBreak",
    "Joint",
    "JointAnchor",
    "Joisted",
    "Kind",
    "Layer",
    "LayerRef",
    "LevelAnchor",
    "LevelRule",
    "LoftHatch",
    "MakeUp",
    "ModelBody",
    "Moulding",
    "Note",
    "OnWall",
    "Opening",
    "OutsideSteps",
    "OverhangFrom",
    "Pad",
    "ParameterValue",
    "PartAnchor",
    "PartGroup",
    "PieceSwitch",
    "PlacedView",
    "PlanRead",
    "PlanSpot",
    "PointAnchor",
    "PorchSlab",
    "Post",
    "Profile",
    "Project",
    "Rail",
    "ReadOpening",
    "ReadWall",
    "RoofBlock",
    "RoofEdge",
    "RoofFitting",
    "Room",
    "Rung",
    "SavedWall",
    "SectionLine",
    "SectionSpot",
    "SectionStep",
    "SetDown",
    "SetIn",
    "SetOut",
    "Sheet",
    "Sheets",
    "ShowKind",
    "Stair",
    "StairTurn",
    "StringShow",
    "StripBreak",
    "TeeJoint",
    "Term",
    "TopRule",
    "TopStep",
    "ViewShow",
    "Wall",
    "WallSection",
    "along_from_start",
    "along_wall",
    "bearing_layer",
    "corner_point",
    "drift_of",
    "dump_file",
    "dump_project",
    "joint_point",
    "layer_bands",
    "load_file",
    "load_project",
    "outline_reach",
    "outward_of",
    "plate_of",
    "rise",
    "standing_on",
    "term_value",
    "wall_axis",
    "wall_length",
    "wall_points",
]
