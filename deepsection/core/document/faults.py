"""Faults of a validation in words that say what to change."""

from __future__ import annotations

import json
import re
from collections.abc import Mapping, Sequence
from typing import Any

from .nouns import listed, nearest

Fault = Mapping[str, Any]
"""An error as Pydantic lists it: type, loc, msg, input, ctx."""

_STARTS = (
    ("Input should be a valid ", "must be a "),
    ("Input should be ", "must be "),
    ("Value should have ", "must have "),
    ("String should ", "must "),
    ("Tuple should ", "must "),
    ("List should ", "must "),
    ("Value error, ", ""),
)
_KINDS = re.compile(r"'([^']+)'")


def told(faults: Sequence[Fault]) -> tuple[str, str]:
    """What is wrong, in one sentence, and the path to it; all missing fields are named at once.

    >>> told([{"type": "missing", "loc": (0, "put_note", "note", "text"), "msg": "Field required"},
    ...       {"type": "missing", "loc": (0, "put_note", "note", "x"), "msg": "Field required"}])
    ('put_note: note lacks text and x', '0.put_note.note.text')
    >>> told([{"type": "greater_than", "loc": ("width",), "msg": "Input should be greater than 0"}])
    ('width: must be greater than 0', 'width')
    """
    first = faults[0]
    path = [str(step) for step in first["loc"] if step != "body"]
    names = [step for step in path if not step.isdigit()]
    place = ".".join(path)
    kind = first["type"]
    if kind == "missing":
        siblings = [fault for fault in faults if fault["type"] == "missing" and fault["loc"][:-1] == first["loc"][:-1]]
        missing = listed([str(fault["loc"][-1]).replace("_", " ") for fault in siblings])
        owner = ": ".join(name.replace("_", " ") if k else name for k, name in enumerate(names[:-1]))
        return f"{owner or 'this'} lacks {missing}", place
    if kind == "union_tag_invalid":
        return _unknown_kind(first), place
    if kind == "union_tag_not_found":
        return "each of them needs a kind, such as move_opening", place
    field = names[-1].replace("_", " ") if names else ""
    message = str(first["msg"])
    if kind == "extra_forbidden":
        return f"there is no field “{field}” here; leave it out, or look at its spelling", place
    for start, words in _STARTS:
        if message.startswith(start):
            message = words + message.removeprefix(start)
            break
    return (f"{field}: {message}" if field else message), place


def why_unreadable(data: bytes | str) -> str | None:
    """What is wrong with text that should be JSON, as what follows "this file"; None when nothing is.

    >>> why_unreadable(b""), why_unreadable(b'{"a": [1, 2'), why_unreadable(b"{}")
    ('is empty', 'is cut short at byte 11', None)
    """
    raw = data.encode() if isinstance(data, str) else data
    if not raw.strip():
        return "is empty"
    try:
        text = raw.decode()
    except UnicodeDecodeError as error:
        return f"is no text: byte {error.start} belongs to none"
    try:
        json.loads(text)
    except json.JSONDecodeError as error:
        at = len(text[: error.pos].encode())
        cut = at >= len(raw.rstrip()) or "Unterminated" in error.msg
        return f"is cut short at byte {len(raw)}" if cut else f"is broken at byte {at}: its JSON cannot be read there"
    except RecursionError:
        return "is nested too deeply to be read"
    return None


def _unknown_kind(fault: Fault) -> str:
    given = str((fault.get("ctx") or {}).get("tag", ""))
    known = _KINDS.findall(str((fault.get("ctx") or {}).get("expected_tags", "")))
    close = nearest(given, known)
    advice = f"did you mean {close}?" if close else f"they are called {', '.join(known[:3])} and so on"
    return f"no kind is called “{given[:60]}”; {advice}"
