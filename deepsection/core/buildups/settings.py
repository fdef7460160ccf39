"""What a drafter has set of build-ups: for all junctions of a kind, or for one."""

from __future__ import annotations

from dataclasses import dataclass

from ..junctions import Junction
from ..model import Project


@dataclass(frozen=True, slots=True)
class Stated:
    """What holds for a junction: the build-up that was chosen, values by parameter (mm), pieces that are off."""

    build_up: str | None = None
    values: tuple[tuple[str, float], ...] = ()
    off: tuple[str, ...] = ()


NOTHING = Stated()


def stated_of(project: Project, junction: Junction) -> Stated:
    """What was set for a junction, over what was set for all of its kind."""
    held = [one for one in project.build_ups if one.kind == junction.kind]
    own = [one for one in held if not one.ends] + [one for one in held if one.ends and one.junction == junction.id]
    if not own:
        return NOTHING
    values = {value.parameter: value.value for one in own for value in one.values}
    off = {piece: switch for one in own for piece, switch in ((held.piece, held.on) for held in one.pieces)}
    chosen = next((one.build_up for one in reversed(own) if one.build_up), None)
    return Stated(chosen, tuple(sorted(values.items())), tuple(sorted(id for id, on in off.items() if not on)))
