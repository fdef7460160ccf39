"""A plan that was read is taken over: make-ups for its thicknesses, joints, walls, openings, rooms, as edits."""

from .changed import Gone, Moved
from .edits import NEW, Adopted, Choices, adopted
from .laid import laid
from .make_ups import AS_DRAWN, Group, groups_of, key_of, thickness_of
from .remembered import Own
from .roofs import roofs_built
from .slabs import holes_in
from .storeys import tells_heights
from .straight import WAYS, Turn, turns_of

__all__ = [
    "AS_DRAWN",
    "NEW",
    "WAYS",
    "Adopted",
    "Choices",
    "Gone",
    "Group",
    "Moved",
    "Own",
    "Turn",
    "adopted",
    "groups_of",
    "holes_in",
    "key_of",
    "laid",
    "roofs_built",
    "tells_heights",
    "thickness_of",
    "turns_of",
]
