"""A DXF file as what is drawn in it: blocks taken apart, with bounds on depth and count, arcs kept as arcs."""

from __future__ import annotations

import itertools
import math
from collections import Counter
from collections.abc import Iterable, Iterator
from typing import Any, NamedTuple

from ezdxf.entities import DXFEntity
from ezdxf.math import OCS

from deepsection.core.errors import BadInput
from deepsection.core.geometry import Point
from deepsection.core.progress import Told, silent
from deepsection.core.reading import Area, Drawn, Measure, Placed, Stroke, Words, meaning_of

from ._dxf_opened import opened

INSUNITS = {1: "in", 2: "ft", 4: "mm", 5: "cm", 6: "m"}
"""Units by the code in the header. Source: DXF reference, $INSUNITS (from memory)."""
MOST_STROKES = 200_000
"""A drawing of more lines than this, blocks taken apart, is not read."""
DEEPEST = 12
"""Blocks within blocks are followed so far."""
CHORD_SHARE = 0.002
"""Curves that are neither lines nor arcs become chords, this share of their size away from them."""
GIANT = 1e12


class Spread(NamedTuple):
    """An affine map of the plane: x' = ax + cy + e, y' = bx + dy + f."""

    a: float
    b: float
    c: float
    d: float
    e: float
    f: float

    def of(self, point: Point) -> Point:
        return self.a * point[0] + self.c * point[1] + self.e, self.b * point[0] + self.d * point[1] + self.f

    def after(self, first: Spread) -> Spread:
        """This map of what `first` made."""
        (e, f) = self.of((first.e, first.f))
        return Spread(
            self.a * first.a + self.c * first.b,
            self.b * first.a + self.d * first.b,
            self.a * first.c + self.c * first.d,
            self.b * first.c + self.d * first.d,
            e,
            f,
        )

    @property
    def turns_over(self) -> bool:
        return self.a * self.d - self.b * self.c < 0

    @property
    def even(self) -> float | None:
        """The factor of lengths, where it is the same in all directions."""
        one, two = math.hypot(self.a, self.b), math.hypot(self.c, self.d)
        square = abs(self.a * self.c + self.b * self.d) < 1e-6 * max(one * two, 1e-30)
        return one if square and abs(one - two) < 1e-6 * max(one, two) else None


STILL = Spread(1, 0, 0, 1, 0, 0)


def read_drawn(data: bytes, told: Told = silent) -> Drawn:
    """What the model space of a DXF file shows. Raises: BadInput for what is no DXF, holds nothing or too much."""
    told(f"opening {len(data) / 1e6:,.1f} MB", 0.0)
    document = opened(data)
    space = list(document.modelspace())
    if not space:
        raise BadInput("there is nothing in the model space of this file", field="file")
    # A file that says nothing gets a unit from the library.
    stated = int(document.header.get("$INSUNITS", 0) or 0) if b"$INSUNITS" in data else 0
    drawn = Drawn(unit=INSUNITS.get(stated), entities=len(space))
    told(f"taking {len(space):,} things apart", 0.7)
    _Walk(document, drawn).all(space)
    return drawn


