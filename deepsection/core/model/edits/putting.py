"""Edits that add an element or replace it whole, by id, and those of the project itself."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ...units import Units
from ..drawn import ElevationView, Note, SectionLine, Sheet, ViewShow
from ..elements import (
    Ceiling,
    ConstructionLine,
    Floor,
    Foundation,
    GridLine,
    Joint,
    MakeUp,
    RoofBlock,
    Room,
    Rung,
    Wall,
)
from ..ground import GroundSpot, GroundStep
from ..onroofs import Chimney, Downpipe, RoofFitting
from ..openings import Kind, Opening
from ..posts import Beam, Post
from ..project import Project
from ..values import Element, Name
from .heights import keep_locked
from .rebuilding import put, rebuild


class PutElement(Element):
    """An element added, or replaced by its id."""

    def apply(self, project: Project) -> Project:
        """The project with this element added, or replaced by id. Raises: RefusedEdit."""
        return put(project, getattr(self, self.__class__._carries()))

    @classmethod
    def _carries(cls) -> str:
        return next(name for name in cls.model_fields if name != "kind")


class PutMakeUp(PutElement):
    kind: Literal["put_make_up"] = "put_make_up"
    make_up: MakeUp

    def apply(self, project: Project) -> Project:
        """The project with the make-up; locked heights that count its layers keep their totals. Raises: RefusedEdit."""
        return keep_locked(project, super().apply(project))


class PutRung(PutElement):
    kind: Literal["put_rung"] = "put_rung"
    rung: Rung


class PutJoint(PutElement):
    kind: Literal["put_joint"] = "put_joint"
    joint: Joint


class PutWall(PutElement):
    kind: Literal["put_wall"] = "put_wall"
    wall: Wall


class PutKind(PutElement):
    kind: Literal["put_kind"] = "put_kind"
    design: Kind


class PutOpening(PutElement):
    kind: Literal["put_opening"] = "put_opening"
    opening: Opening


class PutPost(PutElement):
    kind: Literal["put_post"] = "put_post"
    post: Post


class PutBeam(PutElement):
    kind: Literal["put_beam"] = "put_beam"
    beam: Beam


class PutRoom(PutElement):
    kind: Literal["put_room"] = "put_room"
    room: Room


class PutConstruction(PutElement):
    kind: Literal["put_construction"] = "put_construction"
    line: ConstructionLine


class PutGrid(PutElement):
    kind: Literal["put_grid"] = "put_grid"
    line: GridLine


class PutGroundSpot(PutElement):
    kind: Literal["put_ground_spot"] = "put_ground_spot"
    spot: GroundSpot


class PutGroundStep(PutElement):
    kind: Literal["put_ground_step"] = "put_ground_step"
    step: GroundStep


class PutRoof(PutElement):
    kind: Literal["put_roof"] = "put_roof"
    roof: RoofBlock


class PutChimney(PutElement):
    kind: Literal["put_chimney"] = "put_chimney"
    chimney: Chimney


class PutFitting(PutElement):
    kind: Literal["put_fitting"] = "put_fitting"
    fitting: RoofFitting


class PutDownpipe(PutElement):
    kind: Literal["put_downpipe"] = "put_downpipe"
    pipe: Downpipe


class PutFoundation(PutElement):
    kind: Literal["put_foundation"] = "put_foundation"
    foundation: Foundation


class PutFloor(PutElement):
    kind: Literal["put_floor"] = "put_floor"
    floor: Floor


class PutCeiling(PutElement):
    kind: Literal["put_ceiling"] = "put_ceiling"
    ceiling: Ceiling


class PutSection(PutElement):
    kind: Literal["put_section"] = "put_section"
    section: SectionLine


class PutElevation(PutElement):
    kind: Literal["put_elevation"] = "put_elevation"
    elevation: ElevationView


class PutShow(PutElement):
    kind: Literal["put_show"] = "put_show"
    show: ViewShow


class PutNote(PutElement):
    kind: Literal["put_note"] = "put_note"
    note: Note


class PutSheet(PutElement):
    kind: Literal["put_sheet"] = "put_sheet"
    sheet: Sheet


class SetProject(Element):
    """Name, place, author, units or working scale of the project."""

    kind: Literal["set_project"] = "set_project"
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
