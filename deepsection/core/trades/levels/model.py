"""Heights as stated: the ladder of levels, and what stands on its rungs."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, ClassVar, Literal

from pydantic import Field

from ...document.declaring import About, Declared, Ref
from ...document.values import Element, Id, Mm, Name

if TYPE_CHECKING:
    from ...model.project import Project


class LevelRule(Element):
    """A height: an offset above a level."""

    level: Id
    offset: Mm = 0.0


class BaseRule(LevelRule):
    """The foot of a wall. A wall `on_roof` stands on the roof that it meets above its level."""

    on_roof: bool = False


class LayerRef(Element):
    """A layer of a make-up."""

    make_up: Id
    layer: Id


class Term(Element):
    """One part of a rise sum: `count` times `value`, or the thickness of a layer, which then states it alone."""

    id: Id
    name: Name
    value: Mm = 0.0
    layer: LayerRef | None = None
    count: Annotated[int, Field(ge=1, le=99)] = 1


class Rung(Declared):
    """A level: a sum of parts above (or below) another rung. Only the datum has none.

    `free` names the term that absorbs a typed total. A `locked` sum keeps its total: another value for a part goes at
    the cost of the free one. A `hidden` level is not drawn.
    """

    about: ClassVar[About] = About("level", "levels", refs=(Ref("from_rung", "rungs", "the rung below"),))
    id: Id
    name: Name
    surface: Literal["grade", "deck", "slab", "plate", "sill", "foundation", "finish", "footing"]
    from_rung: Id | None = None
    direction: Literal["up", "down"] = "up"
    terms: tuple[Term, ...] = ()
    free: Id | None = None
    locked: bool = False
    hidden: bool = False

    def check(self, project: Project) -> None:
        """It is measured from the datum in the end, by terms of which one is free. Raises: ValueError."""
        by_id = {rung.id: rung for rung in project.rungs}
        layers = {make_up.id: {layer.id for layer in make_up.layers} for make_up in project.make_ups}
        seen, current = {self.id}, self
        while current.from_rung is not None:
            if current.from_rung in seen:
                raise ValueError(f"{self.id}: the height ladder runs in a circle")
            seen.add(current.from_rung)
            current = by_id[current.from_rung]
        if self.from_rung is not None:
            if not self.terms or self.free is None:
                raise ValueError(f"{self.id}: a height needs at least one term, one of them free")
            if all(term.id != self.free for term in self.terms):
                raise ValueError(f"{self.id}: the free term names “{self.free}”, which is not in the project")
        for term in self.terms:
            if term.layer is not None and term.layer.layer not in layers.get(term.layer.make_up, ()):
                wrong = term.layer.layer if term.layer.make_up in layers else term.layer.make_up
                raise ValueError(f"{self.id}: the part “{term.name}” names “{wrong}”, which is not in the project")
