"""Edits of the height ladder: by part, or by total."""

from __future__ import annotations

from typing import Any, Literal

from ...errors import RefusedEdit
from ..elements import Rung, Term
from ..project import Project
from ..rises import rise, term_value
from ..values import Element, Id, Mm
from .rebuilding import changed, held, put


class SetTerm(Element):
    """Another value for one part of a rise sum; a part that is a layer changes the make-up of that layer."""

    kind: Literal["set_term"] = "set_term"
    rung: Id
    term: Id
    value: Mm

    def apply(self, project: Project) -> Project:
        """The project with the part changed. Raises: RefusedEdit, UnknownElement."""
        rung = held(project, self.rung, Rung)
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
        return put(project, _with_value(project, rung, term, self.value))


class SetTotal(Element):
    """Another total for a rise sum; its free term absorbs the difference."""

    kind: Literal["set_total"] = "set_total"
    rung: Id
    total: Mm

    def apply(self, project: Project) -> Project:
        """The project with the total kept by the free term. Raises: RefusedEdit, UnknownElement."""
        rung = held(project, self.rung, Rung)
        if rung.from_rung is None:
            raise RefusedEdit("the datum has no height of its own", element=rung.id, field="total")
        free = next(term for term in rung.terms if term.id == rung.free)
        others = rise(rung, project.make_ups) - free.count * term_value(free, project.make_ups)
        value = (self.total - others) / free.count
        if value <= 0:
            below = project.find(rung.from_rung).name
            raise RefusedEdit(
                f"{rung.name} would leave nothing for “{free.name}”: "
                f"its height from {below} must be more than the other parts",
                element=rung.id,
                field="total",
                value=self.total,
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
