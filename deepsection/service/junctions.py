"""Groups of junctions as the API tells them."""

from __future__ import annotations

from deepsection.core.units import Units, format_measured
from deepsection.core.view.details.making import GroupState

from .schemas import JunctionGroupOut, JunctionOut


def group_out(state: GroupState, units: Units) -> JunctionGroupOut:
    """A group with how much there is of it, its details, and where its junctions are."""
    group, about = state.group, state.group.about
    return JunctionGroupOut(
        key=group.key,
        kind=about.name,
        one=about.one,
        many=about.many,
        number=group.number,
        counted=about.counted,
        pieces=group.pieces,
        length=group.length,
        size=format_measured(group.length, units) if about.counted == "metres" else "",
        drawn=state.is_drawn,
        details=[held.id for held in state.details],
        junctions=[
            JunctionOut(id=held.id, elements=list(held.elements), at=held.at, length=held.length)
            for held in group.junctions
        ],
    )
