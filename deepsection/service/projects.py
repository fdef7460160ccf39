"""What can be done with whole projects: started, brought in, copied; the same for the routes and the command line."""

from __future__ import annotations

import re
import secrets
from typing import Any

from deepsection.core.adopting import Adopted
from deepsection.core.edits import PutMakeUp, PutSavedWall, changed
from deepsection.core.errors import UnknownElement
from deepsection.core.model import MakeUp, Project, dump_file, load_file
from deepsection.core.reading import ReadPlan
from deepsection.core.starters.projects import Ground, new_project
from deepsection.core.trades.makeups.model import Tradition
from deepsection.core.units import Units

from .plan_choices import PlanChoices
from .plans import taken_over
from .store import Store, Stored, name_taken


def start(store: Store, name: str, units: Units, tradition: Tradition = "timber", ground: Ground = "slab") -> Stored:
    """A new project from the starter of its tradition, units and ground. Raises: BadInput."""
    return store.create(fresh(name, units, tradition, ground), "start the project", alone=True)


def fresh(name: str, units: Units, tradition: Tradition = "timber", ground: Ground = "slab") -> Project:
    """A project from a starter that is kept nowhere yet. Raises: BadInput."""
    return new_project(new_id(name), name, units, tradition, ground)


def from_plan(store: Store, empty: Project, plan: ReadPlan, choices: PlanChoices) -> tuple[Stored, Adopted]:
    """A new project with a plan that was read built into it, or nothing at all. Raises: BadInput."""
    project, made = taken_over(empty, plan, choices, prefix="read")
    return store.create(project, "read a plan", alone=True), made


def bring_in(store: Store, data: bytes) -> Stored:
    """A project from a project file, with an id and, where it is taken, a name of its own. Raises: BadInput."""
    project, files = load_file(data)
    for held in files.values():
        store.put_file(held)
    return store.create(_renewed(store, project, project.name), "bring in the project")


def as_file(store: Store, project: Project) -> bytes:
    """A project as a file, with what lies under its views."""
    return dump_file(project, store.files(project))


def copy(store: Store, id: str) -> Stored:
    """A copy of the latest version. Raises: UnknownElement."""
    project = store.load(id).project
    return store.create(_renewed(store, project, f"{project.name}, copy"), f"copy {project.name}")


def refuse_taken_name(store: Store, name: str) -> None:
    """Raises: BadInput when a project of this name is here."""
    if any(item.name.casefold() == name.strip().casefold() for item in store.list()):
        raise name_taken(name)


def make_up_from(store: Store, project: Project, other: str, make_up: str) -> MakeUp:
    """A make-up of another project with an id that is free in this one. Raises: UnknownElement."""
    found = next((held for held in store.load(other).project.make_ups if held.id == make_up), None)
    if found is None:
        raise UnknownElement(f"that project has no make-up “{make_up}”", element=other, field="make_up", value=make_up)
    names = {held.name for held in project.make_ups}
    copied: MakeUp = changed(found, id=new_id(found.name, "make-up"), name=_free(found.name, names))
    return copied


def saved_wall_from(store: Store, project: Project, other: str, saved: str) -> list[Any]:
    """The edits that bring a saved wall of another project here, with its make-up where none is just like it.

    Raises: UnknownElement.
    """
    theirs = store.load(other).project
    wall = next((held for held in theirs.saved_walls if held.id == saved), None)
    if wall is None:
        raise UnknownElement(
            f"that project has no saved wall “{saved}”", element=other, field="saved_wall", value=saved
        )
    origin = next(held for held in theirs.make_ups if held.id == wall.make_up)
    alike = next((held for held in project.make_ups if (held.use, held.layers) == (origin.use, origin.layers)), None)
    make_up = alike or make_up_from(store, project, other, origin.id)
    name = _free(wall.name, {held.name for held in project.saved_walls})
    copied = changed(wall, id=new_id(wall.name, "saved"), name=name, make_up=make_up.id)
    return [*([] if alike else [PutMakeUp(make_up=make_up)]), PutSavedWall(saved=copied)]


def new_id(name: str, kind: str = "project") -> str:
    """An id that begins like a name, or with its kind where the name begins with no letter."""
    stem = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:24]
    return f"{stem if stem[:1].isalpha() else kind}-{secrets.token_hex(4)}"


def _renewed(store: Store, project: Project, name: str) -> Project:
    renewed: Project = changed(project, id=new_id(name), name=_free(name, {item.name for item in store.list()}))
    return renewed


def _free(name: str, taken: set[str]) -> str:
    """The name, or with the lowest number after it that is free."""
    held = {known.casefold() for known in taken}
    name = name[:110]
    candidates = [name, *(f"{name} {number}" for number in range(2, len(held) + 3))]
    return next(candidate for candidate in candidates if candidate.casefold() not in held)
