"""A kind of element is declared once: a made-up one goes through document, edits, words and lists by that alone."""

from __future__ import annotations

from typing import ClassVar, Literal

import pytest
from pydantic import ValidationError

from deepsection.core.building.kind import ElementKind
from deepsection.core.document.command import Command
from deepsection.core.document.declaring import About, Declared, Ref, collections_of, revised
from deepsection.core.document.motion import Motion
from deepsection.core.document.values import Element, Id, Mm
from deepsection.core.edits import Remove, Transform, apply_edits, changed, describe, put
from deepsection.core.errors import RefusedEdit
from deepsection.core.kinds import KINDS, STAGES, kind_for
from deepsection.core.model import LevelRule, Project, Wall
from deepsection.core.resolve import resolve
from deepsection.core.view.kinds import ViewKind
from deepsection.demo import DEMOS, quillback_house
from deepsection.service.work import element_items


class Kite(Declared):
    """A made-up thing over a house."""

    about: ClassVar[About] = About(
        "kite", "kites", refs=(Ref("base.level", "rungs", "string"),), movable=True, removable=True, group="outdoors"
    )
    id: Id
    x: Mm
    y: Mm
    base: LevelRule

    def moved(self, motion: Motion, id: str) -> Kite:
        x, y = motion.at((self.x, self.y))
        return revised(self, id=id, x=x, y=y)

    def check(self, project: Project) -> None:
        if self.y < 0:
            raise ValueError(f"{self.id}: a kite flies north of the origin")


class Windy(Project):
    """A project that holds kites too: one line."""

    kites: tuple[Kite, ...] = ()


KITE = Kite(id="red", x=1000.0, y=2000.0, base=LevelRule(level="plate"))


def windy() -> Windy:
    return Windy.model_validate({name: getattr(quillback_house(), name) for name in Project.model_fields})


def test_a_made_up_kind_is_put_found_stored_and_read() -> None:
    project = put(windy(), KITE)
    assert project.find("red") == KITE and project.collection_of("red") == "kites"
    assert Windy.model_validate_json(project.model_dump_json()) == project
    assert collections_of(Windy)["kites"] == (Kite,) and "kites" not in collections_of(Project)


def test_what_it_refers_to_and_its_own_rules_are_checked() -> None:
    with pytest.raises(RefusedEdit, match=r"string names “attic”, which is not in the project") as refused:
        put(windy(), changed(KITE, base=LevelRule(level="attic")))
    assert refused.value.element == "red"
    with pytest.raises(RefusedEdit, match="north of the origin"):
        put(windy(), changed(KITE, y=-1.0))


def test_it_is_moved_copied_and_removed() -> None:
    project = put(windy(), KITE)
    moved = apply_edits(project, (Transform(elements=("red",), motion=Motion(dx=500.0)),))
    assert moved.find("red").x == 1500.0
    copied = apply_edits(project, (Transform(elements=("red",), motion=Motion(dx=500.0), copies=2),))
    assert sorted(kite.x for kite in copied.kites) == [1000.0, 1500.0, 2000.0]  # type: ignore[attr-defined]
    assert apply_edits(project, (Remove(elements=("red",)),)) == windy()


def test_history_and_lists_speak_of_it() -> None:
    project = put(windy(), KITE)
    assert describe([Remove(elements=("red", "south"))], project) == "remove a kite and a wall"
    (item,) = [item for item in element_items(project) if item["id"] == "red"]
    assert item == {
        "id": "red", "name": "kite", "kind": "kites", "movable": True, "removable": True, "hideable": True
    }  # fmt: skip


def test_a_declaration_that_lacks_something_fails_by_name_when_it_is_read() -> None:
    with pytest.raises(TypeError, match="Balloon"):
        type("Balloon", (Declared,), {"__annotations__": {"id": Id}, "__module__": __name__})
    with pytest.raises(TypeError, match="FlyKite lacks its phrase"):

        class FlyKite(Command):
            kind: Literal["fly_kite"] = "fly_kite"

    with pytest.raises(TypeError):
        About("kite")  # type: ignore[call-arg]


def test_every_element_of_the_demos_has_a_name_and_what_it_refers_to() -> None:
    for make in DEMOS:
        project = make()
        for element in project.elements():
            assert element.title_in(project)
            for ref in element.about.refs:
                held = {other.id for other in getattr(project, ref.collection)}
                assert set(ref.values(element)) <= held


def test_what_is_not_movable_says_so() -> None:
    with pytest.raises(RefusedEdit, match="a make-up cannot be moved this way"):
        apply_edits(quillback_house(), (Transform(elements=("wall-lap",), motion=Motion(dx=1.0)),))
    assert Wall.about.movable and issubclass(Wall, Element)
    with pytest.raises(ValidationError):
        revised(KITE, x="far")


def test_the_list_of_kinds_and_the_fields_of_the_document_agree() -> None:
    held = [kind for kinds in collections_of(Project).values() for kind in kinds]
    assert sorted(kind.model.__name__ for kind in KINDS) == sorted(kind.__name__ for kind in held)
    assert len({stage.key for stage in STAGES}) == len(STAGES) == len({stage.key.name for stage in STAGES})
    with pytest.raises(LookupError, match="Kite is not declared"):
        kind_for(Kite)


def test_a_stage_that_reads_a_later_one_says_so() -> None:
    with pytest.raises(LookupError, match="the stage “levels” has not run"):
        resolve(quillback_house(), stages=STAGES[1:])


def test_an_element_kind_that_lacks_a_field_fails_by_its_name() -> None:
    with pytest.raises(TypeError, match="fields"):
        ElementKind(Kite, title=lambda project, kite: ("Kite", ""))  # type: ignore[call-arg]
    with pytest.raises(TypeError, match="look"):
        ViewKind(lambda project: (), draw=lambda *_: None)  # type: ignore[call-arg, arg-type, return-value]
