"""Edits of the height ladder: by part, or by total."""

from __future__ import annotations

from typing import Any, ClassVar, Literal

from ...document.command import Command
from ...document.putting import PutElement
from ...document.rebuilding import changed, get_element, put
from ...document.values import Id, Mm, Name, Positive
from ...errors import RefusedEdit
from ...model.project import Project
from ...tolerance import TOL
from .model import Rung, Term
from .rises import rise, term_value


class PutRung(PutElement):
    kind: Literal["put_rung"] = "put_rung"
    phrase: ClassVar[str] = "change a level"
    rung: Rung


class SetTerm(Command):
    """Another value for one part of a rise sum; a part that is a layer changes the make-up of that layer."""

    kind: Literal["set_term"] = "set_term"
    phrase: ClassVar[str] = "change a part of a height"
    rung: Id
    term: Id
    value: Mm

    def apply(self, project: Project) -> Project:
        """The project with the part changed. Raises: RefusedEdit, UnknownElement."""
        rung = get_element(project, self.rung, Rung)
        if self.value <= 0:
            raise RefusedEdit(
                "a part of a height must be more than nothing",
                element=rung.id,
                field=self.term,
                value=self.value,
                limit=0.0,
            )
        term = next((term for term in rung.terms if term.id == self.term), None)
        if term is None:
            raise RefusedEdit(f"{rung.name} has no part “{self.term}”", element=rung.id, field=self.term)
        if not rung.locked:
            return keep_locked(project, put(project, _with_value(project, rung, term, self.value)))
        if term.id == rung.free:
            raise RefusedEdit(
                f"the height of {rung.name} is locked, and “{term.name}” is what makes it up: unlock it, or change "
                "another part",
                element=rung.id,
                field=self.term,
                value=self.value,
            )
        return keep_locked(project, put(project, _with_value(project, rung, term, self.value)))


class SetTotal(Command):
    """Another total for a rise sum; its free term absorbs the difference."""

    kind: Literal["set_total"] = "set_total"
    phrase: ClassVar[str] = "change a height"
    rung: Id
    total: Mm

    def apply(self, project: Project) -> Project:
        """The project with the total kept by the free term. Raises: RefusedEdit, UnknownElement."""
        rung = get_element(project, self.rung, Rung)
        if rung.from_rung is None:
            raise RefusedEdit("the datum has no height of its own", element=rung.id, field="total")
        if rung.locked:
            raise RefusedEdit(
                f"the height of {rung.name} is locked: unlock it to give it another",
                element=rung.id,
                field="total",
                value=self.total,
                limit=rise(rung, project.make_ups),
            )
        return keep_locked(project, _keeping(project, rung.id, self.total))


def keep_locked(before: Project, after: Project) -> Project:
    """The project after a change of a part or a layer, with locked sums at the totals they had: their free parts give.

    Raises: RefusedEdit where a free part cannot, since it is the layer that changed, or nothing would be left of it.
    """
    totals = {rung.id: rise(rung, before.make_ups) for rung in before.rungs if rung.locked}
    for id, total in totals.items():
        rung = next((held for held in after.rungs if held.id == id and held.locked), None)
        if rung is None or abs(rise(rung, after.make_ups) - total) < TOL.grid:
            continue
        free = next(term for term in rung.terms if term.id == rung.free)
        if free.layer and abs(term_value(free, before.make_ups) - term_value(free, after.make_ups)) > TOL.grid:
            message = f"the height of {rung.name} is locked, and “{free.name}” makes it up: unlock it first"
            raise RefusedEdit(message, element=rung.id, field="total", value=rise(rung, after.make_ups), limit=total)
        after = _keeping(after, id, total)
    return after


def _keeping(project: Project, id: str, total: float) -> Project:
    """The project with a rung of this total: its free part absorbs the difference. Raises: RefusedEdit."""
    rung = get_element(project, id, Rung)
    free = next(term for term in rung.terms if term.id == rung.free)
    others = rise(rung, project.make_ups) - free.count * term_value(free, project.make_ups)
    value = (total - others) / free.count
    if value <= 0:
        below = project.find(str(rung.from_rung)).name
        raise RefusedEdit(
            f"{rung.name} would leave nothing for “{free.name}”: "
            f"its height from {below} must be more than the other parts",
            element=rung.id,
            field="total",
            value=total,
            limit=others,
        )
    return put(project, _with_value(project, rung, free, value))


def _with_value(project: Project, rung: Rung, term: Term, value: float) -> Any:
    """The element that states a part, with another value: the rung, or the make-up of the layer."""
    if term.layer is None:
        terms = tuple(changed(held, value=value) if held is term else held for held in rung.terms)
        return changed(rung, terms=terms)
    make_up = next(held for held in project.make_ups if held.id == term.layer.make_up)
    layers = (changed(held, thickness=value) if held.id == term.layer.layer else held for held in make_up.layers)
    return changed(make_up, layers=tuple(layers))


class AddRung(Command):
    """A level above or below another one, by a height of one part, which may be parted later."""

    kind: Literal["add_rung"] = "add_rung"
    phrase: ClassVar[str] = "insert a level"
    id: Id
    name: Name
    base: Id
    rise: Positive
    direction: Literal["up", "down"] = "up"
    surface: Literal["deck", "slab", "plate", "sill", "foundation", "finish", "footing"] = "finish"

    def apply(self, project: Project) -> Project:
        """The project with the level. Raises: RefusedEdit, UnknownElement."""
        base = get_element(project, self.base, Rung)
        if any(element.id == self.id for element in project.elements()):
            raise RefusedEdit("a new level needs a name of its own", element=base.id, field="id", value=self.id)
        term = Term(id="height", name="height", value=self.rise)
        rung = Rung(
            id=self.id,
            name=self.name,
            surface=self.surface,
            from_rung=base.id,
            direction=self.direction,
            terms=(term,),
            free=term.id,
        )
        return put(project, rung)
