"""DXF files opened: sound ones the quick way, broken ones mended, what is none or too much refused in words."""

from __future__ import annotations

import io
from typing import Any

import ezdxf
import ezdxf.recover

from deepsection.core.errors import BadInput

MOST_BYTES = 60_000_000
MOST_HELD = 400_000
"""A file that holds more things than this, drawn or not, is not opened: it takes too long."""


def opened(data: bytes) -> Any:
    """The document. Raises: BadInput."""
    if not data.strip():
        raise BadInput("this file is empty", field="file")
    if len(data) > MOST_BYTES:
        message = f"this file has {len(data) / 1e6:,.0f} MB; plans of up to {MOST_BYTES / 1e6:,.0f} MB are read"
        raise BadInput(message, field="file", value=len(data), limit=MOST_BYTES)
    if b"SECTION" not in data[:100_000]:
        raise BadInput("this is not a DXF file that can be read: it holds no sections", field="file")
    if b"EOF" not in data[-200:]:
        message = f"this DXF file is cut short at byte {len(data)}: its end is missing; save or send it again"
        raise BadInput(message, field="file", value=len(data))
    held = _held(data)
    if held > MOST_HELD:
        message = f"this file holds about {held:,} things; files of up to {MOST_HELD:,} are opened"
        raise BadInput(message, field="file", value=held, limit=MOST_HELD)
    try:
        return _plain(data)
    except Exception:  # What a broken file can do to a reader has no end; the slow one mends much of it.
        pass
    try:
        document, auditor = ezdxf.recover.read(io.BytesIO(data))
    except Exception as error:
        raise BadInput("this is not a DXF file that can be read", field="file") from error
    if auditor.has_errors:
        raise BadInput("this DXF file is broken: " + str(auditor.errors[0].message), field="file")
    return document


def _held(data: bytes) -> int:
    """About how many things a file holds: groups that begin with the code 0, which may be set in. Layers are called 0
    too."""
    set_in = data.count(b"\n  0\n") + data.count(b"\n  0\r\n")
    plain = data.count(b"\n0\n") + data.count(b"\n0\r\n")
    layers = data.count(b"\n8\n0\n") + data.count(b"\n8\r\n0\r\n")
    return set_in or plain - layers


def _plain(data: bytes) -> Any:
    """A sound file, read the quick way. Raises whatever the library does."""
    document = ezdxf.read(io.StringIO(data.decode("utf-8").replace("\r\n", "\n")))
    if document.dxfversion < "AC1021" and document.encoding != "utf8" and not data.isascii():
        raise ValueError("its letters are of another code page")
    return document
