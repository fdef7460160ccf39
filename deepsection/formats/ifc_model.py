"""Models in IFC 2x3 and 4 as `Model`: walls with their layers, openings, storeys, spaces, grids.

Bodies are those that ifcopenshell makes of any form of geometry; what is no plain wall is shown by its outline, and
listed.
"""

from __future__ import annotations

import itertools
import logging
import math
import re
from collections import Counter, defaultdict
from collections.abc import Collection, Iterator
from dataclasses import replace
from typing import Any, Literal

import ifcopenshell
import ifcopenshell.geom
import ifcopenshell.util.element
import ifcopenshell.util.placement
import ifcopenshell.util.unit
import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from deepsection.core.errors import BadInput
from deepsection.core.geometry import Axis, Point, polygons_of
from deepsection.core.progress import Told, silent
from deepsection.core.reading import FoundGrid, FoundLayer, FoundRoof, FoundRoom, FoundSlab, Left, UnitFound
from deepsection.core.reading.modelled import (
    WALLS,
    Model,
    ModelOpening,
    ModelStorey,
    ModelWall,
    arc_wall,
    straight_wall,
)
from deepsection.core.reading.roofed import roofs_of, slopes_of

log = logging.getLogger("deepsection")

MOST_BYTES = 60_000_000
MOST_WALLS = 3_000
MOST_SHOWN = 300
"""So many other things are shown by their outlines."""
MOST_TRIANGLES = 150_000
"""So many of what is not taken over are shown."""
IN_WALLS = {"IfcWall", "IfcWallStandardCase", "IfcWindow", "IfcDoor", "IfcOpeningElement"}
SHOWN = ("slabs", "roofs", "stairs", "columns", "chimneys", "curtain walls", "furniture", "railings", "other parts")
"""What a plan is told by; members and coverings are many, and only counted."""
SCHEMAS = ("IFC2X3", "IFC4")
"""Schemas begin with one of these."""
ROOFING = {"IfcSlab": ("ROOF",), "IfcRoof": (), "IfcCovering": ("ROOFING",)}
"""What is seen of a roof from above, by class and types: none where all are."""
MOST_ROOFING = 2_000
FLOORS = ("FLOOR", "NOTDEFINED", "USERDEFINED", "None")
"""Types of slabs that are floors."""
SLABS = (10.0, 900.0)
"""Floors are so thick (mm)."""
LEAST_WALL = 40.0
"""Lower or shorter walls are none (mm)."""
ABOVE = 700.0
"""Walls that begin so much higher than their storey (mm) stand on no floor."""
NAMES = {
    "IfcSlab": "slabs", "IfcRoof": "roofs", "IfcStair": "stairs", "IfcStairFlight": "stairs", "IfcBeam": "beams",
    "IfcColumn": "columns", "IfcMember": "members", "IfcCovering": "coverings", "IfcRailing": "railings",
    "IfcFurnishingElement": "furniture", "IfcFurniture": "furniture", "IfcPlate": "plates", "IfcFooting": "footings",
    "IfcPipeSegment": "pipes",
    "IfcCurtainWall": "curtain walls", "IfcChimney": "chimneys", "IfcBuildingElementProxy": "other parts",
}  # fmt: skip

Corners = NDArray[np.float64]


def is_ifc(data: bytes) -> bool:
    """Whether a file is a model in the clear text form of STEP. Source: ISO 10303-21, 4.1 (from memory)."""
    return data.lstrip()[:13] == b"ISO-10303-21;"


def read_ifc(data: bytes, told: Told = silent) -> Model:
    """What stands in a model. Raises: BadInput for what is none, cut short, too much or of another schema."""
    told(f"opening {len(data) / 1e6:,.1f} MB", 0.0)
    file = _opened(data)
    try:
        return _Reader(file).model(told)
    except BadInput:
        raise
    except Exception as error:  # What a model that breaks its own rules can do to a reader has no end.
        log.exception("a model cannot be read")
        raise BadInput("this model does not hold together: what it names is not there", field="file") from error


