"""Models in IFC of another hand, made with ifcopenshell alone: entity by entity, in any unit, turned.

Extruded walls with axis and layer set usage, plates and bodies by their faces, as IFC 2x3 (ISO/PAS 16739) and IFC 4
(ISO 16739-1) have them.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

import ifcopenshell
import ifcopenshell.guid


@dataclass
class Hand:
    """A model that is written entity by entity; `unit` is how many mm it counts in, `turn` (radians) of the house."""

    schema: str
    unit: float = 1.0
    turn: float = 0.0

    def __post_init__(self) -> None:
        self.file = ifcopenshell.file(schema=self.schema)
        make = self.make = self.file.create_entity
        self.owner = self._owner() if self.schema == "IFC2X3" else None
        self.origin = make("IfcAxis2Placement3D", make("IfcCartesianPoint", (0.0, 0.0, 0.0)))
        context = make("IfcGeometricRepresentationContext", None, "Model", 3, 1e-5, self.origin)
        self.context = context
        if self.unit == 304.8:
            measure = make(
                "IfcMeasureWithUnit",
                make("IfcLengthMeasure", 0.3048),
                make("IfcSIUnit", None, "LENGTHUNIT", None, "METRE"),
            )
            powers = make("IfcDimensionalExponents", 1, 0, 0, 0, 0, 0, 0)
            length = make("IfcConversionBasedUnit", powers, "LENGTHUNIT", "FOOT", measure)
        else:
            prefix = {1.0: "MILLI", 10.0: "CENTI", 1000.0: None}[self.unit]
            length = make("IfcSIUnit", None, "LENGTHUNIT", prefix, "METRE")
        angle = make("IfcSIUnit", None, "PLANEANGLEUNIT", None, "RADIAN")
        units = make("IfcUnitAssignment", [length, angle])
        self.project = self.rooted("IfcProject", Name="House", RepresentationContexts=[context], UnitsInContext=units)
        site = self.rooted(
            "IfcSite", Name="Site", ObjectPlacement=self.placed(None, 0, 0, 0), CompositionType="ELEMENT"
        )
        turned = self.placed(None, 0, 0, 0, self.turn)
        self.house = self.rooted("IfcBuilding", Name="House", ObjectPlacement=turned, CompositionType="ELEMENT")
        self.within(self.project, [site])
        self.within(site, [self.house])

    def _owner(self) -> Any:
        make = self.make
        person = make("IfcPersonAndOrganization", make("IfcPerson", "one"), make("IfcOrganization", None, "Office"))
        tool = make("IfcApplication", make("IfcOrganization", None, "Office"), "1", "By hand", "hand")
        return make("IfcOwnerHistory", person, tool, None, "ADDED", None, None, None, 0)

    def rooted(self, kind: str, **facts: Any) -> Any:
        if self.owner is not None:
            facts["OwnerHistory"] = self.owner
        return self.make(kind, GlobalId=ifcopenshell.guid.new(), **facts)

    def placed(self, on: Any, x: float, y: float, z: float, turn: float = 0.0) -> Any:
        make = self.make
        at = make("IfcCartesianPoint", tuple(float(v) / self.unit for v in (x, y, z)))
        way = make("IfcDirection", (math.cos(turn), math.sin(turn), 0.0))
        axes = make("IfcAxis2Placement3D", at, make("IfcDirection", (0.0, 0.0, 1.0)), way)
        return make("IfcLocalPlacement", on, axes)

    def within(self, whole: Any, parts: list[Any]) -> None:
        self.rooted("IfcRelAggregates", RelatingObject=whole, RelatedObjects=parts)

    def storey(self, name: str, z: float) -> Any:
        placement = self.placed(self.house.ObjectPlacement, 0, 0, z)
        held = self.rooted(
            "IfcBuildingStorey",
            Name=name,
            ObjectPlacement=placement,
            CompositionType="ELEMENT",
            Elevation=z / self.unit,
        )
        self.within(self.house, [held])
        return held

    def body(self, x: float, y: float, wide: float, deep: float, high: float) -> Any:
        """A box, extruded from its footprint; x and y are its middle."""
        make = self.make
        middle = make("IfcAxis2Placement2D", make("IfcCartesianPoint", (x / self.unit, y / self.unit)))
        profile = make("IfcRectangleProfileDef", "AREA", None, middle, wide / self.unit, deep / self.unit)
        up = make("IfcDirection", (0.0, 0.0, 1.0))
        solid = make("IfcExtrudedAreaSolid", profile, self.origin, up, high / self.unit)
        return make("IfcShapeRepresentation", self.context, "Body", "SweptSolid", [solid])

    def plate(self, outline: list[tuple[float, float]], holes: list[list[tuple[float, float]]], high: float) -> Any:
        """A plate with holes, extruded from its outline."""
        make = self.make

        def ring(points: list[tuple[float, float]]) -> Any:
            corners = [make("IfcCartesianPoint", (x / self.unit, y / self.unit)) for x, y in points]
            return make("IfcPolyline", [*corners, corners[0]])

        profile = make("IfcArbitraryProfileDefWithVoids", "AREA", None, ring(outline), [ring(hole) for hole in holes])
        up = make("IfcDirection", (0.0, 0.0, 1.0))
        solid = make("IfcExtrudedAreaSolid", profile, self.origin, up, high / self.unit)
        return make("IfcShapeRepresentation", self.context, "Body", "SweptSolid", [solid])

    def leaning(self, corners: list[tuple[float, float, float]], thick: float) -> Any:
        """A plate under a plane through corners (counter-clockwise from above), so thick plumb, by its faces."""
        make = self.make
        low = [(x, y, z - thick) for x, y, z in corners]
        sides = [[corners[k - 1], low[k - 1], low[k], corners[k]] for k in range(len(corners))]
        faces = []
        for ring in (corners, low[::-1], *sides):
            points = [make("IfcCartesianPoint", tuple(v / self.unit for v in point)) for point in ring]
            faces.append(make("IfcFace", [make("IfcFaceOuterBound", make("IfcPolyLoop", points), True)]))
        solid = make("IfcFacetedBrep", make("IfcClosedShell", faces))
        return make("IfcShapeRepresentation", self.context, "Body", "Brep", [solid])

    def product(self, kind: str, storey: Any, placement: Any, *shapes: Any, **facts: Any) -> Any:
        shape = self.make("IfcProductDefinitionShape", None, None, list(shapes))
        held = self.rooted(kind, ObjectPlacement=placement, Representation=shape, **facts)
        if storey is not None and kind != "IfcSpace":
            self.rooted("IfcRelContainedInSpatialStructure", RelatedElements=[held], RelatingStructure=storey)
        elif storey is not None:
            self.within(storey, [held])
        return held

    def wall(
        self, storey: Any, a: tuple[float, float], b: tuple[float, float], layers: list[tuple[str, float]], high: float
    ) -> Any:
        """A wall about its reference line, whose layers follow each other to its left."""
        long, thick = math.dist(a, b), sum(layer for _, layer in layers)
        turn = math.atan2(b[1] - a[1], b[0] - a[0])
        placement = self.placed(storey.ObjectPlacement, *a, 0.0, turn)
        ends = [self.make("IfcCartesianPoint", (x / self.unit, 0.0)) for x in (0.0, long)]
        axis = self.make("IfcShapeRepresentation", self.context, "Axis", "Curve2D", [self.make("IfcPolyline", ends)])
        kind = "IfcWallStandardCase" if self.schema == "IFC2X3" else "IfcWall"
        body = self.body(long / 2, 0.0, long + thick, thick, high)
        made = self.product(kind, storey, placement, axis, body, Name="Wall")
        sheets = [
            self.make("IfcMaterialLayer", Material=self.make("IfcMaterial", name), LayerThickness=layer / self.unit)
            for name, layer in layers
        ]
        stack = self.make("IfcMaterialLayerSet", sheets, "Wall")
        usage = self.make("IfcMaterialLayerSetUsage", stack, "AXIS2", "POSITIVE", -thick / 2 / self.unit)
        self.rooted("IfcRelAssociatesMaterial", RelatedObjects=[made], RelatingMaterial=usage)
        return made

    def opening(
        self, storey: Any, wall: Any, kind: str, along: float, wide: float, high: float, sill: float, number: str
    ) -> None:
        placement = self.placed(wall.ObjectPlacement, 0, 0, sill)
        hole = self.product("IfcOpeningElement", None, placement, self.body(along, 0.0, wide, 900.0, high))
        self.rooted("IfcRelVoidsElement", RelatingBuildingElement=wall, RelatedOpeningElement=hole)
        facts = {"OverallWidth": wide / self.unit, "OverallHeight": high / self.unit, "Tag": number}
        fill = self.product(kind, storey, placement, self.body(along, 0.0, wide, 60.0, high), **facts)
        self.rooted("IfcRelFillsElement", RelatingOpeningElement=hole, RelatedBuildingElement=fill)

    def bytes(self) -> bytes:
        text: str = self.file.to_string()
        return text.encode()


OUTSIDE = [
    ("Clay brick", 102.0),
    ("Air cavity", 50.0),
    ("Mineral wool batt", 100.0),
    ("Concrete block", 100.0),
    ("Gypsum plasterboard", 12.0),
]
INSIDE = [("Gypsum plasterboard", 12.0), ("Timber studs", 90.0), ("Gypsum plasterboard", 12.0)]
WIDE, DEEP, RISE = 9000.0, 7000.0, 2900.0


def two_storeys(schema: str, unit: float = 1.0, turn: float = 0.0) -> bytes:
    """Outer walls clockwise: their layers follow each other to the left, from the inside out; one inner wall."""
    hand = Hand(schema, unit, turn)
    thick = sum(layer for _, layer in OUTSIDE)
    corners = [(0.0, 0.0), (0.0, DEEP), (WIDE, DEEP), (WIDE, 0.0)]
    for number, name in enumerate(("Ground floor", "First floor")):
        storey = hand.storey(name, 150.0 + number * RISE)
        for k, a in enumerate(corners):
            # Clockwise: the outside lies to the left, where the last layer is.
            wall = hand.wall(storey, a, corners[(k + 1) % 4], OUTSIDE[::-1], 2600.0)
            hand.opening(storey, wall, "IfcWindow", 2500.0, 1200.0, 1300.0, 850.0, f"W{number}{k}")
        inner = hand.wall(storey, (4000.0, thick / 2), (4000.0, DEEP - thick / 2), INSIDE, 2600.0)
        hand.opening(storey, inner, "IfcDoor", 1500.0, 900.0, 2100.0, 0.0, f"D{number}")
        place = hand.placed(storey.ObjectPlacement, 0, 0, 0)
        hand.product("IfcSpace", storey, place, hand.body(2000.0, 3500.0, 3600.0, 6500.0, 2500.0), LongName="Kitchen")
        below = hand.placed(storey.ObjectPlacement, 0, 0, -200.0)
        hand.product("IfcSlab", storey, below, hand.body(4500.0, 3500.0, 9000.0, 7000.0, 200.0), Name="Floor")
    return hand.bytes()


Corner = tuple[float, float, float]
OVER, THICK = 500.0, 300.0


def gable_slopes(pitch: float, eave: float) -> list[list[Corner]]:
    """The two slopes of a gable roof over WIDE x DEEP, its ridge along x; `eave`: how high its edge lies."""
    x0, x1, y0, y1 = -OVER, WIDE + OVER, -OVER, DEEP + OVER
    top = eave + pitch * (y1 - y0) / 2
    middle = (y0 + y1) / 2
    return [
        [(x0, y0, eave), (x1, y0, eave), (x1, middle, top), (x0, middle, top)],
        [(x1, y1, eave), (x0, y1, eave), (x0, middle, top), (x1, middle, top)],
    ]


def hip_slopes(pitch: float, eave: float) -> list[list[Corner]]:
    """The four slopes of a hipped roof over the same."""
    x0, x1, y0, y1 = -OVER, WIDE + OVER, -OVER, DEEP + OVER
    half = (y1 - y0) / 2
    top, middle = eave + pitch * half, (y0 + y1) / 2
    a, b = (x0 + half, middle, top), (x1 - half, middle, top)
    return [
        [(x0, y0, eave), (x1, y0, eave), b, a],
        [(x1, y1, eave), (x0, y1, eave), a, b],
        [(x0, y1, eave), (x0, y0, eave), a],
        [(x1, y0, eave), (x1, y1, eave), b],
    ]


def roofed(
    slopes: list[list[Corner]], schema: str = "IFC4", unit: float = 1.0, turn: float = 0.0, hole: bool = False
) -> bytes:
    """A house of two storeys with a slab between them and slabs as its roof; heights of the slopes from its datum."""
    hand = Hand(schema, unit, turn)
    corners = [(0.0, 0.0), (0.0, DEEP), (WIDE, DEEP), (WIDE, 0.0)]
    for number, name in enumerate(("Ground floor", "First floor")):
        storey = hand.storey(name, 150.0 + number * RISE)
        for k, a in enumerate(corners):
            hand.wall(storey, a, corners[(k + 1) % 4], OUTSIDE[::-1], 2600.0)
        place = hand.placed(storey.ObjectPlacement, 0, 0, -220.0)
        edge = [(0.0, 0.0), (WIDE, 0.0), (WIDE, DEEP), (0.0, DEEP)]
        well = [[(3000.0, 2000.0), (4000.0, 2000.0), (4000.0, 5000.0), (3000.0, 5000.0)]] if hole and number else []
        shape = hand.plate(edge, well, 220.0) if well else hand.body(WIDE / 2, DEEP / 2, WIDE, DEEP, 220.0)
        hand.product("IfcSlab", storey, place, shape, Name="Floor", PredefinedType="FLOOR" if number else "BASESLAB")
    place = hand.placed(hand.house.ObjectPlacement, 0, 0, 0)
    for slope in slopes:
        hand.product("IfcSlab", storey, place, hand.leaning(slope, THICK), Name="Slope", PredefinedType="ROOF")
    return hand.bytes()
