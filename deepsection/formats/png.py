"""PNG, rasterised from the PDF: one picture of what prints."""

from __future__ import annotations

import io

import pypdfium2

from deepsection.core.sheets import SheetDrawing

from .pdf import write_pdf

DPI = 150.0


def write_png(sheet: SheetDrawing, *, dpi: float = DPI) -> bytes:
    """The sheet as a picture at `dpi`."""
    document = pypdfium2.PdfDocument(write_pdf(sheet))
    try:
        page = document[0]
        image = page.render(scale=dpi / 72).to_pil()
        out = io.BytesIO()
        image.save(out, format="PNG", dpi=(dpi, dpi))
        return out.getvalue()
    finally:
        document.close()
