"""Plans of files: read and told, and taken over as one step."""

from __future__ import annotations

import hashlib
from collections.abc import Sequence
from typing import Annotated, Any

from pydantic import BaseModel, Field, ValidationError

from deepsection.core.adopting import (
    AS_DRAWN,
    NEW,
    Adopted,
    Choices,
    Gone,
    Moved,
    adopted,
    groups_of,
    key_of,
    thickness_of,
)
from deepsection.core.errors import BadInput, RefusedEdit
from deepsection.core.geometry import Axis
from deepsection.core.memo import LruCache
from deepsection.core.model import Project, wall_length
from deepsection.core.reading import MEANINGS, Drawn, FoundOpening, FoundWall, Meaning, ReadPlan, read_plan
from deepsection.core.reading.modelled import read_model
from deepsection.core.resolve import storeys
from deepsection.core.units import Units, format_length, parse_length
from deepsection.formats.dxf_drawn import read_drawn
from deepsection.formats.ifc_model import is_ifc, read_ifc

from .work import checked_edits

MOST_DROPPED = 60
"""So many walls and openings that the building refuses are left out one by one."""
MOST_SPARE = 40_000
DOUBT = 0.6
"""A unit found with less confidence than this is asked for."""


class PlanChoices(BaseModel):
    """What somebody chose of a plan. `measured`: a length in units of the file, of which somebody
    `says` what it is; `layers`: what they speak of, by name.

    `make_ups` by the key of a thickness: an id, or `as drawn`; `storeys` by position of a plan: a level, or nothing.
    `under`: the name of the file, where it is to lie under the plan too. `unmoved`, `removed`: elements that stay where
    they are though the file has them elsewhere, and that go since it has them no more.
    """

    unit: Annotated[str | None, Field(max_length=4)] = None
    measured: Annotated[float | None, Field(gt=0, le=1e9)] = None
    says: Annotated[str, Field(max_length=40)] = ""
    layers: dict[str, Meaning] = {}
    make_ups: dict[str, str] = {}
    without_walls: list[int] = []
    without_openings: list[int] = []
    storeys: dict[int, str] = {}
    rooms: bool = True
    grids: bool = True
    under: Annotated[str, Field(max_length=200)] = ""
    unmoved: list[str] = []
    removed: list[str] = []

    @property
    def kept(self) -> Choices:
        """Those that concern what is built."""
        return Choices(
            self.make_ups,
            frozenset(self.without_walls),
            frozenset(self.without_openings),
            self.storeys,
            self.rooms,
            self.grids,
            frozenset(self.unmoved),
            frozenset(self.removed),
        )


def choices_from(text: str) -> PlanChoices:
    """Choices as they are sent: JSON. Raises: BadInput."""
    try:
        return PlanChoices.model_validate_json(text)
    except ValidationError as error:
        first = error.errors()[0]
        place = ".".join(str(part) for part in first["loc"])
        raise BadInput(f"these choices cannot be read: {first['msg']}", field=place or "choices") from error


def plan_choices(project: Project, unit: str | None, layers: Sequence[str], make_ups: Sequence[str]) -> PlanChoices:
    """Choices from texts such as `SITE=-`, `L4=wall` and `300 outer=wall-lap`. Raises: BadInput."""
    known = {held.id: held.id for held in project.make_ups if held.use == "wall"}
    known |= {held.name.casefold(): held.id for held in project.make_ups if held.use == "wall"}
    known[AS_DRAWN] = AS_DRAWN
    named: dict[str, Meaning] = {}
    for text in layers:
        name, meaning = _parted(text, "a layer", "give NAME=wall, or NAME=- to leave it out", "layer")
        meaning = "nothing" if meaning == "-" else meaning.casefold()
        if meaning not in MEANINGS:
            raise BadInput(f"a layer is none of “{meaning}”; it is {', '.join(MEANINGS)}", field="layer", value=meaning)
        named[name] = meaning
    chosen: dict[str, str] = {}
    for text in make_ups:
        key, name = _parted(text, "a thickness", "give “300 outer=MAKE-UP”", "make_up")
        made = known.get(name, known.get(name.casefold()))
        if made is None:
            names = ", ".join(held.name for held in project.make_ups if held.use == "wall")
            raise BadInput(f"no make-up for walls is called “{name}”; there is {names}", field="make_up", value=name)
        chosen[key] = made
    return PlanChoices(unit=unit, layers=named, make_ups=chosen)


