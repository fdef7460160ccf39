"""One sheet, written once in every format."""

from __future__ import annotations

import pytest

from deepsection.core.model import Project
from deepsection.core.resolve import Building
from deepsection.core.sheets import SheetDrawing, compose
from deepsection.formats.writers import WRITERS


@pytest.fixture(scope="session")
def sheet(house: Project, building: Building) -> SheetDrawing:
    """The first sheet of the demo."""
    return compose(house, building, house.sheets[0], date="2026-01-02")


@pytest.fixture(scope="session")
def files(sheet: SheetDrawing) -> dict[str, bytes]:
    """The sheet in every format."""
    return {name: write(sheet) for name, write in WRITERS.items()}
