"""Shared fixtures: the demo house, its building, and what is worked out once for all tests."""

from __future__ import annotations

from pathlib import Path

import pytest
from hypothesis import settings

from deepsection.core.model import Project
from deepsection.core.resolve import Building, resolve
from deepsection.demo import otterfold_house, quillback_house

collect_ignore = ["kites"]
"""A made-up trade, to be read as part of a copy of the program (`test_recipes.py`)."""

settings.register_profile("suite", deadline=None)
settings.load_profile("suite")
# A busy machine is no fault of an example.


FIRST = ("e2e", "core/view", "core/resolve", "service")
"""What takes long is begun first, so that no tester is left alone with it at the end."""


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Files in the order in which they are best begun."""
    here = Path(__file__).parent

    def rank(item: pytest.Item) -> int:
        where = item.path.relative_to(here).as_posix() if item.path.is_relative_to(here) else ""
        return next((k for k, folder in enumerate(FIRST) if where.startswith(folder)), len(FIRST))

    items.sort(key=rank)


@pytest.fixture(scope="session")
def house() -> Project:
    """The timber demo."""
    return quillback_house()


@pytest.fixture(scope="session")
def building(house: Project) -> Building:
    """The building of the timber demo."""
    return resolve(house)


@pytest.fixture(scope="session")
def otterfold() -> Building:
    """The building of the demo with two storeys."""
    return resolve(otterfold_house())
