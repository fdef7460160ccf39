"""What a new project starts with: levels, make-ups, foundation, ceiling, a sheet, from a table with sources.

The timber starter has both units, and stands on a slab or on joists over a crawl space; the masonry one is in
millimetres, on a slab. Sizes in the table are in mm, or stated `in` inches and in `mm`; words that differ, by units.
"""

from __future__ import annotations

from typing import Any, Literal

from ..catalog import starter_rows
from ..errors import BadInput
from ..model.project import Project
from ..trades.makeups.model import MakeUp, Tradition
from ..trades.openings.kinds import starting_kinds
from ..units import INCH, Units

Ground = Literal["slab", "joists"]
"""What the lowest storey stands on: a slab on the ground, or joists over a foundation wall and a crawl space."""


def new_project(id: str, name: str, units: Units, tradition: Tradition = "timber", ground: Ground = "slab") -> Project:
    """An empty project with everything in place to draw the first wall.

    Raises: BadInput, for masonry in feet and inches or on joists.
    """
    starter = starter_rows()[tradition]
    if units not in starter["units"]:
        raise BadInput("the masonry starter is in millimetres", field="units", value=units)
    if ground not in starter:
        raise BadInput("the masonry starter stands on a slab", field="ground", value=ground)
    return Project.model_validate(
        {
            **_in_units(starter[ground], units),
            "id": id,
            "name": name,
            "units": units,
            "tradition": tradition,
            "make_ups": make_ups(units, tradition),
            "kinds": starting_kinds(units, trim=_in_units(starter["trim"], units)),
        }
    )


def make_ups(units: Units, tradition: Tradition = "timber") -> tuple[MakeUp, ...]:
    """The make-ups that ship with a tradition."""
    rows = _in_units(starter_rows()[tradition]["make_ups"], units)
    return tuple(MakeUp.model_validate({name: fact for name, fact in row.items() if name != "source"}) for row in rows)


def _in_units(value: Any, units: Units) -> Any:
    """Facts of the table in one of the two units, sizes in mm."""
    if isinstance(value, dict):
        if value.keys() == {"in", "mm"}:
            return value["in"] * INCH if units == "ft-in" else value["mm"]
        if value.keys() == {"ft-in", "mm"}:
            return value[units]
        return {name: _in_units(held, units) for name, held in value.items()}
    return [_in_units(held, units) for held in value] if isinstance(value, list) else value