def _parted(text: str, what: str, how: str, field: str) -> tuple[str, str]:
    name, equals, chosen = (part.strip() for part in text.rpartition("="))
    if not equals or not name or not chosen:
        raise BadInput(f"“{text}” is no choice for {what}; {how}", field=field, value=text)
    return name, chosen


_drawn: LruCache[str, Drawn] = LruCache(size=3)
_read: LruCache[tuple[str, str], ReadPlan] = LruCache(size=6)


def plan_in(data: bytes, choices: PlanChoices, units: Units) -> ReadPlan:
    """The plan of a DXF file, or the storeys of a model; lengths are typed in `units`. Raises: BadInput."""
    if is_ifc(data):
        return _model_in(data)
    digest = hashlib.sha256(data).hexdigest()
    key = digest, units + choices.model_dump_json(include={"unit", "measured", "says", "layers"})
    plan = _read.get(key)
    if plan is None:
        drawn = _drawn.get(digest)
        if drawn is None:
            drawn = read_drawn(data)
            _drawn.put(digest, drawn)
        factor = _factor(choices, units)
        plan = read_plan(drawn, unit=choices.unit, factor=factor, meanings=choices.layers)
        _read.put(key, plan)
    return plan


_models: LruCache[str, ReadPlan] = LruCache(size=2)


def _model_in(data: bytes) -> ReadPlan:
    """The storeys of a model; nothing about how it is read is chosen. Raises: BadInput."""
    digest = hashlib.sha256(data).hexdigest()
    plan = _models.get(digest)
    if plan is None:
        plan = read_model(read_ifc(data))
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
        if not made.walls and not made.openings and not made.counts["moved"] and not made.counts["removed"]:
            break
        try:
            built = checked_edits(project, made.edits)
        except RefusedEdit as error:
            if not _drop(chosen, made, error.element) and not _leave(project, chosen, made):
                raise
            refused.append(error.message)
            continue
        made.skipped = [*plan.notes, *made.skipped, *refused]
        return built, made
    if not refused and len(chosen.without_walls) < len(plan.walls):
        raise BadInput("all of this plan stands already", field="file")
    raise BadInput("nothing of this plan could be built" + (": " + refused[0] if refused else ""), field="file")


def built_words(made: Adopted) -> list[str]:
    """What was built, in words: `7 walls`."""
    ones = {"walls": "wall", "openings": "opening", "rooms": "room"}
    return [f"{count} {ones.get(name, name) if count == 1 else name}" for name, count in made.counts.items() if count]


def _drop(choices: PlanChoices, made: Adopted, element: str | None) -> bool:
    """Leaves out the wall or opening that was refused. False when it is neither."""
    for ids, out in ((made.openings, choices.without_openings), (made.walls, choices.without_walls)):
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


