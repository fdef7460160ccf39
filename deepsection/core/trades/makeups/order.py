"""Make-ups of walls whose order or thickness is likely wrong: pointed out with the layers named, never refused."""

from __future__ import annotations

from functools import lru_cache

from ...building.diagnostics import Diagnostic
from ...model import Layer, MakeUp, bearing_layer

THICKEST_MEMBRANE = 4.0
"""A membrane thicker than this (mm) is likely a typing error. Common practice, no source."""


@lru_cache(maxsize=256)
def order_faults(make_up: MakeUp) -> tuple[Diagnostic, ...]:
    """Warnings about a wall make-up, outside first. Double framing with a gap is as good as any other order.

    Rules (common practice, no source): cladding lies outside of sheathing and frame; vapour control lies on the warm
    side of all insulation, insulation between studs included; a membrane is thin; the wall plate lies on what bears.
    """
    found = []

    def warn(code: str, message: str, *layers: Layer, value: float | None = None, limit: float | None = None) -> None:
        others = tuple(layer.id for layer in layers)
        found.append(Diagnostic(code, f"{make_up.name}: {message}", make_up.id, layers[0].id, value, limit, others))

    for position, layer in enumerate(make_up.layers):
        outside, inside = make_up.layers[:position], make_up.layers[position + 1 :]
        if layer.function == "cladding":
            wrong = next((held for held in outside if held.function in ("sheathing", "structure")), None)
            if wrong:
                warn("cladding-inside", f"{layer.name} is cladding, but lies inside of {wrong.name}", layer, wrong)
        if layer.material == "vapour_control":
            cold = next((held for held in inside if _insulates(held)), None)
            if cold:
                message = f"{layer.name} lies on the cold side of {cold.name}: damp may be caught behind it"
                warn("vapour-cold", message, layer, cold)
        if layer.function == "membrane" and layer.thickness > THICKEST_MEMBRANE:
            message = f"{layer.name} is a membrane, but {layer.thickness:.0f} mm thick"
            warn("membrane-thick", message, layer, value=layer.thickness, limit=THICKEST_MEMBRANE)
    bears = make_up.layers[bearing_layer(make_up)]
    if make_up.bearing not in (None, bears.id):
        named = next((layer.name for layer in make_up.layers if layer.id == make_up.bearing), make_up.bearing)
        warn("bearing-lost", f"{named} is said to bear, but is no structure here: {bears.name} bears instead", bears)
    for layer in make_up.layers:
        if layer.wall_plate and layer is not bears:
            message = f"the wall plate lies on {layer.name}, but {bears.name} bears: it is left out"
            warn("plate-not-bearing", message, layer, bears)
    return tuple(found)


def _insulates(layer: Layer) -> bool:
    return layer.function == "insulation" or bool(layer.framing and layer.framing.infill)
