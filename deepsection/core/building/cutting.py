"""What a part gives way to."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

from ..geometry import Solid
from .parts import Part


@lru_cache(maxsize=1024)
def without(part: Part, bodies: tuple[Solid, ...], *, singly: bool = False) -> Part:
    """A part less the bodies that reach it; itself where none does. Kept: the same part and bodies give the same.

    `singly`: one after the other, as bodies ask for that slope and share faces.
    """
    near = [body for body in bodies if part.solid.reach.meets(body.reach)]
    return replace(part, solid=part.solid.minus(near, singly=singly)) if near else part
