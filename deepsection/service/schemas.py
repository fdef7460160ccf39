"""Shapes of the API. Drawings, snaps, particulars and ladders are declared in the core and used as they are."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from deepsection.core.document.declaring import State as ElementState
from deepsection.core.document.values import Id, Name
from deepsection.core.drawing import Drawing
from deepsection.core.edits import Edit
from deepsection.core.model import Project, WallSection
from deepsection.core.particulars import LadderRung, SumTable
from deepsection.core.particulars.own_heights import OwnHeight
from deepsection.core.starters.projects import Ground
from deepsection.core.trades.makeups.model import Tradition
from deepsection.core.units import Units
from deepsection.core.view import SlopeTriangle, Snaps

Version = Annotated[int, Field(ge=0, le=2**53)]
"""The number of a version, as a caller names it: what a database and a browser can count."""


class Shape(BaseModel):
    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class Problem(BaseModel):
    """An error, as RFC 9457 problem details with the place of the mistake."""

    type: str
    title: str
    status: int
    detail: str
    element: str | None = None
    field: str | None = None
    value: str | float | None = None
    limit: str | float | None = None


class ViewWanted(Shape):
    """A view to draw: by name, at a scale (the project's when none is given); `look_deg` turns the plan.

    `have`: the digest of the drawing of it that the screen holds, so that the answer may tell only what changed.
    """

    name: str = Field(min_length=1, max_length=80)
    scale: float | None = Field(default=None, ge=1, le=2000)
    look_deg: float | None = Field(default=None, ge=-360, le=360)
    have: str | None = Field(default=None, max_length=64)


class ProjectItem(BaseModel):
    """A project in the list."""

    id: str
    name: str
    version: int
    changed: datetime
    archived: bool = False


class ProjectChange(Shape):
    """Another name for a project, or whether it is archived."""

    name: Name | None = None
    archived: bool | None = None


class HistoryItem(BaseModel):
    """A version in the history, in words; `mark` is the name it was given."""

    version: int
    words: str
    made: datetime
    mark: str | None


class MarkIn(Shape):
    """A name for a point in the history; none takes it away."""

    mark: Name | None = None


class BackIn(Shape):
    """A version to go back to; none: the last one of which everything can be drawn."""

    base_version: Version
    version: Version | None = None
    views: list[ViewWanted] = []


class MakeUpIn(Shape):
    """A make-up of another project to copy into this one."""

    base_version: Version
    project: str
    make_up: str
    views: list[ViewWanted] = []


class SavedWallIn(Shape):
    """A saved wall of another project to copy into this one."""

    base_version: Version
    project: str
    saved_wall: str
    views: list[ViewWanted] = []


class PlaceIn(Shape):
    """A view to place on a sheet, where there is room."""

    base_version: Version
    view: str
    scale: float = Field(ge=1, le=2000)
    views: list[ViewWanted] = []


class NoteIn(Shape):
    """A note to tie to what lies at a place (real mm) of a view; `of` is the part or the element of the mark there.

    One that there is already keeps its words when none are given. `look_deg` is how the plan is turned.
    """

    base_version: Version
    id: Id
    view: Name
    of: str = Field(default="", max_length=400)
    u: float = Field(allow_inf_nan=False)
    v: float = Field(allow_inf_nan=False)
    look_deg: float | None = Field(default=None, ge=-720, le=720)
    text: str = Field(default="", max_length=400)
    views: list[ViewWanted] = []


class FigureIn(Shape):
    """Another length for the figure of a string, by its key in a view drawn at a scale: what it runs to moves."""

    base_version: Version
    view: Name
    key: str = Field(max_length=200)
    text: str = Field(max_length=200)
    scale: float = Field(ge=1, le=2000)
    look_deg: float | None = Field(default=None, ge=-720, le=720)
    views: list[ViewWanted] = []


class NewProject(Shape):
    """What a new project needs."""

    name: Name
    units: Units
    tradition: Tradition = "timber"
    ground: Ground = "slab"


class EditsIn(Shape):
    """A group of edits: one step of undo."""

    base_version: Version
    edits: list[Edit] = Field(min_length=1, max_length=500)
    views: list[ViewWanted] = []


class Typed(Shape):
    """A text typed into a field of an element, and of others like it that are selected with it."""

    element: str
    others: list[str] = Field(default=[], max_length=500)
    field: str
    text: str = Field(max_length=2000)


class EntryIn(Typed):
    """A typed text to take."""

    base_version: Version
    views: list[ViewWanted] = []


class StepIn(Shape):
    """Undo or redo from a version."""

    base_version: Version
    views: list[ViewWanted] = []


class AskIn(StepIn):
    """A structural plan to be sent to the engineer; or the answer to it, as the text of a file."""

    view: Annotated[str, Field(max_length=120)]
    answer: Annotated[str, Field(max_length=500_000)] | None = None


class PreviewIn(Shape):
    """Edits, or a typed text, to show and not to keep; the latest sequence number wins.

    `draft`: section lines alone are dragged: sections show what they cut, and the rest once they rest.
    """

    base_version: Version
    sequence: int = Field(ge=0, le=2**53)
    edits: list[Edit] = Field(default=[], max_length=500)
    entry: Typed | None = None
    draft: bool = False
    views: list[ViewWanted]


class ViewsIn(Shape):
    """Views to draw of the latest version."""

    views: list[ViewWanted]


class Finding(BaseModel):
    """Something wrong with the building, and where."""

    code: str
    message: str
    severity: Literal["blocking", "warning"]
    element: str
    field: str | None = None
    source: str | None = None


class ViewItem(BaseModel):
    """A view that a project has; `over_files`: backgrounds may lie under it."""

    name: str
    title: str
    look_deg: float
    over_files: bool


class ElementItem(BaseModel):
    """An element of a project: its name, the collection that holds it, and what may be done with it."""

    id: str
    name: str
    kind: str
    movable: bool = False
    removable: bool = False
    hideable: bool = False
    state: ElementState = "new"


class StoreyItem(BaseModel):
    """A level on which walls stand: its plate, and the name of its plan."""

    level: str
    name: str
    plate: str | None
    plan: str


class State(BaseModel):
    """A saved version of a project; `scales` are the usual ones, in which the bench asks for its drawings."""

    id: str
    version: int
    saved: datetime
    undo: str | None
    redo: str | None
    project: Project
    views: list[ViewItem]
    storeys: list[StoreyItem]
    elements: list[ElementItem]
    scales: list[float]


@dataclass(frozen=True, slots=True)
class DrawingOut(Drawing):
    """A drawing and the digest of its marks.

    With `steps` its marks are only the new ones beside those of the drawing that the screen holds: each step takes so
    many of these from a place on, then so many new ones (place, kept, new).
    """

    digest: str = ""
    steps: tuple[tuple[int, int, int], ...] | None = None


class Bench(BaseModel):
    """What the bench shows: drawings, what to snap to, the height ladder, sums, findings."""

    version: int
    sequence: int = 0
    drawings: list[DrawingOut]
    snaps: Snaps
    ladder: list[LadderRung]
    sums: list[SumTable]
    own_heights: list[OwnHeight]
    triangles: list[SlopeTriangle]
    findings: list[Finding]


class Result(BaseModel):
    """A new version with the views that were asked for."""

    state: State
    bench: Bench


class SolidGroup(BaseModel):
    """The outside parts of one element, role and material as triangles: x, y, z of points (mm), three points each."""

    element: str
    role: str
    material: str
    points: list[float]
    triangles: list[int]


class Solids(BaseModel):
    """What the solid view shows of a version."""

    version: int
    grade: float
    groups: list[SolidGroup]


class Length(BaseModel):
    """A typed length, read: its value in mm and how it is written, or what is wrong with it."""

    value: float | None = None
    text: str = ""
    wrong: str | None = None


class PlacedItem(BaseModel):
    """A view on a sheet with its box on paper (mm, y up)."""

    id: str
    view: str
    title: str
    scale: float
    scale_name: str
    x0: float
    y0: float
    x1: float
    y1: float


class ScaleItem(BaseModel):
    """A drawing scale to choose."""

    scale: float
    name: str


class SheetMessage(BaseModel):
    """What does not fit on a sheet."""

    placed: str
    message: str


class SheetOut(BaseModel):
    """A sheet as it stands on screen."""

    id: str
    version: int
    number: str
    name: str
    paper: str
    width: float
    height: float
    placed: list[PlacedItem]
    messages: list[SheetMessage]
    scales: list[ScaleItem]
    papers: list[str]


class UsualPlace(BaseModel):
    """A wall section that would be usual, and what it would show."""

    wall_section: WallSection
    shows: str
