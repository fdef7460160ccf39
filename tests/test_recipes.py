"""A new kind of element touches its own folder and a few lines of lists: a made-up one is put into a copy of the
program, and taken through all of it."""

from __future__ import annotations

import shutil
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
KITES = Path(__file__).parent / "kites"

LINES = {
    "model/project.py": (
        ("from ..trades.lines.model import", "from ..trades.kites.model import Kite\n"),
        ("    rails: tuple[Rail, ...] = ()", "    kites: tuple[Kite, ...] = ()\n"),
    ),
    "edits/__init__.py": (("from ..trades.lines.edits import", "from ..trades.kites.edits import PutKite\n"),),
    "kinds.py": (
        ("from .trades.lines.kind import", "from .trades.kites.kind import KITE, KITE_STAGE\n"),
        ("    RAIL_STAGE,\n    ROOM_STAGE", "    KITE_STAGE,\n"),
        ("    RAIL,\n    CHIMNEY", "    KITE,\n"),
    ),
}
"""All that changes outside of the folder of a kind: before which text, in which file, which line stands."""


def test_a_made_up_kind_needs_its_folder_and_six_lines(tmp_path: Path) -> None:
    program = tmp_path / "deepsection"
    shutil.copytree(ROOT / "deepsection", program, ignore=shutil.ignore_patterns("__pycache__"))
    shutil.copytree(KITES, program / "core" / "trades" / "kites", ignore=shutil.ignore_patterns("flight.py", "__pyc*"))
    for name, lines in LINES.items():
        file = program / "core" / name
        text = file.read_text("utf-8")
        for before, line in lines:
            assert text.count(before) == 1, f"{name} has no one place before {before!r}"
            text = text.replace(before, line + before)
        file.write_text(text, "utf-8")
    run = [sys.executable, str(KITES / "flight.py"), str(tmp_path / "kites.db")]
    done = subprocess.run(
        run, cwd=tmp_path, env={"PYTHONPATH": str(tmp_path)}, capture_output=True, text=True, check=False
    )
    assert done.stdout == "landed\n", done.stderr
