"""Fields of saved walls, and of walls that may be saved or follow one."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...document.ids import free_ids
from ...document.rebuilding import changed
from ...edits import PutSavedWall, Remove, SaveWall, UseSavedWall
from ...model import Project, Wall
from ...rows.rows import Row, action_row, choice_row, text_row
from .saved_model import SavedWall

NONE = "-"


def saving_fields(project: Project, wall: Wall) -> list[Row]:
    """The saved wall that a wall is like, and the name under which it may be saved."""

    def use(text: str) -> Sequence[Any]:
        return [] if text == NONE else [UseSavedWall(saved=text, walls=(wall.id,))]

    def save(text: str) -> Sequence[Any]:
        return [SaveWall(wall=wall.id, id=next(free_ids(project, "saved")), name=text)] if text else []

    own = next((saved for saved in project.saved_walls if saved.describes(wall)), None)
    options = [*([] if own else [(NONE, "none")]), *((saved.id, saved.name) for saved in project.saved_walls)]
    rows = [text_row("save_as", "Save as, for other walls", own.name if own else "", save, empty=True)]
    if project.saved_walls:
        rows.insert(0, choice_row("saved", "Like the saved wall", own.id if own else NONE, options, use))
    if own:
        rows.append(action_row("forget", f"Forget the saved wall “{own.name}”", [Remove(elements=(own.id,))]))
    return rows


def saved_wall_fields(project: Project, saved: SavedWall) -> list[Row]:
    """Its name."""
    return [text_row("name", "Name", saved.name, lambda t: [PutSavedWall(saved=changed(saved, name=t))])]
