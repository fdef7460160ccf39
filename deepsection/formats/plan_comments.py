"""Answers of an engineer to a structural plan, as JSON: comments at places in the coordinates of the plan's file."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from deepsection.core.document.faults import why_unreadable
from deepsection.core.edits import Said, TakeComments
from deepsection.core.errors import BadInput
from deepsection.core.geometry import Frame
from deepsection.core.units import INCH


class _Place(BaseModel):
    model_config = ConfigDict(extra="ignore")
    x: Annotated[float, Field(allow_inf_nan=False, ge=-1e7, le=1e7)]
    y: Annotated[float, Field(allow_inf_nan=False, ge=-1e7, le=1e7)]
    text: Annotated[str, Field(min_length=1, max_length=500)]


class _Answer(BaseModel):
    model_config = ConfigDict(extra="ignore")
    by: Annotated[str, Field(min_length=1, max_length=60)] = "engineer"
    units: Literal["in", "mm"]
    comments: Annotated[list[_Place], Field(max_length=500)]


def read_answer(data: bytes, view: str, look_deg: float) -> TakeComments:
    """The edit that takes an answer to a plan, which was sent as it looks along a direction (degrees).

    The file: `by`, `units` ("in" or "mm"), `comments`: a list of `x`, `y`, `text`. Raises: BadInput.
    """
    if why := why_unreadable(data):
        raise BadInput(f"this file {why}", field="answer")
    try:
        answer = _Answer.model_validate_json(data)
    except ValidationError as error:
        fault = error.errors()[0]
        place = ".".join(str(step) for step in fault["loc"]) or "the whole"
        raise BadInput(f"this is no answer to a plan: {place}: {fault['msg']}", field="answer") from error
    factor, frame = INCH if answer.units == "in" else 1.0, Frame.looking(look_deg)
    said = []
    for held in answer.comments:
        x, y = frame.turned_to_plan(held.x * factor, held.y * factor)
        said.append(Said(x=x, y=y, text=held.text))
    return TakeComments(view=view, by=answer.by, comments=tuple(said))
