"""Walls kept under a name: all that makes a wall but its place."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, ClassVar, Literal

from pydantic import Field

from ...document.declaring import About, Declared, Ref
from ...document.values import Element, Id, Mm, Name, Positive
from .model import Batter, Moulding, SetOut, Wall

if TYPE_CHECKING:
    from ...model.project import Project


class SavedTop(Element):
    """How high a wall goes, without the level that it goes to."""

    kind: Literal["level", "roof", "fixed"] = "level"
    offset: Mm = 0.0
    height: Positive | None = None
    end_rise: Mm = 0.0


class SavedWall(Declared):
    """A wall kept under a name: make-up, set-out, foot and top, lean and mouldings. `base_offset`: its foot above the
    level that it stands on."""

    about: ClassVar[About] = About(
        "saved wall", "saved walls", refs=(Ref("make_up", "make_ups", "make-up"),), removable=True
    )
    id: Id
    name: Name
    make_up: Id
    set_out: SetOut
    offset: Mm = 0.0
    status: Literal["outer", "inner"] = "outer"
    bearing: Literal["inferred", "yes", "no"] = "inferred"
    batter_outer: Batter = 0.0
    batter_inner: Batter = 0.0
    lean: Annotated[float, Field(ge=-45, le=45)] = 0.0
    mouldings: Annotated[tuple[Moulding, ...], Field(max_length=20)] = ()
    base_offset: Mm = 0.0
    top: SavedTop = SavedTop()

    def check(self, project: Project) -> None:
        """It is set out on a layer that it has; no other has its name. Raises: ValueError."""
        make_up = next(held for held in project.make_ups if held.id == self.make_up)
        if all(layer.id != self.set_out.layer for layer in make_up.layers):
            raise ValueError(f"{self.id}: set-out face names “{self.set_out.layer}”, which its make-up lacks")
        if any(held.id != self.id and held.name.casefold() == self.name.casefold() for held in project.saved_walls):
            raise ValueError(f"{self.id}: another saved wall is called {self.name}")

    @property
    def facts(self) -> dict[str, object]:
        """What a wall of this kind states."""
        return {name: getattr(self, name) for name in FACTS}

    def describes(self, wall: Wall) -> bool:
        """Whether a wall is as this one says."""
        return self.facts == facts_of(wall) and not wall.top.steps


FACTS = (
    "make_up", "set_out", "offset", "status", "bearing", "batter_outer", "batter_inner", "lean", "mouldings",
    "base_offset", "top",
)  # fmt: skip
"""The fields that a saved wall and a wall have in common."""


def facts_of(wall: Wall) -> dict[str, object]:
    """What would be kept of a wall."""
    top = SavedTop(kind=wall.top.kind, offset=wall.top.offset, height=wall.top.height, end_rise=wall.top.end_rise)
    own = {name: getattr(wall, name) for name in FACTS if name not in ("base_offset", "top")}
    return {**own, "base_offset": wall.base.offset, "top": top}
