"""The details of a house: one for each group of junctions that are built alike."""

from __future__ import annotations

from collections.abc import Collection, Iterator
from dataclasses import dataclass

from ...buildups import Built, built_fact, built_of
from ...document.ids import free_ids
from ...junctions import Junction, JunctionGroup, found_junctions, grouped
from ...junctions.sizes import DETAIL_SIZES
from ...model import Detail, DetailEnd, Project
from ...resolve import Building


@dataclass(frozen=True, slots=True)
class GroupState:
    """A group of junctions, and the details that there are of it: of any of its junctions."""

    group: JunctionGroup
    details: tuple[Detail, ...]
    built: Built | None = None

    @property
    def is_drawn(self) -> bool:
        """Whether junctions of its kind have details."""
        return self.group.about.name in DETAIL_SIZES


def group_states(project: Project, building: Building) -> list[GroupState]:
    """Every group of junctions of a house with its details."""
    details = {held.id: held.junction for held in project.details}
    states = []
    for group in grouped(found_junctions(building), lambda junction: built_fact(building, junction)):
        ids = {junction.id for junction in group.junctions}
        own = tuple(held for held in project.details if details[held.id] in ids)
        states.append(GroupState(group, own, built_of(building, group.junctions[0])))
    return states


def missing_details(project: Project, building: Building, keys: Collection[str] | None = None) -> Iterator[Detail]:
    """A detail of each group that has none, or of those of some keys alone: of its longest junction."""
    ids = free_ids(project, "detail")
    taken = {held.name.partition(",")[0] for held in project.details}
    numbers = (str(n) for n in range(1, 10_000) if str(n) not in taken)
    for state in group_states(project, building):
        if state.details or not state.is_drawn or (keys is not None and state.group.key not in keys):
            continue
        junction = max(state.group.junctions, key=lambda held: (held.length, held.id))
        yield detail_of(junction, next(ids), f"{next(numbers)}, {junction.about.one}")


def detail_of(junction: Junction, id: str, name: str) -> Detail:
    """A detail of a junction, at its usual place."""
    ends = tuple(DetailEnd(element=end.element, feature=end.feature, sub=end.sub) for end in junction.ends)
    return Detail(id=id, name=name, kind=junction.kind, ends=ends)
