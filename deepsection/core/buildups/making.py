"""Pieces as parts: made for the views whose scale shows them, cut and seen like every other part."""

from __future__ import annotations

from collections import defaultdict
from functools import lru_cache
from weakref import WeakKeyDictionary

from shapely.affinity import affine_transform
from shapely.geometry import Polygon

from ..building.cutting import without
from ..building.parts import Part, part_key
from ..building.placed import House
from ..drawing.cropping import Window
from ..geometry import CutFrame, Frame, LevelFrame, Solid, meetings, polygons_of, reaches_of
from ..junctions import Junction, found_junctions
from ..resolve import Building
from ..units import Units
from .choosing import Built, built_of
from .library import SITES
from .lie import AnyLie, Lie, UprightLie
from .pieces import STRIP, Piece

AROUND = 1700.0
"""So far from its run pieces of a junction reach (mm)."""
VOID = "air"
"""What a piece of it takes from others is left empty."""
SQUARE = 0.99
"""A plane shows fixings where it crosses their run square, or nearly (cosine)."""


@lru_cache(maxsize=20_000)
def _bodies(piece: Piece, lie: AnyLie, key: tuple[str, str, str], note: str) -> tuple[tuple[Part, Solid | None], ...]:
    """The parts of a piece on a run, each with what it keeps clear."""
    element, junction, run = key
    made = []
    trims = () if piece.ends == "run" else lie.wall if piece.ends == "wall" else lie.roof
    for number, (low, high) in enumerate(lie.spans(piece)):
        if high - low <= 0.5:
            continue
        slot = f"{junction}:{run}" + (f":{number}" if piece.every else "")
        part = Part(
            part_key(element, piece.role, piece.id, slot),
            element,
            piece.role,
            piece.material,
            lie.body(piece.shape, low, high, trims),
            lie.axis if piece.axis else None,
            outside=False,
            function=piece.drawn,
            note=note,
            does=piece.does,
        )
        clear = lie.body(piece.clears, low, high, trims) if piece.clears is not None else None
        made.append((part, clear))
    return tuple(made)


def note_of(piece: Piece, built: Built, units: Units) -> str:
    """What drawings say of a piece, with its sizes."""
    sizes = zip(built.build_up.parameters, built.values)
    return piece.note.format_map({held.id: held.written(value, units) for held, (_, value) in sizes})


_lies: WeakKeyDictionary[House, dict[str, list[AnyLie]]] = WeakKeyDictionary()


def lies_of(building: Building, junction: Junction) -> list[AnyLie]:
    """Where the pieces of a junction lie."""
    known = _lies.setdefault(building.placed.house, {})
    if junction.id not in known:
        known[junction.id] = list(SITES[junction.kind].lies(building, junction))
    return known[junction.id]


def made_of(building: Building, junction: Junction, tier: float) -> list[tuple[Piece, Part, Solid | None]]:
    """The pieces of a junction that show at a scale of 1:`tier`, as parts, each with what it keeps clear."""
    built = built_of(building, junction)
    shown = [piece for piece in built.shown if piece.tier >= tier] if built is not None else []
    return [
        (piece, part, clear)
        for piece in shown
        for run, lie in enumerate(lies_of(building, junction))
        if not piece.runs or run in piece.runs
        for part, clear in _pieces_on(building, junction, piece, run, lie)
    ]


def _pieces_on(
    building: Building, junction: Junction, piece: Piece, run: int, lie: AnyLie
) -> tuple[tuple[Part, Solid | None], ...]:
    """The parts of a piece on a run of a junction, each with what it keeps clear."""
    built = built_of(building, junction)
    assert built is not None
    key = (junction.elements[0], junction.id.replace("/", "~"), str(run))
    return _bodies(piece, lie, key, note_of(piece, built, building.placed.project.units))


def with_pieces(building: Building, frame: CutFrame, window: Window, scale: float) -> Building:
    """A building with the pieces that show at a scale near the plane of a frame, in a window; itself without any.

    Pieces of junctions that are cut level are made for level planes alone.
    """
    if scale > STRIP:
        return building
    near = [held for held in found_junctions(building) if held.kind in SITES and _near(held, frame, window)]
    made = [one for held in near for one in made_of(building, held, scale)]
    return _merged(building, made) if made else building


def fixings_at(building: Building, frame: CutFrame, window: Window, scale: float) -> list[tuple[Part, Polygon]]:
    """The nearest of each fixing that shows at a scale, where a plane crosses its run: a part, and what it looks like.

    Drawings show them wherever they stand along the run.
    """
    found: list[tuple[Part, Polygon]] = []
    for junction in found_junctions(building) if scale <= STRIP else ():
        built = built_of(building, junction) if _near(junction, frame, window) else None
        spaced = [piece for piece in built.shown if piece.every and piece.tier >= scale] if built else []
        for run, lie in enumerate(lies_of(building, junction) if spaced else ()):
            for piece in (held for held in spaced if not held.runs or run in held.runs):
                shape, bodies = _fixing_in(piece, lie, frame), _pieces_on(building, junction, piece, run, lie)
                if bodies and shape is not None:
                    found += [(bodies[0][0], shown) for shown in polygons_of(shape.intersection(window.outline))]
    return found


