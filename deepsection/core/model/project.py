"""The document: one house and all its drawings, as one frozen, validated value."""

from __future__ import annotations

from collections.abc import Iterator
from functools import cached_property
from typing import Any, Literal, Self

from pydantic import model_validator

from ..document.declaring import collections_of
from ..document.values import Element, Id, Name
from ..errors import UnknownElement
from ..trades.backgrounds.model import Background, ModelBody
from ..trades.buildups.model import BuildUpSetting
from ..trades.ceilings.model import Ceiling
from ..trades.comments.model import Comment
from ..trades.decks.model import Deck
from ..trades.drawings.model import Detail, Dimensioning, ElevationView, Note, SectionLine, Sheet, ViewShow, WallSection
from ..trades.floors.model import Floor, FloorHole
from ..trades.foundations.model import Foundation, FoundationStep, SetDown
from ..trades.ground.model import GroundSpot, GroundStep
from ..trades.levels.model import Rung
from ..trades.lines.model import ConstructionLine, GridLine
from ..trades.lofts.model import LoftHatch
from ..trades.makeups.model import MakeUp, Tradition
from ..trades.onroofs.model import Chimney, Downpipe, RoofFitting
from ..trades.openings.model import Design, Kind, Opening, design_of, number_of, words_of
from ..trades.outdoors.model import OutsideSteps, Rail
from ..trades.posts.model import Beam, Post
from ..trades.readings.model import PlanRead
from ..trades.roofs.model import RoofBlock
from ..trades.rooms.model import Room
from ..trades.slabs.model import PorchSlab
from ..trades.stairs.model import Stair
from ..trades.walls.model import Joint, TeeJoint, Wall
from ..trades.walls.saved_model import SavedWall
from ..units import Units

SCHEMA_VERSION = 11
"""Rises with every change of what is stored: `documents.MIGRATIONS` has the step, `tests/frozen` a file of each."""


