"""IFC 4: the building as a model. Walls with their layers, openings and units in them, and every other part.

Lengths in millimetres. Global ids follow from the keys of parts, so that writing twice gives the same file.
"""

from __future__ import annotations

import math
import uuid
from collections import defaultdict
from collections.abc import Sequence
from typing import Any

import ifcopenshell
import ifcopenshell.guid
import shapely

from deepsection.core.catalog import material
from deepsection.core.geometry import Solid
from deepsection.core.model import Project
from deepsection.core.resolve import ROLES, Building, Part, storeys
from deepsection.core.trades.walls.whole import hole_in, wall_bodies

PAST, ALONG = 2000.0, 0.1
"""Lines of the grid run so far past the house (mm); those whose directions differ by less (sine) run alike."""
SPACE = uuid.UUID("6f0a6c52-5f4b-4f0e-9b1d-0f9f5a6f7c11")
"""Names of global ids are made in this space."""
IN_WALLS = {"window": "IfcWindow", "door": "IfcDoor"}
STAMP = "2000-01-01T00:00:00"
"""The file says no time of its own: exporting twice gives identical bytes."""


def write_ifc(project: Project, building: Building) -> bytes:
    """The file, as UTF-8 text."""
    return _Writer(project, building).written()


COMMON = {
    f"Ifc{name}": f"Pset_{name}Common"
    for name in (
        "Beam", "Chimney", "Column", "Covering", "Door", "Footing", "Member", "Plate", "Railing", "Slab", "Stair",
        "Window",
    )
}  # fmt: skip
"""The property set of each class that says whether it is new or existing. Source: ISO 16739-1, from memory."""