def _fixing_in(piece: Piece, lie: AnyLie, frame: CutFrame) -> Polygon | None:
    """What a fixing looks like in a plane that crosses its run; None where it does not, or nothing stands there."""
    if isinstance(frame, LevelFrame):
        return lie.shows(piece, frame) if isinstance(lie, UprightLie) else None
    crossing = _crossing(lie, frame) if isinstance(lie, Lie) else None
    if crossing is None or not isinstance(lie, Lie) or lie.stops(piece, crossing):
        return None
    side = lie.out[0] * frame.ux + lie.out[1] * frame.uy
    u0 = lie.start[0] * frame.ux + lie.start[1] * frame.uy
    return affine_transform(piece.shape, [side, 0, 0, 1, u0, lie.dz + lie.rise * crossing])


def _crossing(lie: Lie, frame: Frame) -> float | None:
    """Where along a run a plane crosses it square; None where it does not."""
    first, last = (frame.depth(*lie.at(at)) for at in (0.0, lie.length))
    if first * last > 0 or first == last or abs(lie.out[0] * frame.ux + lie.out[1] * frame.uy) < SQUARE:
        return None
    return first / (first - last) * lie.length


def _near(junction: Junction, frame: CutFrame, window: Window) -> bool:
    """Whether a run of a junction comes near the plane that cuts its kind, within the window."""
    if (junction.about.cut == "level") != isinstance(frame, LevelFrame):
        return False
    for run in junction.runs:
        (x0, y0, z0), (x1, y1, z1) = run.start, run.end
        if isinstance(frame, LevelFrame):
            u, v = frame.to_view(x0, y0)
            around = window.left - AROUND <= u <= window.right + AROUND
            if around and window.low - AROUND <= v <= window.high + AROUND and z0 - AROUND <= frame.z <= z1 + AROUND:
                return True
            continue
        depths = sorted((frame.depth(x0, y0), frame.depth(x1, y1)))
        if depths[0] > AROUND or depths[1] < -AROUND:
            continue
        us = sorted((x0 * frame.ux + y0 * frame.uy, x1 * frame.ux + y1 * frame.uy))
        if us[0] > window.right + AROUND or us[1] < window.left - AROUND:
            continue
        if min(z0, z1) <= window.high + AROUND and max(z0, z1) >= window.low - AROUND:
            return True
    return False


def _merged(building: Building, made: list[tuple[Piece, Part, Solid | None]]) -> Building:
    """The parts of a building, those that give way cut, and the pieces, cut by what they give way to.

    Pieces give way to those of other junctions as parts do; what two junctions have in common is there once.
    """
    takers: dict[str, list[tuple[str, Solid]]] = defaultdict(list)
    for piece, part, clear in made:
        for role in piece.takes:
            takers[role] += [(_junction(part), body) for body in (part.solid, clear) if body is not None]
    by_role: dict[str, list[int]] = defaultdict(list)
    for k, part in enumerate(building.parts):
        by_role[part.role].append(k)
    parts, around = list(building.parts), building.reaches
    for role, taken in takers.items():
        own, bodies = by_role.get(role, []), [body for _, body in taken]
        for k, near in zip(own, meetings(around[own], reaches_of(bodies))):
            if near:
                parts[k] = without(parts[k], tuple(bodies[n] for n in near))
    held = [(piece, part) for piece, part, _ in made if piece.material != VOID or piece.does]
    before: list[list[Solid]] = [[] for _ in held]
    reaches = reaches_of(part.solid for _, part in held)
    for role, taken in takers.items():
        own = [n for n, (_, part) in enumerate(held) if part.role == role]
        for n, near in zip(own, meetings(reaches[own], reaches_of(body for _, body in taken))):
            junction = _junction(held[n][1])
            before[n] += [taken[k][1] for k in near if taken[k][0] != junction]
    yielding: dict[str, list[int]] = defaultdict(list)
    for n, (piece, _) in enumerate(held):
        for role in piece.yields:
            yielding[role].append(n)
    for role, own in yielding.items():
        others = by_role.get(role, [])
        for n, near in zip(own, meetings(reaches[own], around[others])):
            before[n] += [building.parts[others[k]].solid for k in near]
    for n, (piece, part) in enumerate(held):
        if piece.inlaid:
            own = by_role.get(piece.inlaid, [])
            (near,) = meetings(reaches[[n]], around[own])
            before[n].append(part.solid.minus([building.parts[own[k]].solid for k in near]))
    earlier: dict[str, list[Solid]] = defaultdict(list)
    for (piece, part), bodies in zip(held, before):
        same = earlier[piece.id]
        bodies += [other for other in same if other.reach.meets(part.solid.reach)]
        same.append(part.solid)
        parts.append(without(part, tuple(bodies)) if bodies else part)
    return building.with_parts(tuple(parts))


def _junction(part: Part) -> str:
    """The junction of a piece, within its key."""
    return part.key.split("/")[3].partition(":")[0]
