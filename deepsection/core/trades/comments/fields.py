"""Fields of comments."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...document.rebuilding import changed
from ...edits import PutComment
from ...model import Comment, Project
from ...rows.rows import Row, choice_row, text_row


def comment_fields(project: Project, held: Comment) -> list[Row]:
    """What it says, what was done about it, and whether that settles it."""

    def put(**changes: Any) -> Sequence[Any]:
        return [PutComment(comment=changed(held, **changes))]

    return [
        choice_row("status", "State", held.status, [("open", "open"), ("settled", "settled")], lambda t: put(status=t)),
        text_row("answer", "What was done", held.answer, lambda t: put(answer=t), empty=True),
    ]
