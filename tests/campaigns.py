"""Long campaigns: `make soak` runs them whole, the suite a short share of each."""

from __future__ import annotations

import os
from typing import TypeVar

LONG = bool(os.environ.get("DEEPSECTION_LONG"))
T = TypeVar("T")


def share(short: T, whole: T) -> T:
    """What the suite takes of a campaign, or all of it."""
    return whole if LONG else short