class Project(Element):
    """Everything that is saved. Building it validates it: ids are unique and references resolve."""

    schema_version: Literal[11] = 11
    id: Id
    name: Name
    place: str = ""
    author: str = ""
    units: Units
    tradition: Tradition = "timber"
    scale: float = 48.0
    dimensioning: Dimensioning = Dimensioning()
    make_ups: tuple[MakeUp, ...] = ()
    rungs: tuple[Rung, ...] = ()
    joints: tuple[Joint, ...] = ()
    walls: tuple[Wall, ...] = ()
    saved_walls: tuple[SavedWall, ...] = ()
    kinds: tuple[Kind, ...] = ()
    openings: tuple[Opening, ...] = ()
    posts: tuple[Post, ...] = ()
    beams: tuple[Beam, ...] = ()
    rooms: tuple[Room, ...] = ()
    construction: tuple[ConstructionLine, ...] = ()
    grid: tuple[GridLine, ...] = ()
    spots: tuple[GroundSpot, ...] = ()
    steps: tuple[GroundStep, ...] = ()
    outside_steps: tuple[OutsideSteps, ...] = ()
    rails: tuple[Rail, ...] = ()
    roofs: tuple[RoofBlock, ...] = ()
    chimneys: tuple[Chimney, ...] = ()
    fittings: tuple[RoofFitting, ...] = ()
    downpipes: tuple[Downpipe, ...] = ()
    foundations: tuple[Foundation, ...] = ()
    foundation_steps: tuple[FoundationStep, ...] = ()
    set_downs: tuple[SetDown, ...] = ()
    loft_hatches: tuple[LoftHatch, ...] = ()
    floors: tuple[Floor, ...] = ()
    floor_holes: tuple[FloorHole, ...] = ()
    decks: tuple[Deck, ...] = ()
    porch_slabs: tuple[PorchSlab, ...] = ()
    stairs: tuple[Stair, ...] = ()
    ceilings: tuple[Ceiling, ...] = ()
    sections: tuple[SectionLine, ...] = ()
    wall_sections: tuple[WallSection, ...] = ()
    elevations: tuple[ElevationView, ...] = ()
    details: tuple[Detail, ...] = ()
    build_ups: tuple[BuildUpSetting, ...] = ()
    shows: tuple[ViewShow, ...] = ()
    backgrounds: tuple[Background, ...] = ()
    model_bodies: tuple[ModelBody, ...] = ()
    plans_read: tuple[PlanRead, ...] = ()
    notes: tuple[Note, ...] = ()
    comments: tuple[Comment, ...] = ()
    sheets: tuple[Sheet, ...] = ()

    @cached_property
    def joints_by_id(self) -> dict[str, Joint]:
        """The joints by their ids."""
        return {joint.id: joint for joint in self.joints}

    @cached_property
    def walls_by_id(self) -> dict[str, Wall]:
        """The walls by their ids."""
        return {wall.id: wall for wall in self.walls}

    @property
    def collections(self) -> tuple[str, ...]:
        """The names of the tuples of elements, in document order."""
        return tuple(collections_of(type(self)))

    def elements(self) -> Iterator[Any]:
        """Every element, in document order."""
        for collection in self.collections:
            yield from getattr(self, collection)

    def find(self, id: str) -> Any:
        """The element of this id. Raises: UnknownElement."""
        for element in self.elements():
            if element.id == id:
                return element
        raise UnknownElement(f"nothing here is called “{id}”", element=id)

    def collection_of(self, id: str) -> str:
        """The name of the collection that holds this id. Raises: UnknownElement."""
        for collection in self.collections:
            if any(element.id == id for element in getattr(self, collection)):
                return collection
        raise UnknownElement(f"nothing here is called “{id}”", element=id)

    def kind_of(self, opening: Opening) -> Kind | None:
        """The kind that an opening follows."""
        return next((kind for kind in self.kinds if kind.id == opening.kind), None)

    def design_of(self, opening: Opening) -> Design:
        """What stands in an opening, its kind's facts and its own exceptions together."""
        return design_of(opening, self.kind_of(opening))

    def show_of(self, view: str) -> ViewShow | None:
        """How a view is shown, where that was said."""
        return next((show for show in self.shows if show.view == view), None)

    def number_of(self, opening: Opening) -> str:
        """What is written beside an opening."""
        return number_of(opening, self.kind_of(opening))

    def words_of(self, opening: Opening) -> tuple[str, str]:
        """(maker, note): what a schedule says of an opening in words."""
        return words_of(opening, self.kind_of(opening))

    @model_validator(mode="after")
    def _hold_together(self) -> Self:
        _check_ids(self)
        _check_datum(self)
        _check_references(self)
        _check_hosts_end(self)
        for element in self.elements():
            element.check(self)
        return self


def _check_ids(project: Project) -> None:
    seen: set[str] = set()
    for element in project.elements():
        if element.id in seen:
            raise ValueError(f"two elements are called “{element.id}”")
        seen.add(element.id)


def _check_references(project: Project) -> None:
    """Every field that names an element names one of its collection."""
    known = {name: {element.id for element in getattr(project, name)} for name in project.collections}
    for element in project.elements():
        for ref in element.about.refs:
            for id in ref.values(element):
                if id not in known[ref.collection]:
                    raise ValueError(f"{element.id}: {ref.words} names “{id}”, which is not in the project")


def _check_datum(project: Project) -> None:
    if project.rungs and sum(rung.from_rung is None for rung in project.rungs) != 1:
        raise ValueError("the height ladder needs exactly one datum")


def _check_hosts_end(project: Project) -> None:
    joints = {joint.id: joint for joint in project.joints}
    walls = {wall.id: wall for wall in project.walls}
    for joint in project.joints:
        waiting, seen = [joint.id], set()
        while waiting:
            current = joints[waiting.pop()]
            if isinstance(current, TeeJoint):
                if current.wall in seen:
                    continue
                seen.add(current.wall)
                host = walls[current.wall]
                if joint.id in (host.start, host.end):
                    raise ValueError(f"{joint.id}: a wall cannot stand on itself")
                waiting += [host.start, host.end]
