"""Groups of junctions as the API tells them."""

from __future__ import annotations

from deepsection.core.buildups import Built, note_of
from deepsection.core.junctions import Junction
from deepsection.core.units import Units, format_measured
from deepsection.core.view.details.making import GroupState
from deepsection.core.view.lines import ViewLines

from .detail_schemas import (
    BuildUpOption,
    BuiltOut,
    FoundOut,
    JunctionGroupOut,
    JunctionOut,
    LineOut,
    ParameterOut,
    PieceOut,
)


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
        built=state.built.build_up.name if state.built else "",
        findings=findings_out(state.built) if state.built else [],
        junctions=[
            JunctionOut(
                id=held.id,
                elements=list(held.elements),
                at=held.at,
                length=held.length,
                details=[detail.id for detail in state.details if detail.junction == held.id],
            )
            for held in group.junctions
        ],
    )


def findings_out(built: Built) -> list[FoundOut]:
    """What is wrong with what was set of a build-up, and what rules say of it."""
    said = [FoundOut(words=f"{built.build_up.name}: {built.fault}", source="")] if built.fault else []
    return [*said, *(FoundOut(words=held.words, source=held.source) for held in built.rules)]


def lines_out(found: ViewLines | None) -> list[LineOut]:
    """The lines at a junction, each with where it is open."""
    if found is None:
        return []
    return [
        LineOut(
            line=held.line,
            there=held.is_there,
            closes=held.closes,
            words=[words for words in found.words if words.startswith(f"the {held.line} line ")],
        )
        for held in found.lines
    ]


def built_out(junction: Junction, built: Built, found: ViewLines | None, alike: list[str], units: Units) -> BuiltOut:
    """How a junction is built, with what may be set of it."""
    held, values = built.build_up, dict(built.values)
    name = junction.id.replace("/", "~")
    return BuiltOut(
        junction=junction.id,
        kind=junction.kind,
        one=junction.about.one,
        many=junction.about.many,
        name=held.name,
        build_up=held.id,
        because=held.because,
        chosen=built.chosen,
        options=[
            BuildUpOption(id=held.id, name=held.name, because=held.because, why=""),
            *(BuildUpOption(id=one.id, name=one.name, because=one.because, why=why) for one, why in built.others),
        ],
        parameters=[
            ParameterOut(
                id=one.id,
                words=one.words,
                text=one.written(values[one.id], units),
                usual=one.written(one.usual, units),
                limits=f"{one.written(one.least, units)} to {one.written(one.most, units)}",
                source=one.source,
                own=abs(values[one.id] - one.usual) > 1e-6,
            )
            for one in held.parameters
        ],
        pieces=[
            PieceOut(
                id=piece.id,
                note=note_of(piece, built, units),
                does=list(piece.does),
                on=piece.id not in built.off,
                part=f"{junction.elements[0]}/{piece.role}/{piece.id}/{name}",
            )
            for piece in built.pieces
        ],
        findings=findings_out(built),
        lines=lines_out(found),
        alike=alike,
    )
