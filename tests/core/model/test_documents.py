"""Documents: stored whole, refused when they are not, never misread."""

from __future__ import annotations

import json
import tomllib
from pathlib import Path

import pytest
from pydantic import ValidationError

from deepsection.core.edits import rebuild
from deepsection.core.errors import BadInput, DeepSectionError, UnknownVersion
from deepsection.core.model import SCHEMA_VERSION, PartAnchor, Project, dump_file, dump_project, load_project
from deepsection.core.model.documents import MIGRATIONS
from deepsection.core.resolve import locate, resolve
from deepsection.core.version import VERSION
from deepsection.demo import DEMOS
from tests.builders import box_house


@pytest.mark.parametrize("make", DEMOS)
def test_demos_survive_storage(make: object) -> None:
    project = make()  # type: ignore[operator]
    data = dump_project(project)
    assert load_project(data) == project
    assert dump_project(load_project(data)) == data


FROZEN = Path(__file__).parents[2] / "frozen"
"""A project file as each schema version wrote it; never written anew."""


@pytest.mark.parametrize("version", range(1, SCHEMA_VERSION))
def test_a_file_of_each_older_version_is_migrated_and_builds(version: int) -> None:
    data = (FROZEN / f"schema-{version}.json").read_bytes()
    stored = json.loads(data)
    assert stored["schema_version"] == version and version in MIGRATIONS
    project = load_project(data)
    assert project.schema_version == SCHEMA_VERSION
    for collection in project.collections:
        assert [held.id for held in getattr(project, collection)] == [held["id"] for held in stored.get(collection, ())]
    building = resolve(project)
    # The house of the older files has joists of 24 ft, which nobody minded then.
    spans = {"joist-span", "ceiling-span"} if version < 4 else set()
    assert {held.code for held in building.diagnostics} == spans and len(building.parts) > 500
    assert {pipe.edge for pipe in project.downpipes} <= {edge.id for roof in project.roofs for edge in roof.edges}
    assert [note.anchor for note in project.notes if locate(building, note.anchor) is None] == []


def test_names_by_number_become_names_by_id() -> None:
    project = load_project((FROZEN / "schema-2.json").read_bytes())
    keys = [note.anchor.key for note in project.notes if isinstance(note.anchor, PartAnchor)]
    assert keys == ["roof-main/fascia//edge:e1", "roof-main/barge//edge:e2:edge:e3"]
    assert [held.key for show in project.shows for held in show.annotations] == ["height:eave:roof-main:e3"]
    assert [corner.id for corner in project.roofs[0].outline] == ["c1", "c2", "c3", "c4"]


def test_a_file_says_who_wrote_it_and_what_is_not_known_is_refused_with_that(house: Project) -> None:
    file = json.loads(dump_file(house))
    assert file["written_by"] == VERSION and load_project(dump_file(house)) == house
    later = file | {"written_by": "9.1", "escalators": [{"id": "up"}], "moving_walks": []}
    with pytest.raises(BadInput, match=r"holds escalators and moving walks, .* written by 9\.1") as refused:
        load_project(json.dumps(later))
    assert refused.value.field == "escalators"
    with pytest.raises(UnknownVersion, match=r"written by 9\.1"):
        load_project(json.dumps(file | {"written_by": "9.1", "schema_version": SCHEMA_VERSION + 1}))


def test_the_program_has_one_version() -> None:
    stated = tomllib.loads((Path(__file__).parents[3] / "pyproject.toml").read_text("utf-8"))
    assert stated["project"]["version"] == VERSION


def test_a_file_cut_short_anywhere_is_refused(house: Project) -> None:
    data = dump_project(house)
    for cut in range(0, len(data) - 1, max(1, len(data) // 60)):
        with pytest.raises(BadInput):
            load_project(data[:cut])


@pytest.mark.parametrize("version", [0, SCHEMA_VERSION + 1, 99, -1, "1", None, True, 1.5])
def test_an_unknown_version_is_named(house: Project, version: object) -> None:
    document = json.loads(dump_project(house)) | {"schema_version": version}
    with pytest.raises(UnknownVersion) as caught:
        load_project(json.dumps(document))
    assert caught.value.field == "schema_version" and caught.value.limit == SCHEMA_VERSION


@pytest.mark.parametrize(
    ("path", "value"),
    [
        (("walls", 0, "start"), "nowhere"),
        (("walls", 0, "make_up"), "straw"),
        (("walls", 1, "id"), "south"),
        (("openings", 0, "wall"), "ghost"),
        (("openings", 0, "width"), -5),
        (("openings", 0, "width"), "wide"),
        (("rungs", 0, "from_rung"), "plate"),
        (("rungs", 0, "free"), "no-such-term"),
        (("roofs", 0, "edges", 1, "kind"), "half_hip"),
        (("roofs", 0, "edges", 0, "upper_pitch"), 0.3),
        (("joints", 0, "x"), 1e12),
        (("joints", 0, "surprise"), 1),
    ],
)
def test_a_document_that_does_not_hold_together_is_refused(
    house: Project, path: tuple[object, ...], value: object
) -> None:
    document = json.loads(dump_project(house))
    place = document
    for step in path[:-1]:
        place = place[step]
    place[path[-1]] = value
    with pytest.raises(BadInput):
        load_project(json.dumps(document))


@pytest.mark.parametrize("text", ["", "[]", "null", "42", '"text"', "{", "[" * 100_000, "\x00", "{}"])
def test_what_is_no_project_is_refused(text: str) -> None:
    with pytest.raises(DeepSectionError):
        load_project(text)


def test_a_project_is_a_value() -> None:
    """Frozen, hashable, equal by content."""
    first, second = box_house(8000, 6000), box_house(8000, 6000)
    assert first == second and hash(first) == hash(second)
    with pytest.raises(ValidationError):
        first.name = "other"  # type: ignore[misc]
    assert rebuild(first, name="other") != first


def test_the_ladder_has_one_datum_and_no_circle() -> None:
    house = box_house(8000, 6000)
    two = tuple(
        r.model_copy(update={"from_rung": None, "terms": (), "free": None}) if r.id == "floor" else r
        for r in house.rungs
    )
    with pytest.raises(DeepSectionError, match="one datum"):
        rebuild(house, rungs=two)
    ring = tuple(r.model_copy(update={"from_rung": "plate"}) if r.id == "floor" else r for r in house.rungs)
    with pytest.raises(DeepSectionError, match="circle"):
        rebuild(house, rungs=ring)
