"""Marks as JSON: what the browser draws, and an open form for other programs."""

from __future__ import annotations

import orjson

from deepsection.core.drawing import Drawing, explode
from deepsection.core.sheets import SheetDrawing


def write_json(sheet: SheetDrawing) -> bytes:
    """A sheet as JSON: its paper, its own marks, and each placed drawing with its place."""
    return orjson.dumps(
        {
            "name": sheet.name,
            "paper": sheet.paper,
            "own": explode(sheet.own),
            "placed": [
                {
                    "id": held.id,
                    "scale": held.scale,
                    "at_x": held.at_x,
                    "at_y": held.at_y,
                    "drawing": explode(held.drawing),
                }
                for held in sheet.placed
            ],
            "messages": sheet.messages,
        }
    )


def drawing_json(drawing: Drawing) -> bytes:
    """One drawing, dimensions and symbols exploded, with its sums and their totals."""
    return orjson.dumps(explode(drawing))
