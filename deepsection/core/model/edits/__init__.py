"""Edits: typed commands, each a pure function from project to project.

The union `Edit` is told apart by `kind`. New ids arrive in the edit, so that applying it twice to
one project gives one result. What the document cannot hold is refused here; what the building
cannot be is a diagnostic of the building.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Annotated, Any

from pydantic import Field, TypeAdapter, ValidationError

from ...errors import DeepSectionError
from ..motion import Motion
from ..project import Project
from .aligning import AlignWall
from .arranging import (
    CentreOpening,
    CopyOpening,
    MirrorOpening,
    RepeatOpening,
    SpreadOpenings,
    copies_of,
)
from .bays import AddBay, ClearConstruction, OffsetWall
from .bending import BendWall, StraightenWall
from .dormers import AddDormer
from .fitting import AddOnRoof
from .heights import AddRung, SetTerm, SetTotal
from .lining import CentreUnderGable, LineUpOpenings, SpaceOpenings, gable_peak
from .openings import ClearExceptions, FollowKind, MakeKind, MoveOpening, ResizeOpening
from .outdoors import AddRail, AddSteps, PutOutsideSteps, PutRail
from .outlines import DrawOutline
from .proposing import ProposeRoof
from .putting import (
    PutBeam,
    PutCeiling,
    PutChimney,
    PutConstruction,
    PutDownpipe,
    PutElevation,
    PutFitting,
    PutFloor,
    PutFoundation,
    PutGrid,
    PutGroundSpot,
    PutGroundStep,
    PutJoint,
    PutKind,
    PutMakeUp,
    PutNote,
    PutOpening,
    PutPost,
    PutRoof,
    PutRoom,
    PutRung,
    PutSection,
    PutSheet,
    PutShow,
    PutWall,
    SetProject,
)
from .rebuilding import changed, put, rebuild, refusal
from .removing import Remove
from .roofs import DrawRoof, MoveRidge, MoveRoofEdge, SetRoofEdge, SteepenRoof
from .rounding import RoundCorner
from .showing import CopyShow, SetAnnotation
from .splitting import ReverseWall, SplitWall, split_at
from .storeys import (
    AddStorey,
    Copied,
    PartCorners,
    RemoveStorey,
    floor_terms,
    parted_corners,
    storey_above,
)
from .transforming import Transform
from .walls import DrawWalls, FlipWall, MoveJoint, MoveWall, SetWallLength, UseMakeUp

Edit = Annotated[
    PutMakeUp
    | PutRung
    | PutJoint
    | PutWall
    | PutKind
    | PutOpening
    | PutPost
    | PutOutsideSteps
    | PutRail
    | AddSteps
    | AddRail
    | PutBeam
    | PutRoom
    | PutConstruction
    | PutGrid
    | PutGroundSpot
    | PutGroundStep
    | PutRoof
    | PutChimney
    | PutFitting
    | PutDownpipe
    | PutFoundation
    | PutFloor
    | PutCeiling
    | PutSection
    | PutElevation
    | PutShow
    | SetAnnotation
    | CopyShow
    | PutNote
    | PutSheet
    | SetProject
    | DrawWalls
    | DrawOutline
    | DrawRoof
    | ProposeRoof
    | AddDormer
    | AddOnRoof
    | SetRoofEdge
    | MoveRoofEdge
    | MoveRidge
    | SteepenRoof
    | MoveJoint
    | MoveWall
    | Transform
    | AlignWall
    | RoundCorner
    | SetWallLength
    | FlipWall
    | SplitWall
    | ReverseWall
    | AddBay
    | OffsetWall
    | ClearConstruction
    | BendWall
    | StraightenWall
    | UseMakeUp
    | ResizeOpening
    | MoveOpening
    | FollowKind
    | ClearExceptions
    | MakeKind
    | RepeatOpening
    | SpreadOpenings
    | CentreOpening
    | MirrorOpening
    | CopyOpening
    | LineUpOpenings
    | SpaceOpenings
    | CentreUnderGable
    | SetTerm
    | SetTotal
    | AddRung
    | AddStorey
    | RemoveStorey
    | PartCorners
    | Remove,
    Field(discriminator="kind"),
]

EDITS: TypeAdapter[Any] = TypeAdapter(tuple[Edit, ...])


def apply_edits(project: Project, edits: Iterable[Any]) -> Project:
    """The project after a group of edits: all of them, or an error and none.

    Raises: RefusedEdit, UnknownElement.
    """
    for edit in edits:
        try:
            project = edit.apply(project)
        except DeepSectionError:
            raise
        except ValidationError as error:
            raise refusal(error) from error
    return project


__all__ = [
    "EDITS",
    "AddBay",
    "AddDormer",
    "AddOnRoof",
    "AddRail",
    "AddRung",
    "AddSteps",
    "AddStorey",
    "AlignWall",
    "BendWall",
    "CentreOpening",
    "CentreUnderGable",
    "ClearConstruction",
    "ClearExceptions",
    "Copied",
    "CopyOpening",
    "CopyShow",
    "DrawOutline",
    "DrawRoof",
    "DrawWalls",
    "Edit",
    "FlipWall",
    "FollowKind",
    "LineUpOpenings",
    "MakeKind",
    "MirrorOpening",
    "Motion",
    "MoveJoint",
    "MoveOpening",
    "MoveRidge",
    "MoveRoofEdge",
    "MoveWall",
    "OffsetWall",
    "PartCorners",
    "ProposeRoof",
    "PutBeam",
    "PutCeiling",
    "PutChimney",
    "PutConstruction",
    "PutDownpipe",
    "PutElevation",
    "PutFitting",
    "PutFloor",
    "PutFoundation",
    "PutGrid",
    "PutGroundSpot",
    "PutGroundStep",
    "PutJoint",
    "PutKind",
    "PutMakeUp",
    "PutNote",
    "PutOpening",
    "PutOutsideSteps",
    "PutPost",
    "PutRail",
    "PutRoof",
    "PutRoom",
    "PutRung",
    "PutSection",
    "PutSheet",
    "PutShow",
    "PutWall",
    "Remove",
    "RemoveStorey",
    "RepeatOpening",
    "ResizeOpening",
    "ReverseWall",
    "RoundCorner",
    "SetAnnotation",
    "SetProject",
    "SetRoofEdge",
    "SetTerm",
    "SetTotal",
    "SetWallLength",
    "SpaceOpenings",
    "SplitWall",
    "SpreadOpenings",
    "SteepenRoof",
    "StraightenWall",
    "Transform",
    "UseMakeUp",
    "apply_edits",
    "changed",
    "copies_of",
    "floor_terms",
    "gable_peak",
    "parted_corners",
    "put",
    "rebuild",
    "refusal",
    "split_at",
    "storey_above",
]
