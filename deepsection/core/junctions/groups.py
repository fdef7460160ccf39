"""Groups of junctions that are built alike, so that one detail serves them all."""

from __future__ import annotations

import json
from collections import defaultdict
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from hashlib import blake2b

from .junction import Fact, Junction
from .kinds import JunctionKind


def group_key(junction: Junction, built: Fact = ()) -> str:
    """A digest of all that decides how a junction is built: equal where it is built alike. `built`: what was chosen.

    Over canonical JSON, so that it is the same in every run of the program.
    """
    content = [junction.kind, [[name, fact] for name, fact in junction.facts], built]
    data = json.dumps(content, ensure_ascii=True, separators=(",", ":"), sort_keys=True)
    return blake2b(data.encode(), digest_size=10).hexdigest()


@dataclass(frozen=True, slots=True)
class JunctionGroup:
    """Junctions that are built alike, and how much of them there is."""

    key: str
    number: int
    junctions: tuple[Junction, ...]

    @property
    def about(self) -> JunctionKind:
        """What their kind is."""
        return self.junctions[0].about

    @property
    def length(self) -> float:
        """Of all of them (mm)."""
        return sum(held.length for held in self.junctions)

    @property
    def pieces(self) -> int:
        """How many there are."""
        return len(self.junctions)


def grouped(junctions: Iterable[Junction], built: Callable[[Junction], Fact] = lambda _: ()) -> list[JunctionGroup]:
    """The groups of some junctions, in the order of their first ones; numbered within each kind from 1.

    `built`: how each is built.
    """
    found: dict[str, list[Junction]] = defaultdict(list)
    for junction in junctions:
        found[group_key(junction, built(junction))].append(junction)
    groups, numbers = list[JunctionGroup](), defaultdict[str, int](int)
    for key, held in found.items():
        numbers[held[0].kind] += 1
        groups.append(JunctionGroup(key, numbers[held[0].kind], tuple(held)))
    return groups
