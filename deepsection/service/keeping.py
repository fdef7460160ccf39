"""How changes are kept: on their base, drawn first, as one version."""

from __future__ import annotations

from typing import Any

import orjson
from starlette.responses import Response

from deepsection.core.edits import EDITS, describe
from deepsection.core.errors import StaleVersion
from deepsection.core.model import Project
from deepsection.core.sheets import standard_scales

from .benches import bench_after, bench_of
from .store import Store, Stored
from .work import checked_edits, element_items, prove_parts, remembering, standing, storey_items, view_items


def as_json(content: Any) -> Response:
    """JSON as it is: the shapes are declared for the schema, and the content is made of them."""
    return Response(as_bytes(content), media_type="application/json")


def as_bytes(content: Any) -> bytes:
    """JSON as bytes."""
    return orjson.dumps(content, default=_plain)


def _plain(value: Any) -> Any:
    if hasattr(value, "model_dump"):
        return value.model_dump(mode="json")
    raise TypeError(f"cannot serialise {type(value)}")


def state_of(stored: Stored) -> dict[str, Any]:
    """What the screen holds of a version."""
    return {
        "id": stored.project.id,
        "version": stored.version,
        "saved": stored.saved,
        "undo": stored.undo,
        "redo": stored.redo,
        "project": stored.project,
        "views": view_items(stored.project),
        "storeys": storey_items(stored.project),
        "scales": standard_scales(stored.project.units),
        "elements": element_items(stored.project),
    }


def result_of(stored: Stored, views: Any, base: Project | None = None) -> Response:
    """A version with the views that the screen shows."""
    return as_json({"state": state_of(stored), "bench": bench_of(stored.project, stored.version, views, base)})


def after(stored: Stored, views: Any, base: Project | None = None) -> Response:
    """What a change of a base made, in the views that still stand."""
    return result_of(stored, standing(stored.project, views), base)


def at_base(store: Store, id: str, base: int) -> Stored:
    """The latest version, where a change was made on it. Raises: StaleVersion."""
    stored = store.load(id)
    if stored.version != base:
        raise StaleVersion(
            "this project was changed in another window; that change is shown now, please do yours again",
            field="base_version",
            value=base,
            limit=stored.version,
        )
    return stored


def keep(store: Store, stored: Stored, edits: list[Any], views: Any, words: str | None = None) -> Response:
    """Edits kept as one version, drawn first; `words` say what they do."""
    project = checked_edits(stored.project, edits)
    if project == stored.project:
        return after(stored, views, stored.project)
    # Drawn first, kept then: nothing is kept that cannot be opened again.
    words, text = words or describe(edits, stored.project), EDITS.dump_json(tuple(edits)).decode()
    prove_parts(stored.project, project, edits)
    project = remembering(stored.project, project)
    bench = as_bytes(bench_after(stored.project, project, stored.version + 1, standing(project, views), edits))
    saved = store.append(stored.project.id, stored.version, project, words, text)
    body = b'{"state":' + as_bytes(state_of(saved)) + b',"bench":' + bench + b"}"
    return Response(body, media_type="application/json")
