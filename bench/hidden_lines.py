"""Hidden lines by OpenCASCADE's exact algorithm on the same solids: what the view engine is measured against."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Sequence
from time import perf_counter
from typing import Any

import numpy as np
import shapely
from shapely.ops import polygonize

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
        # A hole that is added to what is no face ends the process.
        if face.IsDone():
            for wire in wires[1:]:
                face.Add(wire)
            sewing.Add(face.Face())
    sewing.Perform()
    return sewing.SewedShape()


def _span(ring: Sequence[tuple[float, float, float]]) -> float:
    return sum(max(point[axis] for point in ring) - min(point[axis] for point in ring) for axis in range(3))


def hidden_line_seconds(shapes: Sequence[Any], look_deg: float) -> float:
    """Time of the exact algorithm for one view, without the building of shapes."""
    start = perf_counter()
    lines = _lines(shapes, look_deg)
    lines.VCompound()
    lines.OutLineVCompound()
    return perf_counter() - start


def _lines(shapes: Sequence[Any], look_deg: float) -> Any:
    """The algorithm run for a view; x of what it draws runs to the right, y up."""
    from OCP.gp import gp_Ax2, gp_Dir, gp_Pnt  # noqa: PLC0415
    from OCP.HLRAlgo import HLRAlgo_Projector  # noqa: PLC0415
    from OCP.HLRBRep import HLRBRep_Algo, HLRBRep_HLRToShape  # noqa: PLC0415

    dx, dy = math.cos(math.radians(look_deg)), math.sin(math.radians(look_deg))
    algorithm = HLRBRep_Algo()
    for shape in shapes:
        algorithm.Add(shape)
    towards = gp_Ax2(gp_Pnt(0.0, 0.0, 0.0), gp_Dir(-dx, -dy, 0.0), gp_Dir(dy, -dx, 0.0))
    algorithm.Projector(HLRAlgo_Projector(towards))
    algorithm.Update()
    algorithm.Hide()
    return HLRBRep_HLRToShape(algorithm)


def areas_by_material(parts: Sequence[Part], look_deg: float) -> dict[str, float]:
    """What is seen of each material (mm2), from the algorithm's visible lines.

    They part the view into regions; a ray through the triangles of the bodies tells whose each region is.
    """
    lines = _lines([as_one(solids_of(parts))], look_deg)
    pieces = [
        line
        for shape in (lines.VCompound(), lines.Rg1LineVCompound(), lines.OutLineVCompound())
        for line in _straight(shape)
    ]
    regions = list(polygonize(shapely.unary_union(pieces, grid_size=1e-3)))
    found: dict[str, float] = defaultdict(float)
    owners = _nearest(parts, look_deg, [region.representative_point().coords[0] for region in regions])
    for region, owner in zip(regions, owners):
        if owner is not None:
            found[parts[owner].material] += region.area
    return dict(found)


def _straight(shape: Any) -> list[shapely.LineString]:
    """The straight edges of what the algorithm drew."""
    from OCP.BRepAdaptor import BRepAdaptor_Curve  # noqa: PLC0415
    from OCP.BRepLib import BRepLib  # noqa: PLC0415
    from OCP.TopAbs import TopAbs_EDGE  # noqa: PLC0415
    from OCP.TopExp import TopExp_Explorer  # noqa: PLC0415
    from OCP.TopoDS import TopoDS  # noqa: PLC0415

    if shape is None or shape.IsNull():
        return []
    BRepLib.BuildCurves3d_s(shape)
    found, edges = [], TopExp_Explorer(shape, TopAbs_EDGE)
    while edges.More():
        curve = BRepAdaptor_Curve(TopoDS.Edge(edges.Current()))
        a, b = curve.Value(curve.FirstParameter()), curve.Value(curve.LastParameter())
        if math.dist((a.X(), a.Y()), (b.X(), b.Y())) > 1e-3:
            found.append(shapely.LineString([(a.X(), a.Y()), (b.X(), b.Y())]))
        edges.Next()
    return found


def _nearest(parts: Sequence[Part], look_deg: float, points: Sequence[tuple[float, ...]]) -> list[int | None]:
    """Per point (u, v), the index of the part that a ray through it meets first; none where it meets nothing."""
    dx, dy = math.cos(math.radians(look_deg)), math.sin(math.radians(look_deg))
    corners, owner = [], []
    for index, part in enumerate(parts):
        own, triangles = part.solid.mesh()
        turned = np.column_stack((own[:, 0] * dy - own[:, 1] * dx, own[:, 2], own[:, 0] * dx + own[:, 1] * dy))
        corners.append(turned[triangles])
        owner += [index] * len(triangles)
    a, b, c = np.concatenate(corners).transpose(1, 0, 2)
    area = (b[:, 0] - a[:, 0]) * (c[:, 1] - a[:, 1]) - (c[:, 0] - a[:, 0]) * (b[:, 1] - a[:, 1])
    flat = np.abs(area) < 1e-9
    area[flat] = 1.0
    found: list[int | None] = []
    for u, v in points:
        s = ((b[:, 0] - u) * (c[:, 1] - v) - (c[:, 0] - u) * (b[:, 1] - v)) / area
        t = ((c[:, 0] - u) * (a[:, 1] - v) - (a[:, 0] - u) * (c[:, 1] - v)) / area
        within = ~flat & (s >= 0) & (t >= 0) & (s + t <= 1)
        depth = np.where(within, s * a[:, 2] + t * b[:, 2] + (1 - s - t) * c[:, 2], np.inf)
        first = int(depth.argmin())
        found.append(owner[first] if np.isfinite(depth[first]) else None)
    return found
