"""An engineer, simulated: reads a structural plan as DXF, works spans and beams out, and answers with comments.

It knows the file and nothing else: layers by role, arrows of spans with their words, outlines of beams, the words below
the plan. What it answers is JSON: `by`, `units` of the file, `looked_at`, and `comments`, each at a place in the
coordinates of the file.
"""

from __future__ import annotations

import io
import json
import math
import re
from dataclasses import dataclass
from typing import Any

import ezdxf
from ezdxf.lldxf.const import DXFError

INCH, FOOT = 25.4, 304.8
PSI, PSF = 0.00689476, 4.78803e-5
"""N/mm2 of a pound per square inch, and of one per square foot."""
TIMBERS = {
    "spruce-pine-fir No. 2": (875 * PSI, 1.4e6 * PSI),
    "C24": (24.0 * 0.8 / 1.3, 11000.0),
}
"""Bending strength and stiffness (N/mm2). NDS supplement, table 4A; EN 338 with k_mod 0.8 and 1.3 of EN 1995-1-1; all
from memory."""
DRESSED = {2: 38.1, 4: 88.9, 6: 139.7, 8: 184.15, 10: 234.95, 12: 285.75}
"""Dressed sizes (mm) of nominal inches. PS 20, from memory."""
SIZE_FACTORS = {8: 1.2, 10: 1.1, 12: 1.0}
"""C_F of nominal depths. NDS supplement, table 4A, from memory."""
REPEATED = 1.15
"""C_r of three members or more that share a load. NDS 4.3.9, from memory."""
SPANS_ON = re.compile(r"^(SPANS|A-SPANS-A-|S-ANNO-SPAN)$")
BEAMS_ON = re.compile(r"^(BEAMS|A-BEAMS-E-|S-BEAM)$")
SLAB_RATIO, SLAB_COVER = 20.0, 30.0
"""A slab on simple bearings spans so many times its effective depth, which is so much less than its thickness (mm). BS
8110-1, table 3.9, from memory; the cover: common practice, no source."""
ENOUGH = 1.02
"""Tables of spans round: what is used so far still does."""
TOUCHES = 600.0
"""Joists whose span ends as near as this to a beam (mm) bear on it."""
BESIDE = 900.0
"""Words belong to what they stand as near to as this (mm)."""


@dataclass(frozen=True)
class Size:
    """Of timber: width and depth (mm), and its nominal depth where it has one."""

    width: float
    depth: float
    factor: float = 1.0


@dataclass(frozen=True)
class Span:
    """Joists from one bearing to another: where, and how far (mm); size and spacing as its words say.

    `slab`: of a slab, how thick it is (mm).
    """

    start: tuple[float, float]
    end: tuple[float, float]
    size: Size | None
    spacing: float
    slab: float = 0.0

    @property
    def length(self) -> float:
        return math.dist(self.start, self.end)

    @property
    def middle(self) -> tuple[float, float]:
        return (self.start[0] + self.end[0]) / 2, (self.start[1] + self.end[1]) / 2


@dataclass(frozen=True)
class Laid:
    """A beam in plan: its middle line, its width (mm), and its words: plies, size, whether it lies flush."""

    start: tuple[float, float]
    end: tuple[float, float]
    width: float
    words: str
    plies: int
    size: Size | None

    @property
    def length(self) -> float:
        return math.dist(self.start, self.end)

    @property
    def middle(self) -> tuple[float, float]:
        return (self.start[0] + self.end[0]) / 2, (self.start[1] + self.end[1]) / 2


def review(file: bytes) -> bytes:
    """The answer to a structural plan. Raises: ValueError for what is no such plan."""
    try:
        document = ezdxf.read(io.StringIO(file.decode()))
    except (DXFError, UnicodeDecodeError, OSError) as error:
        raise ValueError("this file is no DXF that can be read") from error
    factor, unit = (INCH, "in") if document.units == 1 else (1.0, "mm")
    space = document.modelspace()
    texts = [(text.dxf.text, _point(text.dxf.align_point, factor)) for text in space.query("TEXT")]
    spans = list(_spans(space, texts, factor))
    beams = list(_beams(space, texts, factor))
    if not spans:
        raise ValueError("there are no spans in this file: send a structural plan")
    said = [
        *_on_loads(texts, spans),
        *_on_spans(spans, texts, unit),
        *_on_beams(beams, spans, texts, unit),
        *_on_edges(texts),
    ]
    answer = {
        "by": "engineer (simulated)",
        "units": unit,
        "looked_at": {"spans": len(spans), "beams": len(beams)},
        "comments": [{"x": x / factor, "y": y / factor, "text": text} for (x, y), text in said],
    }
    return json.dumps(answer, indent=1).encode()


