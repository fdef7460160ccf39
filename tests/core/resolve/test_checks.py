"""The table of checks: each is made somewhere, each that is made is in it, and rules from outside name their source."""

from __future__ import annotations

import ast
from pathlib import Path

import pytest

import deepsection.core.trades as package
from deepsection.core.building.checks import CHECKS, DRAWING
from deepsection.core.edits import changed, put
from deepsection.core.resolve import Diagnostic, resolve
from tests.builders import joist_house

HERE = Path(package.__file__).parent


def literals() -> set[str]:
    """Every text in the trades and in what opens a building."""
    files = [*HERE.rglob("*.py"), HERE.parent / "view" / "opening.py"]
    trees = [ast.parse(path.read_text("utf-8")) for path in files]
    return {
        node.value
        for tree in trees
        for node in ast.walk(tree)
        if isinstance(node, ast.Constant) and isinstance(node.value, str)
    }


def test_each_check_of_the_table_is_made_somewhere() -> None:
    said = literals()
    assert [code for code in CHECKS if code not in said] == []
    assert len(CHECKS) > 60


def test_no_check_is_made_that_is_not_in_the_table() -> None:
    with pytest.raises(LookupError, match="made-up"):
        Diagnostic("made-up", "this is wrong", "wall")


def test_each_says_what_it_tests_and_published_rules_their_clause() -> None:
    for check in CHECKS.values():
        assert len(check.tests.split()) > 3 and check.tests[0].islower()
        if check.source and "no source" not in check.source:
            assert any(sign.isdigit() for sign in check.source), "a clause has a number"
    assert CHECKS["birdsmouth-deep"].source and "R802.7.1" in CHECKS["birdsmouth-deep"].source
    assert [check.severity for check in DRAWING] == ["blocking"]


def test_a_diagnostic_is_as_grave_as_its_check() -> None:
    found = Diagnostic("pipe-low", "too low", "pipe")
    assert (found.severity, found.source) == ("warning", CHECKS["pipe-low"].source)
    assert Diagnostic("walls-cross", "they cross", "wall").severity == "blocking"


def test_advice_waits_until_it_is_asked_for_and_stops_nobody() -> None:
    """Joists that span 8.7 m, far more than they reach (IRC table R502.3.1(2), from memory: none do)."""
    building = resolve(put(house := joist_house(12_000.0, 9000.0), changed(house.floors[0], sized="by tables")))
    assert "advice" not in building.__dict__
    assert {found.code for found in building.advice} >= {"joist-span"}
    assert not {found.code for found in building.faults} & {found.code for found in building.advice}
    assert building.diagnostics == (*building.faults, *building.advice)
    assert {found.severity for found in building.advice} == {"warning"}
