"""Strings of dimensions of elevations: heights at the left; below, openings and breaks by choice, the width with how
far eaves reach."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import shapely

from ...drawing import Dimension
from ...drawing.chains import Place, String, distinct
from ...geometry import Frame, line_through
from ...resolve import ROLES, Building, PlacedOpening, PlannedWall
from ...units import HeightSum
from ..faces import Face
from ..setting import Setting
from .making import made
from .outside import measured_places

CHAIN, OVERALL = 6.0, 11.0
"""How far left of the ground line the first string of heights lies, and from the levels to the overall one (paper
mm)."""
LEAST = 2.0
"""Heights closer together than this on paper (mm) are not dimensioned apart."""
WIDTHS, STEP = 8.0, 7.5
"""How far below what is drawn the first string lies, and from one to the next (paper mm)."""
SQUARE_ON = 0.9999
"""A wall is measured when it faces the viewer so squarely (cosine)."""
AT_END = 30.0
"""An eave or rake ends where a view does when it comes this close (mm): boards lie on its end."""


def height_strings(
    heights: Sequence[HeightSum], low: float, u: float, setting: Setting, openings: Sequence[Place] = ()
) -> Iterator[String]:
    """At the left of a house by choice the sills and heads of its openings; the heights from the ground up, and the
    overall one beside them."""
    offset = CHAIN
    if openings:
        name = "left:openings"
        string = made(
            setting, name, distinct(openings, _near(name, setting)), lambda a, b: (u, a, u, b), offset,
            feature="height", gap=offset - 2.0, origin=0.0, usual=False,
        )  # fmt: skip
        yield string
        offset += STEP if string.shown else 0.0
    ridges = [height for height in heights if height.id.startswith("ridge:")]
    near = _near("left:levels", setting)
    shown: list[HeightSum] = []
    for height in heights:
        if height.total < low or (height in ridges and height is not ridges[-1]):
            continue
        if not shown or height.total - shown[-1].total >= near:
            shown.append(height)
        elif len(shown) > 1 and height in ridges:
            # Of two that stand so close, the ridge is what the overall height runs to.
            shown[-1] = height
    if len(shown) < 2:
        return
    places, ids = [Place(height.total, height.id) for height in shown], {height.total: height.id for height in shown}
    yield _upright("left:levels", places, ids, u, offset, setting)
    if len(shown) > 2:
        row = offset + (OVERALL if setting.shows("left:levels") else 0.0)
        yield _upright("left:overall", [places[0], replace(places[-1], name="overall")], ids, u, row, setting)


def _near(name: str, setting: Setting) -> float:
    """Heights that are nearer to each other than this (mm) are shown as one."""
    return 1.0 if setting.rule_of(name).density == "denser" else LEAST * setting.scale


def _upright(
    name: str, places: Sequence[Place], ids: dict[float, str], u: float, offset: float, setting: Setting
) -> String:
    """Heights one over the other, each from both as they are written at their marks, so that strings add up."""
    string = made(
        setting, name, places, lambda a, b: (u, a, u, b), offset,
        feature="height", gap=offset - 2.0, origin=0.0, key=lambda held: f"height:{held.to}",
    )  # fmt: skip
    return replace(string, marks=tuple(replace(mark, sum=ids.get(mark.y2)) for mark in string.marks))


@dataclass(frozen=True, slots=True)
class Front:
    """The walls that one looks at squarely in a view, with what is seen of the house, and how low all of it reaches."""

    building: Building
    faces: Sequence[Face]
    frame: Frame
    low: float

    @property
    def squarely(self) -> Iterator[PlannedWall]:
        """The straight walls, inner ones too, that one looks at squarely, from outside or from inside."""
        for wall in self.building.plan.walls:
            if not wall.axis.is_arc and abs(self._facing(wall)) > SQUARE_ON:
                yield wall

    @property
    def walls(self) -> Iterator[PlannedWall]:
        """The outer walls that face the viewer so."""
        return (w for w in self.squarely if w.wall.status == "outer" and self._facing(w) > 0)

    def _facing(self, wall: PlannedWall) -> float:
        """1.0 when its outside faces the viewer, -1.0 when its inside does."""
        out = wall.stand().out
        return -(out[0] * self.frame.dx + out[1] * self.frame.dy)

    @property
    def openings(self) -> list[tuple[PlannedWall, PlacedOpening]]:
        """Those that are seen, squarely, with their walls: others are seen narrower than they are."""
        seen = {face.part.element for face in self.faces}
        return [
            (wall, placed)
            for wall in self.squarely
            for placed in self.building.openings[wall.wall.id]
            if placed.opening.id in seen
        ]

    def u(self, point: tuple[float, float]) -> float:
        """Where a point in plan lies in the view."""
        return point[0] * self.frame.ux + point[1] * self.frame.uy

    @property
    def breaks(self) -> list[Place]:
        """The ends of the walls."""
        return [Place(self.u(end), wall.wall.id) for wall in self.walls for end in (wall.start, wall.end)]


def width_strings(front: Front, setting: Setting) -> Iterator[String]:
    """Under a house: by choice openings and breaks; the overall width, and how far eaves reach past it."""
    breaks = front.breaks
    if not breaks:
        return
    offset = WIDTHS
    openings = opening_places(front, setting)
    for name, places in (("bottom:openings", [*openings, *breaks] if openings else []), ("bottom:breaks", breaks)):
        apart = distinct(places)
        if len(apart) > 2:
            string = _level(name, apart, front, offset, setting, usual=False)
            yield string
            offset += STEP if string.shown else 0.0
    yield _overall(front, offset, setting)


def opening_heights(front: Front) -> list[Place]:
    """The sills and heads of the openings that one sees in outer walls, from the floors that those stand on."""
    found = []
    for wall, placed in front.openings:
        if wall.wall.status == "outer":
            id, base = placed.opening.id, front.building.levels[wall.wall.base.level]
            found += [Place(base.z, base.sum.id), Place(placed.sill.total, f"{id}.sill")]
            found.append(Place(placed.head.total, f"{id}.head"))
    return found


def opening_places(front: Front, setting: Setting) -> list[Place]:
    """Where the openings that one sees lie, by their middles or sides as the project says."""
    rule = setting.rule_of("bottom:openings")
    found = []
    for wall, placed in front.openings:
        for at, name in measured_places(placed, rule, front.building.placed.project):
            found.append(Place(front.u(wall.at(at)), name))
    return found


def _level(
    name: str, places: Sequence[Place], front: Front, offset: float, setting: Setting, *, usual: bool = True
) -> String:
    low = front.low
    return made(
        setting, name, places, lambda a, b: (a, low, b, low), -offset, feature="width", gap=offset - 2.0, usual=usual
    )


def _overall(front: Front, offset: float, setting: Setting) -> String:
    """The overall width between the walls, and beside it how far eaves reach past them."""
    breaks = sorted(front.breaks, key=lambda place: place.at)
    low, high = breaks[0].at, breaks[-1].at
    reach = [face.polygon for face in front.faces if ROLES[face.part.role].overhangs]
    far = shapely.total_bounds(reach).tolist() if reach else [low, 0.0, high, 0.0]
    left, right = min(far[0], low), max(far[2], high)
    rows = [
        ("left", left, _measured_from(front, left, low, -1.0)),
        ("overall", low, high),
        ("right", _measured_from(front, right, high, 1.0), right),
    ]
    name, v = "bottom:overall", front.low
    marks: list[Dimension] = []
    for key, start, end in rows:
        if end - start >= LEAST * setting.scale:
            string = made(
                setting, name, [Place(start, "start"), Place(end, "end")], lambda a, b: (a, v, b, v), -offset,
                feature="width", gap=offset - 2.0, key=lambda _, key=key: f"width:{key}",  # type: ignore[misc]
            )  # fmt: skip
            marks += string.marks
    return String(name, setting.shows(name), tuple(marks))


def _measured_from(front: Front, end: float, wall: float, way: float) -> float:
    """Where the overhang that ends at a place is measured from: the face that its roof says; else the wall's line."""
    for roof in front.building.roofs:
        for k, edge in enumerate(roof.block.edges):
            start, stop = roof.side(k)
            line = line_through(start, stop)
            outward = line.dy * front.frame.ux - line.dx * front.frame.uy
            at = front.u(start) + way * roof.reaches[k]
            if outward * way > SQUARE_ON and abs(at - end) < AT_END and edge.overhang:
                return end - way * edge.overhang
    return wall


