"""Edits of the height ladder: by part, or by total."""

from __future__ import annotations

from typing import Literal

from ...errors import RefusedEdit
from ..elements import Element, Id, Mm, Rung
from ..project import Project
from .rebuilding import changed, held, put


class SetTerm(Element):
    """Another value for one part of a rise sum."""

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
        if all(term.id != self.term for term in rung.terms):
            raise RefusedEdit(f"{rung.name} has no part “{self.term}”", element=rung.id, field=self.term)
        terms = tuple(changed(term, value=self.value) if term.id == self.term else term for term in rung.terms)
        return put(project, changed(rung, terms=terms))


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
        others = sum(term.value * term.count for term in rung.terms if term.id != rung.free)
        free = next(term for term in rung.terms if term.id == rung.free)
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
        terms = tuple(changed(term, value=value) if term is free else term for term in rung.terms)
        return put(project, changed(rung, terms=terms))