def look_at(project: Project, plan: ReadPlan, choices: PlanChoices) -> dict[str, Any]:
    """All that a screen shows of a plan before it is taken over."""
    storey_of = {wall: place for place, storey in enumerate(plan.storeys) for wall in storey.walls}
    known = storeys(project)
    usual = {k: held.level for k, held in enumerate(known)}
    more = NEW if not project.walls and all(held.height for held in plan.storeys) else ""
    levels = {k: choices.storeys.get(k, usual.get(k, more)) for k in range(len(plan.storeys))}
    try:
        made = adopted(project, plan, choices.kept, prefix="look")
    except BadInput:  # It is said when the plan is taken over; here it is only looked at.
        made = Adopted()
    layers = sorted(plan.layers)
    position = {name: k for k, name in enumerate(layers)}
    return {
        "unit": {**_unit(plan), "doubtful": plan.unit.confidence < DOUBT},
        "model": any(held.height is not None for held in plan.storeys),
        "origin": plan.origin,
        "walls": [
            {**_wall(plan, wall, storey_of.get(k)), "stands": k in made.stands} for k, wall in enumerate(plan.walls)
        ],
        "moved": [_moved(project, held) for held in made.moved],
        "gone": [_gone(project, held) for held in made.gone],
        "openings": [
            {**_opening(plan, held), "stands": k in made.standing_openings} for k, held in enumerate(plan.openings)
        ],
        "rooms": [{"name": room.name, "at": room.at, "area": room.area} for room in plan.rooms],
        "grids": [{"label": held.label, "start": held.start, "end": held.end} for held in plan.grids],
        "dimensions": dimension_rows(plan),
        "left": left_rows(plan),
        "layers": [{"name": name, "meaning": plan.layers[name]} for name in layers],
        "groups": [_group(project, held) for held in groups_of(project, plan.walls)],
        "make_ups": [
            {"id": held.id, "name": held.name, "thickness": thickness_of(held)}
            for held in project.make_ups
            if held.use == "wall"
        ],
        "storeys": [
            {"title": held.title, "walls": len(held.walls), "level": levels[k]} for k, held in enumerate(plan.storeys)
        ],
        "levels": [
            *({"level": held.level, "name": held.name} for held in known if held.plate),
            *([{"level": NEW, "name": "a new storey"}] if more else []),
        ],
        "notes": plan.notes,
        "drawn": [
            [*_point(a), *_point(b), round(bulge, 4), position.get(layer, 0), left]
            for a, b, bulge, layer, left in plan.lines[:MOST_SPARE]
        ],
    }


def _called(project: Project, id: str) -> str:
    """What a wall or an opening is called in a list."""
    opening = next((held for held in project.openings if held.id == id), None)
    if opening is not None:
        return f"{opening.unit.capitalize()} {project.number_of(opening)}"
    wall = project.walls_by_id[id]
    return f"{wall.status.capitalize()} wall, {format_length(wall_length(project, wall), project.units)} long"


def _moved(project: Project, held: Moved) -> dict[str, Any]:
    said = [f"moved by {format_length(held.by, project.units)}"] if held.by > 1.0 else []
    if held.wider:
        more = "wider" if held.wider > 0 else "narrower"
        said.append(f"{format_length(abs(held.wider), project.units)} {more}")
    words = f"{_called(project, held.id)}: {', '.join(said)}"
    return {"id": held.id, "kind": held.kind, "words": words, "line": [_point(point) for point in held.line]}


def _gone(project: Project, held: Gone) -> dict[str, Any]:
    return {
        "id": held.id,
        "kind": held.kind,
        "words": _called(project, held.id),
        "line": [_point(point) for point in held.points],
    }


def _point(point: Sequence[float]) -> tuple[float, float]:
    return round(point[0], 1), round(point[1], 1)


def _unit(plan: ReadPlan) -> dict[str, Any]:
    held = plan.unit
    return {"name": held.name, "factor": held.factor, "confidence": held.confidence, "reason": held.reason}


def _axis(wall: FoundWall) -> Axis:
    return Axis(wall.start, wall.end, wall.bulge)


def _wall(plan: ReadPlan, wall: FoundWall, storey: int | None) -> dict[str, Any]:
    axis, half = _cornered(plan, wall), max(wall.thickness, 40.0) / 2
    outline = axis.points(left=half) + axis.points(left=-half)[::-1]
    return {
        "start": _point(wall.start),
        "end": _point(wall.end),
        "bulge": wall.bulge,
        "thickness": wall.thickness,
        "length": round(wall.length, 1),
        "group": key_of(wall),
        "outer": wall.outer,
        "confidence": wall.confidence,
        "reason": wall.reason,
        "storey": storey,
        "outline": [_point(point) for point in outline],
    }