# --- reading ------------------------------------------------------------------------------------


def _point(point: Any, factor: float) -> tuple[float, float]:
    return point[0] * factor, point[1] * factor


def _spans(space: Any, texts: list[tuple[str, tuple[float, float]]], factor: float) -> Any:
    for line in space.query("LINE"):
        if SPANS_ON.match(line.dxf.layer):
            start, end = _point(line.dxf.start, factor), _point(line.dxf.end, factor)
            middle = ((start[0] + end[0]) / 2, (start[1] + end[1]) / 2)
            words = [text for text, at in texts if math.dist(at, middle) < BESIDE and "@" in text]
            size, _, spacing = (words[0] if words else "").partition("@")
            slab = next((text for text, at in texts if math.dist(at, middle) < BESIDE and text.endswith(" slab")), "")
            yield Span(start, end, _size(size), _length(spacing) if spacing else 0.0, _length(slab))


def _beams(space: Any, texts: list[tuple[str, tuple[float, float]]], factor: float) -> Any:
    for outline in space.query("LWPOLYLINE"):
        points = [_point(point, factor) for point in outline.get_points("xy")]
        if not BEAMS_ON.match(outline.dxf.layer) or len(points) != 4:
            continue
        sides = [math.dist(a, b) for a, b in zip(points, (*points[1:], points[0]))]
        k = sides.index(min(sides))
        ends = [_middle(points[k], points[(k + 1) % 4]), _middle(points[(k + 2) % 4], points[(k + 3) % 4])]
        middle = _middle(*ends)
        beside = [text for text, at in texts if math.dist(at, middle) < BESIDE and ("flush" in text or "below" in text)]
        # Beams in one line are said once, or in short.
        near = sorted(texts, key=lambda held: math.dist(held[1], middle))
        words = next((text for text, _ in near if _size(text) and "@" not in text and ":" not in text), "")
        words = beside[0] if beside else words
        plies = int(match[1]) if (match := re.match(r"(\d+) of ", words)) else 1
        yield Laid(ends[0], ends[1], min(sides), words, plies, _size(words))


def _middle(a: tuple[float, float], b: tuple[float, float]) -> tuple[float, float]:
    return (a[0] + b[0]) / 2, (a[1] + b[1]) / 2


def _size(words: str) -> Size | None:
    """`2x10`, `1 3/4 x 9 1/4`, `38 x 235`: nominal inches are dressed."""
    if match := re.search(r"\b(\d+)x(\d+)\b", words):
        width, depth = int(match[1]), int(match[2])
        if width in DRESSED and depth in DRESSED:
            return Size(DRESSED[width], DRESSED[depth], SIZE_FACTORS.get(depth, 1.0))
    if match := re.search(r"([\d /]+\"?) x ([\d /]+\"?)", words.rsplit(" of ", maxsplit=1)[-1]):
        inches = '"' in match[0] or "/" in match[0]
        width_mm, depth_mm = (_inches(part) * INCH if inches else float(part.strip() or 0) for part in match.groups())
        if width_mm > 0 and depth_mm > 0:
            return Size(width_mm, depth_mm)
    return None


def _inches(text: str) -> float:
    parts = text.replace('"', "").split()
    return sum(int(a) / int(b) if b else float(a) for a, _, b in (part.partition("/") for part in parts))


def _length(text: str) -> float:
    """`1'-4"`, `16"` or `400`, in mm."""
    if match := re.search(r"(?:(\d+)'-)?([\d /]+)\"", text):
        return int(match[1] or 0) * FOOT + _inches(match[2]) * INCH
    match = re.search(r"\d+(?:\.\d+)?", text)
    return float(match[0]) if match else 0.0


def _loads(texts: list[tuple[str, tuple[float, float]]]) -> tuple[float, float] | None:
    """Live and dead load (N/mm2) as the words below the plan say."""
    for text, _ in texts:
        if match := re.search(r"live load ([\d.]+) (psf|kN/m2), dead ([\d.]+)", text):
            unit = PSF if match[2] == "psf" else 1e-3
            return float(match[1]) * unit, float(match[3]) * unit
    return None


def _timber(texts: list[tuple[str, tuple[float, float]]]) -> tuple[float, float]:
    said = (values for text, _ in texts for name, values in TIMBERS.items() if text.startswith(name))
    return next(said, TIMBERS["spruce-pine-fir No. 2"])


