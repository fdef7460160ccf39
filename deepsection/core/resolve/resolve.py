"""The stages in order, then the checks; parts and advice are made when they are first asked for."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from contextlib import nullcontext
from functools import cache
from typing import Any, Literal

from ..building.diagnostics import Diagnostic
from ..building.kind import ElementKind
from ..building.parts import Part
from ..building.placed import Placed, Stage
from ..document.declaring import collections_of
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
        placed.findings += () if kind.on_paper else kind.checks(placed)
    of_house = tuple(placed.findings)
    placed.findings += _of_paper(placed, kinds)
    building = Building(
        placed,
        lambda: tuple(_parts(placed, kinds)),
        lambda: tuple(_advice(placed, stages, kinds)),
        of_house,
    )
    if timer:
        with clock(SOLIDS):
            building.parts  # noqa: B018
    return building


def redrawn(before: Building, project: Project) -> Building | None:
    """The building of a project that differs from that of another one in nothing but how it is drawn, with all that was
    made of the house; None where more differs."""
    after, drawn = after_works(project), _drawn()
    if any(getattr(after, name) != value for name, value in before.placed.project if name not in drawn):
        return None
    placed = Placed(after, before.placed.house)
    placed.findings += (*before.of_house, *_of_paper(placed, KINDS))
    return Building(placed, lambda: before.parts, lambda: before.advice, before.of_house)


@cache
def _drawn() -> frozenset[str]:
    """The collections of a project that say how it is drawn."""
    models = {kind.model for kind in KINDS if kind.on_paper}
    return frozenset(name for name, held in collections_of(Project).items() if models.issuperset(held))


def _of_paper(placed: Placed, kinds: Sequence[ElementKind]) -> Iterator[Diagnostic]:
    """What is wrong with how the house is drawn."""
    for kind in kinds:
        yield from kind.checks(placed) if kind.on_paper else ()


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
