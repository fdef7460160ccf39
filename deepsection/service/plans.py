"""Plans of files: read, and taken over as one step."""

from __future__ import annotations

import hashlib
from collections.abc import Sequence
from typing import Any

from deepsection.core.adopting import Adopted, adopted, holes_in, laid, roofs_built
from deepsection.core.errors import BadInput, RefusedEdit
from deepsection.core.memo import LruCache
from deepsection.core.model import Project
from deepsection.core.progress import Told, silent, within
from deepsection.core.reading import Drawn, Marked, ReadPlan, with_openings
from deepsection.core.reading.modelled import read_model
from deepsection.core.resolve import resolve
from deepsection.core.units import Units, parse_length
from deepsection.formats import apart
from deepsection.formats.ifc_model import is_ifc

from .plan_choices import PlanChoices
from .work import checked_edits

MOST_DROPPED = 60
"""So many walls, openings and stairs that the building refuses are left out one by one."""
READ_BY = {"unit", "measured", "says", "layers", "pointed"}
"""The choices by which a drawing is read; the others are about what was found."""
CHANGES = ("stairs", "moved", "removed")
_drawn: LruCache[str, Drawn] = LruCache(size=3)
_read: LruCache[tuple[str, str], ReadPlan] = LruCache(size=6)


def plan_in(data: bytes, choices: PlanChoices, units: Units, told: Told = silent) -> ReadPlan:
    """The plan of a DXF file, or the storeys of a model; lengths are typed in `units`. Raises: BadInput."""
    if is_ifc(data):
        return _model_in(data, told)
    digest = hashlib.sha256(data).hexdigest()
    key = digest, units + choices.model_dump_json(include=READ_BY)
    plan = _read.get(key)
    if plan is None:
        drawn = _drawn.get(digest)
        if drawn is None:
            drawn = apart.drawn_in(data, within(told, 0.0, 0.35))
            _drawn.put(digest, drawn)
        factor = _factor(choices, units)
        plan = apart.plan_in(
            drawn,
            within(told, 0.35, 1.0),
            unit=choices.unit,
            factor=factor,
            meanings=choices.layers,
            pointed=choices.pointed,
        )
        _read.put(key, plan)
    return with_openings(plan, [Marked(held.start, held.end, held.kind) for held in choices.marked])


_models: LruCache[str, ReadPlan] = LruCache(size=2)


def _model_in(data: bytes, told: Told) -> ReadPlan:
    """The storeys of a model; nothing about how it is read is chosen. Raises: BadInput."""
    digest = hashlib.sha256(data).hexdigest()
    plan = _models.get(digest)
    if plan is None:
        plan = read_model(apart.model_in(data, told))
        _models.put(digest, plan)
    return plan


def _factor(choices: PlanChoices, units: Units) -> float | None:
    """Mm per unit of the file, where a length in it is known. Raises: BadInput."""
    if choices.measured is None or not choices.says:
        return None
    length = parse_length(choices.says, units)
    if not 1e-4 <= length / choices.measured <= 1e5:
        raise BadInput(
            "no plan is drawn at such a scale; type how long that is in the house", field="says", value=choices.says
        )
    return length / choices.measured


def taken_over(project: Project, plan: ReadPlan, choices: PlanChoices, *, prefix: str) -> tuple[Project, Adopted]:
    """The project with the plan built, and what was built; what the building refuses is left out, and listed.

    Raises: BadInput where nothing of it can be built.
    """
    chosen = choices.model_copy(deep=True)
    refused: list[str] = []
    for _ in range(MOST_DROPPED):
        made = adopted(project, plan, chosen.kept, prefix=prefix)
        if not made.walls and not made.openings and not any(made.counts[what] for what in CHANGES):
            break
        try:
            built = checked_edits(project, made.edits)
        except RefusedEdit as error:
            if not _drop(chosen, made, error.element) and not _leave(project, chosen, made):
                raise
            refused.append(error.message)
            continue
        made.skipped = [*plan.notes, *made.skipped, *refused]
        return _completed(built, plan, made, prefix, roofs=chosen.roofs), made
    if not refused and len(chosen.without_walls) < len(plan.walls):
        raise BadInput("all of this plan stands already", field="file")
    raise BadInput("nothing of this plan could be built" + (": " + refused[0] if refused else ""), field="file")


def _completed(project: Project, plan: ReadPlan, made: Adopted, prefix: str, *, roofs: bool) -> Project:
    """The project with the holes in floors of a model, and its roofs over its walls; what cannot be is listed."""
    plan = laid(plan, made.laid)
    slabs = [(made.placed[k], held.slab) for k, held in enumerate(plan.storeys) if held.slab and k in made.placed]
    project = _each(project, holes_in(project, slabs, prefix), made, "holes")
    made.model_parts |= {name for _, slab in slabs for name in slab.of}
    if plan.roofs and roofs:
        first = min(made.placed)
        up = resolve(project).levels[made.level].z - plan.base - plan.storeys[first].above
        roofed = roofs_built(project, [roof.lifted(up) for roof in plan.roofs], prefix)
        made.skipped += roofed.said
        for edit, parts in roofed.edits:
            before = made.counts.get("roofs", 0)
            project = _each(project, [edit], made, "roofs")
            made.model_parts |= parts if made.counts.get("roofs", 0) > before else frozenset()
    return project


def _each(project: Project, edits: Sequence[Any], made: Adopted, what: str) -> Project:
    """The project after edits, those that it refuses listed."""
    for edit in edits:
        try:
            project = checked_edits(project, [edit])
        except RefusedEdit as error:
            made.skipped.append(error.message)
            continue
        made.edits.append(edit)
        made.counts[what] = made.counts.get(what, 0) + 1
    return project


def built_words(made: Adopted) -> list[str]:
    """What was built, in words: `7 walls`."""
    return [f"{count} {name.removesuffix('s') if count == 1 else name}" for name, count in made.counts.items() if count]


def _drop(choices: PlanChoices, made: Adopted, element: str | None) -> bool:
    """Leaves out the wall, opening or stair that was refused. False when it is none."""
    for ids, out in (
        (made.stairs, choices.without_stairs),
        (made.openings, choices.without_openings),
        (made.walls, choices.without_walls),
    ):
        for place, id in ids.items():
            if element is not None and (element == id or element.startswith(f"{id}-")):
                out.append(place)
                return True
    return False


def _leave(project: Project, choices: PlanChoices, made: Adopted) -> bool:
    """Leaves one of those where they are that were to be moved: the first that the building refuses by itself, else
    any; then those that were to be removed. False where there are none."""
    moved = [held.id for held in made.moved if held.id not in choices.unmoved]
    if not moved and not choices.removed:
        return False
    if not moved:
        choices.removed.clear()
        return True
    for edit in made.edits:
        id = getattr(edit, "wall", None) or getattr(getattr(edit, "opening", None), "id", None)
        if id in moved:
            try:
                checked_edits(project, [edit])
            except RefusedEdit:
                choices.unmoved.append(str(id))
                return True
    choices.unmoved.append(moved[0])
    return True
