"""Fields of backgrounds."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from typing import Any

from ...document.rebuilding import changed
from ...edits import CropBackground, PutBackground, PutModelBody
from ...errors import BadInput
from ...model import Background, ModelBody, Project
from ...rows.rows import Field, Row, action_row, choice_row, degrees_row, length_row, number_row, text_row
from ...units import format_length

YES_NO = [("yes", "yes"), ("no", "no")]


def _decimal_row(
    id: str, label: str, text: str, asked: str, least: float, most: float, make: Callable[[float], Sequence[Any]]
) -> Row:
    def edits(typed: str) -> Sequence[Any]:
        try:
            value = float(typed.strip().removeprefix("1:").rstrip("%").strip().replace(",", "."))
        except ValueError:
            value = math.nan
        if not least <= value <= most:
            raise BadInput(f"type {asked}", field=id, value=typed)
        return make(value)

    return Row(Field(id, label, "text", text), edits)


def body_fields(project: Project, held: ModelBody) -> list[Row]:
    """What it is called, where it stands, and whether it is shown."""

    def put(**changes: Any) -> Sequence[Any]:
        return [PutModelBody(body=changed(held, **changes))]

    units = project.units
    shown = "yes" if held.shown else "no"
    return [
        text_row("name", "Name", held.name, lambda t: put(name=t)),
        choice_row("shown", "Shown in the solid view", shown, YES_NO, lambda t: put(shown=t == "yes")),
        length_row("x", "From its place, east", held.x, units, lambda v: put(x=v)),
        length_row("y", "From its place, north", held.y, units, lambda v: put(y=v)),
        length_row("z", "From its place, up", held.z, units, lambda v: put(z=v)),
    ]


def background_fields(project: Project, held: Background) -> list[Row]:
    """What it is called, how it lies under its view, how dark it is, and whether it is printed and snapped to."""

    def put(**changes: Any) -> Sequence[Any]:
        return [PutBackground(background=changed(held, **changes))]

    def flag(id: str, label: str) -> Row:
        return choice_row(id, label, "yes" if getattr(held, id) else "no", YES_NO, lambda t: put(**{id: t == "yes"}))

    plan = held.view.startswith("plan")
    rows = [text_row("name", "Name", held.name, lambda t: put(name=t))]
    if len(held.pages) > 1:
        rows.append(number_row("page", f"Page of {len(held.pages)}", held.page + 1, lambda n: put(**_page(held, n))))
    if held.counts == "paper":
        rows.append(
            _decimal_row(
                "scale", "Scale", f"1:{held.scale:.6g}", "a scale, such as 1:50", 0.01, 100_000, lambda n: put(scale=n)
            )
        )
    else:
        write = format_length if held.scale >= 1.0 else lambda value, units: f"{value:.6g} mm"
        rows.append(
            length_row(
                "scale",
                "One unit of the file",
                held.scale,
                project.units,
                lambda v: put(scale=v),
                least=0.0,
                write=write,
            )
        )
    rows += [
        degrees_row("turn", "Turned by", held.turn, lambda v: put(turn=v)),
        length_row("x", "Corner, east" if plan else "Corner, along", held.x, project.units, lambda v: put(x=v)),
        length_row("y", "Corner, north" if plan else "Corner, up", held.y, project.units, lambda v: put(y=v)),
        _decimal_row(
            "strength",
            "Strength",
            f"{held.strength * 100:g} %",
            "a strength from 5 to 100 %",
            5,
            100,
            lambda n: put(strength=n / 100),
        ),
        flag("shown", "Shown"),
        flag("snapped", "Snapped to"),
        flag("printed", "Printed"),
    ]
    if held.crop is not None:
        rows.append(action_row("whole", "Show all of the page", [CropBackground(background=held.id)]))
    return rows


def _page(held: Background, number: int) -> dict[str, Any]:
    """Another page, by its number from 1, as a whole. Raises: BadInput."""
    if not 1 <= number <= len(held.pages):
        raise BadInput(f"this file has {len(held.pages)} pages", field="page", value=str(number), limit=len(held.pages))
    return {"page": number - 1, "crop": None}