class _Walk:
    """Takes blocks apart. How much that makes is counted before anything is made."""

    def __init__(self, document: Any, drawn: Drawn) -> None:
        self.document, self.drawn = document, drawn
        self._counts: dict[str, int] = {}
        self._left: Counter[tuple[str, str]] = Counter()
        self._bad: Counter[str] = Counter()
        self._entity = -1

    def all(self, space: Iterable[DXFEntity]) -> None:
        held = list(space)
        total = sum(self._weight(entity, ()) for entity in held)
        if total > MOST_STROKES:
            message = (
                f"this file draws {total:,} things when its blocks are taken apart; up to {MOST_STROKES:,} are read"
                if total < 10**12
                else f"its blocks hold each other so deeply that no more than {MOST_STROKES:,} things could be read"
            )
            raise BadInput(message, field="file", value=float(min(total, 10**15)), limit=MOST_STROKES)
        for entity in held:
            self._entity += 1
            self._take(entity, STILL, None, -1, 0)
        self.drawn.others = dict(self._left)
        self.drawn.notes += [f"{count} x {what}" if count > 1 else what for what, count in sorted(self._bad.items())]

    def _weight(self, entity: DXFEntity, above: tuple[str, ...]) -> int:
        """How many things an entity draws; a block that holds itself counts as one."""
        kind = entity.dxftype()
        if kind == "INSERT":
            name = str(entity.dxf.name)
            if name in above or len(above) >= DEEPEST:
                return 1
            if name not in self._counts:
                block = self.document.blocks.get(name)
                self._counts[name] = sum(self._weight(held, (*above, name)) for held in block) if block else 0
            times = max(int(entity.dxf.get("row_count", 1)), 1) * max(int(entity.dxf.get("column_count", 1)), 1)
            return 1 + self._counts[name] * times
        if kind == "LWPOLYLINE":
            return len(entity)
        if kind == "POLYLINE":
            return len(entity.vertices)
        return 24 if kind in ("ELLIPSE", "SPLINE") else 1

    def _take(self, entity: DXFEntity, spread: Spread, layer: str | None, block: int, depth: int) -> None:
        kind = entity.dxftype()
        own = str(entity.dxf.get("layer", "0"))
        layer = layer if layer is not None and own == "0" else own
        try:
            if kind == "INSERT":
                self._insert(entity, spread, layer, block, depth)
            elif kind in _CURVES:
                width = self._width(entity)
                even = spread.even
                for a, b, bulge in _finite(_CURVES[kind](entity)):
                    self._stroke(a, b, bulge, spread, even, layer, block, width)
            elif kind in ("HATCH", "SOLID", "TRACE"):
                self._area(entity, spread, layer)
            elif kind in ("TEXT", "MTEXT", "ATTRIB"):
                self._words(entity, spread, layer, block)
            elif kind == "DIMENSION":
                self._measure(entity, spread, layer)
            elif kind == "MLINE":
                for part in entity.virtual_entities():
                    self._take(part, spread, layer, block, depth)
            elif kind not in ("ATTDEF", "POINT", "VIEWPORT", "SEQEND"):
                self._left[kind, layer] += 1
        except BadInput:
            raise
        except Exception:  # One entity that nobody can follow is listed; the rest of the plan is read.
            self._bad[f"a {kind} on layer {layer} that is broken"] += 1

    @staticmethod
    def _width(entity: DXFEntity) -> float:
        if entity.dxftype() == "LWPOLYLINE":
            width = float(entity.dxf.get("const_width", 0.0) or 0.0)
            if not width and len(entity):
                widths = {(p[0], p[1]) for p in entity.get_points("se")}
                first = next(iter(widths))
                width = first[0] if len(widths) == 1 and first[0] == first[1] else 0.0
            return width
        if entity.dxftype() == "POLYLINE":
            return float(entity.dxf.get("default_start_width", 0.0) or 0.0)
        return 0.0

    def _stroke(
        self, a: Point, b: Point, bulge: float, spread: Spread, even: float | None, layer: str, block: int, width: float
    ) -> None:
        if bulge and even is None:
            spots = _chords(a, b, bulge, 16)
            for p, q in itertools.pairwise(spots):
                self._stroke(p, q, 0.0, spread, even, layer, block, width)
            return
        p, q = spread.of(a), spread.of(b)
        if max(map(abs, (*p, *q))) > GIANT:
            self._bad[f"a line on layer {layer} that lies nowhere"] += 1
            return
        turned = -bulge if spread.turns_over else bulge
        self.drawn.strokes.append(Stroke(p, q, turned, layer, self._entity, block, width * (even or 1.0)))

    def _insert(self, entity: DXFEntity, spread: Spread, layer: str, block: int, depth: int) -> None:
        name = str(entity.dxf.name)
        held = self.document.blocks.get(name)
        if held is None or (held.block is not None and held.block.is_xref):
            self._bad[f"block {name}, which is another file that is not here"] += 1
            return
        if depth >= DEEPEST:
            self._bad[f"block {name}, which lies more than {DEEPEST} blocks deep"] += 1
            return
        if block < 0 or not self._speaks(block):
            block = self._placed(entity, spread, name, layer)
        base = held.base_point
        for own in _places(entity, (float(base[0]), float(base[1]))):
            for part in held:
                self._take(part, spread.after(own), layer, block, depth + 1)

    def _speaks(self, block: int) -> bool:
        """Whether a block is a unit of its own, to which those within it belong."""
        held = self.drawn.blocks[block]
        return bool(held.attributes) or meaning_of(held.name) != "unknown"

    def _placed(self, entity: DXFEntity, spread: Spread, name: str, layer: str) -> int:
        attributes = []
        for held in entity.attribs:
            attributes.append((str(held.dxf.tag).upper(), str(held.dxf.text)))
        at = spread.of(_flat(entity, entity.dxf.insert))
        self.drawn.blocks.append(Placed(name, at, layer, tuple(attributes)))
        return len(self.drawn.blocks) - 1

    def _area(self, entity: DXFEntity, spread: Spread, layer: str) -> None:
        even = spread.even
        rings = []
        solid = True
        if entity.dxftype() == "HATCH":
            solid = bool(entity.dxf.get("solid_fill", 0))
            found = [list(_finite(ring)) for ring in _hatch_rings(entity)]
        else:
            corners = [_flat(entity, point) for point in entity.vertices()]
            found = [[(a, b, 0.0) for a, b in zip(corners, [*corners[1:], corners[0]])]]
        for ring in found:
            spots: list[tuple[float, float, float]] = []
            for a, b, bulge in ring:
                if bulge and even is None:
                    spots += [(*spread.of(p), 0.0) for p in _chords(a, b, bulge, 16)[:-1]]
                else:
                    spots.append((*spread.of(a), -bulge if spread.turns_over else bulge))
            if len(spots) > 1 and max(abs(v) for spot in spots for v in spot[:2]) < GIANT:
                rings.append(tuple(spots))
        if rings:
            self.drawn.areas.append(Area(tuple(rings), layer, solid, self._entity))

    def _words(self, entity: DXFEntity, spread: Spread, layer: str, block: int) -> None:
        kind = entity.dxftype()
        if kind == "MTEXT":
            text = entity.plain_text().replace("\n", " ")
            height, angle = float(entity.dxf.char_height), float(entity.get_rotation())
            at = (float(entity.dxf.insert[0]), float(entity.dxf.insert[1]))
            across, up = (
                ((int(entity.dxf.get("attachment_point", 1)) - 1) % 3),
                (int(entity.dxf.get("attachment_point", 1)) - 1) // 3,
            )
            shift = (0.5 - across / 2) * 0.6 * height * len(text), (up / 2 - 0.5) * height
        else:
            text = entity.plain_text()
            height, angle = float(entity.dxf.height), float(entity.dxf.get("rotation", 0.0))
            _, spot, _other = entity.get_placement()
            at = _flat(entity, spot)
            aligned = int(entity.dxf.get("halign", 0))
            shift = ((0.3 * height * len(text)) if aligned == 0 else 0.0, height / 2)
        turn = math.radians(angle)
        cos, sin = math.cos(turn), math.sin(turn)
        middle = at[0] + shift[0] * cos - shift[1] * sin, at[1] + shift[0] * sin + shift[1] * cos
        scale = spread.even or math.hypot(spread.a, spread.b)
        angle += math.degrees(math.atan2(spread.b, spread.a))
        spot = spread.of(middle)
        if text.strip() and all(math.isfinite(v) and abs(v) < GIANT for v in (*spot, height)):
            self.drawn.words.append(Words(text.strip(), spot, height * scale, angle, layer, self._entity, block))

    def _measure(self, entity: DXFEntity, spread: Spread, layer: str) -> None:
        kind = int(entity.dxf.get("dimtype", 0)) & 7
        if kind not in (0, 1):
            self._left["DIMENSION", layer] += 1
            return
        a, b = (spread.of((float(p[0]), float(p[1]))) for p in (entity.dxf.defpoint2, entity.dxf.defpoint3))
        angle = None
        if kind == 0:
            turn = math.radians(float(entity.dxf.get("angle", 0.0)))
            x, y = spread.of((math.cos(turn), math.sin(turn)))
            angle = math.degrees(math.atan2(y - spread.f, x - spread.e))
        text = str(entity.dxf.get("text", "") or "").strip()
        style = entity.override()
        factor = float(style.get("dimlfac", 1.0) or 1.0)
        shown = text if text not in ("", "<>", " ") else ""
        if not shown:
            shown = self._rendered(entity)
        self.drawn.measures.append(Measure(a, b, angle, shown, abs(factor), layer, self._entity))

    def _rendered(self, entity: DXFEntity) -> str:
        """The text that the dimension's own block shows."""
        block = self.document.blocks.get(str(entity.dxf.get("geometry", "")))
        for held in block or ():
            if held.dxftype() in ("MTEXT", "TEXT"):
                return str(held.plain_text()).strip()
        return ""


