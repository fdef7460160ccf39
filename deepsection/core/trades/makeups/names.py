"""Names of make-ups: what the layers say, and names that say something else."""

from __future__ import annotations

import re
from functools import lru_cache

from ...building.diagnostics import Diagnostic
from ...catalog import lumber
from ...model import Layer, MakeUp

WORDS = {
    "brick": ("brick",),
    "block": ("block", "blockwork"),
    "stone": ("stone",),
    "lap": ("lap",),
    "batten": ("batten",),
    "shingle": ("shingle", "shingles"),
    "render": ("render", "rendered"),
    "concrete": ("concrete",),
}
"""Words of a name that promise a material, by what a layer's material or name must then hold."""
SIZE = re.compile(r"\b(\d+x\d+)\b|\b(\d{2,3})(?= (?:frame|studs|joists|rafters|inner|block|cavity)\b)")
NEAR = 0.6
"""A size in a name fits a layer of this thickness, more or less (mm)."""


def derived_name(make_up: MakeUp) -> str:
    """A name from the layers: the structure from outside inward, then what is seen outside.

    A wall of 2x6 studs behind lap boards is “2x6 studs, lap boards”.
    """
    structure = [layer.name for layer in make_up.layers if layer.function == "structure"]
    seen = next((layer.name for layer in make_up.layers if layer.function == "cladding"), None)
    parts = [" and ".join(dict.fromkeys(structure)) or make_up.layers[0].name, *([seen] if seen else [])]
    return ", ".join(dict.fromkeys(parts))[:120]


@lru_cache(maxsize=256)
def name_faults(make_up: MakeUp) -> tuple[Diagnostic, ...]:
    """A warning where the name promises a material or a size that no layer has. Common practice, no source."""
    name = make_up.name.lower()
    held = " ".join(f"{layer.name} {layer.material}".lower().replace("_", " ") for layer in make_up.layers)
    found = []
    for root, forms in WORDS.items():
        if any(re.search(rf"\b{form}\b", name) for form in forms) and root not in held:
            found.append(f"its name speaks of {root}, but no layer is of it")
    for match in SIZE.finditer(name):
        size = match[1] or match[2]
        if not any(_is_of(layer, size) for layer in make_up.layers):
            found.append(f"its name says {size}, but no layer is that deep")
    if not found:
        return ()
    message = f"{make_up.name}: {found[0]}; by its layers it is “{derived_name(make_up)}”"
    return (Diagnostic("name-contradicts", message, make_up.id, "name"),)


def _is_of(layer: Layer, size: str) -> bool:
    if "x" in size:
        dressed = lumber().get(size)
        return size in layer.name or bool(dressed and abs(dressed.depth - layer.thickness) < NEAR)
    return abs(layer.thickness - float(size)) < NEAR or size in re.findall(r"\d+", layer.name)