def _cornered(plan: ReadPlan, wall: FoundWall) -> Axis:
    """The axis, on to the outside of the corners that it shares."""
    if wall.bulge:
        return _axis(wall)
    axis = _axis(wall)
    more = [plan.walls[on.wall].thickness / 2 if on.kind == "corner" else 0.0 for on in (wall.start_on, wall.end_on)]
    return Axis(axis.at(-more[0]), axis.at(axis.length + more[1]))


def _opening(plan: ReadPlan, held: FoundOpening) -> dict[str, Any]:
    wall = plan.walls[held.wall]
    axis, half = _axis(wall), max(wall.thickness, 40.0) / 2
    low, high = held.distance - held.width / 2, held.distance + held.width / 2
    part = axis.part(max(low, 0.0), min(high, axis.length)) if wall.bulge else None
    sides = (
        part.points(left=half) + part.points(left=-half)[::-1]
        if part
        else [axis.at(s, left) for s, left in ((low, half), (high, half), (high, -half), (low, -half))]
    )
    return {
        "wall": held.wall,
        "distance": round(held.distance, 1),
        "width": round(held.width, 1),
        "kind": held.kind,
        "number": held.number,
        "confidence": held.confidence,
        "reason": held.reason,
        "outline": [_point(point) for point in sides],
    }


def _group(project: Project, held: Any) -> dict[str, Any]:
    return {
        "key": held.key,
        "thickness": held.thickness,
        "outer": held.outer,
        "layers": held.layers,
        "count": held.count,
        "length": round(held.length, 1),
        "make_up": held.make_up,
    }


def dimension_rows(plan: ReadPlan) -> list[dict[str, Any]]:
    """Each dimension: its text, what that says, what is drawn, and the difference (mm); the largest first."""
    rows = [
        {
            "text": held.text,
            "stated": round(held.stated, 1),
            "measured": held.measured,
            "difference": round(held.difference, 1),
            "at": _point(held.at),
        }
        for held in plan.dimensions
    ]
    return sorted(rows, key=lambda row: -abs(row["difference"]))


def left_rows(plan: ReadPlan) -> list[dict[str, Any]]:
    """What nothing was made of, by layer."""
    return [{"layer": held.layer, "what": held.what, "count": held.count} for held in plan.left]


def plan_rows(plan: ReadPlan) -> dict[str, Any]:
    """All that was read, for other programs: mm, walls at the place where the file has them."""
    east, north = plan.origin

    def at(point: Sequence[float]) -> list[float]:
        return [round(point[0] + east, 3), round(point[1] + north, 3)]

    storey_of = {wall: place for place, storey in enumerate(plan.storeys) for wall in storey.walls}
    return {
        "unit": _unit(plan),
        "origin": list(plan.origin),
        "plans": [{"title": held.title, "shift": list(held.shift), "walls": len(held.walls)} for held in plan.storeys],
        "walls": [
            {
                "id": k,
                "start": at(wall.start),
                "end": at(wall.end),
                "bulge": round(wall.bulge, 9),
                "thickness": wall.thickness,
                "layers": list(wall.layers),
                "length": round(wall.length, 3),
                "outer": wall.outer,
                "layer": wall.layer,
                "plan": storey_of.get(k),
                "confidence": wall.confidence,
                "reason": wall.reason,
            }
            for k, wall in enumerate(plan.walls)
        ],
        "openings": [
            {
                "wall": held.wall,
                "distance": round(held.distance, 3),
                "width": round(held.width, 3),
                "kind": held.kind,
                "number": held.number,
                "height": held.height,
                "sill": held.sill,
                "confidence": held.confidence,
                "reason": held.reason,
            }
            for held in plan.openings
        ],
        "rooms": [{"name": room.name, "at": at(room.at), "area_m2": room.area} for room in plan.rooms],
        "grid": [{"label": held.label, "start": at(held.start), "end": at(held.end)} for held in plan.grids],
        "dimensions": dimension_rows(plan),
        "layers": plan.layers,
        "left_over": left_rows(plan),
        "notes": plan.notes,
    }
