"""Edits of posts and beams."""

from __future__ import annotations

from typing import ClassVar, Literal

from ...document.putting import PutElement
from .model import Beam, Post


class PutPost(PutElement):
    kind: Literal["put_post"] = "put_post"
    phrase: ClassVar[str] = "change a post"
    adding: ClassVar[str] = "place a post"
    post: Post


class PutBeam(PutElement):
    kind: Literal["put_beam"] = "put_beam"
    phrase: ClassVar[str] = "change a beam"
    adding: ClassVar[str] = "lay a beam"
    beam: Beam
