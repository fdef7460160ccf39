"""Shared fixtures: the demo house, its building, and what is worked out once for all tests."""

from __future__ import annotations

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
