"""What the API says of junctions, and takes of how they are built and of their details."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field

from deepsection.core.trades.drawings.model import LineName

from .schemas import Shape, Version, ViewWanted


class JunctionOut(BaseModel):
    """A junction: the elements that meet, where it is marked (mm), how long it is (mm), the details that cut it."""

    id: str
    elements: list[str]
    at: tuple[float, float, float]
    length: float
    details: list[str]


class FoundOut(BaseModel):
    """What a published rule says of a junction, and its clause; or what is wrong with what was set of it."""

    words: str
    source: str


class BuildUpOption(BaseModel):
    """A build-up for a kind of junction: `why` it does not fit, or nothing where it does."""

    id: str
    name: str
    because: str
    why: str


class ParameterOut(BaseModel):
    """A parameter of a build-up: its value and the usual one as text, its limits, where they come from.

    `own`: whether it was set.
    """

    id: str
    words: str
    text: str
    usual: str
    limits: str
    source: str
    own: bool


class PieceOut(BaseModel):
    """A piece of a build-up: what drawings say of it, what it does, whether it is built; `part` begins its parts."""

    id: str
    note: str
    does: list[str]
    on: bool
    part: str


class LineOut(BaseModel):
    """A line that keeps out weather, air, cold or vapour at a junction: whether it is there, whether it closes, and in
    words where it does not."""

    line: LineName
    there: bool
    closes: bool
    words: list[str]


class BuiltOut(BaseModel):
    """How a junction is built, and what may be chosen, set and switched of it.

    `chosen`: whether its build-up was chosen; `alike`: the junctions that are built alike, by their ids.
    """

    junction: str
    kind: str
    one: str
    many: str
    name: str
    build_up: str
    because: str
    chosen: bool
    options: list[BuildUpOption]
    parameters: list[ParameterOut]
    pieces: list[PieceOut]
    findings: list[FoundOut]
    lines: list[LineOut]
    alike: list[str]


class BuildUpIn(Shape):
    """A change of a build-up at junctions by their ids, or at all of their kind where none are named.

    One of: a `build_up`, a `parameter` with its `text` as typed, a `piece` that is `on` or not. `usual` puts back the
    build-up that is usual.
    """

    base_version: Version
    kind: str
    junctions: list[str] | None = Field(default=None, min_length=1, max_length=500)
    build_up: str | None = None
    parameter: str | None = None
    text: str = Field(default="", max_length=60)
    piece: str | None = None
    on: bool = True
    usual: bool = False
    views: list[ViewWanted]


class JunctionGroupOut(BaseModel):
    """Junctions that are built alike, with the ids of the details that there are of them.

    `number`: within their kind. `counted`: in metres or in pieces. `drawn`: whether junctions of the kind have details.
    `built`: the name of their build-up, nothing where none is known; `findings`: what rules say of it.
    """

    key: str
    kind: str
    one: str
    many: str
    number: int
    counted: Literal["metres", "pieces"]
    pieces: int
    length: float
    size: str
    drawn: bool
    details: list[str]
    junctions: list[JunctionOut]
    built: str
    findings: list[FoundOut]


class DetailsIn(Shape):
    """Groups of junctions, by their keys, that are to have details; all that have none where it is left out."""

    base_version: Version
    keys: list[str] | None = Field(default=None, max_length=500)
    views: list[ViewWanted]
