"""The writers of all formats, by the ending of a file. A writer takes a sheet or a drawing and nothing else."""

from .dxf import write_dxf
from .ifc import write_ifc
from .layers import LayerNames
from .marks_json import write_json
from .pdf import write_pdf
from .png import write_png
from .svg import write_svg

WRITERS = {"pdf": write_pdf, "dxf": write_dxf, "svg": write_svg, "png": write_png, "json": write_json}
MEDIA_TYPES = {
    "pdf": "application/pdf",
    "dxf": "image/vnd.dxf",
    "svg": "image/svg+xml",
    "png": "image/png",
    "json": "application/json",
}

__all__ = [
    "MEDIA_TYPES",
    "WRITERS",
    "LayerNames",
    "write_dxf",
    "write_ifc",
    "write_json",
    "write_pdf",
    "write_png",
    "write_svg",
]