def _opened(data: bytes) -> Any:
    if len(data) > MOST_BYTES:
        message = f"this file has {len(data) / 1e6:,.0f} MB; models of up to {MOST_BYTES / 1e6:,.0f} MB are read"
        raise BadInput(message, field="file", value=len(data), limit=MOST_BYTES)
    if b"END-ISO-10303-21" not in data[-300:]:
        message = f"this model is cut short at byte {len(data)}: its end is missing; save or send it again"
        raise BadInput(message, field="file", value=len(data))
    stated = re.search(rb"FILE_SCHEMA\s*\(\s*\(\s*'([^']*)'", data[:20_000])
    schema = stated[1].decode("ascii", "replace").upper() if stated else "unknown"
    if not schema.startswith(SCHEMAS):
        raise BadInput(f"this model is of schema {schema}; IFC 2x3 and 4 are read", field="file", value=schema)
    try:
        return ifcopenshell.file.from_string(data.decode("utf-8", "replace"))
    except Exception as error:  # What a broken file can do to a reader has no end.
        raise BadInput("this is not a model that can be read", field="file") from error


def rest_of(data: bytes, without: Collection[str]) -> tuple[Corners, NDArray[np.int64]]:
    """What of a model is no wall and stands in none, as one body (mm): points and triangles.

    `without`: the global ids of what is left out too. Raises: BadInput as `read_ifc`.
    """
    reader = _Reader(_opened(data))
    taken = frozenset(without)
    points: list[Corners] = []
    triangles: list[NDArray[np.int64]] = []
    corners = count = 0
    for product in reader.rest(taken):
        body = reader.corners(product)
        if body is None or count + len(body[1]) > MOST_TRIANGLES:
            continue
        points.append(body[0])
        triangles.append(body[1] + corners)
        corners, count = corners + len(body[0]), count + len(body[1])
    if not points:
        return np.zeros((0, 3)), np.zeros((0, 3), dtype=np.int64)
    return np.concatenate(points), np.concatenate(triangles)


