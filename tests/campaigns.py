"""Long campaigns: `make soak` runs them whole, the suite a short share of each."""

from __future__ import annotations

import os
from collections.abc import Callable
from typing import TypeVar

from deepsection.core.model import Project
from deepsection.demo import DEMOS, larkmoor_house

LONG = bool(os.environ.get("DEEPSECTION_LONG"))
T = TypeVar("T")


def share(short: T, whole: T) -> T:
    """What the suite takes of a campaign, or all of it."""
    return whole if LONG else short


def most_demos() -> tuple[Callable[[], Project], ...]:
    """The demos that the suite takes where each view of each is drawn over and over: the largest in long ones only."""
    return tuple(make for make in DEMOS if LONG or make is not larkmoor_house)
