"""Memory in front of a function of many keys: it asks once, keeps order, and forgets the oldest."""

from __future__ import annotations

from collections.abc import Sequence

from hypothesis import given
from hypothesis import strategies as st

from deepsection.core.memo import BulkMemo, IdentityMemo


@given(st.lists(st.lists(st.integers(0, 20), max_size=12), max_size=8), st.integers(1, 30))
def test_values_are_those_of_the_function_whatever_was_asked_before(calls: list[list[int]], size: int) -> None:
    memo: BulkMemo[int, int] = BulkMemo(lambda keys: [key * key for key in keys], size=size)
    for keys in calls:
        assert memo(keys) == [key * key for key in keys]


def test_what_is_known_is_not_made_again() -> None:
    asked: list[int] = []

    def make(keys: Sequence[int]) -> list[int]:
        asked.extend(keys)
        return list(keys)

    memo: BulkMemo[int, int] = BulkMemo(make, size=3)
    memo([1, 2, 2, 1])
    memo([2, 3])
    assert asked == [1, 2, 3]
    memo([4])
    memo([1])
    assert asked == [1, 2, 3, 4, 1], "the oldest fell away"
    memo.cache_clear()
    memo([4])
    assert asked[-1] == 4


def test_what_was_made_of_the_same_objects_is_kept_and_of_equal_ones_made_anew() -> None:
    made: list[int] = []
    memo: IdentityMemo[int] = IdentityMemo(size=2)

    def ask(of: tuple[object, ...]) -> int:
        return memo(of, lambda: made.append(len(made)) or made[-1])

    one, equal = [1, 2], [1, 2]
    assert [ask((one, "a")), ask((one, "a")), ask((equal, "a"))] == [0, 0, 1]
    assert ask((one,)) == 2, "of fewer objects it is another value"
    assert ask((one, "a")) == 3, "the oldest fell away"
    memo.cache_clear()
    assert ask((one, "a")) == 4
