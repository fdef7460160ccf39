"""Edits of comments: one changed, or an answer to a whole view taken."""

from __future__ import annotations

import math
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from ...document.command import Command
from ...document.ids import free_among
from ...document.putting import PutElement
from ...document.rebuilding import put, rebuild
from ...document.values import Element, Mm, Name
from ...model.project import Project
from .model import Comment, CommentText

SAME = 300.0
"""A comment with the same words as near as this (mm) to a settled one says nothing new."""


class PutComment(PutElement):
    kind: Literal["put_comment"] = "put_comment"
    phrase: ClassVar[str] = "change a comment"
    comment: Comment


class Said(Element):
    """One comment of an answer: its place in plan, its words."""

    x: Mm
    y: Mm
    text: CommentText


class TakeComments(Command):
    """The answer to a view: what was open of it before gives way, what was settled and is said again stays settled."""

    kind: Literal["take_comments"] = "take_comments"
    phrase: ClassVar[str] = "take comments"
    view: Name
    by: Name = "engineer"
    comments: Annotated[tuple[Said, ...], Field(max_length=500)]

    def apply(self, project: Project) -> Project:
        """The project with the comments. Raises: RefusedEdit."""
        kept = tuple(held for held in project.comments if held.view != self.view or held.status == "settled")
        settled = [held for held in kept if held.view == self.view]
        staged = rebuild(project, comments=kept)
        ids = free_among({held.id for held in staged.elements()}, "comment")
        new = [
            Comment(id=next(ids), view=self.view, x=said.x, y=said.y, text=said.text, by=self.by)
            for said in self.comments
            if not any(
                held.text == said.text and math.dist((held.x, held.y), (said.x, said.y)) < SAME for held in settled
            )
        ]
        return put(staged, *new) if new else staged
