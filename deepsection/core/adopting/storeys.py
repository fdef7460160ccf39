"""Storeys of a file in an empty project: as many as it has, as far apart as it has them."""

from __future__ import annotations

import math
from typing import Any

from ..edits import PutMakeUp, PutRung, SetTotal, storey_above
from ..errors import RefusedEdit
from ..geometry import line_through
from ..model import Project
from ..reading import ReadPlan
from ..reading.found import Storey
from ..trades.levels.place import storeys
from ..trades.levels.rises import coursed, rise
from ..trades.roofs.blocks import over_plate
from ..trades.roofs.edits.proposing import usual_seat
from .roofs import REACH
from .slabs import floor_make_up

LEAST, MOST = 1500.0, 8000.0
"""Walls of a storey are so high (mm); what a model says beyond that is not taken over."""


def _to_eaves(project: Project, plan: ReadPlan, storey: Storey) -> float | None:
    """How high the plate of a storey lies whose walls go on up to a roof: below where its slopes cross the walls."""
    make_up = next((held for held in project.make_ups if held.use == "roof"), None)
    if make_up is None or storey.height is None:
        return None
    floor = plan.base + storey.above
    found = []
    for roof in plan.roofs:
        for (start, end), edge in zip(zip(roof.outline, (*roof.outline[1:], roof.outline[0])), roof.edges):
            if edge.pitch is None or edge.z < floor + LEAST:
                continue
            line = line_through(start, end)
            for k in storey.walls:
                wall = plan.walls[k]
                away = line.left_of(wall.start), line.left_of(wall.end)
                on = sorted((line.along(wall.start), line.along(wall.end)))
                beside = min(on[1], math.dist(start, end)) - max(on[0], 0.0)
                over = edge.z + edge.pitch * away[0] - floor
                below = abs(away[0] - away[1]) < 20.0 and 0.0 < away[0] < REACH and beside > 1000.0
                if wall.outer and below and over < storey.height:
                    found.append(over - over_plate(make_up, edge.pitch, usual_seat(project)))
    return min(found, default=None)


def tells_heights(plan: ReadPlan) -> bool:
    """Whether a file says how high its storeys are: a model, or plans with levels or ceilings written in them."""
    return all(
        held.height is not None or held.ceiling is not None or (len(plan.storeys) > 1 and (held.above > 0.0 or k == 0))
        for k, held in enumerate(plan.storeys)
    )


def _over_ceiling(project: Project, plate: str, above: str | None) -> float:
    """How thick the boards are that hang below a plate (mm): those of the ceiling on it, or of the floor above."""
    make_ups = {held.id: held for held in project.make_ups}
    hung = [held.make_up for held in project.ceilings if held.level == plate]
    hung += [held.make_up for held in project.floors if held.level == above]
    for make_up in (make_ups[id] for id in hung):
        frame = next((k for k, layer in enumerate(make_up.layers) if layer.framing), None)
        if frame is not None:
            return sum(layer.thickness for layer in make_up.layers[frame + 1 :])
    return 0.0


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
        slab = plan.storeys[len(storeys(project))].slab
        if slab is not None:
            made, new = floor_make_up(project, slab, f"{more.level}-slab")
            if new and not take(PutMakeUp(make_up=made)):
                break
            more = more.model_copy(update={"make_up": made.id})
        if not take(more):
            break
    known = storeys(project)
    for place, (storey, held) in enumerate(zip(plan.storeys, known)):
        if held.plate is None:
            continue
        height = _to_eaves(project, plan, storey) or storey.height
        next_up = known[place + 1].level if place + 1 < min(len(known), len(plan.storeys)) else None
        if next_up and plan.storeys[place + 1].above > storey.above:
            # What lies between the plate and the next floor is what that floor is made of.
            level = next(rung for rung in project.rungs if rung.id == next_up)
            height = plan.storeys[place + 1].above - storey.above - rise(level, project.make_ups)
        elif height is None and storey.ceiling is not None:
            height = storey.ceiling + _over_ceiling(project, held.plate, next_up)
        if height is None:
            continue
        if LEAST <= height <= MOST:
            total, plate = round(height, 2), next(rung for rung in project.rungs if rung.id == held.plate)
            fitted = coursed(plate, project.make_ups, total)
            if fitted == plate or take(PutRung(rung=fitted)):
                take(SetTotal(rung=held.plate, total=total))
        else:
            said.append(f"{storey.title}: walls {height:.0f} mm high are not taken over; its usual height stays")
    return project, edits, said
