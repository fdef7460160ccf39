"""Edits: typed commands, each a pure function from project to project.

The union `Edit` holds every command that the trades declare, told apart by `kind`. New ids arrive in the edit, so
that applying it twice to one project gives one result. What the document cannot hold is refused here; what the
building cannot be is a diagnostic of the building.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from functools import reduce
from operator import or_
from typing import TYPE_CHECKING, Annotated, Any

from pydantic import Field, TypeAdapter, ValidationError

from ..document.command import Command
from ..document.motion import Motion
from ..document.rebuilding import changed, put, rebuild, refusal
from ..errors import DeepSectionError
from ..model.project import Project
from ..trades.backgrounds.edits import (
    CropBackground,
    LayBackground,
    PutBackground,
    PutModelBody,
    ScaleBackground,
    Spot,
    StraightenBackground,
)
from ..trades.buildups.edits import PutBuildUpSetting
from ..trades.ceilings.edits import PutCeiling
from ..trades.comments.edits import PutComment, Said, TakeComments
from ..trades.decks.edits import CarryDeck, DrawDeck, PutDeck, RailDeck
from ..trades.decks.level_edits import LevelDeck
from ..trades.decks.step_edits import StepDeck
from ..trades.drawings.edits import (
    CopyShow,
    PutDetail,
    PutElevation,
    PutNote,
    PutSection,
    PutSheet,
    PutShow,
    PutWallSection,
    SetAnnotation,
    SetString,
    TidyLettering,
)
from ..trades.floors.edits import PutFloor, PutFloorHole, TurnJoists
from ..trades.floors.lay_edits import LayFloor, floor_terms
from ..trades.foundations.edits import DrawSetDown, PutFoundation, PutFoundationStep, PutSetDown
from ..trades.ground.edits import PutGroundSpot, PutGroundStep
from ..trades.levels.edits import AddRung, PutRung, SetTerm, SetTotal
from ..trades.lines.edits import PutConstruction, PutGrid
from ..trades.lofts.edits import DrawLoftHatch, PutLoftHatch
from ..trades.makeups.edits import PutMakeUp
from ..trades.onroofs.edits import AddOnRoof, PutChimney, PutDownpipe, PutFitting
from ..trades.openings.edits.arranging import (
    CentreOpening,
    CopyOpening,
    MirrorOpening,
    RepeatOpening,
    SpreadOpenings,
    copies_of,
)
from ..trades.openings.edits.lining import CentreUnderGable, LineUpOpenings, SpaceOpenings, gable_peak
from ..trades.openings.edits.openings import (
    ClearExceptions,
    FollowKind,
    MakeKind,
    MoveOpening,
    PutKind,
    PutOpening,
    ResizeOpening,
)
from ..trades.outdoors.edits import AddRail, AddSteps, PutOutsideSteps, PutRail
from ..trades.posts.edits import PutBeam, PutPost
from ..trades.readings.edits import PutPlanRead
from ..trades.roofs.edits.dormers import AddDormer
from ..trades.roofs.edits.proposing import ProposeRoof
from ..trades.roofs.edits.roofs import DrawRoof, MoveRidge, MoveRoofEdge, PutRoof, SetRoofEdge, SteepenRoof
from ..trades.rooms.edits import PutRoom
from ..trades.slabs.edits import DrawPorchSlab, PutPorchSlab
from ..trades.stairs.edits import DrawStair, PutStair
from ..trades.walls.edits.aligning import AlignWall
from ..trades.walls.edits.bays import AddBay, ClearConstruction, OffsetWall
from ..trades.walls.edits.bending import BendWall, StraightenWall
from ..trades.walls.edits.outlines import DrawOutline
from ..trades.walls.edits.rounding import RoundCorner
from ..trades.walls.edits.splitting import ReverseWall, SplitWall, split_at
from ..trades.walls.edits.walls import (
    DrawWalls,
    FlipWall,
    JointAt,
    MoveJoint,
    MoveJoints,
    MoveWall,
    PutJoint,
    PutWall,
    SetWallLength,
    UseMakeUp,
)
from ..trades.walls.saved_edits import PutSavedWall, SaveWall, UseSavedWall
from .project import SetProject
from .removing import Remove
from .states import SetState
from .storeys import AddStorey, Copied, PartCorners, RemoveStorey, parted_corners, storey_above
from .transforming import Transform


def _commands(base: type[Command]) -> Iterator[type[Command]]:
    """Every edit below a class: those that have a `kind`."""
    for held in base.__subclasses__():
        if "kind" in held.model_fields:
            yield held
        yield from _commands(held)


COMMANDS: tuple[type[Command], ...] = tuple(sorted(_commands(Command), key=lambda held: held.__name__))
"""Every edit that the trades declare."""

_ANY_OF_THEM: Any = reduce(or_, COMMANDS)

if TYPE_CHECKING:
    Edit = Command
else:
    Edit = Annotated[_ANY_OF_THEM, Field(discriminator="kind")]

EDITS: TypeAdapter[Any] = TypeAdapter(tuple[Edit, ...])


def describe(edits: Sequence[Any], project: Project) -> str:
    """What a group of edits does, in a few words: `move W1`."""
    words: str = edits[0].words(project) if edits else "nothing"
    return words


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
    "COMMANDS",
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
    "CarryDeck",
    "CentreOpening",
    "CentreUnderGable",
    "ClearConstruction",
    "ClearExceptions",
    "Command",
    "Copied",
    "CopyOpening",
    "CopyShow",
    "CropBackground",
    "DrawDeck",
    "DrawLoftHatch",
    "DrawOutline",
    "DrawPorchSlab",
    "DrawRoof",
    "DrawSetDown",
    "DrawStair",
    "DrawWalls",
    "Edit",
    "FlipWall",
    "FollowKind",
    "JointAt",
    "LayBackground",
    "LayFloor",
    "LevelDeck",
    "LineUpOpenings",
    "MakeKind",
    "MirrorOpening",
    "Motion",
    "MoveJoint",
    "MoveJoints",
    "MoveOpening",
    "MoveRidge",
    "MoveRoofEdge",
    "MoveWall",
    "OffsetWall",
    "PartCorners",
    "ProposeRoof",
    "PutBackground",
    "PutBeam",
    "PutBuildUpSetting",
    "PutCeiling",
    "PutChimney",
    "PutComment",
    "PutConstruction",
    "PutDeck",
    "PutDetail",
    "PutDownpipe",
    "PutElevation",
    "PutFitting",
    "PutFloor",
    "PutFloorHole",
    "PutFoundation",
    "PutFoundationStep",
    "PutGrid",
    "PutGroundSpot",
    "PutGroundStep",
    "PutJoint",
    "PutKind",
    "PutLoftHatch",
    "PutMakeUp",
    "PutModelBody",
    "PutNote",
    "PutOpening",
    "PutOutsideSteps",
    "PutPlanRead",
    "PutPorchSlab",
    "PutPost",
    "PutRail",
    "PutRoof",
    "PutRoom",
    "PutRung",
    "PutSavedWall",
    "PutSection",
    "PutSetDown",
    "PutSheet",
    "PutShow",
    "PutStair",
    "PutWall",
    "PutWallSection",
    "RailDeck",
    "Remove",
    "RemoveStorey",
    "RepeatOpening",
    "ResizeOpening",
    "ReverseWall",
    "RoundCorner",
    "Said",
    "SaveWall",
    "ScaleBackground",
    "SetAnnotation",
    "SetProject",
    "SetRoofEdge",
    "SetState",
    "SetString",
    "SetTerm",
    "SetTotal",
    "SetWallLength",
    "SpaceOpenings",
    "SplitWall",
    "Spot",
    "SpreadOpenings",
    "SteepenRoof",
    "StepDeck",
    "StraightenBackground",
    "StraightenWall",
    "TakeComments",
    "TidyLettering",
    "Transform",
    "TurnJoists",
    "UseMakeUp",
    "UseSavedWall",
    "apply_edits",
    "changed",
    "copies_of",
    "describe",
    "floor_terms",
    "gable_peak",
    "parted_corners",
    "put",
    "rebuild",
    "refusal",
    "split_at",
    "storey_above",
]
