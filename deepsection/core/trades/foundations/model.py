"""Foundations, and the steps with which they follow falling ground."""

from __future__ import annotations

from typing import TYPE_CHECKING, ClassVar, Literal, Self

from pydantic import model_validator

from ...document.declaring import About, Ref, Standing, revised
from ...document.motion import Motion
from ...document.outlined import Outlined
from ...document.values import Id, Mm, Name, Positive
from ...geometry import Line, line_through

if TYPE_CHECKING:
    from ...model.project import Project


class Foundation(Standing):
    """Foundation wall and strip footing below the outer walls of a storey, and the ground layers within.

    The wall reaches up to `top`, by default to the level of the storey; a sill plate lies on it up to the level `sill`.
    With `pony` walls of a make-up the sill plate is a single one, and framed walls stand on it up to that level.
    The slab, or what else covers the ground, has its top at `slab_level`, by default that of the storey.

    With a `deep edge` there is no wall and no footing: the slab itself goes down along its edges to the footing level,
    as wide as the footing at its bottom. `under_walls`: it is deeper under inner walls that bear, too, as wide as
    `deep_width` at its bottom and `deep_depth` deep in all.
    """

    about: ClassVar[About] = About(
        "foundation",
        "foundations",
        refs=(
            Ref("level", "rungs", "level"),
            Ref("footing", "rungs", "footing level"),
            Ref("top", "rungs", "top"),
            Ref("sill", "rungs", "sill plate"),
            Ref("slab_level", "rungs", "ground level"),
            Ref("slab", "make_ups", "slab make-up"),
            Ref("pony", "make_ups", "make-up of pony walls"),
        ),
        group="foundations",
    )
    id: Id
    name: Name
    level: Id
    footing: Id
    stem_thickness: Positive
    footing_width: Positive
    footing_depth: Positive
    slab: Id | None = None
    slab_level: Id | None = None
    top: Id | None = None
    sill: Id | None = None
    pony: Id | None = None
    form: Literal["wall", "deep edge"] = "wall"
    under_walls: Literal["plain", "deep"] = "plain"
    deep_width: Positive = 300.0
    deep_depth: Positive = 300.0

    @property
    def bears_on(self) -> float:
        """How thick what carries the walls of the house is (mm), from the outside of their structure inward."""
        return self.footing_width if self.form == "deep edge" else self.stem_thickness

    def check(self, project: Project) -> None:
        """Pony walls are framed, and have a level to reach up to; a deep edge is that of a slab. Raises: ValueError."""
        if self.form == "deep edge" and (self.slab is None or self.sill or self.top):
            raise ValueError(f"{self.id}: a deep edge is that of a slab on the ground, which the house stands on")
        if self.pony is None:
            return
        make_up = next(held for held in project.make_ups if held.id == self.pony)
        if self.sill is None:
            raise ValueError(f"{self.id}: pony walls stand under a floor whose joists bear on them")
        if not any(layer.framing for layer in make_up.layers):
            raise ValueError(f"{self.id}: pony walls are framed, and {make_up.name} has no studs")


class SetDown(Outlined):
    """Where the slab within a foundation lies `drop` lower: its corners in plan, in order."""

    about: ClassVar[About] = About(
        "set-down",
        "set-downs",
        refs=(Ref("foundation", "foundations", "foundation"),),
        movable=True,
        removable=True,
        group="foundations",
    )
    id: Id
    name: Name = "Set-down"
    foundation: Id
    drop: Positive


class FoundationStep(Standing):
    """A step of a foundation along an endless line through two points: to its left the footing lies `drop` lower.

    So does the top of the foundation wall where pony walls stand on it; elsewhere that wall is so much higher.
    """

    about: ClassVar[About] = About(
        "step of a foundation",
        "steps of foundations",
        refs=(Ref("foundation", "foundations", "foundation"),),
        movable=True,
        removable=True,
        group="foundations",
    )
    id: Id
    foundation: Id
    x1: Mm
    y1: Mm
    x2: Mm
    y2: Mm
    drop: Positive

    @model_validator(mode="after")
    def _runs(self) -> Self:
        if abs(self.x1 - self.x2) + abs(self.y1 - self.y2) < 1.0:
            raise ValueError(f"{self.id}: a step of a foundation needs two points")
        return self

    @property
    def line(self) -> Line:
        """Its line: what lies to the left of it is lower."""
        return line_through((self.x1, self.y1), (self.x2, self.y2))

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id; mirrored, its points change places, so that the same side stays low."""
        (x1, y1), (x2, y2) = motion.at((self.x1, self.y1)), motion.at((self.x2, self.y2))
        if motion.mirror is not None:
            x1, y1, x2, y2 = x2, y2, x1, y1
        return revised(self, id=id, x1=x1, y1=y1, x2=x2, y2=y2)
