"""What a build-up is: the pieces that are built at a kind of junction, when they fit, and what may be set of them."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from typing import Any

from ..junctions import Junction
from ..junctions.junction import Fact
from ..junctions.kinds import KindName
from ..resolve import Building
from .lie import AnyLie
from .parameters import Parameter, Values
from .pieces import Piece


@dataclass(frozen=True, slots=True)
class Found:
    """What a rule says of a build-up: words with place and remedy, and the clause that asks for it."""

    words: str
    source: str


class OtherKind(str):
    """Why a build-up is not for a site at all: it is for other walls, roofs or floors."""


def _none(*_: Any) -> tuple[()]:
    return ()


@dataclass(frozen=True, slots=True)
class BuildUp:
    """A way to build a kind of junction.

    `bars`: why it does not fit a site, or nothing; `because`: in words, what it is for; `pieces`: from outside to
    inside and from below upward; `rules`: what published rules say of it there; `tells`: what
    else its pieces depend on, that junctions of a kind do not know of themselves.
    """

    id: str
    kind: KindName
    name: str
    because: str
    bars: Callable[[Any, Values], str]
    pieces: Callable[[Any, Values], Iterator[Piece]]
    parameters: tuple[Parameter, ...] = ()
    rules: Callable[[Any, Values], Iterator[Found] | tuple[()]] = _none
    tells: Callable[[Any, Values], tuple[Fact, ...]] = _none


@dataclass(frozen=True, slots=True)
class SiteKind:
    """How a kind of junction is seen by its build-ups: what they are built around, and where their pieces lie."""

    site: Callable[[Building, Junction], Any]
    lies: Callable[[Building, Junction], Sequence[AnyLie]]


@dataclass(frozen=True, slots=True)
class Ways:
    """The ways to build a kind of junction, in the order in which they are thought of, and how they see it."""

    kind: KindName
    seen: SiteKind
    build_ups: tuple[BuildUp, ...]
