"""The shape of the house: imports run in one direction, modules stay small, nothing names what it must not."""

from __future__ import annotations

import ast
import json
import subprocess
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[1]
PACKAGE = ROOT / "deepsection"

RANKS: list[set[str]] = [
    {"core.errors", "core.tolerance", "core.memo", "core.progress", "core.units", "core.version"},
    {"core.geometry"},
    {"core.reading"},
    {"core.catalog"},
    {"core.drawing"},
    {"core.document"},
    {"trades: model"},
    {"core.model"},
    {"trades: edits"},
    {"core.edits"},
    {"core.starters"},
    {"core.rows"},
    {"core.building"},
    {"trades: place"},
    {"trades: parts"},
    {"trades: plan"},
    {"trades: kind"},
    {"core.kinds"},
    {"core.resolve"},
    {"core.junctions", "core.adopting"},
    {"core.buildups"},
    {"core.view", "core.particulars"},
    {"core.sheets"},
    {"formats", "standins"},
    {"demo"},
    {"service"},
    {"calc"},
    {"cli"},
]
"""Imports run down this list only: a module imports its own rank's package or those above it."""

STEPS = {
    "model": {"model", "bands", "rises"},
    "edits": {"edits", "corners", "kinds", "rules", "usual"},
    "kind": {"kind"},
    "plan": {"plan", "fields", "outcome", "whole"},
    "parts": {"parts"},
}
"""The modules of a trade, by the step in which they stand; every other one places."""

WEB = {"fastapi", "starlette", "sqlalchemy", "alembic", "uvicorn", "typer", "rich", "ezdxf", "reportlab", "pypdfium2"}
"""What the core must not know: no web, no database, no file format."""


def modules() -> list[Path]:
    return sorted(path for path in PACKAGE.rglob("*.py") if "migrations" not in path.parts)


def dotted(path: Path) -> str:
    parts = path.relative_to(PACKAGE).with_suffix("").parts
    return ".".join(part for part in parts if part != "__init__")


def step_of(name: str) -> str:
    """The step in which a module of a trade stands: `arc_fields` is one of `fields`."""
    module = name.split(".")[3] if name.count(".") > 2 else "model"
    return next((step for step, held in STEPS.items() if module.rpartition("_")[2] in held or module in held), "place")


def rank(name: str) -> int | None:
    if name.startswith("core.trades."):
        name = f"trades: {step_of(name)}"
    for index, names in enumerate(RANKS):
        if any(name == held or name.startswith(f"{held}.") for held in names):
            return index
    return None


def imported(path: Path) -> list[tuple[str, bool]]:
    """(absolute name, is at the top level) of everything a module imports."""
    name = dotted(path).split(".") if dotted(path) else []
    package = name if path.name == "__init__.py" else name[:-1]
    tree = ast.parse(path.read_text("utf-8"))
    found = []
    # What is imported for the type checker alone is never run.
    typed = [node for node in tree.body if isinstance(node, ast.If) and ast.unparse(node.test) == "TYPE_CHECKING"]
    for held in typed:
        tree.body.remove(held)
    for node in ast.walk(tree):
        if isinstance(node, ast.Import):
            found += [(alias.name, node in tree.body) for alias in node.names]
        elif isinstance(node, ast.ImportFrom):
            base = package[: len(package) - node.level + 1] if node.level else []
            stem = ".".join([*(["deepsection", *base] if node.level else []), *([node.module] if node.module else [])])
            found += [(f"{stem}.{alias.name}" if not node.module else stem, node in tree.body) for alias in node.names]
    return found


@pytest.mark.parametrize("path", modules(), ids=dotted)
def test_imports_run_in_one_direction(path: Path) -> None:
    own = rank(dotted(path))
    if dotted(path) in ("", "core", "core.trades"):
        return
    assert own is not None, "a new package needs its place in the order"
    for name, top in imported(path):
        assert top, f"{name} is imported inside a function"
        if name.split(".")[0] == "deepsection":
            theirs = rank(name.removeprefix("deepsection."))
            assert theirs is None or theirs <= own, f"{dotted(path)} may not import {name}"
        elif dotted(path).startswith("core"):
            assert name.split(".")[0] not in WEB, f"the core may not know {name}"


@pytest.mark.parametrize("path", modules(), ids=dotted)
def test_modules_stay_small_and_say_what_they_are(path: Path) -> None:
    text = path.read_text("utf-8")
    assert len(text.splitlines()) <= 500
    if text.strip():
        assert ast.get_docstring(ast.parse(text)), "a module opens with what it is"


def public_things(path: Path) -> list[ast.AST]:
    tree = ast.parse(path.read_text("utf-8"))
    kinds = (ast.FunctionDef, ast.ClassDef)
    return [node for node in tree.body if isinstance(node, kinds) and not node.name.startswith("_")]


@pytest.mark.parametrize("path", [path for path in modules() if dotted(path).startswith("core")], ids=dotted)
def test_public_things_of_the_core_are_described(path: Path) -> None:
    for node in public_things(path):
        inherits = isinstance(node, ast.ClassDef) and any(
            isinstance(base, ast.Name) and base.id == "PutElement" for base in node.bases
        )
        assert inherits or ast.get_docstring(node), f"{path.name}: {node.name}"  # type: ignore[arg-type, attr-defined]


def tracked() -> list[str]:
    done = subprocess.run(["git", "ls-files"], cwd=ROOT, capture_output=True, text=True, check=False)
    return done.stdout.split("\n") if done.returncode == 0 else []


def test_lock_files_name_no_registry() -> None:
    lock = json.loads((ROOT / "web" / "package-lock.json").read_text("utf-8"))
    assert not [name for name, held in lock["packages"].items() if "resolved" in held]
    for name in ("requirements.lock", "requirements-test.lock"):
        assert "://" not in (ROOT / name).read_text("utf-8")


def test_no_large_files_and_few_pictures() -> None:
    files = [ROOT / name for name in tracked() if name and (ROOT / name).is_file()]
    assert all(file.stat().st_size < 1_500_000 for file in files)
    assert sum(file.parent.name == "screenshots" for file in files) < 20
