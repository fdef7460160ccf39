"""What the commands share: the store, standard output and error, errors in one line, files read and written whole."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

import typer
from rich.console import Console

from deepsection.core.edits import EDITS, describe
from deepsection.core.errors import BadInput, DeepSectionError
from deepsection.service.app import default_database, load_demos
from deepsection.service.database import open_database
from deepsection.service.store import Store, Stored
from deepsection.service.work import checked_edits, prove_parts

app = typer.Typer(
    help="Elevations, sections and sheets of houses, from the command line.", no_args_is_help=True, add_completion=False
)
out, err = Console(highlight=False, soft_wrap=True), Console(stderr=True, highlight=False, soft_wrap=True)


def opened() -> Store:
    """The store, with the demo projects in it."""
    store = Store(open_database(default_database()))
    load_demos(store)
    return store


@contextmanager
def told() -> Iterator[None]:
    """Errors of ours go to standard error in one line, with exit code 2."""
    try:
        yield
    except DeepSectionError as error:
        err.print(f"deepsection: {error.message}", markup=False)
        raise typer.Exit(2) from error


def read(file: Path) -> bytes:
    """What is in a file. Raises: BadInput."""
    try:
        return file.read_bytes()
    except OSError as error:
        raise BadInput(f"{file} cannot be read: {error.strerror}", field="file", value=str(file)) from error


def write(file: Path, data: bytes) -> None:
    """Write a file whole or not at all. Raises: BadInput."""
    part = file.with_name(f".{file.name}.part")
    try:
        part.write_bytes(data)
        part.replace(file)
    except OSError as error:
        part.unlink(missing_ok=True)
        raise BadInput(f"{file} cannot be written: {error.strerror}", field="output", value=str(file)) from error


def keep(store: Store, stored: Stored, edits: list[Any]) -> None:
    """Keep edits as the next version, and say what was done."""
    changed = checked_edits(stored.project, edits)
    prove_parts(stored.project, changed, edits)
    words = describe(edits, stored.project)
    store.append(stored.project.id, stored.version, changed, words, EDITS.dump_json(tuple(edits)).decode())
    err.print(f"done: {words}", markup=False)