def room_strings(front: Front, clear: tuple[float, float, float, float], setting: Setting) -> Iterator[String]:
    """Of the inside of a room, `clear` in the view: the clear height and that of what it holds, its width, and where
    openings are."""
    u0, v0, u1, v1 = clear
    heights = [
        Place(z, f"{placed.opening.id}.{word}")
        for _, placed in front.openings
        for z, word in ((placed.sill.total, "sill"), (placed.head.total, "head"))
        if v0 < z < v1
    ]
    offset = CHAIN
    ends = [Place(v0, "floor"), Place(v1, "ceiling")]
    for name, places in (("left:openings", [*ends, *heights]), ("left:clear", ends)):
        apart = distinct(places)
        if len(apart) > 2 or name == "left:clear":
            string = made(
                setting, name, apart, lambda a, b: (u0, a, u0, b), offset,
                feature="height", gap=2.0, origin=0.0, key=lambda held, name=name: f"string:{name}:{held.name}",  # type: ignore[misc]
            )  # fmt: skip
            yield string
            offset += STEP if string.shown else 0.0
    offset = WIDTHS
    sides = [Place(u0, "start"), Place(u1, "end")]
    openings = [place for place in opening_places(front, setting) if u0 < place.at < u1]
    for name, places in (("bottom:openings", [*sides, *openings]), ("bottom:overall", sides)):
        apart = distinct(places)
        if len(apart) > 2 or name == "bottom:overall":
            string = _level(name, apart, front, offset, setting)
            yield string
            offset += STEP if string.shown else 0.0


def panel_strings(widths: Sequence[Place], low: float, step: float, setting: Setting) -> Iterator[String]:
    """The true width of each unfolded wall, under it, and of all of them."""
    # Each by itself, whatever the project says of equal ones: it is the width of its wall.
    measure = replace(setting.measure, equal="apart")
    whole = [widths[0], Place(widths[-1].at, "overall")]
    for row, (name, places) in enumerate((("bottom:widths", widths), ("bottom:overall", whole)), 1):
        if row == 1 or len(widths) > 2:
            yield made(
                setting, name, places, lambda a, b: (a, low, b, low), -step * row,
                feature="width", gap=step * row - 2.0, measure=measure, key=lambda held: f"width:{held.to}",
            )  # fmt: skip
