"""What a kind of element says of itself: the document, its edits and the screen follow from that."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from typing import TYPE_CHECKING, Annotated, Any, ClassVar, Literal, Self, TypeVar, get_args, get_origin

from .values import Element

if TYPE_CHECKING:
    from ..model.project import Project
    from .motion import Motion

PartGroup = Literal[
    "walls", "openings", "trims", "roofs", "gutters", "on_roofs", "posts", "outdoors", "floors", "stairs", "foundations"
]
"""What elevations and sections can leave out as a whole."""


@dataclass(frozen=True, slots=True)
class Ref:
    """A field that names an element of another collection: its path (through lists too), and the field in words."""

    path: str
    collection: str
    words: str

    def values(self, element: Any) -> Iterator[str | None]:
        """What the field names."""
        held = [element]
        for step in self.path.split("."):
            held = [value for item in held for value in _spread(getattr(item, step, None))]
        yield from held


def _spread(value: Any) -> Iterator[Any]:
    """A value, or all values of lists of them."""
    if isinstance(value, tuple):
        for item in value:
            yield from _spread(item)
    elif value is not None:
        yield value


@dataclass(frozen=True, slots=True)
class About:
    """A kind of element: what one and several are called, what it refers to, and what a drafter may do with it.

    `numbered`: its number says by itself what it is; `movable`: it is moved in plan, with its method `moved`;
    `removable`: it is taken away by itself; `group`: what it is drawn as in elevations and sections, where it may
    then be hidden.
    """

    noun: str
    plural: str
    refs: tuple[Ref, ...] = ()
    numbered: bool = False
    movable: bool = False
    removable: bool = False
    group: PartGroup | None = None


class Declared(Element):
    """An element of the document, of a kind that says what it is in `about`."""

    about: ClassVar[About]

    @classmethod
    def __pydantic_init_subclass__(cls, **kwargs: Any) -> None:
        super().__pydantic_init_subclass__(**kwargs)
        if "id" in cls.model_fields and not isinstance(getattr(cls, "about", None), About):
            raise TypeError(f"the kind of element {cls.__name__} does not say what it is about")

    @property
    def label(self) -> str:
        """What one of them is called on drawings and in lists: its number or name; nothing where it has none."""
        return str(getattr(self, "number", None) or getattr(self, "name", ""))

    def label_in(self, project: Project) -> str:
        """The same, where it follows from other elements too."""
        return self.label

    @property
    def title(self) -> str:
        """What it is called beside others: its name, with what it is where that is but a letter or a number."""
        name = self.label
        return f"{self.about.noun} {name}" if 0 < len(name) < 3 else name or self.about.noun

    def title_in(self, project: Project) -> str:
        """The same, where it follows from other elements too."""
        return self.title

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id; of those that are movable by themselves. Raises: ValidationError."""
        raise NotImplementedError

    def check(self, project: Project) -> None:
        """What must hold of it in its document, beyond what it refers to. Raises: ValueError (`id: what is wrong`)."""


State = Literal["existing", "new", "removed"]
STATES: dict[State, str] = {"new": "new", "existing": "existing", "removed": "to be removed"}
"""What an element of the house is when work starts, in words."""


class Standing(Declared):
    """An element that stands in the building: new, there already, or there and to be removed."""

    state: State = "new"


E = TypeVar("E", bound=Element)


def revised(element: E, **changes: Any) -> E:
    """An element with fields replaced, validated anew. Raises: ValidationError."""
    data = {name: getattr(element, name) for name in type(element).model_fields}
    return type(element).model_validate({**data, **changes})


@cache
def collections_of(project: type[Element]) -> dict[str, tuple[type[Declared], ...]]:
    """The collections of a document, in its order, with the kinds of element that each holds."""
    found = {}
    for name, field in project.model_fields.items():
        kinds = tuple(_kinds_in(field.annotation))
        if kinds:
            found[name] = kinds
    return found


def _kinds_in(annotation: Any) -> Iterator[type[Declared]]:
    if isinstance(annotation, type) and get_origin(annotation) is None:
        if issubclass(annotation, Declared):
            yield annotation
        return
    parts = get_args(annotation)
    for part in parts[:1] if get_origin(annotation) is Annotated else parts:
        yield from _kinds_in(part)


@cache
def _homes(project: type[Element]) -> dict[type, str]:
    return {kind: name for name, kinds in collections_of(project).items() for kind in kinds}


def collection_for(project: type[Element], kind: type) -> str:
    """The collection that holds elements of a kind. Raises: KeyError."""
    return _homes(project)[kind]
