"""Trade data with a source per row: materials, hatch patterns, lumber, windows and doors."""

from .tables import HatchFamily, HatchPattern, Lumber, Material, hatch, hatches, lumber, material, materials, unit_rows

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
    "unit_rows",
]
