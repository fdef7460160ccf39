"""What elements are made of: ids, names, lengths in mm, and the frozen value that they all are."""

from __future__ import annotations

import math
from typing import Annotated, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, StringConstraints

Id = Annotated[str, StringConstraints(pattern=r"^[A-Za-z][A-Za-z0-9_-]{0,39}$")]
Name = Annotated[str, StringConstraints(min_length=1, max_length=120, strip_whitespace=True)]


def _finite(value: float) -> float:
    if not math.isfinite(value) or abs(value) > 1e7:
        raise ValueError("must be a finite length below 10 km")
    return value + 0.0


Mm = Annotated[float, AfterValidator(_finite)]
Positive = Annotated[float, Field(gt=0, le=1e6)]
NotNegative = Annotated[float, Field(ge=0, le=1e6)]
WallEnd = Literal["start", "end"]
Face = Literal["outer", "middle", "inner"]


class Element(BaseModel):
    """A frozen value; lists are tuples, so that every element can be hashed."""

    model_config = ConfigDict(frozen=True, extra="forbid")
