"""The kinds of windows, doors and niches that a new project starts with."""

from __future__ import annotations

from typing import Any

from ...catalog import unit_rows
from ...units import INCH, Units, format_length
from .model import DESIGN_FIELDS, Design, Kind


def starting_kinds(units: Units, *, trim: float) -> tuple[Kind, ...]:
    """Kinds in the sizes of the unit; `trim` is the width of boards around those in outer walls (mm)."""
    return tuple(_kind(row, units, trim) for row in unit_rows())


def _kind(row: dict[str, Any], units: Units, trim: float) -> Kind:
    key, factor = ("in", INCH) if units == "ft-in" else ("mm", 1.0)
    width, height = (size * factor for size in row[key])
    facts = {name: _sized(row[name], key, factor) for name in DESIGN_FIELDS if name in row}
    inner = row["id"] in ("door-inner", "door-pocket", "door-folding", "door-plain")
    design = Design.model_validate(
        facts
        | {"width": width, "height": height, "arch": row.get("arch_share", 0.0) * width}
        | {"trim": 0.0 if inner or row["unit"] == "niche" else trim}
    )
    size = f"{format_length(width, units)} x {format_length(height, units)}"
    name = f"{row['name']}, {size}"
    return Kind(id=row["id"], name=name, number=row["number"], unit=row["unit"], design=design)


def _sized(value: Any, key: str, factor: float) -> Any:
    """A fact as it is, or a size of the unit in mm."""
    return value[key] * factor if isinstance(value, dict) else value
