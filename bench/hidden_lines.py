"""Hidden lines by OpenCASCADE's exact algorithm on the same solids: what the view engine is measured against."""

from __future__ import annotations

import math
from collections.abc import Sequence
from time import perf_counter
from typing import Any

from deepsection.core.resolve import Part


def available() -> bool:
    """Whether the library is installed; `make bench` installs it, nothing else needs it."""
    try:
        import OCP.HLRBRep  # noqa: F401, PLC0415
    except ImportError:
        return False
    return True


def solids_of(parts: Sequence[Part]) -> list[Any]:
    """The parts as solids, each sewn from its facets."""
    from OCP.BRep import BRep_Builder  # noqa: PLC0415
    from OCP.TopAbs import TopAbs_SHELL  # noqa: PLC0415
    from OCP.TopExp import TopExp_Explorer  # noqa: PLC0415
    from OCP.TopoDS import TopoDS_Solid  # noqa: PLC0415

    solids = []
    for part in parts:
        shells = TopExp_Explorer(_sewn(part), TopAbs_SHELL)
        while shells.More():
            builder, solid = BRep_Builder(), TopoDS_Solid()
            builder.MakeSolid(solid)
            builder.Add(solid, shells.Current())
            solids.append(solid)
            shells.Next()
    return solids


def as_one(solids: Sequence[Any]) -> Any:
    """Solids as one compound."""
    from OCP.BRep import BRep_Builder  # noqa: PLC0415
    from OCP.TopoDS import TopoDS_Compound  # noqa: PLC0415

    builder, compound = BRep_Builder(), TopoDS_Compound()
    builder.MakeCompound(compound)
    for solid in solids:
        builder.Add(compound, solid)
    return compound


def _sewn(part: Part) -> Any:
    from OCP.BRepBuilderAPI import (  # noqa: PLC0415
        BRepBuilderAPI_MakeFace,
        BRepBuilderAPI_MakePolygon,
        BRepBuilderAPI_Sewing,
    )
    from OCP.gp import gp_Pnt  # noqa: PLC0415

    sewing = BRepBuilderAPI_Sewing(1e-3)
    for facet in part.solid.facets:
        # The outer ring of a facet may come at any place among its rings.
        rings = sorted(facet.rings, key=_span, reverse=True)
        wires = []
        for ring in rings:
            polygon = BRepBuilderAPI_MakePolygon()
            for point in ring:
                polygon.Add(gp_Pnt(*point))
            polygon.Close()
            wires.append(polygon.Wire())
        face = BRepBuilderAPI_MakeFace(wires[0], True)
        for wire in wires[1:]:
            face.Add(wire)
        if face.IsDone():
            sewing.Add(face.Face())
    sewing.Perform()
    return sewing.SewedShape()


def _span(ring: Sequence[tuple[float, float, float]]) -> float:
    return sum(max(point[axis] for point in ring) - min(point[axis] for point in ring) for axis in range(3))


def hidden_line_seconds(shapes: Sequence[Any], look_deg: float) -> float:
    """Time of the exact algorithm for one view, without the building of shapes."""
    from OCP.gp import gp_Ax2, gp_Dir, gp_Pnt  # noqa: PLC0415
    from OCP.HLRAlgo import HLRAlgo_Projector  # noqa: PLC0415
    from OCP.HLRBRep import HLRBRep_Algo, HLRBRep_HLRToShape  # noqa: PLC0415

    angle = math.radians(look_deg)
    towards = gp_Dir(-math.cos(angle), -math.sin(angle), 0.0)
    start = perf_counter()
    algorithm = HLRBRep_Algo()
    for shape in shapes:
        algorithm.Add(shape)
    algorithm.Projector(HLRAlgo_Projector(gp_Ax2(gp_Pnt(0.0, 0.0, 0.0), towards)))
    algorithm.Update()
    algorithm.Hide()
    lines = HLRBRep_HLRToShape(algorithm)
    lines.VCompound()
    lines.OutLineVCompound()
    return perf_counter() - start
