"""What the parts of a rise sum amount to: a part states its value, or a layer of a make-up does."""

from __future__ import annotations

import math

from ...document.rebuilding import changed
from ..makeups.model import MakeUp
from .model import Rung, Term


def term_value(term: Term, make_ups: tuple[MakeUp, ...]) -> float:
    """One part of a height in mm, counted once."""
    if term.layer is None:
        return term.value
    make_up = next(held for held in make_ups if held.id == term.layer.make_up)
    return next(layer.thickness for layer in make_up.layers if layer.id == term.layer.layer)


def rise(rung: Rung, make_ups: tuple[MakeUp, ...]) -> float:
    """All parts of a rung together, in mm."""
    return sum(term.count * term_value(term, make_ups) for term in rung.terms)


def plate_of(rungs: tuple[Rung, ...], level: str) -> Rung | None:
    """The plate that stands on a level: what walls of its storey reach up to."""
    return next((rung for rung in rungs if rung.surface == "plate" and rung.from_rung == level), None)


def height_of(rungs: tuple[Rung, ...], make_ups: tuple[MakeUp, ...], level: str) -> float:
    """mm above the datum of a level: all the rises between them, some of them down."""
    by_id, height, rung = {rung.id: rung for rung in rungs}, 0.0, next(held for held in rungs if held.id == level)
    while rung.from_rung is not None:
        height += rise(rung, make_ups) if rung.direction == "up" else -rise(rung, make_ups)
        rung = by_id[rung.from_rung]
    return height


def coursed(rung: Rung, make_ups: tuple[MakeUp, ...], total: float) -> Rung:
    """A rung with as many whole courses as leave something for its free part in a total (mm), and less than a course.

    Courses are those whose last, cut one is the free part. A rung without them is as it is.
    """
    free = next((term for term in rung.terms if term.id == rung.free), None)
    if free is None:
        return rung
    closing = term_value(free, make_ups)
    many = (term for term in rung.terms if term.count > 1 and term is not free)
    courses = next((term for term in many if term_value(term, make_ups) >= closing), None)
    if courses is None:
        return rung
    high = term_value(courses, make_ups)
    others = rise(rung, make_ups) - courses.count * high - free.count * closing
    count = max(math.ceil((total - others) / high) - 1, 1)
    terms = tuple(changed(term, count=count) if term is courses else term for term in rung.terms)
    fitted: Rung = changed(rung, terms=terms)
    return fitted
