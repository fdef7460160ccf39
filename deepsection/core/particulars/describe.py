"""All that the particulars pane shows of one element."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Literal

from ..catalog import material
from ..errors import DeepSectionError
from ..model import (
    Beam,
    Ceiling,
    Chimney,
    ConstructionLine,
    Downpipe,
    ElevationView,
    Floor,
    Foundation,
    FreeJoint,
    GridLine,
    GroundSpot,
    GroundStep,
    HostedJoint,
    Kind,
    MakeUp,
    Opening,
    OutsideSteps,
    Post,
    Project,
    Rail,
    RoofBlock,
    RoofFitting,
    Rung,
    SectionLine,
    Wall,
)
from ..model.edits import Remove
from ..model.nouns import noun_of
from ..model.onroofs import ON_ROOFS
from ..resolve import Building, Diagnostic, sum_id
from ..units import HeightSum, Units, format_length, format_thickness
from ._roof_outcome import OutcomeTable, roof_outcome
from .fields import fields_of
from .rows import Field


@dataclass(frozen=True, slots=True)
class SumRow:
    """A term of a height, as text."""

    label: str
    text: str
    source: str | None


@dataclass(frozen=True, slots=True)
class SumTable:
    """Where a height comes from."""

    id: str
    label: str
    total: str
    rows: tuple[SumRow, ...]


@dataclass(frozen=True, slots=True)
class StripLayer:
    """One layer of the make-up strip; `share` of the whole thickness."""

    id: str
    name: str
    material: str
    function: str
    thickness: str
    share: float
    tone: str
    hatch: str | None


@dataclass(frozen=True, slots=True)
class Strip:
    """A make-up at true scale, outside (or top) first; `face` is where the set-out line lies, 0 to 1."""

    make_up: str
    name: str
    total: str
    layers: tuple[StripLayer, ...]
    face: float | None
    face_label: str | None


@dataclass(frozen=True, slots=True)
class Check:
    """Something found wrong with the building here."""

    severity: Literal["blocking", "warning"]
    message: str
    element: str
    source: str | None = None


@dataclass(frozen=True, slots=True)
class Particulars:
    """Title, fields, sums, outcome, strip and checks of an element."""

    element: str
    title: str
    subtitle: str
    removable: bool
    fields: tuple[Field, ...]
    sums: tuple[SumTable, ...]
    outcome: tuple[OutcomeTable, ...]
    strip: Strip | None
    checks: tuple[Check, ...]


def describe_element(
    project: Project, building: Building, element: str, left_out: tuple[Diagnostic, ...] = ()
) -> Particulars:
    """The particulars of an element by id, or of the `project`; what is left out of the building is told too.

    Raises: UnknownElement.
    """
    held = project if element == "project" else project.find(element)
    title, subtitle = _titles(project, held)
    proofs = [id for id in building.sums if id.startswith(f"proof:{element}:")]
    sums = [building.sums[id] for id in (*_sum_ids(held), *proofs) if id in building.sums]
    checks = tuple(
        Check(found.severity, found.message, found.element, found.source)
        for found in (*left_out, *building.diagnostics)
        if element == "project" or element == found.element or element in found.others
    )
    return Particulars(
        element,
        title,
        subtitle,
        _removable(project, held),
        tuple(row.field for row in fields_of(project, held)),
        tuple(sum_table(project, building, height) for height in sums),
        _outcome(project, building, element),
        _strip(project, held),
        checks,
    )


def _outcome(project: Project, building: Building, element: str) -> tuple[OutcomeTable, ...]:
    roof = next((held for held in building.roofs if held.block.id == element), None)
    return roof_outcome(roof, project.units) if roof else ()


def _removable(project: Project, held: Any) -> bool:
    """Whether an element may be taken away by itself; a level or a make-up only when nothing needs it."""
    if isinstance(held, MakeUp) and _uses(project, held):
        return False
    if isinstance(held, Rung):
        try:
            Remove(elements=(held.id,)).apply(project)
        except DeepSectionError:
            return False
        return True
    return not isinstance(held, Project) and bool(held.about.removable)


def sum_table(project: Project, building: Building, height: HeightSum) -> SumTable:
    """A height sum as rows of text."""
    return _sum_table(height, project.units)


@lru_cache(maxsize=4096)
def _sum_table(height: HeightSum, units: Units) -> SumTable:
    rows = tuple(SumRow(term.label, format_length(term.value, units), term.source) for term in height.terms)
    return SumTable(height.id, height.label, format_length(height.total, units), rows)


def _sum_ids(held: Any) -> list[str]:
    if isinstance(held, Opening):
        return [f"head:{held.id}", f"sill:{held.id}"]
    if isinstance(held, RoofBlock):
        return [f"ridge:{held.id}", f"eave:{held.id}", f"heel:{held.id}"]
    if isinstance(held, Rung):
        return [sum_id(held.id)]
    if isinstance(held, Wall):
        own = [f"moulding:{held.id}:{moulding.id}" for moulding in held.mouldings]
        return [f"top:{held.id}", f"foot:{held.id}", sum_id(held.top.level), sum_id(held.base.level), *own]
    if isinstance(held, Post):
        return [f"top:{held.id}", f"foot:{held.id}", sum_id(held.top.level), sum_id(held.base.level)]
    if isinstance(held, OutsideSteps):
        return [f"top:{held.id}", sum_id(held.top.level)]
    if isinstance(held, Rail):
        return [f"foot:{held.id}", sum_id(held.base.level)]
    if isinstance(held, Chimney | RoofFitting):
        return [f"top:{held.id}", f"foot:{held.id}"]
    if isinstance(held, Downpipe):
        return [f"eave:{held.roof}"]
    if isinstance(held, Beam):
        return [f"top:{held.id}", sum_id(held.top.level)]
    if isinstance(held, Foundation):
        return [sum_id(id) for id in (held.sill or held.top or held.level, held.footing)]
    if isinstance(held, GroundSpot):
        return [f"ground:{held.id}"]
    if isinstance(held, Floor):
        return [sum_id(held.level), sum_id(held.bearing)]
    return [sum_id(held.level)] if isinstance(held, Ceiling) else []


def _uses(project: Project, make_up: MakeUp) -> int:
    """How many elements are built of a make-up."""
    return sum(make_up.id in (getattr(e, "make_up", None), getattr(e, "slab", None)) for e in project.elements())


def _make_up_name(project: Project, id: str) -> str:
    return next(held.name for held in project.make_ups if held.id == id)


def _titles(project: Project, held: Any) -> tuple[str, str]:
    if isinstance(held, Project):
        return held.name, held.place or "no place given yet"
    if isinstance(held, Opening):
        wall = next(wall for wall in project.walls if wall.id == held.wall)
        return (
            f"{held.unit.capitalize()} {project.number_of(held)}",
            f"in a wall of {_make_up_name(project, wall.make_up)}",
        )
    if isinstance(held, Wall):
        return f"{held.status.capitalize()} wall", _make_up_name(project, held.make_up)
    if isinstance(held, FreeJoint):
        return "Corner", "a place where walls meet"
    if isinstance(held, HostedJoint):
        return "Tee", "where a wall ends on another one"
    if isinstance(held, Post):
        return "Post", f"{held.shape}, of {material(held.material).name.lower()}"
    if isinstance(held, Beam):
        return "Beam", f"of {material(held.material).name.lower()}"
    if isinstance(held, OutsideSteps):
        return "Steps", f"of {material(held.material).name.lower()}, down to the ground"
    if isinstance(held, Rail):
        return "Rail", f"of {material(held.material).name.lower()}"
    if isinstance(held, Kind):
        count = sum(opening.kind == held.id for opening in project.openings)
        return held.name[:1].upper() + held.name[1:], f"kind of {held.unit}, followed by {count or 'none'}"
    if isinstance(held, MakeUp):
        used = _uses(project, held)
        return held.name, f"{held.use} make-up, used {'once' if used == 1 else f'{used} times'}"
    if isinstance(held, Rung):
        base = next((rung.name for rung in project.rungs if rung.id == held.from_rung), None)
        return held.name, f"level, measured from {base}" if base else "the datum: every height is measured from here"
    if isinstance(held, RoofBlock):
        return held.name, "roof"
    if isinstance(held, Chimney):
        return "Chimney", f"of {material(held.material).name.lower()}"
    if isinstance(held, RoofFitting):
        return ON_ROOFS[held.fitting].capitalize(), "on the slope over its place"
    if isinstance(held, Downpipe):
        return "Downpipe", f"from the gutter of {project.find(held.roof).name}"
    if isinstance(held, GridLine):
        return f"Grid {held.name}", "a line of the grid, through every storey"
    if isinstance(held, ConstructionLine):
        return "Construction line", "to snap to; never printed"
    if isinstance(held, GroundSpot):
        return "Height of the ground", "straight to the next, level beyond the outermost"
    if isinstance(held, GroundStep):
        return "Step of the ground", "along an endless line"
    if isinstance(held, ElevationView):
        return held.name, "walls unfolded" if held.walls else "elevation along a direction of its own"
    if isinstance(held, SectionLine):
        return f"Section {held.name}", "drag its line on the plan, or its ends"
    if isinstance(held, (Floor, Ceiling)):
        return held.name, _make_up_name(project, held.make_up)
    if isinstance(held, Foundation):
        return held.name, _make_up_name(project, held.slab) if held.slab else "foundation wall and footing"
    return str(getattr(held, "name", None) or getattr(held, "text", held.id)), noun_of(type(held))


def _strip(project: Project, held: Any) -> Strip | None:
    id = getattr(held, "make_up", None) or (held.slab if isinstance(held, Foundation) else None)
    if isinstance(held, MakeUp):
        id = held.id
    if isinstance(held, Opening):
        id = next(wall.make_up for wall in project.walls if wall.id == held.wall)
    if id is None:
        return None
    make_up: MakeUp = next(found for found in project.make_ups if found.id == id)
    total = sum(layer.thickness for layer in make_up.layers)
    face, label, reached = None, None, 0.0
    layers = []
    for layer in make_up.layers:
        if isinstance(held, Wall) and layer.id == held.set_out.layer:
            face = (reached + {"outer": 0.0, "middle": 0.5, "inner": 1.0}[held.set_out.face] * layer.thickness) / total
            label = {"outer": "outside of ", "middle": "middle of ", "inner": "inside of "}[
                held.set_out.face
            ] + layer.name
        reached += layer.thickness
        made_of = material(layer.framing.infill if layer.framing and layer.framing.infill else layer.material)
        layers.append(
            StripLayer(
                layer.id,
                layer.name,
                made_of.name,
                layer.function,
                format_thickness(layer.thickness, project.units),
                layer.thickness / total,
                made_of.tone,
                made_of.cut,
            )
        )
    return Strip(make_up.id, make_up.name, format_length(total, project.units), tuple(layers), face, label)