# --- working out --------------------------------------------------------------------------------


def used(size: Size, plies: int, span: float, line_load: tuple[float, float], timber: tuple[float, float]) -> float:
    """How much of what a simple span bears is used, 1 for all: by bending under all load, M = w l2 / 8, or by live
    load deflection of span / 360, 5 w l4 / 384 E I. `line_load`: live and dead, N/mm."""
    live, dead = line_load
    strength, stiffness = timber
    width, repeated = size.width * plies, REPEATED if plies >= 3 else 1.0
    bending = (live + dead) * span**2 / 8 / (width * size.depth**2 / 6) / (strength * size.factor * repeated)
    deflection = 5 * live * span**4 / (384 * stiffness * width * size.depth**3 / 12) / (span / 360)
    return max(bending, deflection)


def _on_loads(texts: Any, spans: list[Span]) -> Any:
    if _loads(texts) is None:
        yield spans[0].middle, "State the live and dead load that this floor is to carry."


def _on_spans(spans: list[Span], texts: Any, unit: str) -> Any:
    loads, timber = _loads(texts), _timber(texts)
    unsized = next((text for text, _ in texts if re.match(r"[\w -]*(joists|beams) to be sized", text)), "")
    for span in spans:
        if span.slab:
            needs = math.ceil((span.length / SLAB_RATIO + SLAB_COVER) / 5.0) * 5.0
            if needs > span.slab + 5.0:
                how = f"{_said(span.slab, unit)} over {_said(span.length, unit)}"
                yield span.middle, f"This slab is {how}: {_said(needs, unit)}, or a wall or beam under it."
        elif unsized:
            what = "beams" if "beams" in unsized else "joists"
            yield span.middle, f"Take these {what} from their maker's table for {_said(span.length, unit)} clear."
        elif loads and span.size and span.spacing:
            strength = (timber[0] * REPEATED, timber[1])
            share = used(span.size, 1, span.length, (loads[0] * span.spacing, loads[1] * span.spacing), strength)
            if share > ENOUGH:
                yield (
                    span.middle,
                    f"These joists are used to {share:.0%} over {_said(span.length, unit)}: stronger or closer.",
                )


def _on_beams(beams: list[Laid], spans: list[Span], texts: Any, unit: str) -> Any:
    loads, timber = _loads(texts), _timber(texts)
    for beam in beams:
        if beam.size is None:
            yield beam.middle, "Say what this beam is made of."
            continue
        carried = _carried(beam, spans)
        if not loads or not carried:
            continue
        share = used(beam.size, beam.plies, beam.length, (loads[0] * carried, loads[1] * carried), timber)
        if share > ENOUGH:
            plies = math.ceil(beam.plies * share)
            does = f"{plies} plies would do" if plies <= 5 else "set a post under it, or take a deeper one"
            how = f"{_said(carried, unit)} of floor over {_said(beam.length, unit)} and is used to {share:.0%}"
            yield beam.middle, f"This beam carries {how}, walls and roofs on it not counted: {does}."


def _carried(beam: Laid, spans: list[Span]) -> float:
    """How wide a strip of floor a beam carries: half of the longest span on each side (mm)."""
    dx, dy = ((beam.end[k] - beam.start[k]) / (beam.length or 1.0) for k in (0, 1))
    sides = {1: 0.0, -1: 0.0}
    for span in spans:
        for near, far in ((span.start, span.end), (span.end, span.start)):
            along = (near[0] - beam.start[0]) * dx + (near[1] - beam.start[1]) * dy
            off = (near[1] - beam.start[1]) * dx - (near[0] - beam.start[0]) * dy
            out = (far[1] - beam.start[1]) * dx - (far[0] - beam.start[0]) * dy
            # The floor's arrow stands for all joists of its bay, also beside this beam.
            if abs(off) < TOUCHES and abs(out) > TOUCHES and -span.length * 3 < along < beam.length + span.length * 3:
                side = 1 if out > 0 else -1
                sides[side] = max(sides[side], span.length / 2)
    return sum(sides.values())


def _on_edges(texts: Any) -> Any:
    for text, at in texts:
        if text == "off its bearing":
            yield at, "This edge lies off its bearing: show what carries it here."


def _said(length: float, unit: str) -> str:
    """A length in the units of the file: whole inches, or whole millimetres."""
    if unit == "mm":
        return f"{length:.0f}"
    feet, inches = divmod(round(length / INCH), 12)
    return f"{feet}'-{inches}\""
