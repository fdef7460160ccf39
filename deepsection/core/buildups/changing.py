"""What a drafter changes of build-ups: which one, a parameter, a piece; for some junctions, or all of a kind."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from ..document.ids import free_ids
from ..document.rebuilding import changed
from ..edits import PutBuildUpSetting, Remove
from ..errors import BadInput, UnknownElement
from ..junctions import End, Junction, found_junctions
from ..junctions.kinds import JUNCTION_KINDS
from ..model import BuildUpSetting, DetailEnd, ParameterValue, PieceSwitch, Project
from ..resolve import Building
from ..units import parse_length
from .choosing import built_of, within
from .library import BUILD_UPS, SITES
from .parameters import Values
from .settings import stated_of


@dataclass(frozen=True, slots=True)
class Wanted:
    """A change: a build-up by its id, the text typed for a parameter, or a piece that is built or not.

    No text, and no build-up, put back what is usual.
    """

    build_up: str | None = None
    parameter: str | None = None
    text: str = ""
    piece: str | None = None
    on: bool = True


def set_build_ups(
    project: Project, building: Building, kind: str, junctions: Sequence[str] | None, wanted: Wanted
) -> list[Any]:
    """The edits that make a change at some junctions by their ids, or at all of their kind where none are named.

    Raises: BadInput, UnknownElement.
    """
    if kind not in JUNCTION_KINDS:
        raise UnknownElement(f"there is no kind of junction called “{kind}”", field="kind", value=kind)
    every = {held.id: held for held in found_junctions(building) if held.kind == kind}
    for id in junctions or ():
        if id not in every:
            raise UnknownElement(f"there is no junction “{id}” any more", field="junctions", value=id)
    named = [every[id] for id in junctions] if junctions is not None else list(every.values())
    if not named:
        raise BadInput(f"the house has no {JUNCTION_KINDS[kind].one}", field="kind", value=kind)
    concerned = named if junctions is not None else _concerned(building, named, wanted)
    value = _value(project, building, concerned[0], wanted)
    for junction in concerned:
        _check(building, junction, wanted, value)
    edits: list[Any] = []
    ids = free_ids(project, "build-up")
    held = {setting.junction: setting for setting in project.build_ups}
    for one in named if junctions is not None else (None,):
        ends = () if one is None else tuple(_end(end) for end in one.ends)
        known = held.get(kind if one is None else one.id)
        before = known or BuildUpSetting(id=next(ids), kind=kind, ends=ends)
        after = _changed(before, wanted, value)
        if not after.is_empty:
            edits.append(PutBuildUpSetting(build_up_setting=after))
        elif known is not None:
            edits.append(Remove(elements=(known.id,)))
    if not edits:
        raise BadInput("it is as usual already", field=wanted.parameter or "build_up")
    return edits


def _end(end: End) -> DetailEnd:
    return DetailEnd(element=end.element, feature=end.feature, sub=end.sub)


def _concerned(building: Building, named: Sequence[Junction], wanted: Wanted) -> list[Junction]:
    """Those of all junctions of a kind that a change for all concerns: that have the parameter or the piece, or that
    the build-up fits; the first one where it concerns none, so that it is said why."""

    def has(junction: Junction) -> bool:
        built = built_of(building, junction)
        if built is None:
            return False
        if wanted.parameter is not None:
            return any(held.id == wanted.parameter for held in built.build_up.parameters)
        if wanted.piece is not None:
            return any(piece.id == wanted.piece for piece in built.pieces)
        fits = {built.build_up.id, *(held.id for held, why in built.others if not why)}
        return wanted.build_up is None or wanted.build_up in fits

    return [junction for junction in named if has(junction)] or [named[0]]


def _changed(held: BuildUpSetting, wanted: Wanted, value: float | None) -> BuildUpSetting:
    after: BuildUpSetting
    if wanted.parameter is not None:
        kept = tuple(one for one in held.values if one.parameter != wanted.parameter)
        new = (ParameterValue(parameter=wanted.parameter, value=value),) if value is not None else ()
        after = changed(held, values=(*kept, *new))
    elif wanted.piece is not None:
        rest = tuple(one for one in held.pieces if one.piece != wanted.piece)
        after = changed(held, pieces=(*rest, PieceSwitch(piece=wanted.piece, on=wanted.on)))
    else:
        after = changed(held, build_up=wanted.build_up)
    return after


def _value(project: Project, building: Building, junction: Junction, wanted: Wanted) -> float | None:
    """What was typed for a parameter (mm, or a number); None where nothing was. Raises: BadInput beyond its limits."""
    built = built_of(building, junction)
    if wanted.parameter is None:
        return None
    parameter = next((one for one in built.build_up.parameters if one.id == wanted.parameter), None) if built else None
    if built is None or parameter is None:
        name = built.build_up.name if built else f"the {junction.about.one}"
        raise BadInput(f"{name} has no “{wanted.parameter}”", field="parameter", value=wanted.parameter)
    if not wanted.text.strip():
        return None
    value = _number(wanted.text, parameter.id) if parameter.is_share else parse_length(wanted.text, project.units)
    if not parameter.holds(value):
        low, high = (parameter.written(bound, project.units) for bound in (parameter.least, parameter.most))
        raise BadInput(
            f"{parameter.words.lower()}: from {low} to {high}", field=parameter.id, value=wanted.text,
            limit=parameter.most if value > parameter.most else parameter.least,
        )  # fmt: skip
    return value


def _number(text: str, field: str) -> float:
    try:
        value = float(text.strip().replace(",", "."))
    except ValueError:
        value = math.nan
    if not math.isfinite(value):
        raise BadInput("type a number, such as 12.5", field=field, value=text)
    return value


def _check(building: Building, junction: Junction, wanted: Wanted, value: float | None) -> None:
    """Raises: BadInput where a build-up does not fit a junction, or does not after the change."""
    site = SITES[junction.kind].site(building, junction) if junction.kind in SITES else None
    if site is None:
        raise BadInput(f"no build-up is known for the {junction.about.one} at {junction.elements[0]}", field="build_up")
    known = {held.id: held for held in BUILD_UPS[junction.kind]}
    if wanted.build_up is not None and wanted.build_up not in known:
        raise UnknownElement(f"there is no build-up “{wanted.build_up}”", field="build_up", value=wanted.build_up)
    built = built_of(building, junction)
    held = known[wanted.build_up] if wanted.build_up is not None else built.build_up if built else None
    if held is None:
        return
    values = within(held, stated_of(building.placed.project, junction))
    if wanted.parameter is not None:
        values.pop(wanted.parameter, None)
        values |= {wanted.parameter: value} if value is not None else {}
    why = held.bars(site, Values(held.parameters, values, building.placed.project.units))
    if why:
        raise BadInput(f"{held.name} does not fit here: {why}", field=wanted.parameter or "build_up")
    if wanted.piece is not None and built is not None and wanted.piece not in {p.id for p in built.pieces}:
        raise UnknownElement(f"{held.name} has no piece “{wanted.piece}”", field="piece", value=wanted.piece)
