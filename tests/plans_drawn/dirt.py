"""What happens to drawings on their way: lines doubled, parted, too short or long, blocks in blocks, wrong units."""

from __future__ import annotations

import itertools
import math
import random
from typing import Any

from ezdxf.math import Matrix44


def dirtied(document: Any, rng: random.Random, *, reach: float = 15.0) -> Any:
    """Lines get gaps and overshoots up to `reach`, are doubled, parted, lifted off the plane; crumbs lie about."""
    space = document.modelspace()
    for line in list(space.query("LINE")):
        a, b = tuple(line.dxf.start), tuple(line.dxf.end)
        length = math.dist(a[:2], b[:2])
        if length < 60:
            continue
        ux, uy = (b[0] - a[0]) / length, (b[1] - a[1]) / length
        slack = min(reach, 0.08 * length)
        low, high = rng.uniform(-slack, slack), rng.uniform(-slack, slack)
        p, q = (
            (a[0] + ux * low, a[1] + uy * low, rng.choice((0.0, 0.0, 0.4))),
            (b[0] + ux * high, b[1] + uy * high, rng.uniform(0, 0.01)),
        )
        cuts = sorted([0.0, *(rng.uniform(0.1, 0.9) for _ in range(rng.choice((0, 0, 1, 3)))), 1.0])
        spots = [tuple(m + (n - m) * t for m, n in zip(p, q)) for t in cuts]
        for one, other in itertools.pairwise(spots):
            space.add_line(one, other, dxfattribs={"layer": line.dxf.layer})
        if rng.random() < 0.15:
            off = rng.uniform(-0.8, 0.8)
            space.add_line(
                (p[0] - uy * off, p[1] + ux * off),
                (q[0] - uy * off, q[1] + ux * off),
                dxfattribs={"layer": line.dxf.layer},
            )
        space.delete_entity(line)
    layers = sorted({held.dxf.layer for held in space})
    box = [tuple(held.dxf.start) for held in space.query("LINE")][:200] or [(0.0, 0.0, 0.0)]
    for _ in range(30):
        x, y = rng.choice(box)[:2]
        x, y = x + rng.uniform(-900, 900), y + rng.uniform(-900, 900)
        space.add_line(
            (x, y), (x + rng.uniform(-6, 6), y + rng.uniform(-6, 6)), dxfattribs={"layer": rng.choice(layers)}
        )
    return document


def nested(document: Any, rng: random.Random) -> Any:
    """All of the model space within blocks, scaled, turned and mirrored, that come out as they were."""
    space = document.modelspace()
    inner = document.blocks.new("ALL_OF_IT")
    for entity in list(space):
        space.unlink_entity(entity)
        inner.add_entity(entity)
    angle = rng.uniform(0, 360)
    middle = document.blocks.new("PLAN_PART")
    middle.add_blockref("ALL_OF_IT", (0, 0), dxfattribs={"xscale": -2.0, "yscale": 2.0, "rotation": angle})
    # Mirrored and turned by a, then mirrored and turned by a again: as it was. (M R)(M R) = 1.
    space.add_blockref("PLAN_PART", (0, 0), dxfattribs={"xscale": -0.5, "yscale": 0.5, "rotation": angle})
    return document


def lost_reference(document: Any) -> Any:
    """A block that is another file, which is not there."""
    block = document.blocks.new("SITE_PLAN")
    block.block.dxf.flags = 4
    block.block.dxf.xref_path = "site-plan.dwg"
    document.modelspace().add_blockref("SITE_PLAN", (100, 100))
    return document


def moved(document: Any, *, scale: float = 1.0, degrees: float = 0.0, shift: tuple[float, float] = (0.0, 0.0)) -> Any:
    """Everything scaled, then turned, then shifted; dimensions keep the lengths that they stated."""
    turn = Matrix44.chain(
        Matrix44.scale(scale, scale, scale), Matrix44.z_rotate(math.radians(degrees)), Matrix44.translate(*shift, 0)
    )
    for entity in list(document.modelspace()):
        if entity.dxftype() == "DIMENSION" and not entity.dxf.get("text"):
            measured = float(entity.get_measurement())
            entity.dxf.text = f"{measured:.0f}"
        entity.transform(turn)
    return document


def by_eye(document: Any, rng: random.Random, off: float, *, level: bool = False) -> None:
    """Ends of lines, and corners of polylines, lie off by so much each way (standard deviation); of lines that are
    kept `level` the whole line lies aside and their ends too far or short."""
    for space in [document.modelspace(), *(held for held in document.blocks if not held.name.startswith("*"))]:
        for line in space.query("LINE"):
            a, b = line.dxf.start, line.dxf.end
            length = math.dist((a.x, a.y), (b.x, b.y)) or 1.0
            ux, uy, aside = (b.x - a.x) / length, (b.y - a.y) / length, rng.gauss(0.0, off)
            ends = []
            for spot in (a, b):
                along, across = rng.gauss(0.0, off), aside if level else rng.gauss(0.0, off)
                ends.append((spot.x + ux * along - uy * across, spot.y + uy * along + ux * across))
            line.dxf.start, line.dxf.end = ends
        for shape in space.query("LWPOLYLINE"):
            spots = [(x + rng.gauss(0.0, off), y + rng.gauss(0.0, off), *rest) for x, y, *rest in shape.get_points()]
            shape.set_points(spots)