Curve = tuple[Point, Point, float]


def _flat(entity: DXFEntity, point: Any) -> Point:
    """A point of an entity's own plane in that of the drawing: mirrored where it is seen from behind."""
    if entity.dxf.hasattr("extrusion") and tuple(entity.dxf.extrusion) != (0.0, 0.0, 1.0):
        point = OCS(entity.dxf.extrusion).to_wcs(point)
    return float(point[0]), float(point[1])


def _behind(entity: DXFEntity) -> bool:
    return bool(entity.dxf.hasattr("extrusion")) and float(entity.dxf.extrusion[2]) < 0


def _finite(curves: Iterable[Curve]) -> Iterator[Curve]:
    for a, b, bulge in curves:
        if not all(math.isfinite(value) for value in (*a, *b, bulge)):
            raise ValueError("it lies nowhere")
        yield a, b, bulge


def _line(entity: DXFEntity) -> Iterator[Curve]:
    a, b = entity.dxf.start, entity.dxf.end
    yield (float(a[0]), float(a[1])), (float(b[0]), float(b[1])), 0.0


def _polyline(entity: DXFEntity) -> Iterator[Curve]:
    if entity.dxftype() == "LWPOLYLINE":
        raw = [(float(x), float(y), float(bulge)) for x, y, bulge in entity.get_points("xyb")]
        closed = bool(entity.closed)
    else:
        raw = [
            (float(v.dxf.location[0]), float(v.dxf.location[1]), float(v.dxf.get("bulge", 0.0)))
            for v in entity.vertices
        ]
        closed = bool(entity.is_closed)
    yield from _sides(entity, raw, closed)


