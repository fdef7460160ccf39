"""Trade data with a source per row: materials, hatch patterns, lumber."""

from .tables import HatchFamily, HatchPattern, Lumber, Material, hatch, hatches, lumber, material, materials

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
]
