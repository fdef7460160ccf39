"""Documents as stored: versioned JSON, migrated step by step to the schema of today."""

from __future__ import annotations

import base64
import hashlib
import json
import re
from collections.abc import Callable, Mapping
from typing import Any

from pydantic import ValidationError

from ..document.faults import why_unreadable
from ..document.nouns import listed
from ..document.rebuilding import refusal
from ..drawing.advances import text_width
from ..errors import BadInput, UnknownVersion
from ..version import VERSION
from .project import SCHEMA_VERSION, Project


def _to_2(document: dict[str, Any]) -> dict[str, Any]:
    """Make-ups may say which layer bears; what does not say so goes by what is usual."""
    return {**document, "schema_version": 2}


KINDS_TO_3 = {"hosted": "tee"}
JOINS_TO_3 = {"clean": "joined", "off": "apart"}


def _to_3(document: dict[str, Any]) -> dict[str, Any]:
    """Edges and corners of roofs have ids; what named an edge by its number names it by its id. Joints of tees, and
    what is joined, have other words."""
    roofs = []
    for roof in document.get("roofs", ()):
        edges = [{"id": f"e{k}", **edge} for k, edge in enumerate(roof["edges"], 1)]
        outline = [{"id": f"c{k}", **corner} for k, corner in enumerate(roof["outline"], 1)]
        roofs.append({**roof, "edges": edges, "outline": outline})
    joints = [
        {**joint, "kind": KINDS_TO_3.get(joint["kind"], joint["kind"])}
        | ({"join": JOINS_TO_3[joint["join"]]} if joint.get("join") in JOINS_TO_3 else {})
        for joint in document.get("joints", ())
    ]
    pipes = [{**pipe, "edge": f"e{pipe['edge'] + 1}"} for pipe in document.get("downpipes", ())]
    names = {roof["id"] for roof in roofs}
    notes = []
    for note in document.get("notes", ()):
        anchor = note["anchor"]
        if anchor["part"].partition("/")[0] in names:
            part = re.sub(r"\b(edge|rake):(\d+)", _by_id, anchor["part"])
            note = {**note, "anchor": {**anchor, "part": part}}
        notes.append(note)
    shows = []
    for show in document.get("shows", ()):
        held = [{**a, "key": re.sub(r"\b(eave:[^:]+):(\d+)$", _by_id, a["key"])} for a in show.get("annotations", ())]
        shows.append({**show, "annotations": held})
    changed = {"joints": joints, "roofs": roofs, "downpipes": pipes, "notes": notes, "shows": shows}
    return {**document, **{name: held for name, held in changed.items() if held}, "schema_version": 3}


def _by_id(found: re.Match[str]) -> str:
    return f"{found[1]}:e{int(found[2]) + 1}"


def _to_4(document: dict[str, Any]) -> dict[str, Any]:
    """Stairs, and holes in floors: a document of schema 3 holds none."""
    return {**document, "schema_version": 4}


def _to_5(document: dict[str, Any]) -> dict[str, Any]:
    """Rules of dimensions, and strings that are left out: what does not say so goes by what is usual."""
    return {**document, "schema_version": 5}


ENDS_TO_6 = {"left": "start", "right": "end"}


def _to_6(document: dict[str, Any]) -> dict[str, Any]:
    """Strings of dimensions that a view leaves out say so. Notes hold on to a part in its own directions: where a side
    of a view was named, an end of the part takes its place; where a note stood where new ones used to, it stands where
    it reads best."""
    notes = []
    for note in document.get("notes", ()):
        note = dict(note)
        old, dx, dy = note.pop("anchor"), note.pop("dx", 12.0), note.pop("dy", 12.0)
        note.pop("last_x", None), note.pop("last_y", None)
        feature = old.get("feature", "centre")
        names = dict(zip(("element", "role", "layer", "slot"), old["part"].split("/", 3)))
        anchor = {"kind": "part", "side": "outside"} | names
        anchor |= {"end": ENDS_TO_6.get(feature, "middle"), "distance": old.get("along", 0.0)}
        anchor |= {"level": feature if feature in ("top", "bottom") else "middle"}
        # It began 1 mm past the end of its line, or ended there; it begins at its first letter now.
        begins = dx + 1.0 if dx >= 0 else dx - 1.0 - text_width(note["text"], 2.5, "sans")
        offset = None if (dx, dy) in ((12.0, 12.0), (14.0, 12.0)) else [max(begins, -3000.0), dy]
        notes.append({**note, "anchor": anchor, "offset": offset})
    shows = [
        {**show, "strings": [{"name": name, "shown": "hidden"} for name in show.get("strings", ())]}
        for show in document.get("shows", ())
    ]
    held = {"notes": notes, "shows": shows}
    return {**document, **{name: values for name, values in held.items() if values}, "schema_version": 6}


