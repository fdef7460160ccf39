"""What the foot of an outer wall and its footing are built around, in one plane."""

from __future__ import annotations

from dataclasses import dataclass, replace

from ...junctions import Junction
from ...model import Layer
from ...resolve import Building, PlannedWall
from ...trades.foundations.place import FOUNDATIONS, PlacedFoundation
from ...trades.foundations.stretches import Stretch
from ...trades.makeups.model import Tradition
from ..along_walls import along_lie, wall_lies
from ..faces import WallFaces, wall_faces
from ..lie import Lie

SAMPLES = (0.1, 0.3, 0.5, 0.7, 0.9)
"""Shares of a wall at which the ground before it is read."""
OUT = 300.0
"""So far before the wall (mm)."""


@dataclass(frozen=True, slots=True)
class GroundLayer:
    """A layer on the ground within, between two heights (mm)."""

    layer: Layer
    high: float
    low: float


@dataclass(frozen=True, slots=True)
class FootSite:
    """Distances outward from the set-out line of the wall, heights (mm).

    `over`: the least that the top of the foundation stands over the ground before the wall.
    `base`: what the wall stands on, `top`: the top of the foundation wall, `foot_top` and `foot_low`: of the footing;
    `stem`, `footing`: outer and inner faces; `plate`: the thickness of the sill plate, 0 without one; `deep`: whether
    the slab's own edge carries; `pony`: whether framed walls stand between; `steps`: whether it steps; `ground`: the
    highest ground before the wall; `slab`: what lies on the ground within, from the top down.
    """

    tradition: Tradition
    wall: WallFaces
    base: float
    top: float
    foot_top: float
    foot_low: float
    stem: tuple[float, float]
    footing: tuple[float, float]
    ledge: float
    plate: float
    bolts: bool
    deep: bool
    pony: bool
    steps: bool
    ground: float
    over: float
    slab: tuple[GroundLayer, ...]

    @property
    def on_slab(self) -> bool:
        """Whether the floor is a slab on the ground at the foot of the wall."""
        return bool(self.slab) and abs(self.slab[0].high - self.base) < 60.0 and self.carrying is not None

    @property
    def carrying(self) -> GroundLayer | None:
        """The layer of concrete on the ground."""
        return next((held for held in self.slab if held.layer.function == "structure"), None)

    @property
    def barrier(self) -> GroundLayer | None:
        """The membrane on the ground."""
        return next((held for held in self.slab if held.layer.function == "membrane"), None)

    @property
    def insulation(self) -> GroundLayer | None:
        """The insulation of the floor."""
        return next((held for held in self.slab if held.layer.function == "insulation"), None)


def foundation_of(building: Building, junction: Junction) -> tuple[PlannedWall, PlacedFoundation] | None:
    """The wall of a foot or a footing, and the foundation under it."""
    ids = {end.element for end in junction.ends}
    wall = next((building.plan.by_id[id] for id in sorted(ids) if id in building.plan.by_id), None)
    held = next((one for one in building[FOUNDATIONS] if one.foundation.id in ids), None)
    return (wall, held) if wall is not None and held is not None else None


def foot_site(building: Building, junction: Junction) -> FootSite | None:
    """What is built around at the foot of an outer wall; None where it stands on no foundation of its own, or leans."""
    found = foundation_of(building, junction)
    if found is None:
        return None
    wall, placed = found
    if not wall.is_plumb:
        return None
    at = next(k for k, held in enumerate(placed.walls) if held.wall.id == wall.wall.id)
    held, feet, stretches = placed.foundation, placed.feet[at], placed.stretches[at]
    highest = min(stretches, key=lambda stretch: stretch.drop)
    wide = held.footing_width if held.form == "deep edge" else held.stem_thickness
    stem = feet.ledge, feet.structure - wide
    margin = 0.0 if held.form == "deep edge" else (held.footing_width - held.stem_thickness) / 2
    drop = highest.drop
    layers, high = list[GroundLayer](), placed.levels.ground.z
    for layer in placed.slab.layers if placed.slab else ():
        layers.append(GroundLayer(layer, high, high - layer.thickness))
        high -= layer.thickness
    spots = [wall.at(wall.length * share, wall.outer + OUT) for share in SAMPLES]
    heights = [building.ground.z(x, y) for x, y in spots]
    base = building.levels[wall.wall.base.level].z + wall.wall.base.offset
    return FootSite(
        tradition=building.placed.project.tradition,
        wall=wall_faces(building, wall),
        base=base,
        top=placed.stem_top(highest),
        foot_top=placed.footing_top - drop,
        foot_low=placed.levels.footing.z - drop,
        stem=stem,
        footing=(stem[0] + margin, stem[1] - margin),
        ledge=feet.ledge,
        plate=placed.levels.sill.z - placed.stem_top(highest) if placed.levels.sill else 0.0,
        bolts=held.form != "deep edge",
        deep=held.form == "deep edge",
        pony=placed.is_pony(highest),
        steps=len(stretches) > 1,
        ground=max(heights),
        over=min(_top_at(placed, stretches, wall.length * share) - z for share, z in zip(SAMPLES, heights)),
        slab=tuple(layers),
    )


def _top_at(placed: PlacedFoundation, stretches: tuple[Stretch, ...], along: float) -> float:
    """Height of the top of a foundation wall at a distance along it."""
    held = next((one for one in stretches if one.first <= along <= one.last), stretches[0])
    return placed.stem_top(held)


def foot_lies(building: Building, junction: Junction) -> list[Lie]:
    """Along the wall on its set-out line, mitred with the outer walls at its ends."""
    found = foundation_of(building, junction)
    if found is None:
        return []
    wall, placed = found
    whole = wall_lies(building, wall, junction.runs)
    at = next(k for k, held in enumerate(placed.walls) if held.wall.id == wall.wall.id)
    stretches = placed.stretches[at]
    # Without pony walls only the footing steps: what lies at the foot of the wall is level.
    if len(whole) != 1 or len(stretches) < 2 or (junction.kind == "wall_foot" and placed.pony is None):
        return whole
    highest = min(stretch.drop for stretch in stretches)
    return [_stretch(whole[0], wall, stretch, highest) for stretch in stretches]


def _stretch(lie: Lie, wall: PlannedWall, stretch: Stretch, highest: float) -> Lie:
    """What of a run lies on a stretch of a foundation, so much lower than on the highest one."""
    ends = sorted(along_lie(lie, wall.at(min(max(at, 0.0), wall.length))) for at in (stretch.first, stretch.last))
    low, high = max(ends[0], 0.0), min(ends[1], lie.length)
    gaps = tuple((a - low, b - low) for a, b in lie.gaps)
    return replace(
        lie,
        start=lie.at(low),
        length=high - low,
        before=lie.before if low < 1.0 else 0.0,
        after=lie.after if high > lie.length - 1.0 else 0.0,
        gaps=gaps,
        dz=highest - stretch.drop,
    )
