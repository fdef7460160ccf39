"""How far long work is: told in words and as a share, by whoever does it to whoever asked."""

from __future__ import annotations

from collections.abc import Callable

Told = Callable[[str, float], None]
"""Takes what is being done, in words, and how much of all is done, from 0 to 1."""


def silent(step: str, share: float) -> None:
    """Nobody asked."""


def within(told: Told, low: float, high: float) -> Told:
    """What a part of the work tells, as a part of all of it."""
    return lambda step, share: told(step, low + (high - low) * share)
