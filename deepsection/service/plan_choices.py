"""What somebody chooses of a plan that is read from a file, as it is sent or typed."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Literal

from pydantic import BaseModel, Field, ValidationError

from deepsection.core.adopting import AS_DRAWN, WAYS, Choices, turns_of
from deepsection.core.errors import BadInput
from deepsection.core.model import Project
from deepsection.core.reading import MEANINGS, Meaning, ReadPlan

Spot = tuple[Annotated[float, Field(ge=-1e9, le=1e9)], Annotated[float, Field(ge=-1e9, le=1e9)]]


class MarkedOpening(BaseModel):
    """Both ends of an opening that was not found, and what it is."""

    start: Spot
    end: Spot
    kind: Literal["window", "door", "opening"]


class PlanChoices(BaseModel):
    """What somebody chose of a plan. `measured`: a length in units of the file, of which somebody
    `says` what it is; `layers`: what they speak of, by name.

    `pointed`: places between the faces of walls that were not found; `marked`: openings that were not (mm, as found).
    `make_ups` by the key of a thickness: an id, or `as drawn`; `storeys` by position of a plan: a level, or nothing.
    `rest`: the name of a model of which what is not taken over is to be shown as a grey body.
    `under`: the name of the file, where it is to lie under the plan too. `unmoved`, `removed`: elements that stay where
    they are though the file has them elsewhere, and that go since it has them no more; `back_walls`,
    `back_openings`: those that are as the file has them, although it had them so and the project has not. `turn`: by
    how much the plan is turned, where it was not read before (degrees counter-clockwise).
    """

    unit: Annotated[str | None, Field(max_length=4)] = None
    measured: Annotated[float | None, Field(gt=0, le=1e9)] = None
    says: Annotated[str, Field(max_length=40)] = ""
    layers: dict[str, Meaning] = {}
    pointed: Annotated[list[Spot], Field(max_length=200)] = []
    marked: Annotated[list[MarkedOpening], Field(max_length=200)] = []
    make_ups: dict[str, str] = {}
    without_walls: list[int] = []
    without_openings: list[int] = []
    without_stairs: list[int] = []
    storeys: dict[int, str] = {}
    rooms: bool = True
    grids: bool = True
    roofs: bool = True
    under: Annotated[str, Field(max_length=200)] = ""
    rest: Annotated[str, Field(max_length=200)] = ""
    unmoved: list[str] = []
    removed: list[str] = []
    back_walls: list[int] = []
    back_openings: list[int] = []
    turn: Annotated[float, Field(ge=-360, le=360)] = 0.0

    @property
    def kept(self) -> Choices:
        """Those that concern what is built."""
        return Choices(
            make_ups=self.make_ups,
            without_walls=frozenset(self.without_walls),
            without_openings=frozenset(self.without_openings),
            without_stairs=frozenset(self.without_stairs),
            storeys=self.storeys,
            rooms=self.rooms,
            grids=self.grids,
            unmoved=frozenset(self.unmoved),
            removed=frozenset(self.removed),
            back_walls=frozenset(self.back_walls),
            back_openings=frozenset(self.back_openings),
            turn=self.turn,
        )


def choices_from(text: str) -> PlanChoices:
    """Choices as they are sent: JSON. Raises: BadInput."""
    try:
        return PlanChoices.model_validate_json(text)
    except ValidationError as error:
        first = error.errors()[0]
        place = ".".join(str(part) for part in first["loc"])
        raise BadInput(f"these choices cannot be read: {first['msg']}", field=place or "choices") from error


def plan_choices(project: Project, unit: str | None, layers: Sequence[str], make_ups: Sequence[str]) -> PlanChoices:
    """Choices from texts such as `SITE=-`, `L4=wall` and `300 outer=wall-lap`. Raises: BadInput."""
    known = {held.id: held.id for held in project.make_ups if held.use == "wall"}
    known |= {held.name.casefold(): held.id for held in project.make_ups if held.use == "wall"}
    known[AS_DRAWN] = AS_DRAWN
    named: dict[str, Meaning] = {}
    for text in layers:
        name, meaning = _parted(text, "a layer", "give NAME=wall, or NAME=- to leave it out", "layer")
        meaning = "nothing" if meaning == "-" else meaning.casefold()
        if meaning not in MEANINGS:
            raise BadInput(f"a layer is none of “{meaning}”; it is {', '.join(MEANINGS)}", field="layer", value=meaning)
        named[name] = meaning
    chosen: dict[str, str] = {}
    for text in make_ups:
        key, name = _parted(text, "a thickness", "give “300 outer=MAKE-UP”", "make_up")
        made = known.get(name, known.get(name.casefold()))
        if made is None:
            names = ", ".join(held.name for held in project.make_ups if held.use == "wall")
            raise BadInput(f"no make-up for walls is called “{name}”; there is {names}", field="make_up", value=name)
        chosen[key] = made
    return PlanChoices(unit=unit, layers=named, make_ups=chosen)


def turned_as(plan: ReadPlan, lay: str) -> float:
    """By how much (degrees) a plan is turned to lie `square` to the sheet, or with `north` up. Raises: BadInput."""
    if lay not in WAYS:
        raise BadInput(f"a plan is laid {' or '.join(WAYS)}, or as it is drawn", field="lay", value=lay)
    if lay == "north" and plan.north is None:
        raise BadInput("no arrow or letter of north was found in this plan", field="lay", value=lay)
    return next((turn.degrees for turn in turns_of(plan) if lay in turn.ways), 0.0)


def _parted(text: str, what: str, how: str, field: str) -> tuple[str, str]:
    name, equals, chosen = (part.strip() for part in text.rpartition("="))
    if not equals or not name or not chosen:
        raise BadInput(f"“{text}” is no choice for {what}; {how}", field=field, value=text)
    return name, chosen
