"""Loft hatches in the plan of their storey, dashed, and in sections along their ladders."""

from __future__ import annotations

from collections.abc import Iterator

from ...building.kind import PlanOf, SectionOf
from ...drawing import NAME, Handle, Label, Lettered, Region, Stroke, Text, around, arrow_head, path, text_width
from .place import HATCHES, PlacedHatch

SIZE = 2.0
"""Height of its name (paper mm)."""
ALONG = 0.9
"""A ladder runs along a section when the cosine between the two is more than this."""


def hatch_marks(shown: PlanOf) -> Iterator[Lettered]:
    """The hatches over a storey: their opening and ladder dashed, an arrow up, their names."""
    for held in shown.placed[HATCHES]:
        hatch = held.hatch
        if hatch.level != shown.level:
            continue
        key, handle = f"{hatch.id}/hatch//", Handle("move_hatch", hatch.id, "x", "free")
        corners = [shown.frame.plan_to_turned(x, y) for x, y in list(held.opening.exterior.coords)[:-1]]
        yield Stroke(path(*corners), "hidden", closed=True, part=key, feature="hatch", handle=handle)
        if held.ladder:
            yield from _ladder(shown, held, key)
        (dx, dy), off = held.way, hatch.width / 2 + SIZE * shown.scale
        at = shown.frame.plan_to_turned(hatch.x - dy * off, hatch.y + dx * off)
        text = Text(*at, hatch.name, SIZE, "centre", "middle", part=key, feature="hatch", handle=handle)
        beside = around(text_width(hatch.name, SIZE, "sans") * shown.scale, 2 * SIZE * shown.scale)
        yield Label(f"name:{hatch.id}", (text,), beside, NAME, shown.frame.turn(held.opening))


def _ladder(shown: PlanOf, held: PlacedHatch, key: str) -> Iterator[Lettered]:
    assert held.ladder
    (dx, dy), half = held.way, held.hatch.width / 2 - held.hatch.lining * 2
    head, foot = held.ladder
    sides = [
        [shown.frame.plan_to_turned(x - dy * s * half, y + dx * s * half) for x, y in (head, foot)] for s in (1, -1)
    ]
    for a, b in sides:
        yield Stroke(path(a, b), "hidden", part=key, feature="hatch")
    yield Stroke(path(sides[0][1], sides[1][1]), "hidden", part=key, feature="hatch")
    a, b = (shown.frame.plan_to_turned(*point) for point in (foot, head))
    yield Stroke(path(a, b), "fine", part=key, feature="hatch")
    yield Region((arrow_head(a, b, shown.scale),), fill="ink", pen="fine", part=key, feature="hatch")


def hatch_section_marks(shown: SectionOf) -> Iterator[Lettered]:
    """The ladders that a section runs along, let down, dashed."""
    frame = shown.frame
    for held in shown.placed[HATCHES]:
        (dx, dy), ladder = held.way, held.ladder
        depths = [frame.depth(x, y) for x, y in held.opening.exterior.coords]
        if ladder is None or not min(depths) < 0.0 < max(depths) or abs(dx * frame.ux + dy * frame.uy) < ALONG:
            continue
        (u0, u1), key = (x * frame.ux + y * frame.uy for x, y in ladder), f"{held.hatch.id}/hatch//"
        low, high = shown.between
        if low < min(u0, u1) and max(u0, u1) < high:
            yield Stroke(path((u0, held.under), (u1, held.floor.z)), "hidden", part=key, feature="hatch")
