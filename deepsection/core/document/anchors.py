"""Anchors: places that notes, dimensions, details and linework hold on to, whatever becomes of the model.

A place is never stored in the coordinates of a view: `resolve.locate` finds it in space, and each view projects it.
"""

from __future__ import annotations

from typing import Annotated, Any, Literal, Self

from pydantic import Field, StringConstraints, model_validator

from .values import Element, Id, Mm

PartEnd = Literal["start", "middle", "end"]
PartSide = Literal["outside", "middle", "inside"]
PartLevel = Literal["bottom", "middle", "top"]
Token = Annotated[str, StringConstraints(max_length=120)]


class PartAnchor(Element):
    """A place on a part, measured in the part's own directions: along its element's line, out from it, and up.

    `distance` runs from the start or the middle towards the end, from the end towards the start; `inset` from the
    outside or the middle inwards, from the inside outwards; `rise` is up. Of the three, what is None is left open: with
    one it is a face, with two an edge, with three a point. Where the layer or the slot is gone, the layer of the same
    role takes its place; a member has no such stand-in.
    """

    kind: Literal["part"] = "part"
    element: Id
    role: Token
    layer: Token = ""
    slot: Token = ""
    end: PartEnd | None = "middle"
    distance: Mm = 0.0
    side: PartSide | None = "middle"
    inset: Mm = 0.0
    level: PartLevel | None = "middle"
    rise: Mm = 0.0

    @classmethod
    def on(cls, key: str, **where: Any) -> Self:
        """An anchor on the part of a key. Raises: ValidationError."""
        names = zip(("element", "role", "layer", "slot"), key.split("/", 3))
        return cls.model_validate({**dict(names), **where})

    @property
    def key(self) -> str:
        """The key of its part."""
        return f"{self.element}/{self.role}/{self.layer}/{self.slot}"

    @model_validator(mode="after")
    def _says_where(self) -> Self:
        if self.end is None and self.side is None and self.level is None:
            raise ValueError("an anchor says at which end, side or level of its part it is")
        return self


class GridAnchor(Element):
    """A place on a grid line: so far along it from its point, at a height above the datum; what is None is open."""

    kind: Literal["grid"] = "grid"
    grid: Id
    distance: Mm | None = None
    height: Mm | None = None


class LevelAnchor(Element):
    """A place on a level, `rise` over it: the level as a whole, or over a point in plan."""

    kind: Literal["level"] = "level"
    level: Id
    rise: Mm = 0.0
    at: tuple[Mm, Mm] | None = None


class JointAnchor(Element):
    """The place where walls meet, at a height above the datum, or at any."""

    kind: Literal["joint"] = "joint"
    joint: Id
    height: Mm | None = None


class PointAnchor(Element):
    """A place in space that follows nothing."""

    kind: Literal["point"] = "point"
    x: Mm
    y: Mm
    z: Mm


Anchor = Annotated[PartAnchor | GridAnchor | LevelAnchor | JointAnchor | PointAnchor, Field(discriminator="kind")]
