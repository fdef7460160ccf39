"""The stages in order, then the checks; parts and advice are made when they are first asked for."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from contextlib import nullcontext
from typing import Any, Literal

from ..building.diagnostics import Diagnostic
from ..building.kind import ElementKind
from ..building.parts import Part
from ..building.placed import Placed, Stage
from ..edits.states import after_works, before_works
from ..kinds import KINDS, STAGES
from ..model import Project
from .building import Building

Timer = Callable[[str], Any]


def resolve(
    project: Project,
    *,
    works: Literal["before", "after"] = "after",
    timer: Timer | None = None,
    stages: Sequence[Stage[Any]] = STAGES,
    kinds: Sequence[ElementKind] = KINDS,
) -> Building:
    """The building of a project, when its works are done or `before` they start. `timer(stage)` may return a context to
    measure a stage in."""
    clock = timer or (lambda stage: nullcontext())
    placed = Placed(after_works(project) if works == "after" else before_works(project))
    for stage in stages:
        with clock(stage.key.name):
            placed.run(stage)
    for kind in kinds:
        placed.findings += kind.checks(placed)
    building = Building(
        placed,
        lambda: tuple(_parts(placed, kinds)),
        lambda: tuple(_advice(placed, stages, kinds)),
    )
    if timer:
        with clock(SOLIDS):
            building.parts  # noqa: B018
    return building


def _advice(placed: Placed, stages: Sequence[Stage[Any]], kinds: Sequence[ElementKind]) -> Iterator[Diagnostic]:
    for stage in stages:
        yield from stage.advice(placed)
    for kind in kinds:
        yield from kind.advice(placed)


SOLIDS = "solids"
"""What the making of all parts is called."""


def _parts(placed: Placed, kinds: Sequence[ElementKind]) -> Iterator[Part]:
    """The parts of every kind, each without what others take away from it."""
    cuts = [kind.cuts for kind in kinds if kind.cuts]
    for kind in kinds:
        parts: Sequence[Part] = tuple(kind.parts(placed))
        for cut in cuts if kind.cut_by_others else ():
            parts = cut(placed, parts)
        yield from parts
