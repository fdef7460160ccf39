"""A project as far as it can be drawn: what cannot be built is left out and named, everything else stands.

No document locks its drafter out. Where the stages or a view fail on it, the elements that they fail on are found by
taking elements away until the rest can be made.
"""

from __future__ import annotations

import logging
from collections import deque
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from functools import lru_cache

from ..document.nouns import called
from ..drawing import Drawing
from ..edits import Remove
from ..errors import DeepSectionError, UnknownElement
from ..model import Opening, Project
from ..resolve import Building, Diagnostic, redrawn, resolve
from ..starters.projects import new_project
from .views import draw_view, list_views

log = logging.getLogger("deepsection")

KEPT = ("make_ups", "rungs", "joints", "kinds")
"""Collections that others stand on: they are never left out by themselves."""
LEFT_OUT = "left-out"
"""The code of findings about elements and views that are left out."""


def _order(project: Project) -> list[str]:
    """The collections in the order in which their elements are left out: last what others stand on."""
    return [name for name in reversed(project.collections) if name not in KEPT]


@dataclass(frozen=True, slots=True)
class Opened:
    """What a project can be drawn from: itself, or what is left of it, the building, and findings about the rest."""

    project: Project
    building: Building
    left_out: tuple[Diagnostic, ...] = ()

    @property
    def faults(self) -> tuple[Diagnostic, ...]:
        """What is left out, what cannot be built, and warnings that are known without more work."""
        return (*self.left_out, *self.building.faults)

    @property
    def advice(self) -> tuple[Diagnostic, ...]:
        """Warnings that take their time; where they cannot be worked out, that is said and stands in nobody's way."""
        try:
            return self.building.advice
        except Exception:
            log.exception("a check of this document cannot be worked out")
            message = "spans, bearings and beams of this house cannot be checked: nothing is said of them"
            return (Diagnostic("unchecked", message, "project"),)

    @property
    def findings(self) -> tuple[Diagnostic, ...]:
        """What is wrong with it; what is left out first."""
        return (*self.faults, *self.advice)


@lru_cache(maxsize=16)
def opened(project: Project) -> Opened:
    """The project with its building; what cannot be built is left out."""
    try:
        return Opened(project, built(project))
    except Exception:
        log.exception("this document cannot be built whole")
    rest = without_faults(project, built) or new_project(
        project.id, project.name, project.units, project.tradition, "slab"
    )
    return Opened(rest, built(rest), tuple(_left_out(project, rest)))


@lru_cache(maxsize=16)
def built(project: Project) -> Building:
    """The building, its parts on demand. Raises whatever goes wrong."""
    held = next((again for before in _latest if (again := redrawn(before, project)) is not None), None)
    building = resolve(project) if held is None else held
    _latest.appendleft(building)
    return building


def forget() -> None:
    """Make every building anew that is asked for from now on."""
    opened.cache_clear()
    built.cache_clear()
    _latest.clear()


_latest: deque[Building] = deque(maxlen=4)
"""Buildings of before: one of a document that is but drawn otherwise has all that was made of its house."""


def drawn(
    held: Opened, name: str, scale: float, *, look_deg: float | None = None, on_paper: bool = False
) -> tuple[Drawing, Opened]:
    """A view of what is opened, and what that leaves out of it; a blank drawing where all of it fails.

    Raises: UnknownElement for a view that the project does not have.
    """

    def draw(project: Project) -> Drawing:
        return draw_view(built(project), project, name, scale, look_deg=look_deg, on_paper=on_paper)

    try:
        return draw(held.project), held
    except UnknownElement:
        if not held.left_out:
            raise
        rest = None
    except Exception:
        log.exception("%s cannot be drawn whole", name)
        rest = without_faults(held.project, draw)
    if rest is not None:
        less = Opened(rest, built(rest), (*held.left_out, *_left_out(held.project, rest)))
        return draw(rest), less
    title = next((view.title for view in list_views(held.project) if view.name == name), name)
    message = f"{title} cannot be drawn; everything else is. Change what it shows, or go back"
    finding = Diagnostic(LEFT_OUT, message, "project", name)
    kind, _, _ = name.partition(":")
    blank = Drawing(name, title, kind, scale, (), messages=(message,))  # type: ignore[arg-type]
    return blank, replace(held, left_out=(*held.left_out, finding))


def without_faults(project: Project, make: Callable[[Project], object]) -> Project | None:
    """What is left of a project that something can be made of, with as little left out as can be found; None: nothing.

    `make` raises where it fails.
    """

    def stands(candidate: Project) -> bool:
        try:
            make(candidate)
        except Exception:
            return False
        return True

    gone: list[str] = []
    for ids in _groups(project):
        gone += ids
        rest = _without(project, gone)
        if rest is not None and stands(rest):
            break
    else:
        return None
    # Bring back whatever is no fault: all of a kind where that works, then one by one.
    for ids in (*_groups(project), *([id] for id in list(gone))):
        if not set(ids) & set(gone):
            continue
        fewer = [id for id in gone if id not in ids]
        candidate = _without(project, fewer) if fewer else project
        if candidate is not None and stands(candidate):
            gone = fewer
    return _without(project, gone) if gone else project


def _groups(project: Project) -> Iterator[list[str]]:
    for collection in _order(project):
        ids = [held.id for held in getattr(project, collection)]
        if ids:
            yield ids


def _without(project: Project, ids: list[str]) -> Project | None:
    there = {held.id for held in project.elements()}
    try:
        return Remove(elements=tuple(id for id in ids if id in there)).apply(project)
    except DeepSectionError:
        return None


def _left_out(project: Project, rest: Project) -> Iterator[Diagnostic]:
    kept = {held.id for held in rest.elements()}
    for collection in _order(project):
        for held in getattr(project, collection):
            if held.id not in kept:
                name = called(held, project.number_of(held) if isinstance(held, Opening) else None)
                message = f"{name} cannot be built as stated and is left out: change it, or go back"
                yield Diagnostic(LEFT_OUT, message, held.id)
