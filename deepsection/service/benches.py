"""Benches: the drawings that a screen shows, and what it shows beside them."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import orjson

from deepsection.core.drawing import Drawing
from deepsection.core.errors import RefusedEdit
from deepsection.core.memo import LruCache
from deepsection.core.model import Project
from deepsection.core.particulars import ladder
from deepsection.core.particulars.describe import sum_table
from deepsection.core.particulars.own_heights import own_heights
from deepsection.core.resolve import storeys
from deepsection.core.view import (
    Opened,
    draw_view,
    drawn,
    look_of,
    opened,
    plan_level,
    plan_name,
    plan_snaps,
    plan_with_sections,
    slope_triangles,
)

from .answers import Answer, answer, remember, sent_before
from .schemas import ViewWanted
from .work import in_turn, refusing, standing
from .workers import POOL, Job, drawn_answer


@in_turn
def bench_after(
    base: Project,
    project: Project,
    version: int,
    views: Sequence[ViewWanted],
    edits: Sequence[Any],
    *,
    sequence: int = 0,
    keep: bool = True,
    draft: bool = False,
) -> dict[str, Any]:
    """The bench of what edits make of a project, before it is kept; `keep` says whether it will be.

    `draft`: nothing but section lines is dragged, and what is shown follows at once: see `bench_of`.

    Raises: RefusedEdit when a view that could be drawn before cannot be drawn any more.
    """
    try:
        with refusing(edits):
            return bench_of(project, version, views, base, sequence=sequence, strict=True, keep=keep, draft=draft)
    except RefusedEdit:
        try:
            bench_of(base, version, standing(base, views), strict=True, keep=False)
        except Exception:
            # It could not be drawn before either: nobody is kept from mending the rest.
            return bench_of(project, version, views, sequence=sequence, keep=keep)
        raise


_plans: LruCache[tuple[Project, str, float, float | None], Drawing] = LruCache(size=4)
"""Plans of documents in which section lines are dragged: (document, view, scale, the way it was turned)."""


def _plan_before(base: Project, project: Project, job: Job) -> Drawing | None:
    """The plan of a document, drawn once while section lines are dragged in it, with these as they are now; None for
    views that are no plan of it."""
    if job.view not in {plan_name(base, held.level) for held in storeys(base)}:
        return None
    key = base, job.view, job.scale, job.look_deg
    found = _plans.get(key)
    if found is None:
        found = draw_view(opened(base).building, base, job.view, job.scale, look_deg=job.look_deg)
        _plans.put(key, found)
    return plan_with_sections(found, project, look_of(project, job.view) if job.look_deg is None else job.look_deg)


@in_turn
def bench_of(
    project: Project,
    version: int,
    views: Sequence[ViewWanted],
    base: Project | None = None,
    *,
    sequence: int = 0,
    strict: bool = False,
    keep: bool = True,
    draft: bool = False,
) -> dict[str, Any]:
    """Drawings and what goes with them, ready to serialise as `Bench`; of views that the screen holds, what changed.

    What fails in a view is left out and named among the findings, unless `strict`: then it raises what went wrong.
    While something is dragged, advice that takes its time is that of `base`. A `draft` shows of sections what they cut
    alone, and plans as they were in `base`, with the lines of sections where they are now.
    """
    held = opened(project)
    # While something is dragged, lettering stays where it was as long as it can; what is kept is placed anew.
    jobs = [_job(project, view, still=strict and not keep, draft=draft) for view in views]
    is_whole = not held.left_out and not draft
    shared = POOL.share(project, jobs if is_whole else ())
    found: dict[int, Answer] = {}

    def draw_here(place: int) -> None:
        nonlocal held
        job = jobs[place]
        if not strict:
            drawing, held = drawn(held, job.view, job.scale, look_deg=job.look_deg)
            found[place] = answer(drawing, job.before)
        elif draft and base is not None and (plan := _plan_before(base, project, job)):
            found[place] = answer(plan, job.before)
        else:
            found[place] = drawn_answer(project, job)

    for place in range(len(jobs)):
        if place not in shared.elsewhere:
            draw_here(place)
    beside = _beside_drawings(held, views, held if keep or base is None else opened(base))
    found |= shared.answers()
    if failed := shared.elsewhere - found.keys():
        for place in failed:
            draw_here(place)
        beside = _beside_drawings(held, views, held if keep or base is None else opened(base))
    answers = [found[place] for place in range(len(jobs))]
    if keep:
        for made in answers:
            remember(made)
    drawings = [orjson.Fragment(made.json) for made in answers]
    return {"version": version, "sequence": sequence, "drawings": drawings, **beside}


def _beside_drawings(held: Opened, views: Sequence[ViewWanted], advised: Opened) -> dict[str, Any]:
    """What a bench shows beside its drawings; `advised` has the advice."""
    building, project = held.building, held.project
    plan = next((view for view in views if view.name.partition(":")[0] == "plan"), ViewWanted(name="plan"))
    look = plan.look_deg if plan.look_deg is not None else look_of(project, plan.name)
    return {
        "snaps": plan_snaps(building, project, plan_level(project, plan.name), look),
        "ladder": ladder(project, building),
        "sums": [sum_table(project, building, height) for height in building.sums.values()],
        "own_heights": own_heights(project, building),
        "triangles": slope_triangles(building, look, project.units),
        "findings": [
            {
                "code": f.code,
                "message": f.message,
                "severity": f.severity,
                "element": f.element,
                "field": f.field,
                "source": f.source,
            }
            for f in (*held.faults, *advised.advice)
        ],
    }


def _job(project: Project, view: ViewWanted, *, still: bool, draft: bool) -> Job:
    before = sent_before(view)
    placed = before.placed if still and before else None
    return Job(view.name, view.scale or project.scale, view.look_deg, placed, draft, before)
