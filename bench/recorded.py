"""The figures that were recorded last, and which of today's are worse."""

from __future__ import annotations

import json
from pathlib import Path

FILE = Path(__file__).parent / "recorded.json"
WORSE = 1.15
"""A figure that is more than this times the recorded one is pointed out."""
LEAST = 5.0
"""Figures below this (ms) say nothing on a shared machine."""


class Figures:
    """Milliseconds by name, each beside how fast the machine was at that time (seconds for ten million additions)."""

    def __init__(self) -> None:
        self.taken: dict[str, tuple[float, float]] = {}

    def note(self, name: str, ms: float, pace: float) -> None:
        """Take a figure."""
        self.taken[name] = (ms, pace)

    def worse(self) -> list[tuple[str, float, float]]:
        """(name, recorded ms on a machine as fast as now, ms now) of what became worse, the worst first."""
        if not FILE.exists():
            return []
        held: dict[str, list[float]] = json.loads(FILE.read_text("utf-8"))
        found = []
        for name, (ms, pace) in self.taken.items():
            if name in held:
                then = held[name][0] * pace / held[name][1]
                if ms > WORSE * then and ms > LEAST:
                    found.append((name, then, ms))
        return sorted(found, key=lambda row: row[1] / row[2])

    def record(self) -> None:
        """Keep today's figures as those to compare with."""
        rounded = {name: [round(ms, 1), round(pace, 3)] for name, (ms, pace) in sorted(self.taken.items())}
        FILE.write_text(json.dumps(rounded, indent=1) + "\n", "utf-8")
