"""The command line: the same work without a browser, through the functions that the service uses."""

from __future__ import annotations

from deepsection.calc import calc

# Importing them declares their commands, in the order of the help.
from . import serving, projects, steps, drawing, junctions  # isort: skip
from .shared import app

app.add_typer(calc, name="calc")

__all__ = ["app", "drawing", "junctions", "projects", "serving", "steps"]
