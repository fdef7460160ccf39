"""Houses on which the lines of roofs are tried: gables, hips, wings; shingles and tiles; level ceilings and none."""

from __future__ import annotations

from deepsection.core.edits import changed, put
from deepsection.core.model import Project
from tests.builders import cavity_box, gable, roofed_l

from .rig import framed


def hipped(project: Project) -> Project:
    """With eaves on all sides of its roofs."""
    roofs = []
    for roof in project.roofs:
        eave = roof.edges[0]
        edges = (changed(eave, id=edge.id) if edge.kind == "gable" else edge for edge in roof.edges)
        roofs.append(changed(roof, edges=tuple(edges)))
    return put(project, *roofs)


def tiled(project: Project) -> Project:
    """With tiles on battens on its roofs."""
    box = gable(cavity_box(8400.0, 6000.0), 0.5)
    make_up = next(held for held in box.make_ups if held.id == box.roofs[0].make_up)
    roofs = (changed(roof, make_up="tiles") for roof in project.roofs)
    return put(put(project, changed(make_up, id="tiles")), *roofs)


def capped(project: Project, caps: float = 150.0) -> Project:
    """With flashings of metal on ridges, hips and valleys."""
    return put(project, *(changed(roof, caps=caps) for roof in project.roofs))


__all__ = ["capped", "framed", "hipped", "roofed_l", "tiled"]
