"""Edits that add an element or replace it whole, by id, and those of the project itself."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import Field

from ...units import Units
from ..drawn import ElevationView, Note, SectionLine, Sheet, ViewShow
from ..floors import Ceiling, Floor, Foundation
from ..ground import GroundSpot, GroundStep
from ..lines import ConstructionLine, GridLine
from ..makeups import MakeUp
from ..onroofs import Chimney, Downpipe, RoofFitting
from ..openings import Kind, Opening
from ..posts import Beam, Post
from ..project import Project
from ..roofs import RoofBlock
from ..rooms import Room
from ..rungs import Rung
from ..values import Name
from ..walls import Joint, Wall
from .command import Command
from .heights import keep_locked
from .rebuilding import put, rebuild


class PutElement(Command):
    """An element added, or replaced by its id."""

    def apply(self, project: Project) -> Project:
        """The project with this element added, or replaced by id. Raises: RefusedEdit."""
        return put(project, getattr(self, self.__class__._carries()))

    @classmethod
    def _carries(cls) -> str:
        return next(name for name in cls.model_fields if name != "kind")


class PutMakeUp(PutElement):
    kind: Literal["put_make_up"] = "put_make_up"
    phrase: ClassVar[str] = "change a make-up"
    make_up: MakeUp

    def apply(self, project: Project) -> Project:
        """The project with the make-up; locked heights that count its layers keep their totals. Raises: RefusedEdit."""
        return keep_locked(project, super().apply(project))


class PutRung(PutElement):
    kind: Literal["put_rung"] = "put_rung"
    phrase: ClassVar[str] = "change a level"
    rung: Rung


class PutJoint(PutElement):
    kind: Literal["put_joint"] = "put_joint"
    phrase: ClassVar[str] = "change a joint"
    joint: Joint


class PutWall(PutElement):
    kind: Literal["put_wall"] = "put_wall"
    phrase: ClassVar[str] = "change a wall"
    wall: Wall


class PutKind(PutElement):
    kind: Literal["put_kind"] = "put_kind"
    phrase: ClassVar[str] = "change the kind {name}"
    adding: ClassVar[str] = "add the kind {name}"
    design: Kind


class PutOpening(PutElement):
    kind: Literal["put_opening"] = "put_opening"
    phrase: ClassVar[str] = "change {name}"
    adding: ClassVar[str] = "place {name}"
    opening: Opening


class PutPost(PutElement):
    kind: Literal["put_post"] = "put_post"
    phrase: ClassVar[str] = "change a post"
    adding: ClassVar[str] = "place a post"
    post: Post


class PutBeam(PutElement):
    kind: Literal["put_beam"] = "put_beam"
    phrase: ClassVar[str] = "change a beam"
    adding: ClassVar[str] = "lay a beam"
    beam: Beam


class PutRoom(PutElement):
    kind: Literal["put_room"] = "put_room"
    phrase: ClassVar[str] = "name a room"
    room: Room


class PutConstruction(PutElement):
    kind: Literal["put_construction"] = "put_construction"
    phrase: ClassVar[str] = "draw a construction line"
    line: ConstructionLine


class PutGrid(PutElement):
    kind: Literal["put_grid"] = "put_grid"
    phrase: ClassVar[str] = "change grid line {name}"
    adding: ClassVar[str] = "draw grid line {name}"
    line: GridLine


class PutGroundSpot(PutElement):
    kind: Literal["put_ground_spot"] = "put_ground_spot"
    phrase: ClassVar[str] = "change a height of the ground"
    adding: ClassVar[str] = "give a height of the ground"
    spot: GroundSpot


class PutGroundStep(PutElement):
    kind: Literal["put_ground_step"] = "put_ground_step"
    phrase: ClassVar[str] = "change a step of the ground"
    adding: ClassVar[str] = "step the ground"
    step: GroundStep


class PutRoof(PutElement):
    kind: Literal["put_roof"] = "put_roof"
    phrase: ClassVar[str] = "change {name}"
    adding: ClassVar[str] = "put on {name}"
    roof: RoofBlock


class PutChimney(PutElement):
    kind: Literal["put_chimney"] = "put_chimney"
    phrase: ClassVar[str] = "change a chimney"
    chimney: Chimney


class PutFitting(PutElement):
    kind: Literal["put_fitting"] = "put_fitting"
    phrase: ClassVar[str] = "change a {name}"
    fitting: RoofFitting


class PutDownpipe(PutElement):
    kind: Literal["put_downpipe"] = "put_downpipe"
    phrase: ClassVar[str] = "change a downpipe"
    pipe: Downpipe


class PutFoundation(PutElement):
    kind: Literal["put_foundation"] = "put_foundation"
    phrase: ClassVar[str] = "change the foundation"
    foundation: Foundation


class PutFloor(PutElement):
    kind: Literal["put_floor"] = "put_floor"
    phrase: ClassVar[str] = "change {name}"
    floor: Floor


class PutCeiling(PutElement):
    kind: Literal["put_ceiling"] = "put_ceiling"
    phrase: ClassVar[str] = "change {name}"
    ceiling: Ceiling


class PutSection(PutElement):
    kind: Literal["put_section"] = "put_section"
    phrase: ClassVar[str] = "change section {name}"
    adding: ClassVar[str] = "draw section {name}"
    section: SectionLine


class PutElevation(PutElement):
    kind: Literal["put_elevation"] = "put_elevation"
    phrase: ClassVar[str] = "change {name}"
    adding: ClassVar[str] = "add {name}"
    elevation: ElevationView


class PutShow(PutElement):
    kind: Literal["put_show"] = "put_show"
    phrase: ClassVar[str] = "change how a view is shown"
    show: ViewShow


class PutNote(PutElement):
    kind: Literal["put_note"] = "put_note"
    phrase: ClassVar[str] = "write a note"
    note: Note


class PutSheet(PutElement):
    kind: Literal["put_sheet"] = "put_sheet"
    phrase: ClassVar[str] = "change sheet {name}"
    adding: ClassVar[str] = "add sheet {name}"
    sheet: Sheet


class SetProject(Command):
    """Name, place, author, units or working scale of the project."""

    kind: Literal["set_project"] = "set_project"
    phrase: ClassVar[str] = "change the project"
    name: Name | None = None
    place: str | None = Field(default=None, max_length=120)
    author: str | None = Field(default=None, max_length=120)
    units: Units | None = None
    scale: float | None = Field(default=None, ge=1, le=2000)

    def apply(self, project: Project) -> Project:
        """The project with what is given replaced."""
        given = {
            name: getattr(self, name)
            for name in ("name", "place", "author", "units", "scale")
            if getattr(self, name) is not None
        }
        return rebuild(project, **given)
