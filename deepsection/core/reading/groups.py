"""Things put together to groups, pair by pair."""

from __future__ import annotations


class Groups:
    """So many things, each by itself until it is joined to others."""

    def __init__(self, count: int) -> None:
        self._of = list(range(count))

    def join(self, one: int, other: int) -> None:
        """Makes one group of those of two things."""
        self._of[self.of(one)] = self.of(other)

    def of(self, k: int) -> int:
        """The number of the group of a thing: that of one of its members."""
        while self._of[k] != k:
            self._of[k] = self._of[self._of[k]]
            k = self._of[k]
        return k
