"""The members of a floor counted: those that are cut alike have one number."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass

from shapely.geometry import Polygon

from ...model import Layer
from ...units import Units, format_measured
from .bridging import BAR
from .framed_edges import THICKEST
from .members import Member, MemberRole
from .profiles import is_timber
from .spans import JoistSize, size_of
from .turned import Turned

LETTERS: dict[MemberRole, str] = {
    "joist": "J",
    "trimmer_joist": "T",
    "header_joist": "H",
    "rim_joist": "R",
    "framed_edge": "E",
    "ledger": "L",
    "blocking": "B",
    "bridging": "X",
}
"""The first letters of numbers, in the order of a schedule."""
WORDS: dict[MemberRole, str] = {
    "joist": "joist",
    "trimmer_joist": "trimmer",
    "header_joist": "header",
    "rim_joist": "rim joist",
    "framed_edge": "framed edge",
    "ledger": "ledger",
    "blocking": "block",
    "bridging": "pair of bars",
}


CUT_TO_FIT = ("blocking", "bridging")
"""The roles whose pieces are cut where they go, and have one number."""


@dataclass(frozen=True, slots=True)
class Numbered:
    """A piece of a member with its number, its length (mm) and its area in plan."""

    number: str
    member: Member
    length: float
    area: Polygon


@dataclass(frozen=True, slots=True)
class ScheduleRow:
    """All pieces of one number: how many, of what, how long."""

    number: str
    count: int
    what: str
    size: str
    length: str


def numbered(members: Iterable[Member], units: Units) -> tuple[Numbered, ...]:
    """Every piece with its number: J1 is the longest joist. Lengths that read alike are one."""
    pieces = [(member, length, area) for member in members for length, area in member.pieces]
    longest: dict[tuple[MemberRole, str], float] = defaultdict(float)
    for member, length, _ in pieces:
        key = (member.role, format_measured(length, units))
        longest[key] = max(longest[key], length)
    numbers: dict[tuple[MemberRole, str], str] = {}
    for role, letter in LETTERS.items():
        lengths = sorted((key for key in longest if key[0] == role), key=lambda key: -longest[key])
        numbers |= {key: f"{letter}{1 if role in CUT_TO_FIT else k}" for k, key in enumerate(lengths, 1)}
    return tuple(
        Numbered(numbers[member.role, format_measured(length, units)], member, length, area)
        for member, length, area in pieces
    )


def schedule(pieces: Iterable[Numbered], layer: Layer, units: Units) -> tuple[ScheduleRow, ...]:
    """The rows of a schedule, number by number."""
    assert layer.framing is not None
    joists, others = size_of(layer, units).name, JoistSize.of(layer.framing.thickness, layer.thickness, units).name
    sizes = {"bridging": JoistSize.of(BAR, BAR, units).name, "joist": joists}
    by_number: dict[str, list[Numbered]] = defaultdict(list)
    for piece in pieces:
        by_number[piece.number].append(piece)
    order = list(LETTERS.values())
    return tuple(
        ScheduleRow(
            number,
            len(held),
            WORDS[held[0].member.role] if is_timber(layer) else WORDS[held[0].member.role].replace("joist", "beam"),
            _edge(held[0], layer, units)
            if held[0].member.role == "framed_edge"
            else sizes.get(held[0].member.role, others),
            _length(held, units),
        )
        for number, held in sorted(by_number.items(), key=lambda row: (order.index(row[0][0]), int(row[0][1:])))
    )


def _length(pieces: list[Numbered], units: Units) -> str:
    longest = format_measured(max(piece.length for piece in pieces), units)
    same = all(format_measured(piece.length, units) == longest for piece in pieces)
    return longest if same else f"{longest} or less"


def _edge(piece: Numbered, layer: Layer, units: Units) -> str:
    """The size of the studs of a framed edge, which is as deep in plan as they are."""
    assert layer.framing is not None
    box = Turned(piece.member.direction).box(piece.area)
    return JoistSize.of(min(layer.framing.thickness, THICKEST), round(box.a1 - box.a0, 1), units).name
