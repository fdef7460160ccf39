"""The store: nothing acknowledged is ever lost, whatever is killed."""

from __future__ import annotations

import json
import subprocess
import sys
import threading
import time
from pathlib import Path

import pytest
from sqlalchemy import inspect, text

from deepsection.core.edits import SetProject, apply_edits
from deepsection.core.errors import StaleVersion, UnknownElement
from deepsection.service.database import open_database
from deepsection.service.store import Store
from deepsection.service.tables import Base
from tests.builders import box_house

WRITER = """
import sys
from deepsection.core.edits import SetProject, apply_edits
from deepsection.service.database import open_database
from deepsection.service.store import Store
store = Store(open_database(sys.argv[1]))
stored = store.load("p")
while True:
    changed = apply_edits(stored.project, (SetProject(name=f"edit {stored.version + 1}"),))
    stored = store.append("p", stored.version, changed, "rename", "[]")
    print(stored.version, flush=True)
"""


@pytest.fixture
def store(tmp_path: Path) -> Store:
    held = Store(open_database(f"sqlite:///{tmp_path / 'data.db'}"))
    held.create(box_house(8000, 6000), "start")
    return held


def test_sqlite_is_set_up_to_keep_what_it_says(tmp_path: Path) -> None:
    engine = open_database(f"sqlite:///{tmp_path / 'data.db'}")
    with engine.connect() as connection:
        settings = {
            name: connection.execute(text(f"PRAGMA {name}")).scalar()
            for name in ("journal_mode", "foreign_keys", "synchronous")
        }
    assert settings == {"journal_mode": "wal", "foreign_keys": 1, "synchronous": 2}


def test_migrations_make_the_tables_of_the_model(tmp_path: Path) -> None:
    engine = open_database(f"sqlite:///{tmp_path / 'data.db'}")
    found = inspect(engine)
    for table in Base.metadata.sorted_tables:
        assert {column["name"] for column in found.get_columns(table.name)} == {column.name for column in table.columns}
    assert open_database(f"sqlite:///{tmp_path / 'data.db'}"), "opening twice migrates nothing twice"


@pytest.mark.parametrize("round_", range(4))
def test_a_killed_writer_loses_no_acknowledged_edit(tmp_path: Path, round_: int) -> None:
    """kill -9 in mid-edit: every version that was acknowledged is there, whole, and the next edit goes on from it."""
    url = f"sqlite:///{tmp_path / 'data.db'}"
    Store(open_database(url)).create(box_house(8000, 6000), "start")
    with subprocess.Popen([sys.executable, "-c", WRITER, url], stdout=subprocess.PIPE, text=True) as writer:
        assert writer.stdout
        first = writer.stdout.readline()
        time.sleep(0.05 + 0.07 * round_)
        writer.kill()
        rest = writer.stdout.read().split()
    acknowledged = int(rest[-1] if rest else first)
    store = Store(open_database(url))
    stored = store.load("p")
    assert stored.version in (acknowledged, acknowledged + 1)
    assert stored.project.name == f"edit {stored.version}"
    again = store.append("p", stored.version, apply_edits(stored.project, (SetProject(name="after"),)), "rename", "[]")
    assert again.version == stored.version + 1


def test_of_many_writers_at_once_one_wins(store: Store) -> None:
    outcomes: list[str] = []

    def write(number: int) -> None:
        project = apply_edits(store.load("p").project, (SetProject(name=f"writer {number}"),))
        try:
            store.append("p", 1, project, "rename", "[]")
            outcomes.append("kept")
        except StaleVersion:
            outcomes.append("stale")

    threads = [threading.Thread(target=write, args=(number,)) for number in range(8)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert sorted(outcomes) == ["kept"] + ["stale"] * 7
    assert store.load("p").version == 2


def test_undo_stores_no_document_twice(store: Store) -> None:
    stored = store.load("p")
    stored = store.append("p", 1, apply_edits(stored.project, (SetProject(name="other"),)), "rename", "[]")
    for _ in range(3):
        stored = store.step("p", stored.version, True)
        stored = store.step("p", stored.version, False)
    with store._engine.connect() as connection:
        assert connection.execute(text("select count(*) from documents")).scalar() == 2
        assert connection.execute(text("select count(*) from versions")).scalar() == 8


def test_a_taken_id_and_an_unknown_one_are_named(store: Store) -> None:
    with pytest.raises(StaleVersion, match="here already"):
        store.create(box_house(1000, 1000), "start")
    with pytest.raises(UnknownElement, match="ghost"):
        store.load("ghost")


def test_the_log_says_what_was_done(store: Store) -> None:
    edits = json.dumps([{"kind": "set_project", "name": "other"}])
    store.append("p", 1, apply_edits(store.load("p").project, (SetProject(name="other"),)), "change the project", edits)
    with store._engine.connect() as connection:
        rows = connection.execute(text("select version, label, edits from versions order by version")).all()
    assert [tuple(row) for row in rows] == [(1, "start", "[]"), (2, "change the project", edits)]