def _to_7(document: dict[str, Any]) -> dict[str, Any]:
    """Wall sections, tops and bottoms of sections, wording of layers: what does not say so has none."""
    return {**document, "schema_version": 7}


def _to_8(document: dict[str, Any]) -> dict[str, Any]:
    """Details: an older document has none."""
    return {**document, "schema_version": 8}


def _to_9(document: dict[str, Any]) -> dict[str, Any]:
    """Settings of build-ups: an older document has none."""
    return {**document, "schema_version": 9}


def _to_10(document: dict[str, Any]) -> dict[str, Any]:
    """Stated breaks of floors in wall sections: an older document has none."""
    return {**document, "schema_version": 10}


def _to_11(document: dict[str, Any]) -> dict[str, Any]:
    """Backgrounds: an older document has none."""
    return {**document, "schema_version": 11}


MIGRATIONS: dict[int, Callable[[dict[str, Any]], dict[str, Any]]] = {
    1: _to_2,
    2: _to_3,
    3: _to_4,
    4: _to_5,
    5: _to_6,
    6: _to_7,
    7: _to_8,
    8: _to_9,
    9: _to_10,
    10: _to_11,
}
"""From a schema version to the next one."""


FILES = "files"
"""The field of a file that holds what lies under its views."""
WRITER = "written_by"
"""The field of a file, beside those of the document, that says which version of the program wrote it."""


def dump_project(project: Project) -> bytes:
    """The document as UTF-8 JSON; equal projects give equal bytes."""
    return project.model_dump_json().encode()


def dump_file(project: Project, files: Mapping[str, bytes] | None = None) -> bytes:
    """The document as a file: with the version of the program that wrote it, and the files that lie under its views,
    by their digests."""
    held = {digest: base64.b64encode(data).decode() for digest, data in (files or {}).items()}
    document = {WRITER: VERSION} | json.loads(dump_project(project)) | ({FILES: held} if held else {})
    return json.dumps(document, ensure_ascii=False).encode()


def load_file(data: bytes | str) -> tuple[Project, dict[str, bytes]]:
    """The project of a file, and the files that lie under its views, by their digests.

    Raises: BadInput when it is cut short, damaged or not a project, UnknownVersion when it is from the future.
    """
    document = _parsed(data)
    held = document.pop(FILES, {})
    files = {}
    for digest, text in held.items() if isinstance(held, dict) else ():
        try:
            files[digest] = base64.b64decode(str(text), validate=True)
        except ValueError:
            files[digest] = b""
        if hashlib.sha256(files[digest]).hexdigest() != digest:
            raise BadInput("a background in this project file is damaged", field="file", value=digest)
    return _project_of(document, None), files


def load_project(data: bytes | str, writer: str | None = None) -> Project:
    """The project of a stored document or file, migrated when it is older; `writer` is the version that wrote it.

    Raises: BadInput when it is cut short or not a project, UnknownVersion when it is from the future.
    """
    document = _parsed(data)
    document.pop(FILES, None)
    return _project_of(document, writer)


def _parsed(data: bytes | str) -> dict[str, Any]:
    try:
        document = json.loads(data)
    except (ValueError, RecursionError) as error:
        raise BadInput(f"this is not a whole project file: it {why_unreadable(data)}", field="file") from error
    if not isinstance(document, dict):
        raise BadInput("this is not a project file")
    return document


def _project_of(document: dict[str, Any], writer: str | None) -> Project:
    writer = str(document.pop(WRITER, writer or "another version"))
    version = document.get("schema_version")
    if not isinstance(version, int) or isinstance(version, bool) or version < 1 or version > SCHEMA_VERSION:
        raise UnknownVersion(
            f"this document has schema version {version!r}, written by {writer}; this program ({VERSION}) knows 1 to "
            f"{SCHEMA_VERSION}",
            field="schema_version",
            value=version if isinstance(version, (int, str)) else None,
            limit=SCHEMA_VERSION,
        )
    while version < SCHEMA_VERSION:
        document = MIGRATIONS[version](document)
        version = document["schema_version"]
    unknown = [name.replace("_", " ") for name in document if name not in Project.model_fields]
    if unknown:
        raise BadInput(
            f"this document holds {listed(unknown)}, which this program ({VERSION}) does not know: it was written by "
            f"{writer}",
            field=unknown[0],
        )
    try:
        return Project.model_validate_json(json.dumps(document))
    except ValidationError as error:
        raise BadInput(f"this project file does not hold together: {refusal(error).message}") from error
