"""SVG as pages: made a PDF, true to its stated size, that knows no file beside it."""

from __future__ import annotations

import base64
import io
from functools import lru_cache
from typing import Any

from lxml import etree
from PIL import Image
from reportlab import rl_config
from reportlab.graphics import renderPDF
from svglib.svglib import SvgRenderer

from deepsection.core.errors import BadInput

from .image import opened_image

MOST_ELEMENTS = 200_000
"""With everything that is used again counted each time."""
_SVG, _LINK = "{http://www.w3.org/2000/svg}", "{http://www.w3.org/1999/xlink}href"


@lru_cache(maxsize=2)
def svg_as_pdf(data: bytes) -> bytes:
    """The drawing as a PDF of one page. Raises: BadInput."""
    parser = etree.XMLParser(resolve_entities=False, no_network=True, load_dtd=False, huge_tree=False)
    try:
        root = etree.fromstring(data, parser)
    except etree.XMLSyntaxError as error:
        line = error.lineno or 0
        raise BadInput(f"this SVG is cut short or broken at line {line}", field="file", value=line) from error
    if root.tag != f"{_SVG}svg":
        raise BadInput("this is not an SVG drawing", field="file")
    _alone(root)
    if _weight(root) > MOST_ELEMENTS:
        message = f"this SVG draws more than {MOST_ELEMENTS:,} things"
        raise BadInput(message, field="file", limit=MOST_ELEMENTS)
    plain = rl_config.useA85
    try:
        drawing = SvgRenderer("drawing.svg").render(root)
        # Images within a page can only be written as letters.
        rl_config.useA85 = 1
        return bytes(renderPDF.drawToString(drawing))
    except Exception as error:  # What a broken file can do to a reader has no end.
        raise BadInput("this SVG cannot be drawn", field="file") from error
    finally:
        rl_config.useA85 = plain


def _alone(root: Any) -> None:
    """Without what lies in other files, and without what may not follow itself."""
    for held in list(root.iter(f"{_SVG}image", f"{_SVG}use", f"{_SVG}style", f"{_SVG}script", f"{_SVG}foreignObject")):
        link = _link(held)
        name = etree.QName(held).localname
        outside = (name == "image" and not link.startswith("data:")) or (name == "use" and not link.startswith("#"))
        if (outside or name in ("script", "foreignObject") or "@import" in (held.text or "")) and held is not root:
            held.getparent().remove(held)
        elif name == "image":
            _opaque(held)


def _opaque(held: Any) -> None:
    """An image within the drawing, on white: what is clear would print black. One that is broken is taken out."""
    try:
        shown = opened_image(base64.b64decode(_link(held).partition(",")[2])).convert("RGBA")
        ground = Image.new("RGBA", shown.size, "white")
        out = io.BytesIO()
        Image.alpha_composite(ground, shown).convert("RGB").save(out, "PNG")
    except (BadInput, OSError, ValueError, SyntaxError):
        held.getparent().remove(held)
        return
    held.attrib.pop("href", None)
    held.set(_LINK, "data:image/png;base64," + base64.b64encode(out.getvalue()).decode())


def _link(held: Any) -> str:
    return str(held.get("href") or held.get(_LINK) or "").strip()


def _weight(root: Any) -> int:
    """How many things are drawn. Raises: BadInput for one that is within itself."""
    named = {str(held.get("id")): held for held in root.iter() if isinstance(held.tag, str) and held.get("id")}
    known: dict[Any, int] = {}

    def weigh(held: Any, above: frozenset[Any], depth: int) -> int:
        if held in known:
            return known[held]
        if held in above or depth > 200:
            raise BadInput("this SVG draws something within itself", field="file")
        total, within = 1, above | {held}
        for child in held:
            if isinstance(child.tag, str):
                total += weigh(child, within, depth + 1)
        if etree.QName(held).localname == "use":
            goal = named.get(_link(held)[1:])
            total += weigh(goal, within, depth + 1) if goal is not None else 0
        known[held] = min(total, MOST_ELEMENTS + 1)
        return known[held]

    return weigh(root, frozenset(), 0)