def _sides(entity: DXFEntity, raw: list[tuple[float, float, float]], closed: bool) -> Iterator[Curve]:
    over = _behind(entity)
    spots = [_flat(entity, (x, y, 0.0)) for x, y, _ in raw]
    pairs = list(itertools.pairwise(spots)) + ([(spots[-1], spots[0])] if closed and len(spots) > 1 else [])
    for (a, b), (_, _, bulge) in zip(pairs, raw):
        if a != b:
            yield a, b, -bulge if over else bulge


def _arc(entity: DXFEntity) -> Iterator[Curve]:
    centre, radius = entity.dxf.center, float(entity.dxf.radius)
    whole = entity.dxftype() == "CIRCLE"
    first = 0.0 if whole else float(entity.dxf.start_angle)
    sweep = 360.0 if whole else (float(entity.dxf.end_angle) - first) % 360.0 or 360.0
    pieces = 1 if sweep <= 180.0 else 2
    over = _behind(entity)

    def spot(angle: float) -> Point:
        turn = math.radians(angle)
        return _flat(entity, (centre[0] + radius * math.cos(turn), centre[1] + radius * math.sin(turn), centre[2]))

    for k in range(pieces):
        low, high = first + sweep * k / pieces, first + sweep * (k + 1) / pieces
        bulge = math.tan(math.radians(high - low) / 4)
        yield spot(low), spot(high), -bulge if over else bulge


def _curve(entity: DXFEntity) -> Iterator[Curve]:
    """Chords of an ellipse or a spline."""
    if entity.dxftype() == "ELLIPSE":
        size = float(entity.dxf.major_axis.magnitude)
    else:
        points = [tuple(map(float, p)) for p in entity.control_points] or [
            tuple(map(float, p)) for p in entity.fit_points
        ]
        size = max(math.dist(points[0], p) for p in points)
    if not 0 < size < GIANT:
        raise ValueError("it has no size")
    spots = [(float(p[0]), float(p[1])) for p in entity.flattening(size * CHORD_SHARE, 4)][:400]
    yield from ((a, b, 0.0) for a, b in itertools.pairwise(spots) if a != b)


