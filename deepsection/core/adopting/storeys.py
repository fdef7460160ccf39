"""Storeys of a file in an empty project: as many as it has, as far apart as it has them."""

from __future__ import annotations

from typing import Any

from ..edits import SetTotal, storey_above
from ..errors import RefusedEdit
from ..model import Project
from ..reading import ReadPlan
from ..trades.levels.place import storeys
from ..trades.levels.rises import rise

LEAST, MOST = 1500.0, 8000.0
"""Walls of a storey are so high (mm); what a model says beyond that is not taken over."""


def tells_heights(plan: ReadPlan) -> bool:
    """Whether a file says how far its storeys lie above each other: a model, or plans with levels written in them."""
    return all(
        held.height is not None or (len(plan.storeys) > 1 and (held.above > 0.0 or k == 0))
        for k, held in enumerate(plan.storeys)
    )


def with_storeys(project: Project, plan: ReadPlan) -> tuple[Project, list[Any], list[str]]:
    """The project with the storeys of a file, the edits that make them, and what could not be made, in words.

    A project that has walls keeps its storeys and heights; so it does where a plan tells none (`tells_heights`).
    """
    edits: list[Any] = []
    said: list[str] = []
    if project.walls or not tells_heights(plan):
        return project, edits, said

    def take(edit: Any) -> bool:
        nonlocal project
        try:
            project = edit.apply(project)
        except RefusedEdit as error:
            said.append(error.message)
            return False
        edits.append(edit)
        return True

    while len(storeys(project)) < len(plan.storeys):
        try:
            more = storey_above(project, storeys(project)[-1].level)
        except RefusedEdit as error:
            said.append(error.message)
            break
        if not take(more):
            break
    known = storeys(project)
    for place, (storey, held) in enumerate(zip(plan.storeys, known)):
        if held.plate is None:
            continue
        height = storey.height
        if place + 1 < min(len(known), len(plan.storeys)):
            # What lies between the plate and the next floor is what that floor is made of.
            level = next(rung for rung in project.rungs if rung.id == known[place + 1].level)
            height = plan.storeys[place + 1].above - storey.above - rise(level, project.make_ups)
        if height is None:
            continue
        if LEAST <= height <= MOST:
            take(SetTotal(rung=held.plate, total=round(height, 2)))
        else:
            said.append(f"{storey.title}: walls {height:.0f} mm high are not taken over; its usual height stays")
    return project, edits, said
