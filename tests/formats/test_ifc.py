"""IFC: what was written is read back by ifcopenshell, with the volumes that can be worked out by hand."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import ifcopenshell
import ifcopenshell.geom
import ifcopenshell.validate
import pytest
import trimesh

from deepsection.core.edits import BendWall, PutOpening, PutPost, PutWall, SetState, apply_edits, changed
from deepsection.core.model import Project
from deepsection.core.resolve import ROLES, resolve
from deepsection.demo import DEMOS, otterfold_house
from deepsection.formats.writers import write_ifc
from tests.builders import box_house, window
from tests.core.resolve.test_openings import unit
from tests.core.resolve.test_posts import post


def read(project: Project) -> Any:
    return ifcopenshell.file.from_string(write_ifc(project, resolve(project)).decode())


def volume(product: Any, *, net: bool) -> float:
    """mm3, of the mesh that ifcopenshell makes of a product, with or without its openings."""
    settings = ifcopenshell.geom.settings()
    settings.set("disable-opening-subtractions", not net)
    settings.set("use-world-coords", True)
    shape = ifcopenshell.geom.create_shape(settings, product)
    points = [shape.geometry.verts[k : k + 3] for k in range(0, len(shape.geometry.verts), 3)]
    faces = [shape.geometry.faces[k : k + 3] for k in range(0, len(shape.geometry.faces), 3)]
    return float(trimesh.Trimesh(points, faces).volume) * 1e9


def walls(file: Any) -> dict[str, Any]:
    return {wall.GlobalId: wall for wall in file.by_type("IfcWall")}


def test_walls_and_openings_have_their_volumes() -> None:
    """South wall: each layer is its polygon in plan x height; net of a window of 1200 x 1200 through all of it."""
    house = apply_edits(box_house(8000, 6000), (PutOpening(opening=window("w1", "south", 4000)),))
    building = resolve(house)
    south = next(wall for wall in building.plan.walls if wall.wall.id == "south")
    rise = building.levels["plate"].z - building.levels["floor"].z
    gross = sum(layer.polygon.area for layer in south.layers) * rise
    thick = south.outer - south.inner
    file = read(house)
    made = next(wall for wall in file.by_type("IfcWall") if any(rel.RelatedOpeningElement for rel in wall.HasOpenings))
    assert volume(made, net=False) == pytest.approx(gross, rel=1e-6)
    assert volume(made, net=True) == pytest.approx(gross - 1200 * 1200 * thick, rel=1e-5)


def test_an_arc_is_written_with_its_volume() -> None:
    house = apply_edits(box_house(8000, 6000), (BendWall(wall="south", rise=-1500),))
    building = resolve(house)
    south = next(wall for wall in building.plan.walls if wall.wall.id == "south")
    rise = building.levels["plate"].z - building.levels["floor"].z
    gross = sum(layer.polygon.area for layer in south.layers) * rise
    file = read(house)
    found = [volume(wall, net=False) for wall in file.by_type("IfcWall")]
    assert min(abs(held - gross) for held in found) < gross * 1e-5


def test_layers_units_and_facts_are_there() -> None:
    house = apply_edits(
        box_house(8000, 6000),
        (
            PutOpening(opening=window("w1", "south", 2000)),
            PutOpening(opening=unit("hinged", "door", distance=6000, width=900)),
            PutOpening(opening=changed(unit("plain", "niche", width=600, height=600, sill=900), id="n1", wall="north")),
            PutPost(post=post("p1", 1000)),
        ),
    )
    file = read(house)
    assert file.schema == "IFC4"
    assert len(file.by_type("IfcWall")) == 4 and len(file.by_type("IfcColumn")) == 1
    (glazed,), (door,) = file.by_type("IfcWindow"), file.by_type("IfcDoor")
    assert (glazed.Name, glazed.OverallWidth, glazed.OverallHeight) == ("W1", 1200, 1200)
    assert door.OverallWidth == 900 and glazed.FillsVoids[0].RelatingOpeningElement
    assert sorted(void.PredefinedType for void in file.by_type("IfcOpeningElement")) == ["OPENING", "OPENING", "RECESS"]
    stack = file.by_type("IfcMaterialLayerSet")[0]
    make_up = next(held for held in house.make_ups if held.id == "wall-lap")
    assert [layer.LayerThickness for layer in stack.MaterialLayers] == [layer.thickness for layer in make_up.layers]
    (storey,) = file.by_type("IfcBuildingStorey")
    assert storey.Elevation == resolve(house).levels["floor"].z


def test_bearing_is_inferred_or_stated() -> None:
    house = box_house(8000, 6000)
    east = changed(house.find("east"), bearing="no")
    file = read(apply_edits(house, (PutWall(wall=east),)))
    walls = [pset for pset in file.by_type("IfcPropertySet") if pset.Name == "Pset_WallCommon"]
    facts = [
        {held.Name: held.NominalValue.wrappedValue for held in pset.HasProperties if held.Name != "Status"}
        for pset in walls
    ]
    assert sorted(held["LoadBearing"] for held in facts) == [False, True, True, True]
    assert all(held["IsExternal"] for held in facts)


def test_the_demo_is_valid_and_written_twice_alike() -> None:
    house = otterfold_house()
    building = resolve(house)
    data = write_ifc(house, building)
    assert data == write_ifc(house, building)
    file = ifcopenshell.file.from_string(data.decode())
    logger = ifcopenshell.validate.json_logger()
    ifcopenshell.validate.validate(file, logger)
    assert logger.statements == []
    ids = [product.GlobalId for product in file.by_type("IfcRoot")]
    assert len(ids) == len(set(ids))
    assert len(file.by_type("IfcBuildingStorey")) == 2
    named = {role.id for role in ROLES.values() if role.ifc == ("IfcBeam", "JOIST")}
    joists = [part for part in building.parts if part.role in named]
    beams = [held for held in file.by_type("IfcBeam") if held.PredefinedType == "JOIST"]
    assert len(beams) == len(joists) > 50, "every joist, once"
    assert file.by_type("IfcSlab") or not [part for part in building.parts if part.role == "structure"]


@pytest.mark.parametrize("make", DEMOS)
def test_every_demo_is_written_whole_and_nothing_is_a_proxy(make: Callable[[], Project]) -> None:
    """Dormers stand on no storey, and yet are contained in one; every role has a class of the standard."""
    house = make()
    building = resolve(house)
    file = ifcopenshell.file.from_string(write_ifc(house, building).decode())
    assert not file.by_type("IfcBuildingElementProxy")
    assert len(file.by_type("IfcWall")) == len(house.walls)
    inside = {
        held for relation in file.by_type("IfcRelContainedInSpatialStructure") for held in relation.RelatedElements
    }
    assert all(wall in inside for wall in file.by_type("IfcWall"))
    in_walls = {*building.plan.by_id, *(opening.id for opening in house.openings)}
    loose = {part.role for part in building.parts if part.element not in in_walls}
    assert all(ROLES[role].ifc for role in loose)
    logger = ifcopenshell.validate.json_logger()
    ifcopenshell.validate.validate(file, logger)
    assert logger.statements == []


def test_what_exists_is_marked_and_what_is_removed_left_out() -> None:
    """ISO 16739-1: the property Status of Pset_WallCommon and its like, an enumerated value of PEnum_ElementStatus."""
    house = box_house(8000, 6000)
    states = (SetState(elements=("east", "south"), to="existing"), SetState(elements=("north",), to="removed"))
    file = read(apply_edits(house, states))
    status = {}
    for related in file.by_type("IfcRelDefinesByProperties"):
        pset = related.RelatingPropertyDefinition
        for held in pset.HasProperties:
            if held.Name == "Status":
                status[related.RelatedObjects[0].GlobalId] = held.EnumerationValues[0].wrappedValue
    walls = [status[wall.GlobalId] for wall in file.by_type("IfcWall")]
    assert sorted(walls) == ["EXISTING", "EXISTING", "NEW"]
    assert set(status.values()) == {"EXISTING", "NEW"}
