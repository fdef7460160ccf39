"""A row of rooms with 200 walls and 150 doors: what a large plan costs to edit."""

from __future__ import annotations

from deepsection.core.edits import DrawWalls, MoveJoint, MoveOpening, apply_edits, put
from deepsection.core.model import Opening, Project
from deepsection.core.starters.projects import new_project
from deepsection.demo.pieces import on, partition, ring

ROOMS, DOORS, BAY, DEPTH = 197, 150, 1500.0, 6000.0


def row_of_rooms() -> Project:
    """Four outer walls, 196 partitions between them, and a door in 150 of these."""
    long = ROOMS * BAY
    corners = (("sw", 0.0, 0.0), ("se", long, 0.0), ("ne", long, DEPTH), ("nw", 0.0, DEPTH))
    walls = ring(corners, ("south", "east", "north", "west"), "wall-lap")
    parts = [_partition(k, long) for k in range(1, ROOMS)]
    project = apply_edits(new_project("row", "Row of rooms", "mm"), (walls, *parts))
    return put(project, *(_door(k) for k in range(1, DOORS + 1)))


def _partition(k: int, long: float) -> DrawWalls:
    return partition(f"p{k}", on(f"a{k}", "south", k * BAY), on(f"b{k}", "north", long - k * BAY))


def _door(k: int) -> Opening:
    return Opening(id=f"d{k}", wall=f"p{k}", end="start", distance=DEPTH / 2, sill=0.0, unit="door", kind="door-inner")


def move_door(project: Project, step: int) -> MoveOpening:
    """One door along its partition."""
    return MoveOpening(opening="d7", distance=DEPTH / 2 + 10.0 * step)


def move_partition(project: Project, step: int) -> MoveJoint:
    """One end of one partition."""
    return MoveJoint(joint="a9", x=9 * BAY + 10.0 * step, y=0.0)
