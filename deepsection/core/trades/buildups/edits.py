"""Edits of the settings of build-ups."""

from __future__ import annotations

from typing import ClassVar, Literal

from ...document.putting import PutElement
from .model import BuildUpSetting


class PutBuildUpSetting(PutElement):
    kind: Literal["put_build_up_setting"] = "put_build_up_setting"
    phrase: ClassVar[str] = "change a build-up"
    adding: ClassVar[str] = "set a build-up"
    build_up_setting: BuildUpSetting
