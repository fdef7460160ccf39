"""A plan that was read is taken over: make-ups for its thicknesses, joints, walls, openings, rooms, as edits."""

from .edits import Adopted, Choices, adopted
from .make_ups import AS_DRAWN, Group, groups_of, key_of, thickness_of
from .there import standing_in

__all__ = ["AS_DRAWN", "Adopted", "Choices", "Group", "adopted", "groups_of", "key_of", "standing_in", "thickness_of"]
