"""Shared fixtures: the demo house, its building, and what is worked out once for all tests."""

from __future__ import annotations

import os
from collections import defaultdict
from pathlib import Path

import pytest
from hypothesis import settings

from deepsection.core.model import Project
from deepsection.core.resolve import Building, resolve
from deepsection.demo import otterfold_house, quillback_house

collect_ignore = ["kites"]
"""A made-up trade, to be read as part of a copy of the program (`test_recipes.py`)."""

os.environ.setdefault("DEEPSECTION_WORKERS", "0")
"""The testers take all cores already: services draw without workers, but for the tests of these."""

settings.register_profile("suite", deadline=None)
settings.load_profile("suite")
# A busy machine is no fault of an example.


SOON = ("core/view", "core/resolve", "service")
"""What takes long is begun soon, so that no tester is left alone with it at the end."""
BESIDE = 2
"""So many files of others are begun for each file of browser tests: those wait much of their time."""


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Files in the order in which they are best begun."""
    here = Path(__file__).parent
    files: dict[str, list[pytest.Item]] = defaultdict(list)
    for item in items:
        files[item.path.relative_to(here).as_posix() if item.path.is_relative_to(here) else ""].append(item)
    browser = [name for name in files if name.startswith("e2e/")]
    others = sorted(
        (name for name in files if name not in browser),
        key=lambda name: next((k for k, folder in enumerate(SOON) if name.startswith(folder)), len(SOON)),
    )
    order = []
    for k, name in enumerate(browser):
        order += [name, *others[k * BESIDE : (k + 1) * BESIDE]]
    order += others[len(browser) * BESIDE :]
    items[:] = [item for name in order for item in files[name]]


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
