"""A kind of element in the building: its parts, its marks in plan, its particulars and its checks."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from typing import Any

from ..document.values import Element
from ..drawing import Lettered
from ..geometry import Frame
from ..model import Project
from ..rows.outcome import OutcomeTable
from ..rows.rows import Row
from .diagnostics import Diagnostic
from .parts import Part
from .placed import Placed


@dataclass(frozen=True, slots=True)
class PlanOf:
    """The plan of a storey that is being drawn: the level its walls stand on, and the plate over them.

    `base` is the height of the floor, `cut` the one at which the plan is cut, `next_cut` that of the storey above it
    (mm above the datum).
    """

    placed: Placed
    level: str
    plate: str | None
    base: float
    cut: float
    frame: Frame
    scale: float
    next_cut: float = math.inf

    @property
    def project(self) -> Project:
        """The project that is drawn."""
        return self.placed.project


@dataclass(frozen=True, slots=True)
class SectionOf:
    """A section that is being drawn: its frame, whose plane cuts at depth 0, and from where to where it runs in it."""

    placed: Placed
    frame: Frame
    between: tuple[float, float]
    scale: float

    @property
    def project(self) -> Project:
        """The project that is drawn."""
        return self.placed.project


def _nothing(*_: Any) -> tuple[()]:
    return ()


def _own_make_up(project: Project, element: Any) -> str | None:
    held: str | None = getattr(element, "make_up", None)
    return held


@dataclass(frozen=True, slots=True)
class ElementKind:
    """A kind of element: `model` says what the document holds of it, the rest what the house makes of it.

    `title`: what one is called at the head of its particulars, and a line under it. `fields`: the facts to be typed.
    `heights`: ids of the heights that it has. `outcome`: tables of what came of it. `make_up`: the id of the make-up
    whose layers are shown with it. `removable`: whether this one may be taken away now. `parts`: its solids, of all
    elements of the kind. `cuts`: the parts of others without what it takes away from them, unless they make room for it
    themselves (`cut_by_others`). `plan`: its marks in plan. `section`: what is written of it
    in sections, over its parts. `on_paper`: it says how the house is drawn, and no stage, part or check of another kind
    reads it. `checks`: what is wrong, once all stages have run; `advice`: what is no more than a
    warning and takes its time, asked for when the rest stands.
    """

    model: type[Element]
    title: Callable[[Project, Any], tuple[str, str]]
    fields: Callable[[Project, Any], Sequence[Row]]
    heights: Callable[[Any], Sequence[str]] = _nothing
    outcome: Callable[[Placed, Any], Sequence[OutcomeTable]] = _nothing
    make_up: Callable[[Project, Any], str | None] = _own_make_up
    removable: Callable[[Project, Any], bool] = lambda project, element: element.about.removable
    parts: Callable[[Placed], Iterable[Part]] = _nothing
    cut_by_others: bool = True
    cuts: Callable[[Placed, Sequence[Part]], Sequence[Part]] | None = None
    plan: Callable[[PlanOf], Iterable[Lettered]] = _nothing
    section: Callable[[SectionOf], Iterable[Lettered]] = _nothing
    on_paper: bool = False
    checks: Callable[[Placed], Iterable[Diagnostic]] = _nothing
    advice: Callable[[Placed], Iterable[Diagnostic]] = _nothing
