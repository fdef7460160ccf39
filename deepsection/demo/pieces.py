"""Small pieces of which the demo houses are put together. Lengths in mm."""

from __future__ import annotations

from itertools import pairwise
from typing import Any, Literal

from deepsection.core.catalog import usual
from deepsection.core.edits import DrawWalls, changed, put
from deepsection.core.model import (
    Beam,
    BeamEnd,
    Corner,
    FreeJoint,
    LevelRule,
    Opening,
    Pad,
    PlacedView,
    Post,
    Project,
    RoofEdge,
    SectionLine,
    Sheet,
    TeeJoint,
    WallSection,
)

Spot = tuple[str, float, float]


def ring(corners: tuple[Spot, ...], walls: tuple[str, ...], make_up: str) -> DrawWalls:
    """Outer walls of the lowest storey around corners (id, x, y), counter-clockwise."""
    ids = tuple(id for id, _, _ in corners)
    return DrawWalls(
        joints=tuple(FreeJoint(id=id, x=x, y=y) for id, x, y in corners),
        chain=(*ids, ids[0]),
        walls=walls,
        make_up=make_up,
        base="floor",
        top="plate",
    )


def on(id: str, wall: str, distance: float) -> TeeJoint:
    """A joint on a wall, from its start."""
    return TeeJoint(id=id, wall=wall, end="start", distance=distance)


def partition(id: str, first: TeeJoint, second: TeeJoint | str, base: str = "floor", top: str = "plate") -> DrawWalls:
    """An inner wall between two others, or from one to a corner."""
    ends = (first, second)
    return DrawWalls(
        joints=tuple(held for held in ends if isinstance(held, TeeJoint)),
        chain=(first.id, second if isinstance(second, str) else second.id),
        walls=(id,),
        make_up="wall-inner",
        status="inner",
        base=base,
        top=top,
    )


def window(id: str, wall: str, at: float, width: float, height: float, head: float, **more: Any) -> Opening:
    """A window by the distance of its middle from the start of its wall, its sizes and its head above the floor."""
    return _opening(id, "window", wall, at, width, height, head - height, more)


def door(id: str, wall: str, at: float, width: float, height: float, **more: Any) -> Opening:
    """A door by the distance of its middle from the start of its wall."""
    return _opening(id, "door", wall, at, width, height, 0.0, more)


def _opening(
    id: str, unit: str, wall: str, at: float, width: float, height: float, sill: float, more: dict[str, Any]
) -> Opening:
    sizes = {"distance": at, "width": width, "height": height, "sill": sill}
    fixed = {"id": id, "unit": unit, "wall": wall, "end": "start", "number": id.upper()}
    return Opening.model_validate(fixed | sizes | more)


def eave(overhang: float) -> RoofEdge:
    """An eave with its overhang."""
    return RoofEdge(kind="eave", overhang=overhang)


def gable(overhang: float) -> RoofEdge:
    """A gable end with its overhang."""
    return RoofEdge(kind="gable", overhang=overhang)


def trimmed(project: Project, make_up: str, corner: float, cap: float) -> Project:
    """The project with boards on the corners of its clad walls, and caps on the ridges and hips of all its roofs."""
    clad = next(held for held in project.make_ups if held.id == make_up)
    roofs = (changed(roof, caps=cap) for roof in project.roofs)
    return put(project, changed(clad, corner_boards=corner), *roofs)


def tied(*joints: str) -> tuple[Corner, ...]:
    """Corners of a roof tied to joints."""
    return tuple(Corner(joint=joint) for joint in joints)


def cut(id: str, name: str, ends: tuple[float, float, float, float], look: Literal["left", "right"]) -> SectionLine:
    """A section line from a point to another: x1, y1, x2, y2."""
    x1, y1, x2, y2 = ends
    return SectionLine(id=f"section-{id}", name=name, x1=x1, y1=y1, x2=x2, y2=y2, look=look)


def four_sides(
    scale: float, xs: tuple[float, float], ys: tuple[float, float]
) -> tuple[tuple[str, float, float, float], ...]:
    """South and east above north and west, as `sheet` takes them."""
    places = [(x, y) for y in ys for x in xs]
    sides = ("south", "east", "north", "west")
    return tuple((f"elevation:{side}", scale, x, y) for side, (x, y) in zip(sides, places))


def sheet(number: int, name: str, paper: str, *views: tuple[str, float, float, float]) -> Sheet:
    """A sheet with views as (name, scale, x, y of the middle on paper)."""
    placed = tuple(
        PlacedView(id=f"s{number}v{k}", view=view, scale=scale, x=x, y=y)
        for k, (view, scale, x, y) in enumerate(views, 1)
    )
    return Sheet(id=f"sheet-{number}", number=f"A{number}", name=name, paper=paper, placed=placed)


def wall_sections(*places: tuple[str, float, Literal["start", "end"]]) -> tuple[WallSection, ...]:
    """Wall sections 1, 2, 3 ... as (wall, distance from its start, end to which it looks)."""
    return tuple(
        WallSection(id=f"wall-section-{k}", name=str(k), wall=wall, end="start", distance=distance, look=look)
        for k, (wall, distance, look) in enumerate(places, 1)
    )


def strips_sheet(number: int, paper: str, scale: float, *places: tuple[float, float]) -> Sheet:
    """A sheet with the first wall sections side by side, by the middle of each on paper."""
    views = ((f"section:wall-section-{k}", scale, x, y) for k, (x, y) in enumerate(places, 1))
    return sheet(number, "Wall sections", paper, *views)


def bearing(project: Project, *walls: str) -> Project:
    """With inner walls that bear."""
    return put(project, *(changed(project.walls_by_id[id], bearing="yes") for id in walls))


def girder(
    id: str, spots: tuple[tuple[float, float], ...], foot: LevelRule, under: str, size: tuple[float, float], plies: int
) -> tuple[Post | Beam, ...]:
    """A beam under joists at a level, from one foundation wall to another, in pieces over posts on pads between them.

    `size`: width and depth.
    """
    width, depth = size
    posts = tuple(
        Post(
            id=f"{id}-post-{n}",
            x=x,
            y=y,
            width=width,
            base=foot,
            top=LevelRule(level=under, offset=-depth),
            pad=Pad(width=usual("pad_width", "ft-in"), thickness=usual("pad_thickness", "ft-in")),
        )
        for n, (x, y) in enumerate(spots[1:-1], 1)
    )
    ends = [BeamEnd(x=x, y=y) for x, y in spots]
    ends[1:-1] = [BeamEnd(post=post.id) for post in posts]
    beams = tuple(
        Beam(id=f"{id}-{n}", start=a, end=b, width=width, depth=depth, plies=plies, top=LevelRule(level=under))
        for n, (a, b) in enumerate(pairwise(ends), 1)
    )
    return (*posts, *beams)


def engineered(project: Project) -> tuple[Any, ...]:
    """The ceilings of a project, their joists sized by an engineer: wide rooms ask for more than the tables hold."""
    return tuple(changed(ceiling, sized="by an engineer") for ceiling in project.ceilings)
