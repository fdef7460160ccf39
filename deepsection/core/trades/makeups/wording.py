"""What drawings say of a layer: stored with it, or from its name and sizes; the same words in every drawing."""

from __future__ import annotations

from ...catalog import material
from ...model import Layer
from ...units import Units, format_length, format_thickness


def layer_words(layer: Layer, units: Units) -> str:
    """Thickness and name of a layer, spacing of its members, and what lies between them.

    Of a membrane its name alone: nobody builds by its thickness. A name that begins with a size says it already.
    """
    if layer.note:
        return layer.note
    framing = layer.framing
    if framing:
        words = f"{layer.name} at {format_length(framing.spacing, units)}"
        between = material(framing.infill).name.lower() if framing.infill else ""
        return f"{words}, {between} between" if between else words
    if layer.function == "membrane" or layer.name[:1].isdigit():
        return layer.name
    return f"{format_thickness(layer.thickness, units)} {layer.name}"