_CURVES = {
    "LINE": _line,
    "LWPOLYLINE": _polyline,
    "POLYLINE": _polyline,
    "ARC": _arc,
    "CIRCLE": _arc,
    "ELLIPSE": _curve,
    "SPLINE": _curve,
}


def _hatch_rings(entity: DXFEntity) -> Iterator[Iterator[Curve]]:
    for path in entity.paths:
        if hasattr(path, "vertices"):
            yield _sides(entity, [(float(x), float(y), float(bulge)) for x, y, bulge in path.vertices], True)
        else:
            yield _edge_path(entity, path)


def _edge_path(entity: DXFEntity, path: Any) -> Iterator[Curve]:
    over = _behind(entity)
    for edge in path.edges:
        name = type(edge).__name__
        if name == "LineEdge":
            yield _flat(entity, (*edge.start[:2], 0.0)), _flat(entity, (*edge.end[:2], 0.0)), 0.0
        elif name == "ArcEdge":
            low, high = float(edge.start_angle), float(edge.end_angle)
            sweep = (high - low) % 360.0 or 360.0
            turns = [low + sweep * k / 2 for k in range(3)]
            spots = [
                _flat(
                    entity,
                    (
                        edge.center[0] + edge.radius * math.cos(math.radians(t)),
                        edge.center[1] + edge.radius * math.sin(math.radians(t)),
                        0.0,
                    ),
                )
                for t in turns
            ]
            bulge = math.tan(math.radians(sweep) / 8)
            bulge = -bulge if over else bulge
            held = [(spots[0], spots[1], bulge), (spots[1], spots[2], bulge)]
            yield from held if edge.ccw else ((b, a, -g) for a, b, g in reversed(held))
        else:
            spots = [_flat(entity, (*point[:2], 0.0)) for point in edge.construction_tool().flattening(1.0)]
            yield from ((a, b, 0.0) for a, b in itertools.pairwise(spots) if a != b)


def _places(entity: DXFEntity, base: Point) -> Iterator[Spread]:
    """The maps of a placed block: one, or those of its rows and columns."""
    turn = math.radians(float(entity.dxf.get("rotation", 0.0)))
    sx, sy = float(entity.dxf.get("xscale", 1.0)), float(entity.dxf.get("yscale", 1.0))
    cos, sin = math.cos(turn), math.sin(turn)
    at = entity.dxf.insert
    over = -1.0 if _behind(entity) else 1.0
    rows, columns = max(int(entity.dxf.get("row_count", 1)), 1), max(int(entity.dxf.get("column_count", 1)), 1)
    if not all(math.isfinite(value) for value in (turn, sx, sy, at[0], at[1])) or not sx or not sy:
        raise ValueError("it lies nowhere")
    for row in range(rows):
        for column in range(columns):
            dx, dy = (
                column * float(entity.dxf.get("column_spacing", 0.0)),
                row * float(entity.dxf.get("row_spacing", 0.0)),
            )
            linear = Spread(cos * sx, sin * sx, -sin * sy, cos * sy, 0.0, 0.0)
            bx, by = linear.of(base)
            x, y = at[0] + cos * dx - sin * dy - bx, at[1] + sin * dx + cos * dy - by
            yield Spread(over * linear.a, linear.b, over * linear.c, linear.d, over * float(x), float(y))


def _chords(a: Point, b: Point, bulge: float, count: int) -> list[Point]:
    """Points on an arc, its ends among them."""
    sweep = 4 * math.atan(bulge)
    offset = (1 / bulge - bulge) / 4
    cx, cy = (a[0] + b[0]) / 2 - (b[1] - a[1]) * offset, (a[1] + b[1]) / 2 + (b[0] - a[0]) * offset
    radius, first = math.dist((cx, cy), a), math.atan2(a[1] - cy, a[0] - cx)
    inner = [
        (cx + radius * math.cos(first + sweep * k / count), cy + radius * math.sin(first + sweep * k / count))
        for k in range(1, count)
    ]
    return [a, *inner, b]
