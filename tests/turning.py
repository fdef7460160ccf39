"""Houses turned by an angle and rounded, as somebody who moves them on a site plan leaves them."""

from __future__ import annotations

import json
from typing import Any

from deepsection.core.document.motion import Motion
from deepsection.core.edits import Transform, apply_edits
from deepsection.core.model import Project

PLACES = {"x", "y", "x1", "y1", "x2", "y2"}


def turned(project: Project, degrees: float, decimals: int | None = None) -> Project:
    """All of a house, turned about the origin; places rounded to so many decimals of a millimetre."""
    ids = tuple(held.id for held in project.elements() if held.about.movable)
    done = apply_edits(project, [Transform(elements=ids, motion=Motion(turn=degrees))])
    if decimals is None:
        return done

    def rounded(held: Any) -> Any:
        if isinstance(held, list):
            return [rounded(value) for value in held]
        if not isinstance(held, dict):
            return held
        return {
            key: round(value, decimals) if key in PLACES and isinstance(value, float) else rounded(value)
            for key, value in held.items()
        }

    return Project.model_validate(rounded(json.loads(done.model_dump_json())))
