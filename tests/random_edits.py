"""Random edits of every kind, with numbers from everyday to absurd, made from the published schema of edits."""

from __future__ import annotations

import json
import random
from functools import cache
from typing import Any

from deepsection.core.edits import EDITS
from deepsection.core.model import Project

NUMBERS = (
    0.0, 1e-12, 1e-6, 0.01, 0.5, 1.0, 2.0, 10.0, 89.999, 90.0, 100.0, 180.0, 300.0, 400.0, 1000.0, 2400.0, 3000.0,
    5000.0, 20_000.0, 1e5, 1e6, 9.9e6, 1e7, 1e12, 1e300, float("nan"), float("inf"),
)  # fmt: skip
HOME = {
    "wall": "walls", "walls": "walls", "roof": "roofs", "opening": "openings", "openings": "openings",
    "level": "rungs", "plate": "rungs", "rung": "rungs", "above": "rungs", "top": "rungs", "sill": "rungs",
    "make_up": "make_ups", "joint": "joints", "start": "joints", "end": "joints", "corner": "joints",
    "unit_kind": "kinds", "section": "sections", "room": "rooms", "post": "posts", "sheet": "sheets", "base": "rungs",
}  # fmt: skip


@cache
def schema() -> dict[str, Any]:
    found: dict[str, Any] = EDITS.json_schema()
    return found


def kinds() -> list[str]:
    """Every kind of edit, by name."""
    return sorted(schema()["items"]["discriminator"]["mapping"])


class Maker:
    """Makes edits for a project; the same seed makes the same ones."""

    def __init__(self, project: Project, made: random.Random) -> None:
        self.project, self.made = project, made
        self._defs = schema()["$defs"]
        self._ids = [element.id for element in project.elements()]

    def edit(self, kind: str | None = None) -> dict[str, Any]:
        """An edit as JSON: an element that is there, changed in a place or two, or all of it at random."""
        kind = kind or self.made.choice(kinds())
        name = schema()["items"]["discriminator"]["mapping"][kind].rpartition("/")[2]
        own = self._defs[name]
        if kind.startswith("put_") and self.made.random() < 0.8:
            field = next(key for key in own["properties"] if key != "kind")
            there = self._there(own["properties"][field])
            if there is not None:
                return {"kind": kind, field: self._mutated(there)}
        return {"kind": kind, **self._object(own, 0)}

    def _there(self, found: dict[str, Any]) -> dict[str, Any] | None:
        names = {ref.rpartition("/")[2] for ref in json.dumps(found).split('"') if ref.startswith("#/$defs/")}
        held = [
            element
            for collection in self.project.collections
            for element in getattr(self.project, collection)
            if type(element).__name__ in names
        ]
        return json.loads(self.made.choice(held).model_dump_json()) if held else None

    def _mutated(self, held: dict[str, Any]) -> dict[str, Any]:
        for _ in range(self.made.choice((1, 1, 2, 3))):
            places = list(_leaves(held))
            where, key = self.made.choice(places)
            value = where[key]
            if key == "id" and self.made.random() < 0.9:
                continue
            if isinstance(value, bool):
                where[key] = not value
            elif isinstance(value, int | float) or value is None:
                where[key] = self.number()
            elif value in self._ids or self.made.random() < 0.5:
                where[key] = self.made.choice(self._ids)
            else:
                where[key] = self.made.choice(("", "x", "outer", "eave", "gable", "joined", "door", "start"))
        return held

    def number(self) -> float:
        """An everyday number mostly, an absurd one now and then."""
        value = self.made.choice(NUMBERS) if self.made.random() < 0.5 else self.made.uniform(-5000, 15_000)
        return -value if self.made.random() < 0.2 else value

    def _object(self, own: dict[str, Any], deep: int) -> dict[str, Any]:
        found = {}
        for key, value in own.get("properties", {}).items():
            if key == "kind" and "const" in value:
                found[key] = value["const"]
            elif key in own.get("required", ()) or self.made.random() < 0.3:
                found[key] = self._value(key, value, deep + 1)
        return found

    def _value(self, key: str, own: dict[str, Any], deep: int) -> Any:
        if "$ref" in own:
            own = self._defs[own["$ref"].rpartition("/")[2]]
        options = own.get("anyOf") or own.get("oneOf")
        if options:
            return self._value(key, self.made.choice(options), deep)
        if "const" in own:
            return own["const"]
        if "enum" in own:
            return self.made.choice(own["enum"])
        kind = own.get("type")
        if kind == "object":
            return self._object(own, deep)
        if kind == "array":
            low, high = own.get("minItems", 0), own.get("maxItems", 6)
            count = min(max(low, self.made.choice((1, 2, 3, 4))), high)
            items = own.get("prefixItems")
            if items:
                return [self._value(key, item, deep + 1) for item in items]
            return [self._value(key.removesuffix("s"), own.get("items", {}), deep + 1) for _ in range(count)]
        if kind == "boolean":
            return self.made.random() < 0.5
        if kind == "integer":
            return self.made.choice((0, 1, 2, 3, 7, 50, -1, 2**31))
        if kind == "number":
            return self.number()
        if kind == "string":
            return self._text(key, own)
        return None

    def _text(self, key: str, own: dict[str, Any]) -> str:
        if "pattern" not in own:
            return self.made.choice(("A", "New", "x" * 200, "", "W1"))
        home = HOME.get(key)
        pool = [held.id for held in getattr(self.project, home)] if home else self._ids
        if key in ("id", "stem", "rest") or not pool or self.made.random() < 0.05:
            return f"made-{self.made.randrange(10_000)}"
        return self.made.choice(pool if self.made.random() < 0.9 else self._ids)


def _leaves(held: Any) -> Any:
    items = held.items() if isinstance(held, dict) else enumerate(held)
    for key, value in items:
        if isinstance(value, dict | list) and value:
            yield from _leaves(value)
        elif not isinstance(value, dict | list):
            yield held, key
