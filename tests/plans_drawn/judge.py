"""How much of a truth was read: walls by axis, thickness and length, openings by place, width and kind."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any

from shapely import LineString
from shapely.geometry import Point

from .truth import Spot, TrueHouse, TrueWall


@dataclass
class Verdict:
    walls: int = 0
    walls_right: int = 0
    openings: int = 0
    openings_right: int = 0
    kinds_right: int = 0
    built: int = 0
    false: int = 0
    extra: int = 0
    wrong: list[str] = field(default_factory=list)

    def add(self, other: Verdict) -> None:
        for name in ("walls", "walls_right", "openings", "openings_right", "kinds_right", "built", "false", "extra"):
            setattr(self, name, getattr(self, name) + getattr(other, name))
        self.wrong += other.wrong

    @property
    def shares(self) -> tuple[float, float, float, float]:
        """Of walls, of openings, of kinds of those openings, of false walls."""
        return (
            self.walls_right / max(self.walls, 1),
            self.openings_right / max(self.openings, 1),
            self.kinds_right / max(self.openings, 1),
            self.false / max(self.built, 1),
        )


def curve(start: Spot, end: Spot, bulge: float) -> LineString:
    return LineString(TrueWall(start, end, 1.0, bulge).axis())


def judged(
    house: TrueHouse,
    walls: Sequence[Any],
    openings: Sequence[Any],
    *,
    axis: float = 2.0,
    thick: float = 1.0,
    place: float = 5.0,
    shift: Spot = (0.0, 0.0),
) -> Verdict:
    """`walls` have start, end, bulge, thickness; `openings` wall (position), distance, width, kind."""
    found = Verdict(walls=len(house.walls), openings=len(house.openings), built=len(walls))
    move = lambda p: (p[0] + shift[0], p[1] + shift[1])  # noqa: E731
    held = [(curve(move(w.start), move(w.end), w.bulge), w) for w in walls]
    for n, true in enumerate(house.walls):
        line = LineString(true.axis())
        spots = [line.interpolate(line.length * (k + 0.5) / 100) for k in range(100)]
        good = 0
        for spot in spots:
            near = [
                w
                for shape, w in held
                if shape.distance(spot) <= axis
                and abs(w.thickness - true.thickness) <= thick
                and _along(shape, spot, line)
            ]
            good += bool(near)
        if good >= 95:
            found.walls_right += 1
        else:
            found.wrong.append(f"{house.name}: wall {n} {good}%")
    for shape, w in held:
        spots = [shape.interpolate(shape.length * (k + 0.5) / 20) for k in range(20)]
        on = sum(any(LineString(true.axis()).distance(spot) < 60 for true in house.walls) for spot in spots)
        if on < 14:
            found.false += 1
            found.wrong.append(f"{house.name}: false wall {w.start} {w.end} {w.thickness:.0f}")
    places = []
    for o in openings:
        w = walls[o.wall]
        true = TrueWall(move(w.start), move(w.end), w.thickness, w.bulge)
        places.append((true.at(o.distance), o))
    for n, opening in enumerate(house.openings):
        at = house.walls[opening.wall].at(opening.distance)
        near = [o for spot, o in places if math.dist(spot, at) <= place and abs(o.width - opening.width) <= place]
        if near:
            found.openings_right += 1
            found.kinds_right += near[0].kind == opening.kind
            if near[0].kind != opening.kind:
                found.wrong.append(f"{house.name}: opening {n} is {near[0].kind}, not {opening.kind}")
        else:
            close = [
                (round(math.dist(spot, at)), round(o.width), o.kind) for spot, o in places if math.dist(spot, at) < 800
            ]
            found.wrong.append(f"{house.name}: opening {n} {opening.kind} {opening.width:.0f} {close}")
    trues = [house.walls[held.wall].at(held.distance) for held in house.openings]
    for spot, o in places:
        if all(math.dist(spot, at) > 400 for at in trues):
            found.extra += 1
            found.wrong.append(
                f"{house.name}: no opening is at {spot[0]:.0f}, {spot[1]:.0f}: {o.kind} {o.width:.0f}, {o.reason}"
            )
    return found


def _along(shape: LineString, spot: Point, line: LineString) -> bool:
    """Whether the found axis runs along the true one there."""
    s, t = shape.project(spot), line.project(spot)
    a, b = shape.interpolate(max(s - 5, 0)), shape.interpolate(min(s + 5, shape.length))
    p, q = line.interpolate(max(t - 5, 0)), line.interpolate(min(t + 5, line.length))
    if a.distance(b) < 1 or p.distance(q) < 1:
        return False
    dot = ((b.x - a.x) * (q.x - p.x) + (b.y - a.y) * (q.y - p.y)) / a.distance(b) / p.distance(q)
    return abs(dot) > 0.99
