"""What a page of a file shows: lines that can be snapped to, areas, words, or an image. Lengths are in its own unit."""

from __future__ import annotations

from dataclasses import dataclass

from .marks import Ring


@dataclass(frozen=True, slots=True)
class PictureWords:
    """Lettering on a page: where its middle lies, its height, and its turn (degrees)."""

    text: str
    x: float
    y: float
    height: float
    angle: float


@dataclass(frozen=True, slots=True, eq=False)
class Picture:
    """A page, from its lower left corner (0, 0) to (width, height).

    An `image` (PNG, clear where the paper is white) shows all of it, and `lines` are then there to be snapped to alone.
    `notes` say in words what is not shown, or not snapped to.
    """

    width: float
    height: float
    lines: tuple[Ring, ...] = ()
    areas: tuple[tuple[Ring, ...], ...] = ()
    words: tuple[PictureWords, ...] = ()
    image: bytes | None = None
    notes: tuple[str, ...] = ()
