"""Fields of roof blocks: what counts for all of it, and the treatment of every edge."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from typing import Any

from ...edits import PutRoof, SetRoofEdge, changed
from ...edits import put as put_element
from ...errors import BadInput
from ...geometry import compass
from ...model import RAKED, SLOPING, Project, RoofBlock, RoofEdge
from ...model.places import roof_sides
from ...rows.rows import Field, Row, action_row, choice_row, length_row, level_options, text_row, under
from ...units import Units, format_length, format_pitch, parse_length, parse_pitch
from ..levels.place import resolve_levels
from ..walls.place import plan_walls
from .corners import with_treatments
from .model import ROOF_EDGES
from .place import place_roofs
from .placed import ResolvedRoof


def roof_fields(project: Project, roof: RoofBlock) -> list[Row]:
    """Every field of a roof block."""
    units = project.units

    def put(**changes: Any) -> Sequence[Any]:
        return [PutRoof(roof=changed(roof, **changes))]

    def every(kinds: Sequence[str], **changes: Any) -> Sequence[Any]:
        return put(edges=tuple(changed(e, **changes) if e.kind in kinds else e for e in roof.edges))

    def widest(kinds: Sequence[str]) -> float:
        return max((edge.overhang for edge in roof.edges if edge.kind in kinds), default=0.0)

    def heel(text: str) -> Sequence[Any]:
        return put(heel=parse_length(text, units) if text.strip() else None)

    def ridge(text: str) -> Sequence[Any]:
        if not text.strip():
            return []
        pitch = _pitch_for(project, roof, parse_length(text, units))
        return put(pitch=pitch)

    rows = [
        text_row("name", "Name", roof.name, lambda t: put(name=t)),
        Row(
            Field("pitch", "Pitch", "pitch", format_pitch(roof.pitch, units)), lambda text: put(pitch=parse_pitch(text))
        ),
        Row(Field("ridge", "Ridge at this height sets the pitch", "text", ""), ridge),
        length_row("overhang", "Eave overhang", widest(SLOPING), units, lambda v: every(SLOPING, overhang=v)),
    ]
    if any(edge.kind in RAKED for edge in roof.edges):
        rows.append(length_row("rake", "Gable overhang", widest(RAKED), units, lambda v: every(RAKED, overhang=v)))
    rows += [
        choice_row(
            "overhang_from",
            "Overhangs are measured from",
            roof.overhang_from,
            OVERHANG_FROM,
            lambda t: put(overhang_from=t),
        ),
        choice_row("tails", "Under its eaves", roof.tails, TAILS, lambda t: put(tails=t)),
        length_row("gutter", "Gutter width, 0 for none", roof.gutter, units, lambda v: put(gutter=v)),
        length_row("caps", "Ridge, hip and valley flashings, 0 for none", roof.caps, units, lambda v: put(caps=v)),
        length_row("fascia", "Fascia depth", roof.fascia_depth, units, lambda v: put(fascia_depth=v), least=0.0),
        length_row("seat", "Birdsmouth seat", roof.seat, units, lambda v: put(seat=v), least=0.0),
        Row(Field("heel", "Heel, else from the birdsmouth", "text", _heel(roof, units)), heel),
        choice_row("plate", "Sits on", roof.plate, level_options(project), lambda t: put(plate=t)),
        length_row("offset", "Above that", roof.offset, units, lambda v: put(offset=v)),
    ]
    if len(roof.edges) == 4:
        rows.append(
            action_row(
                "turn",
                "Turn the ridge the other way",
                [PutRoof(roof=with_treatments(roof, (roof.edges[-1], *roof.edges[:-1])))],
            )
        )
    for kind, words in (("eave", "Hips all around"), ("gable", "Gables over the ends")):
        if len(roof.edges) == 4 and any(edge.kind != kind for edge in _short(project, roof)):
            ends = _short_edges(project, roof)
            edits = [SetRoofEdge(roof=roof.id, edge=str(roof.edges[k].id), to=kind) for k in ends]  # type: ignore[arg-type]
            rows.append(action_row(f"ends_{kind}", words, edits))
    for k, edge in enumerate(roof.edges):
        rows += under(f"{_side(project, roof, k)} edge", _edge_rows(project, roof, k, edge))
    return rows


TAILS = [("boxed", "boxed, with soffits"), ("open", "open, tails of rafters show")]
OVERHANG_FROM = [
    ("sheathing", "outside of sheathing or masonry"),
    ("face", "finished face of the wall"),
    ("bearing", "bearing line"),
]
"""What overhangs can be measured from, in words."""


def _roofs_of(project: Project) -> tuple[ResolvedRoof, ...]:
    """The roofs of a project, without anything else of its building."""
    uses = {use: tuple(held for held in project.make_ups if held.use == use) for use in ("floor", "wall")}
    plan = plan_walls(project.walls, project.joints, uses["wall"])
    levels = resolve_levels(project.rungs, uses["floor"])
    return place_roofs(project, plan, levels, {held.id: held for held in project.make_ups}, [])


def _pitch_for(project: Project, roof: RoofBlock, height: float) -> float:
    """The pitch at which the ridge of a roof lies at a height above the datum. Raises: BadInput.

    Its height grows with the pitch, nearly in proportion: regula falsi, each step with the whole sum behind it.
    """

    def off(pitch: float) -> float:
        trial = put_element(project, changed(roof, pitch=pitch))
        found = next((held for held in _roofs_of(trial) if held.block.id == roof.id), None)
        return found.ridge_top.total - height if found else math.inf

    low, high = FLATTEST, STEEPEST
    a, b = off(low), off(high)
    if not (a < 0 < b) or math.isinf(b):
        message = "no pitch from 0.5° to 60° brings the ridge there: change the span, the plate or the edges"
        raise BadInput(message, field="ridge", value=height)
    for _ in range(60):
        middle = low - a * (high - low) / (b - a)
        found = off(middle)
        if abs(found) < 1e-6:
            break
        if found < 0:
            low, a, b = middle, found, b / 2
        else:
            high, b, a = middle, found, a / 2
    return middle


FLATTEST, STEEPEST = math.tan(math.radians(0.5)), math.tan(math.radians(60.0))
"""The pitches between which one is looked for."""


def _heel(roof: RoofBlock, units: Units) -> str:
    return "" if roof.heel is None else format_length(roof.heel, units)


def _edge_rows(project: Project, roof: RoofBlock, k: int, edge: RoofEdge) -> list[Row]:
    units = project.units

    def put(**changes: Any) -> Sequence[Any]:
        edges = tuple(changed(held, **changes) if n == k else held for n, held in enumerate(roof.edges))
        return [PutRoof(roof=changed(roof, edges=edges))]

    def kind(text: str) -> Sequence[Any]:
        return [SetRoofEdge(roof=roof.id, edge=str(edge.id), to=text)]  # type: ignore[arg-type]

    def own(text: str) -> Sequence[Any]:
        return put(pitch=parse_pitch(text) if text.strip() else None)

    rows = [choice_row(f"kind_{edge.id}", "This edge is", edge.kind, list(ROOF_EDGES.items()), kind)]
    if edge.kind not in ("abutment", "joined"):
        rows.append(length_row(f"overhang_{edge.id}", "Overhang", edge.overhang, units, lambda v: put(overhang=v)))
    if edge.kind in (*SLOPING, "half_hip"):
        text = format_pitch(edge.pitch, units) if edge.pitch else ""
        label = f"Pitch of its own, else {format_pitch(roof.pitch, units)}"
        rows.append(Row(Field(f"pitch_{edge.id}", label, "text", text), own))
    if edge.kind in SLOPING:
        rows.append(length_row(f"raised_{edge.id}", "Eave raised by", edge.raised, units, lambda v: put(raised=v)))
    if edge.kind in ("half_hip", "dutch_gable"):
        words = "Hip starts above the eaves" if edge.kind == "half_hip" else "Gable starts above the eaves"
        rows.append(
            length_row(f"height_{edge.id}", words, edge.height or 0.0, units, lambda v: put(height=v), least=0.0)
        )
    if edge.kind == "eave":
        rows.append(_break_row(project, k, edge, put))
    return rows


def _break_row(project: Project, k: int, edge: RoofEdge, put: Callable[..., Sequence[Any]]) -> Row:
    """A second pitch and the height above the eaves from which it goes on: a gambrel, a mansard."""
    units = project.units
    example = "7' 4:12" if units == "ft-in" else "2200 15°"
    text = ""
    if edge.height and edge.upper_pitch:
        text = f"{format_length(edge.height, units)} {format_pitch(edge.upper_pitch, units)}"

    def edits(typed: str) -> Sequence[Any]:
        if not typed.strip():
            return put(height=None, upper_pitch=None)
        height, _, pitch = typed.strip().rpartition(" ")
        if not height:
            message = f"type the height above the eaves, a space, and the pitch above it, such as {example}"
            raise BadInput(message, field=f"break_{k}", value=typed)
        return put(height=parse_length(height, units), upper_pitch=parse_pitch(pitch))

    return Row(Field(f"break_{k}", f"Breaks at height to pitch, such as {example}", "text", text), edits)


def _short_edges(project: Project, roof: RoofBlock) -> list[int]:
    lengths = [math.dist(a, b) for a, b in roof_sides(project, roof)]
    return [0, 2] if lengths[0] + lengths[2] < lengths[1] + lengths[3] else [1, 3]


def _short(project: Project, roof: RoofBlock) -> list[RoofEdge]:
    return [roof.edges[k] for k in _short_edges(project, roof)]


def _side(project: Project, roof: RoofBlock, k: int) -> str:
    """The side that an edge looks to, with a number where several do."""

    def name(n: int) -> str:
        (x0, y0), (x1, y1) = sides[n]
        return compass(y1 - y0, -(x1 - x0)).capitalize()

    sides = roof_sides(project, roof)
    names = [name(n) for n in range(len(sides))]
    outer = len(roof.outline)
    alike = [n for n, held in enumerate(names) if held == names[k] and (n < outer) == (k < outer)]
    court = " court" if k >= outer else ""
    return names[k] + court + (f" {alike.index(k) + 1}" if len(alike) > 1 else "")