class _Reader:
    def __init__(self, file: Any) -> None:
        self.file = file
        try:
            self.mm = float(ifcopenshell.util.unit.calculate_unit_scale(file)) * 1000.0
        except Exception as error:
            raise BadInput("this model does not say in what unit it counts", field="file") from error
        self.settings: Any = ifcopenshell.geom.settings()  # type: ignore[no-untyped-call]
        self.settings.set("use-world-coords", True)
        self.settings.set("disable-opening-subtractions", True)
        self.left: Counter[tuple[str, str]] = Counter()
        self.notes: list[str] = []

    def model(self, told: Told) -> Model:
        unit = self.file.by_type("IfcProject")
        if not unit:
            raise BadInput("there is no project in this model", field="file")
        name = {1.0: "mm", 10.0: "cm", 1000.0: "m", 25.4: "in", 304.8: "ft"}.get(round(self.mm, 4), f"{self.mm:g} mm")
        model = Model(UnitFound(name, self.mm, 1.0, f"the model says so ({self.file.schema})"))
        walls = self.file.by_type("IfcWall")
        if len(walls) > MOST_WALLS:
            message = f"this model has {len(walls):,} walls; up to {MOST_WALLS:,} are read"
            raise BadInput(message, field="file", value=len(walls), limit=MOST_WALLS)
        on: dict[Any, list[ModelWall]] = defaultdict(list)
        for number, wall in enumerate(walls):
            told(f"{number:,} of {len(walls):,} walls", 0.2 + 0.5 * number / len(walls))
            made, lines = self._wall(wall)
            model.lines += lines
            storey = self._storey_of(wall)
            if made is not None and storey is not None and made.bottom - self._elevation(storey) > ABOVE:
                self.left["walls", "that stand on roofs or on other walls"] += 1
            elif made is not None:
                on[storey].append(made)
        told("rooms, floors and roofs", 0.7)
        rooms, slabs = self._rooms(), self.slabs()
        floors = sorted(self.file.by_type("IfcBuildingStorey"), key=self._elevation)
        for number, storey in enumerate(floors, 1):
            title = str(storey.LongName or storey.Name or f"Storey {number}").strip()[:60]
            model.storeys.append(
                ModelStorey(
                    title,
                    self._elevation(storey),
                    tuple(on.pop(storey, ())),
                    tuple(rooms.pop(storey, ())),
                    slabs.get(storey),
                )
            )
        for lost in on.values():
            self.left["walls", "on no storey"] += len(lost)
        model.grids = list(self._grids())
        model.roofs, roofing = self._roofs()
        told("what is left", 0.9)
        model.lines += self._others(roofing | {name for slab in slabs.values() for name in slab.of})
        model.left = [Left(kind, what, count) for (kind, what), count in sorted(self.left.items())]
        walls = [f"{count} {kind} {what}" for (kind, what), count in sorted(self.left.items()) if kind == "walls"]
        model.notes = walls + self.notes
        return model

    # --- bodies ---------------------------------------------------------------------------------

    def corners(self, product: Any) -> tuple[Corners, NDArray[np.int64]] | None:
        """The points (mm) and triangles of the body of a product; None where it has none."""
        if not getattr(product, "Representation", None):
            return None
        try:
            shape: Any = ifcopenshell.geom.create_shape(self.settings, product)
            points = np.array(shape.geometry.verts, dtype=float).reshape(-1, 3) * 1000.0
            triangles = np.array(shape.geometry.faces, dtype=np.int64).reshape(-1, 3)
        except Exception:  # A body that cannot be made is one that is left over.
            return None
        return (points, triangles) if len(points) and np.isfinite(points).all() and abs(points).max() < 1e7 else None

    @staticmethod
    def _footprint(points: Corners, triangles: NDArray[np.int64]) -> BaseGeometry | None:
        """What a body covers, seen from above, in as many pieces as it is."""
        flat = shapely.polygons(points[triangles][:, :, :2])
        whole = shapely.union_all(flat[shapely.area(flat) > 1e-3], grid_size=1e-3)
        return whole if polygons_of(whole) else None

    @staticmethod
    def _outline(shape: BaseGeometry, name: str) -> list[tuple[Point, Point, str]]:
        rings = [shapely.get_coordinates(piece.simplify(1.0).exterior).tolist() for piece in polygons_of(shape)]
        return [((ax, ay), (bx, by), name) for ring in rings for (ax, ay), (bx, by) in itertools.pairwise(ring)]

    # --- walls ----------------------------------------------------------------------------------

    def _wall(self, wall: Any) -> tuple[ModelWall | None, list[tuple[Point, Point, str]]]:
        body = self.corners(wall)
        footprint = self._footprint(*body) if body else None
        if body is None or footprint is None:
            self.left["walls", "without a body"] += 1
            return None, []
        lines = self._outline(footprint, WALLS)
        layers, usage = self._layers(wall)
        stated = sum(layer.thickness for layer in layers)
        found = straight_wall(*body, stated, self._way(wall)) or (arc_wall(*body, stated) if stated else None)
        if found is None:
            self.left["walls", "that are of no plain form: draw them on their outlines"] += 1
            return None, lines
        start, end, bulge, thickness = found
        axis = Axis(start, end, bulge)
        bottom, top = float(body[0][:, 2].min()), float(body[0][:, 2].max())
        if axis.length < LEAST_WALL or top - bottom < LEAST_WALL:
            self.left["walls", "too small"] += 1
            return None, lines
        stack = self._from_left(wall, layers, usage, axis.direction(0.0)) if usage else layers
        openings = tuple(self._openings(wall, axis))
        outer = self._fact(wall, "IsExternal")
        made = ModelWall(start, end, thickness, bottom, top, stack, usage is not None, outer, openings, bulge)
        return made, lines

    def _way(self, wall: Any) -> float | None:
        """The direction of the axis of a wall in plan (radians), where it states one."""
        for shape in wall.Representation.Representations:
            if shape.RepresentationIdentifier == "Axis" and len(shape.Items) == 1:
                curve = shape.Items[0]
                if curve.is_a("IfcPolyline") and len(curve.Points) == 2:
                    a, b = (tuple(point.Coordinates)[:2] for point in curve.Points)
                    if math.dist(a, b) > 1e-9:
                        placed = ifcopenshell.util.placement.get_local_placement(wall.ObjectPlacement)
                        dx, dy, _ = placed[:3, :3] @ np.array([b[0] - a[0], b[1] - a[1], 0.0])
                        return math.atan2(dy, dx)
        return None

    def _layers(self, wall: Any) -> tuple[tuple[FoundLayer, ...], Any]:
        """The layers of a wall in the order of the file, and how they lie along its axis where that is stated."""
        usage: Any = ifcopenshell.util.element.get_material(wall)
        held: Any = ifcopenshell.util.element.get_material(wall, should_skip_usage=True)
        if held is None or not held.is_a("IfcMaterialLayerSet"):
            return (), None
        layers = tuple(
            FoundLayer(
                str(getattr(layer, "Name", None) or (layer.Material.Name if layer.Material else "") or "layer"),
                str(layer.Material.Name if layer.Material else ""),
                str(getattr(layer, "Category", None) or ""),
                float(layer.LayerThickness) * self.mm,
            )
            for layer in held.MaterialLayers
            if layer.LayerThickness > 0
        )
        return layers, usage if usage.is_a("IfcMaterialLayerSetUsage") else None

    @staticmethod
    def _from_left(
        wall: Any, layers: tuple[FoundLayer, ...], usage: Any, way: tuple[float, float]
    ) -> tuple[FoundLayer, ...]:
        """Layers from the left of a wall to its right: the first lies farthest against the direction they follow in."""
        placed = ifcopenshell.util.placement.get_local_placement(wall.ObjectPlacement)
        across = placed[:3, 1] * (1.0 if usage.DirectionSense == "POSITIVE" else -1.0)
        return layers[::-1] if across[0] * -way[1] + across[1] * way[0] > 0 else layers

    def _openings(self, wall: Any, axis: Axis) -> Iterator[ModelOpening]:
        """What stands in a wall: of an arc in straight frames, across the middle of each."""
        for relation in wall.HasOpenings or ():
            hole = relation.RelatedOpeningElement
            body = self.corners(hole)
            if body is None:
                self.left["openings", "without a body"] += 1
                continue
            if getattr(hole, "PredefinedType", None) == "RECESS":
                self.left["openings", "niches"] += 1
                continue
            plan = body[0][:, :2]
            (x0, y0), (x1, y1) = plan.min(axis=0).tolist(), plan.max(axis=0).tolist()
            middle = axis.along(((x0 + x1) / 2, (y0 + y1) / 2))
            along = middle + (plan - np.array(axis.at(middle))) @ np.array(axis.direction(middle))
            fill = next((held.RelatedBuildingElement for held in hole.HasFillings or ()), None)
            kind: Literal["window", "door", "opening"] = "opening"
            if fill is not None and fill.is_a("IfcWindow"):
                kind = "window"
            elif fill is not None and fill.is_a("IfcDoor"):
                kind = "door"
            sizes = [getattr(fill, name, None) for name in ("OverallWidth", "OverallHeight")] if fill else [None, None]
            wide, high = (float(value) * self.mm if value else None for value in sizes)
            yield ModelOpening(
                float(along.min()),
                float(along.max()),
                float(body[0][:, 2].min()),
                float(body[0][:, 2].max()),
                kind,
                str((fill.Tag or fill.Name) if fill is not None else hole.Name or "").strip()[:20],
                wide,
                high,
            )

    @staticmethod
    def _fact(product: Any, name: str) -> bool | None:
        value = ifcopenshell.util.element.get_pset(product, "Pset_WallCommon", name)
        return value if isinstance(value, bool) else None

    # --- storeys, rooms, grids, the rest --------------------------------------------------------

    def _elevation(self, storey: Any) -> float:
        """Above the origin (mm): by its place, else as it states."""
        if storey.ObjectPlacement is not None:
            z = float(ifcopenshell.util.placement.get_local_placement(storey.ObjectPlacement)[2, 3]) * self.mm
            if abs(z) > 1e-6:
                return z
        return float(storey.Elevation or 0.0) * self.mm

    @staticmethod
    def _storey_of(product: Any) -> Any:
        held: Any = ifcopenshell.util.element.get_container(product)
        while held is not None and not held.is_a("IfcBuildingStorey"):
            held = ifcopenshell.util.element.get_aggregate(held)
        return held

    def _rooms(self) -> dict[Any, list[FoundRoom]]:
        found: dict[Any, list[FoundRoom]] = defaultdict(list)
        for space in self.file.by_type("IfcSpace"):
            body = self.corners(space)
            footprint = self._footprint(*body) if body else None
            storey: Any = ifcopenshell.util.element.get_aggregate(space)
            name = str(space.LongName or space.Name or "").strip()[:60]
            if footprint is None or not name or storey is None or not storey.is_a("IfcBuildingStorey"):
                self.left["spaces", "without a name, a body or a storey"] += 1
                continue
            at = footprint.representative_point()
            found[storey].append(FoundRoom(name, (at.x, at.y), round(footprint.area / 1e6, 2)))
        return found

    def _grids(self) -> Iterator[FoundGrid]:
        for grid in self.file.by_type("IfcGrid"):
            placed = ifcopenshell.util.placement.get_local_placement(grid.ObjectPlacement)
            for axis in (*(grid.UAxes or ()), *(grid.VAxes or ()), *(grid.WAxes or ())):
                curve = axis.AxisCurve
                if not curve.is_a("IfcPolyline") or len(curve.Points) != 2 or not axis.AxisTag:
                    self.left["grid lines", "bent or without a name"] += 1
                    continue
                ends = [
                    (placed @ np.array([*tuple(point.Coordinates)[:2], 0.0, 1.0]))[:2] * self.mm
                    for point in curve.Points
                ]
                (x0, y0), (x1, y1) = ([float(value) for value in end] for end in ends)
                yield FoundGrid(str(axis.AxisTag)[:6], (x0, y0), (x1, y1))

    def slabs(self) -> dict[Any, FoundSlab]:
        """Of each storey the floor: the slabs that are as thick as its largest one."""
        held: dict[Any, list[FoundSlab]] = defaultdict(list)
        for product in self.file.by_type("IfcSlab")[:MOST_WALLS]:
            if str(getattr(product, "PredefinedType", None)) not in FLOORS:
                continue
            body = self.corners(product)
            area = self._footprint(*body) if body else None
            if body is None or area is None:
                continue
            thickness = float(np.ptp(body[0][:, 2]))
            # A plain slab has as much area below as above, and nothing between.
            flat = np.isclose(body[0][:, 2], body[0][:, 2].min(), atol=1.0) | np.isclose(
                body[0][:, 2], body[0][:, 2].max(), atol=1.0
            )
            if not flat.all() or not SLABS[0] <= thickness <= SLABS[1]:
                self.left["slabs", "that are of no plain form"] += 1
                continue
            layers, usage = self._layers(product)
            from_above = layers[::-1] if usage is None or usage.DirectionSense == "POSITIVE" else layers
            one = FoundSlab(area, thickness, from_above, frozenset((product.GlobalId,)))
            held[self._storey_of(product)].append(one)
        found = {}
        lowest = min((self._elevation(storey) for storey in self.file.by_type("IfcBuildingStorey")), default=0.0)
        for storey, slabs in held.items():
            if storey is None or self._elevation(storey) <= lowest:
                continue  # What lies on the ground is the foundation of the project.
            main = max(slabs, key=lambda slab: float(slab.area.area))
            alike = [slab for slab in slabs if abs(slab.thickness - main.thickness) < 1.0]
            of = frozenset(name for slab in alike for name in slab.of)
            area = shapely.union_all([slab.area for slab in alike], grid_size=1e-3)
            found[storey] = replace(main, area=area, of=of)
            if len(alike) < len(slabs):
                self.left["slabs", "of another thickness than the floor they are in"] += len(slabs) - len(alike)
        return found

    def _roofs(self) -> tuple[list[FoundRoof], set[str]]:
        """The roofs by what is seen of them from above, and what they are made of."""
        found: list[tuple[Any, tuple[Corners, NDArray[np.int64]]]] = []
        for product in self.roofing():
            body = self.corners(product) if len(found) < MOST_ROOFING else None
            if body is not None:
                found.append((product, body))
            elif len(found) >= MOST_ROOFING:
                self.left["parts of roofs", f"beyond {MOST_ROOFING:,}"] += 1
        roofs, said = roofs_of(slopes_of((product.GlobalId, *body) for product, body in found))
        self.notes += said
        return roofs, {product.GlobalId for product, _ in found} if roofs else set()

    def roofing(self) -> Iterator[Any]:
        """What is seen of roofs from above."""
        for kind, types in ROOFING.items():
            for product in self.file.by_type(kind):
                if not types or str(getattr(product, "PredefinedType", None)) in types:
                    yield product

    def rest(self, taken_over: Collection[str]) -> Iterator[Any]:
        """What is no wall, stands in none, and is not taken over (by global ids)."""
        for product in self.file.by_type("IfcElement"):
            kind = product.is_a()
            if kind not in IN_WALLS and not kind.startswith("IfcVirtual") and product.GlobalId not in taken_over:
                yield product

    def _others(self, taken_over: set[str]) -> list[tuple[Point, Point, str]]:
        """Outlines of what is not taken over, seen from above; all of it is counted."""
        lines: list[tuple[Point, Point, str]] = []
        shown = 0
        for product in self.rest(taken_over):
            kind = product.is_a()
            name = NAMES.get(kind, kind.removeprefix("Ifc").lower())
            self.left[name, "not taken over"] += 1
            if name in SHOWN and shown < MOST_SHOWN:
                body = self.corners(product)
                hull = shapely.convex_hull(shapely.multipoints(body[0][:, :2])) if body else None
                if isinstance(hull, Polygon):
                    shown += 1
                    lines += self._outline(hull, name)
        return lines
