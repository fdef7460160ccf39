"""What elements are made of: ids, names, lengths in mm, and the frozen value that they all are."""

from __future__ import annotations

import math
from typing import Annotated, Any, Literal, Self

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, StringConstraints

from ..catalog import materials


def _known_material(id: str) -> str:
    if id not in materials():
        raise ValueError(f"no material is called “{id}”")
    return id


Id = Annotated[str, StringConstraints(pattern=r"^[A-Za-z][A-Za-z0-9_-]{0,39}$")]
MaterialId = Annotated[Id, AfterValidator(_known_material)]
"""The id of a material of the catalogue."""
Name = Annotated[str, StringConstraints(min_length=1, max_length=120, strip_whitespace=True)]


def _finite(value: float) -> float:
    if not math.isfinite(value) or abs(value) > 1e7:
        raise ValueError("must be a finite length below 10 km")
    return value + 0.0


Mm = Annotated[float, AfterValidator(_finite)]
Positive = Annotated[float, Field(gt=0, le=1e6)]
NotNegative = Annotated[float, Field(ge=0, le=1e6)]
RoofPitch = Annotated[float, Field(ge=0.005, le=6.0)]
WallEnd = Literal["start", "end"]
Face = Literal["outer", "middle", "inner"]


_KNOWN = "_known_hash"
"""Where an element keeps its hash: pydantic passes over what is called so."""


class Element(BaseModel):
    """A frozen value; lists are tuples, so that every element can be hashed."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)

    def __hash__(self) -> int:
        """Worked out once: elements are keys of every stage."""
        known: int | None = self.__dict__.get(_KNOWN)
        if known is None:
            known = hash((type(self), *(self.__dict__[name] for name in type(self).model_fields)))
            self.__dict__[_KNOWN] = known
        return known

    def __eq__(self, other: object) -> bool:
        if self is other:
            return True
        if type(self) is not type(other):
            return NotImplemented
        mine, theirs = self.__dict__, other.__dict__
        return all(mine[name] == theirs[name] for name in type(self).model_fields)

    def __getstate__(self) -> dict[Any, Any]:
        """What another process is sent: the fields alone, since hashes differ from process to process."""
        fields, state = type(self).model_fields, super().__getstate__()
        return state | {"__dict__": {name: value for name, value in self.__dict__.items() if name in fields}}

    def __copy__(self) -> Self:
        """A copy is about to be changed: nothing that was worked out from the original goes along."""
        copied = super().__copy__()
        fields = type(self).model_fields
        for name in [name for name in copied.__dict__ if name not in fields]:
            del copied.__dict__[name]
        return copied
