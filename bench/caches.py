"""Empties every memoised stage, so that a run measures real work."""

from __future__ import annotations

import gc
from functools import _lru_cache_wrapper

from deepsection.core.memo import BulkMemo, IdentityMemo, LruCache
from deepsection.core.view.opening import forget


def clear_caches() -> None:
    """Empty all memories of functions of the core, wherever they are."""
    forget()
    for held in gc.get_objects():
        cached = isinstance(held, _lru_cache_wrapper) and getattr(held, "__module__", "").startswith("deepsection.core")
        if cached or isinstance(held, (BulkMemo, IdentityMemo, LruCache)):
            held.cache_clear()
