"""Whether parts of a building lie in each other."""

from __future__ import annotations

import itertools
from collections.abc import Iterable, Sequence

from deepsection.core.geometry import Solid
from deepsection.core.resolve import Part


def shared(a: Solid, b: Solid) -> float:
    """mm3 that two bodies have in common.

    Of bodies that share faces the engine finds too much now and then, by one way of asking: what they do share is the
    least that it finds by any. What is left of one without the other has the right volume in those cases.
    """
    if not a.reach.meets(b.reach):
        return 0.0
    one, other = a.manifold, b.manifold
    found = float((one ^ other).volume())
    if found < 1.0:
        return found
    return min(found, (other ^ one).volume(), a.volume - (one - other).volume(), b.volume - (other - one).volume())


def overlapping(
    parts: Sequence[Part], others: Iterable[Part] = (), *, most: float = 100.0, among: bool = True
) -> list[tuple[str, str, float]]:
    """Pairs of parts, of some `among` themselves and with others, that share more than `most` mm3."""
    pairs = itertools.chain(itertools.combinations(parts, 2) if among else (), itertools.product(parts, others))
    found = ((a.key, b.key, shared(a.solid, b.solid)) for a, b in pairs)
    return [held for held in found if held[2] > most]
