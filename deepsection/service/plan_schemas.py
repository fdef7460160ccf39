"""Shapes of the API for plans that are read from files."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel

from deepsection.core.reading import Meaning

from .schemas import State

Spot = tuple[float, float]


class PlanUnit(BaseModel):
    """The unit of a file: mm per unit, how sure that is, why; doubtful ones are asked for."""

    name: str
    factor: float
    confidence: float
    reason: str
    doubtful: bool


class PlanWall(BaseModel):
    """A wall that was found, with its outline to be shown (mm)."""

    start: Spot
    end: Spot
    bulge: float
    thickness: float
    length: float
    group: str
    outer: bool
    confidence: float
    reason: str
    storey: int | None
    outline: list[Spot]
    stands: bool


class PlanOpening(BaseModel):
    """An opening that was found in a wall."""

    wall: int
    distance: float
    width: float
    kind: Literal["window", "door", "opening"]
    number: str
    confidence: float
    reason: str
    outline: list[Spot]
    stands: bool


class PlanRoom(BaseModel):
    """A name of a room, and the area stated beside it (m2)."""

    name: str
    at: Spot
    area: float | None


class PlanGrid(BaseModel):
    """A grid line."""

    label: str
    start: Spot
    end: Spot


class PlanStair(BaseModel):
    """A stair that was found: its flights by their outlines, the middle of its first riser, the way up (degrees)."""

    outlines: list[list[Spot]]
    foot: Spot
    turn: float
    risers: int
    width: float
    going: float
    confidence: float
    reason: str
    built: bool


class PlanRoof(BaseModel):
    """A roof of a model, seen from above."""

    outline: list[Spot]
    slopes: int


class PlanHeight(BaseModel):
    """A height that is written in a plan."""

    text: str
    at: Spot


class PlanNorth(BaseModel):
    """Where north is: degrees clockwise from up, and where that is drawn."""

    angle: float
    at: Spot


class PlanTurn(BaseModel):
    """A way to lay a plan: what that does, in words, and the turn (degrees counter-clockwise)."""

    words: str
    degrees: float


class PlanDimension(BaseModel):
    """A dimension: what its text says beside what is drawn (mm)."""

    text: str
    stated: float
    measured: float
    difference: float
    at: Spot


class PlanLeft(BaseModel):
    """What nothing was made of, by layer."""

    layer: str
    what: str
    count: int


class PlanLayer(BaseModel):
    """A layer, and what it is taken to speak of."""

    name: str
    meaning: Meaning


class PlanGroup(BaseModel):
    """Walls of one thickness, and the make-up proposed: an id, or `as drawn`."""

    key: str
    thickness: float
    outer: bool
    layers: list[float]
    count: int
    length: float
    make_up: str


class PlanMakeUp(BaseModel):
    """A make-up that walls of a plan may get."""

    id: str
    name: str
    thickness: float


class PlanStorey(BaseModel):
    """One of the plans of a file, and the level that its walls will stand on; none where it is left out."""

    title: str
    walls: int
    level: str


class PlanLevel(BaseModel):
    """A level that walls can stand on."""

    level: str
    name: str


class PlanChange(BaseModel):
    """A wall or an opening of the project that the file has elsewhere, or not at all; the points along where it is."""

    id: str
    kind: Literal["wall", "opening"]
    words: str
    line: list[Spot]


class PlanOwn(BaseModel):
    """A wall or an opening of the plan that is as it was, and that the project has otherwise, or not; the points along
    where the plan has it."""

    kind: Literal["wall", "opening"]
    number: int
    words: str
    line: list[Spot]


class PlanLook(BaseModel):
    """What a plan holds, before it is built. `drawn`: x, y, x, y, bulge, layer by position, whether it is left over.

    A `model` says itself in what it counts. `moved` is what of the project lies elsewhere in the file, `gone` what
    the file does not have, `own` what the file has as it had it last and the project has otherwise. `refused`: why it
    cannot be taken over as it is.
    """

    unit: PlanUnit
    origin: Spot
    walls: list[PlanWall]
    model: bool
    moved: list[PlanChange]
    gone: list[PlanChange]
    own: list[PlanOwn]
    openings: list[PlanOpening]
    rooms: list[PlanRoom]
    grids: list[PlanGrid]
    stairs: list[PlanStair]
    levels_written: list[PlanHeight]
    north: PlanNorth | None
    turns: list[PlanTurn]
    roofs: list[PlanRoof]
    dimensions: list[PlanDimension]
    left: list[PlanLeft]
    layers: list[PlanLayer]
    groups: list[PlanGroup]
    make_ups: list[PlanMakeUp]
    storeys: list[PlanStorey]
    levels: list[PlanLevel]
    notes: list[str]
    refused: str
    drawn: list[tuple[float, float, float, float, float, int, bool]]


class PlanProgress(BaseModel):
    """How far the reading of a file is: what is being done, and how much of all is done; nothing while it waits."""

    step: str = ""
    share: float = 0.0


class PlanOut(BaseModel):
    """What was built of a plan that was read from a file, and what was not."""

    state: State
    built: list[str]
    skipped: list[str]
