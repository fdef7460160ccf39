"""Trade data with a source per row: materials, hatch patterns, lumber, windows and doors, usual sizes."""

from .tables import (
    HatchFamily,
    HatchPattern,
    Lumber,
    Material,
    hatch,
    hatches,
    lumber,
    material,
    materials,
    starter_rows,
    unit_rows,
    usual,
    usual_sizes,
)

__all__ = [
    "HatchFamily",
    "HatchPattern",
    "Lumber",
    "Material",
    "hatch",
    "hatches",
    "lumber",
    "material",
    "materials",
    "starter_rows",
    "unit_rows",
    "usual",
    "usual_sizes",
]
