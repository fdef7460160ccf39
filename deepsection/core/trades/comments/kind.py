"""Comments: what they are called, and that they are open."""

from __future__ import annotations

from collections.abc import Iterator

from ...building.diagnostics import Diagnostic
from ...building.kind import ElementKind
from ...building.placed import Placed
from ...model import Comment, Project
from .fields import comment_fields


def _open(placed: Placed) -> Iterator[Diagnostic]:
    for held in placed.project.comments:
        if held.status == "open":
            message = f"{held.by}: {held.text}"
            yield Diagnostic("comment-open", message, held.id, "status", at=(held.x, held.y))


def _title(project: Project, held: Comment) -> tuple[str, str]:
    return f"Comment of the {held.by}", held.text


COMMENT = ElementKind(Comment, on_paper=True, title=_title, fields=comment_fields, checks=_open)
