"""Memory of values that are cheaper to make many at a time."""

from __future__ import annotations

import gc
from collections.abc import Callable, Hashable, Sequence
from itertools import islice
from threading import Lock
from typing import Any, Generic, TypeVar

from cachetools import LRUCache

K = TypeVar("K", bound=Hashable)
V = TypeVar("V")
T = TypeVar("T")


def tune_memory() -> None:
    """Collect rarely: remembered faces and parts are many, long-lived and free of cycles."""
    gc.set_threshold(100_000, 20, 50)


def hashed_once(held: type[T]) -> type[T]:
    """Decorator of a frozen dataclass without slots: its hash is worked out once, since it is a key over and over."""
    whole = held.__hash__

    def known(self: T) -> int:
        found: int | None = self.__dict__.get("_hash")
        if found is None:
            found = whole(self)
            self.__dict__["_hash"] = found
        return found

    held.__hash__ = known  # type: ignore[assignment]
    return held


class BulkMemo(Generic[K, V]):
    """A bounded memory in front of a function from many keys to as many values, none of them None; the oldest fall
    away."""

    def __init__(self, make: Callable[[Sequence[K]], Sequence[V]], *, size: int) -> None:
        self._make, self._size = make, size
        self._held: dict[K, V] = {}

    def __call__(self, keys: Sequence[K]) -> list[V]:
        """The value of each key, in their order."""
        # Keys are large: where all are known each is looked up once.
        known = [self._held.get(key) for key in keys]
        if None not in known:
            return known  # type: ignore[return-value]
        missing = list(dict.fromkeys(key for key, value in zip(keys, known) if value is None))
        self._held.update(zip(missing, self._make(missing), strict=True))
        values = [self._held[key] for key in keys]
        _drop_oldest(self._held, self._size)
        return values

    def cache_clear(self) -> None:
        """Forget everything."""
        self._held.clear()


class LruCache(Generic[K, V]):
    """The values that were used last, by name. Several threads may use it."""

    def __init__(self, *, size: int) -> None:
        self._held: LRUCache[K, V] = LRUCache(size)
        self._lock = Lock()

    def get(self, name: K) -> V | None:
        """The value of a name; None where it is not kept."""
        with self._lock:
            found: V | None = self._held.get(name)
            return found

    def put(self, name: K, found: V) -> None:
        """Keep a value."""
        with self._lock:
            self._held[name] = found

    def cache_clear(self) -> None:
        """Forget everything."""
        with self._lock:
            self._held.clear()


class IdentityMemo(Generic[V]):
    """Values made of objects, kept for these very objects, of which nothing is compared; the oldest fall away."""

    def __init__(self, *, size: int) -> None:
        self._size = size
        self._held: dict[tuple[int, ...], tuple[tuple[object, ...], V]] = {}

    def __call__(self, of: tuple[object, ...], make: Callable[[], V]) -> V:
        """The value that was made of these, or that `make` makes now."""
        key = tuple(map(id, of))
        known = self._held.get(key)
        if known is None:
            # The objects are kept beside it, so that no other one takes the place of one of them.
            known = self._held[key] = (of, make())
            _drop_oldest(self._held, self._size)
        return known[1]

    def cache_clear(self) -> None:
        """Forget everything."""
        self._held.clear()


def _drop_oldest(held: dict[Any, Any], size: int) -> None:
    """Leave no more than so many entries."""
    for key in list(islice(held, max(0, len(held) - size))):
        held.pop(key, None)
