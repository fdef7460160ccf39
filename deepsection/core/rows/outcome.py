"""What came of an element, as tables of text."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class OutcomeRow:
    """One thing as text: what it is, and how much of it."""

    label: str
    text: str


@dataclass(frozen=True, slots=True)
class OutcomeTable:
    """Rows under a heading, with their total."""

    label: str
    total: str
    rows: tuple[OutcomeRow, ...]