class _Writer:
    def __init__(self, project: Project, building: Building) -> None:
        self.project, self.building = project, building
        self.file = ifcopenshell.file(schema="IFC4")
        name = self.file.header.file_name
        name.name, name.time_stamp = f"{project.id}.ifc", STAMP
        name.originating_system = name.preprocessor_version = "Deep Section"
        self.make = self.file.create_entity
        self.materials: dict[str, Any] = {}
        self.walls = building.plan.by_id
        self.parts: dict[str, list[Part]] = defaultdict(list)
        for part in building.parts:
            self.parts[part.element].append(part)
        self._origin = self.make("IfcAxis2Placement3D", Location=self._point(0.0, 0.0, 0.0))

    def written(self) -> bytes:
        """Everything, storey by storey."""
        self._project()
        contained: dict[str, list[Any]] = defaultdict(list)
        for id, wall in self.walls.items():
            level = wall.wall.base.level
            if level not in self._storey:  # The walls of a dormer stand on a roof.
                level = self._storey_under(self.building.levels[level].z + wall.wall.base.offset)
            contained[level].append(self._wall(id))
        for level, product in self._others({*self.walls, *(opening.id for opening in self.project.openings)}):
            contained[level].append(product)
        self._rooms()
        if grid := self._grid():
            contained[self.lowest].append(grid)
        for level, products in contained.items():
            self._relate(
                "IfcRelContainedInSpatialStructure",
                level,
                RelatedElements=products,
                RelatingStructure=self._storey[level],
            )
        text: str = self.file.to_string()  # type: ignore[no-untyped-call]
        return text.encode()

    # --- the frame of the model -----------------------------------------------------------------

    def _id(self, key: str) -> str:
        return str(ifcopenshell.guid.compress(uuid.uuid5(SPACE, f"{self.project.id}/{key}").hex))

    def _point(self, *xyz: float) -> Any:
        return self.make("IfcCartesianPoint", Coordinates=tuple(float(value) for value in xyz))

    def _placement(self) -> Any:
        return self.make("IfcLocalPlacement", RelativePlacement=self._origin)

    def _project(self) -> None:
        units = [
            self.make("IfcSIUnit", UnitType="LENGTHUNIT", Prefix="MILLI", Name="METRE"),
            self.make("IfcSIUnit", UnitType="AREAUNIT", Name="SQUARE_METRE"),
            self.make("IfcSIUnit", UnitType="VOLUMEUNIT", Name="CUBIC_METRE"),
            self.make("IfcSIUnit", UnitType="PLANEANGLEUNIT", Name="RADIAN"),
        ]
        self.context = self.make(
            "IfcGeometricRepresentationContext",
            ContextType="Model",
            CoordinateSpaceDimension=3,
            Precision=1e-5,
            WorldCoordinateSystem=self._origin,
        )
        project = self.make(
            "IfcProject",
            GlobalId=self._id("project"),
            Name=self.project.name,
            RepresentationContexts=[self.context],
            UnitsInContext=self.make("IfcUnitAssignment", Units=units),
        )
        site = self._spatial("IfcSite", "site", self.project.place or "Site")
        house = self._spatial("IfcBuilding", "building", self.project.name)
        self._storey = {}
        for held in storeys(self.project):
            level = self.building.levels.get(held.level)
            storey = self._spatial("IfcBuildingStorey", f"storey/{held.level}", held.name)
            storey.Elevation = level.z if level else 0.0
            self._storey[held.level] = storey
        self.lowest = next(iter(self._storey))
        for whole, parts in ((project, [site]), (site, [house]), (house, list(self._storey.values()))):
            self._relate("IfcRelAggregates", f"of {whole.GlobalId}", RelatingObject=whole, RelatedObjects=parts)

    def _spatial(self, kind: str, key: str, name: str) -> Any:
        placement = self._placement()
        return self.make(kind, GlobalId=self._id(key), Name=name, ObjectPlacement=placement, CompositionType="ELEMENT")

    def _relate(self, kind: str, key: str, **ends: Any) -> Any:
        return self.make(kind, GlobalId=self._id(f"{kind}/{key}"), **ends)

    # --- rooms and grid -------------------------------------------------------------------------

    def _rooms(self) -> None:
        """The space of each room, from its floor up to the plate."""
        plates = {held.level: held.plate for held in storeys(self.project)}
        spaces: dict[str, list[Any]] = defaultdict(list)
        for held in self.building.rooms:
            plate = plates.get(held.level)
            if held.space is None or plate is None or held.level not in self.building.levels:
                continue
            low, high = self.building.levels[held.level].z, self.building.levels[plate].z
            edge, *holes = (
                self._line(shapely.get_coordinates(ring).tolist())
                for ring in (held.space.exterior, *held.space.interiors)
            )
            kind = "IfcArbitraryProfileDefWithVoids" if holes else "IfcArbitraryClosedProfileDef"
            profile = self.make(kind, ProfileType="AREA", OuterCurve=edge)
            if holes:
                profile.InnerCurves = holes
            floor = self.make("IfcAxis2Placement3D", Location=self._point(0.0, 0.0, low))
            up = self.make("IfcDirection", DirectionRatios=(0.0, 0.0, 1.0))
            solid = self.make(
                "IfcExtrudedAreaSolid", SweptArea=profile, Position=floor, ExtrudedDirection=up, Depth=high - low
            )
            made = self.make(
                "IfcSpace",
                GlobalId=self._id(held.room.id),
                Name=held.room.id,
                LongName=held.room.name,
                ObjectPlacement=self._placement(),
                Representation=self._shape("Body", "SweptSolid", [solid]),
                CompositionType="ELEMENT",
                PredefinedType="INTERNAL",
            )
            spaces[held.level].append(made)
        for level, rooms in spaces.items():
            whole = self._storey[level]
            self._relate("IfcRelAggregates", f"rooms of {level}", RelatingObject=whole, RelatedObjects=rooms)

    def _grid(self) -> Any:
        """The lines of the grid, those that run along the first and the others; none where all run alike."""
        lines = self.project.grid
        if not lines or not self.walls:
            return None
        x0, y0, x1, y1 = shapely.total_bounds([wall.footprint for wall in self.walls.values()]).tolist()
        half = math.hypot(x1 - x0, y1 - y0) / 2 + PAST
        middle = (x0 + x1) / 2, (y0 + y1) / 2
        axes: tuple[list[Any], list[Any]] = ([], [])
        for line in lines:
            way = math.radians(line.angle)
            dx, dy = math.cos(way), math.sin(way)
            foot = (middle[0] - line.x) * dx + (middle[1] - line.y) * dy
            ends = [(line.x + (foot + s) * dx, line.y + (foot + s) * dy) for s in (-half, half)]
            across = abs(math.sin(way - math.radians(lines[0].angle))) > ALONG
            axes[across].append(self.make("IfcGridAxis", AxisTag=line.name, AxisCurve=self._line(ends), SameSense=True))
        if not axes[1]:
            return None
        curves = [axis.AxisCurve for held in axes for axis in held]
        drawn = self.make("IfcGeometricCurveSet", Elements=curves)
        return self.make(
            "IfcGrid",
            GlobalId=self._id("grid"),
            Name="Grid",
            ObjectPlacement=self._placement(),
            Representation=self._shape("FootPrint", "GeometricCurveSet", [drawn]),
            UAxes=axes[0],
            VAxes=axes[1],
        )

    def _line(self, points: Sequence[Sequence[float]]) -> Any:
        """A line in plan."""
        corners = [self.make("IfcCartesianPoint", Coordinates=(float(x), float(y))) for x, y in points]
        return self.make("IfcPolyline", Points=corners)

    def _shape(self, name: str, kind: str, items: list[Any]) -> Any:
        shape = self.make(
            "IfcShapeRepresentation",
            ContextOfItems=self.context,
            RepresentationIdentifier=name,
            RepresentationType=kind,
            Items=items,
        )
        return self.make("IfcProductDefinitionShape", Representations=[shape])

    # --- products -------------------------------------------------------------------------------

    def _product(self, kind: str, key: str, name: str, solids: list[tuple[str, Solid]]) -> Any:
        """A product of bodies, each with its material."""
        return self.make(
            kind,
            GlobalId=self._id(key),
            Name=name,
            ObjectPlacement=self._placement(),
            Representation=self._shape("Body", "Tessellation", [self._faces(solid) for _, solid in solids]),
        )

    def _faces(self, solid: Solid) -> Any:
        points, triangles = solid.mesh()
        return self.make(
            "IfcTriangulatedFaceSet",
            Coordinates=self.make(
                "IfcCartesianPointList3D", CoordList=[tuple(point) for point in points.round(6).tolist()]
            ),
            Closed=True,
            CoordIndex=[tuple(corner + 1 for corner in triangle) for triangle in triangles.tolist()],
        )

    def _material(self, id: str) -> Any:
        if id not in self.materials:
            self.materials[id] = self.make("IfcMaterial", Name=material(id).name)
        return self.materials[id]

    def _wall(self, id: str) -> Any:
        """A wall as its layers before openings; what stands in it voids and fills it."""
        planned = self.walls[id]
        make_up = next(held for held in self.project.make_ups if held.id == planned.wall.make_up)
        made = self._product("IfcWall", id, f"{planned.wall.status} wall", list(wall_bodies(self.building.placed, id)))
        layers = [
            self.make(
                "IfcMaterialLayer",
                Material=self._material(layer.material),
                LayerThickness=layer.thickness,
                Name=layer.name,
                Category=layer.function,
            )
            for layer in make_up.layers
        ]
        stack = self.make("IfcMaterialLayerSet", MaterialLayers=layers, LayerSetName=make_up.name)
        self._relate("IfcRelAssociatesMaterial", f"material/{id}", RelatedObjects=[made], RelatingMaterial=stack)
        facts = {"IsExternal": planned.wall.status == "outer", "LoadBearing": planned.wall.bears}
        self._facts(id, "Pset_WallCommon", made, facts, self._status(id))
        for placed in self.building.openings[id]:
            hole = hole_in(self.building.placed, id, placed)
            if hole is None:
                continue
            opening = placed.opening
            void = self._product("IfcOpeningElement", f"hole/{opening.id}", placed.number, [("air", hole)])
            void.PredefinedType = "RECESS" if opening.unit == "niche" else "OPENING"
            self._relate("IfcRelVoidsElement", opening.id, RelatingBuildingElement=made, RelatedOpeningElement=void)
            parts = [(part.material, part.solid) for part in self.parts[opening.id]]
            if opening.unit in IN_WALLS and parts:
                unit = self._product(IN_WALLS[opening.unit], opening.id, placed.number, parts)
                unit.OverallWidth, unit.OverallHeight = placed.design.width, placed.design.height
                self._facts(opening.id, COMMON[IN_WALLS[opening.unit]], unit, {}, self._status(opening.id))
                self._relate("IfcRelFillsElement", opening.id, RelatingOpeningElement=void, RelatedBuildingElement=unit)
        return made

    def _status(self, id: str) -> list[Any]:
        """New or existing, as the standard has it (PEnum_ElementStatus); what is to be removed is not in the model."""
        word = {"new": "NEW", "existing": "EXISTING"}[self.project.find(id).state]
        return [
            self.make(
                "IfcPropertyEnumeratedValue", Name="Status", EnumerationValues=[self.make("IfcLabel", word)],
            )
        ]  # fmt: skip

    def _facts(self, id: str, name: str, product: Any, facts: dict[str, bool], more: Sequence[Any] = ()) -> None:
        values = [
            self.make("IfcPropertySingleValue", Name=key, NominalValue=self.make("IfcBoolean", fact))
            for key, fact in facts.items()
        ] + list(more)
        held = self.make("IfcPropertySet", GlobalId=self._id(f"{name}/{id}"), Name=name, HasProperties=values)
        self._relate(
            "IfcRelDefinesByProperties",
            f"{name}/{id}",
            RelatedObjects=[product],
            RelatingPropertyDefinition=held,
        )

    def _others(self, done: set[str]) -> list[tuple[str, Any]]:
        """What is no wall and stands in none, with the storey that it belongs to."""
        found = []
        for part in self.building.parts:
            if part.element in done or part.solid.is_empty:
                continue
            kind, more = ROLES[part.role].ifc or ("IfcBuildingElementProxy", None)
            product = self._product(kind, part.key, part.role.replace("_", " "), [(part.material, part.solid)])
            if more:
                product.PredefinedType = more
            if kind in COMMON:
                self._facts(part.key, COMMON[kind], product, {}, self._status(part.element))
            self._relate(
                "IfcRelAssociatesMaterial",
                f"material/{part.key}",
                RelatedObjects=[product],
                RelatingMaterial=self._material(part.material),
            )
            found.append((self._level_of(part), product))
        return found

    def _level_of(self, part: Part) -> str:
        """The highest storey whose floor lies under the middle of a part; the lowest one for what lies below."""
        return self._storey_under((part.solid.reach.z0 + part.solid.reach.z1) / 2)

    def _storey_under(self, z: float) -> str:
        below = [id for id in self._storey if id in self.building.levels and self.building.levels[id].z <= z]
        return max(below, key=lambda id: self.building.levels[id].z, default=self.lowest)
