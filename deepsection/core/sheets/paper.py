"""Paper sizes, landscape. Source: ISO 216 (A series), ANSI/ASME Y14.1 (A-E), architectural sizes by common practice."""

from __future__ import annotations

from dataclasses import dataclass

from ..errors import UnknownElement
from ..units import INCH

BORDER, BINDING = 10.0, 20.0
"""Frame margins in mm: 10 all round, 20 at the left for binding. Source: ISO 5457 (from memory)."""


@dataclass(frozen=True, slots=True)
class Paper:
    """A sheet of paper, landscape, in mm."""

    name: str
    width: float
    height: float

    @property
    def frame(self) -> tuple[float, float, float, float]:
        """x0, y0, x1, y1 of the drawing frame."""
        return BINDING, BORDER, self.width - BORDER, self.height - BORDER


def _inches(name: str, width: float, height: float) -> Paper:
    return Paper(name, width * INCH, height * INCH)


PAPERS: dict[str, Paper] = {
    sheet.name: sheet
    for sheet in (
        Paper("A4", 297, 210),
        Paper("A3", 420, 297),
        Paper("A2", 594, 420),
        Paper("A1", 841, 594),
        Paper("A0", 1189, 841),
        _inches("ANSI A", 11, 8.5),
        _inches("ANSI B", 17, 11),
        _inches("ANSI C", 22, 17),
        _inches("ANSI D", 34, 22),
        _inches("ANSI E", 44, 34),
        _inches("ARCH A", 12, 9),
        _inches("ARCH B", 18, 12),
        _inches("ARCH C", 24, 18),
        _inches("ARCH D", 36, 24),
        _inches("ARCH E", 48, 36),
    )
}


def paper(name: str) -> Paper:
    """The paper of this name. Raises: UnknownElement."""
    if name not in PAPERS:
        raise UnknownElement(f"no paper is called “{name}”", field="paper", value=name)
    return PAPERS[name]
