"""Views that are drawn by processes beside the service are those that it draws alone, whatever becomes of these."""

from __future__ import annotations

import pickle
from collections.abc import Iterator, Sequence
from typing import Any

import orjson
import pytest

from deepsection.core.edits import (
    MoveOpening,
    PutNote,
    PutRoof,
    PutSection,
    Remove,
    SetTerm,
    apply_edits,
    changed,
)
from deepsection.core.errors import UnknownElement
from deepsection.core.model import Note, Project
from deepsection.core.view import anchor_in
from deepsection.core.view.opening import forget
from deepsection.demo import fernacre_bungalow, quillback_house
from deepsection.service.benches import bench_after, bench_of
from deepsection.service.schemas import ViewWanted
from deepsection.service.work import building_of, checked_edits, remembering
from deepsection.service.workers import HERE, POOL, Job


@pytest.fixture
def pool() -> Iterator[None]:
    """One worker; what other tests made fail is forgotten."""
    forget()
    POOL.open(1)
    yield
    POOL.close()


def views_of(project: Project, have: Sequence[str] = ()) -> list[ViewWanted]:
    names = ("plan", "elevation:south", f"section:{project.sections[0].id}")
    return [ViewWanted(name=name, have=held) for name, held in zip(names, have or [None] * 3)]


def plain(bench: dict[str, Any]) -> dict[str, Any]:
    told: dict[str, Any] = orjson.loads(orjson.dumps(bench))
    return told


def warm(project: Project) -> list[str]:
    """Ask for the views of a project until a worker has some of them; their digests."""
    told = plain(bench_of(project, 1, views_of(project)))
    POOL.wait()
    return [drawing["digest"] for drawing in told["drawings"]]


def drawn_elsewhere(project: Project) -> int:
    """How many of its views a worker draws."""
    shared = POOL.share(project, [Job(view.name, project.scale) for view in views_of(project)])
    shared.answers()
    return len(shared.elsewhere)


def some_edits(project: Project) -> Iterator[Any]:
    """One of each sort: of a wall, of all heights, of the roof, of a drawing."""
    window = next(held for held in project.openings if held.unit == "window")
    yield MoveOpening(opening=window.id, distance=window.distance + 25.0)
    rung = next(held for held in project.rungs if held.surface == "plate")
    term = next(held for held in rung.terms if held.id == rung.free)
    yield SetTerm(rung=rung.id, term=term.id, value=term.value + 30.0)
    yield PutRoof(roof=changed(project.roofs[0], pitch=project.roofs[0].pitch + 0.05))
    line = project.sections[0]
    yield PutSection(section=changed(line, x1=line.x1 + 90.0, x2=line.x2 + 90.0))
    yield Remove(elements=(window.id,))


@pytest.mark.parametrize("make", [fernacre_bungalow, quillback_house])
@pytest.mark.parametrize("keep", [True, False], ids=["kept", "previewed"])
def test_every_edit_is_answered_as_without_workers(make: Any, keep: bool, pool: None) -> None:
    project = make()
    have = warm(project)
    assert drawn_elsewhere(project) >= 1, "what is tested is not drawn here alone"
    edits = list(some_edits(project))
    told = []
    for edit in edits:
        after = checked_edits(project, [edit])
        wanted = views_of(project, have)
        told.append(plain(bench_after(project, after, 2, wanted, [edit], keep=keep)))
        if keep:
            told.append(plain(bench_of(project, 3, views_of(project, have), after)))
    POOL.open(0)
    for edit in edits:
        after = checked_edits(project, [edit])
        wanted = views_of(project, have)
        assert plain(bench_after(project, after, 2, wanted, [edit], keep=keep)) == told.pop(0), edit.kind
        if keep:
            again = plain(bench_of(project, 3, views_of(project, have), after))
            assert again == told.pop(0), f"{edit.kind} taken back"


def test_two_projects_take_turns(pool: None) -> None:
    one, other = fernacre_bungalow(), quillback_house()
    expected = [warm(one), warm(other)]
    for _ in range(2):
        for project, digests in zip((one, other), expected):
            assert warm(project) == digests
    assert drawn_elsewhere(other) >= 1


def test_a_note_goes_along(pool: None) -> None:
    project = quillback_house()
    building = building_of(project)
    part = next(held for held in building.parts if held.role == "roofing")
    x0, _, z0, x1, _, z1 = part.solid.bounds
    anchor = anchor_in(building, project, "elevation:south", part.key, (x0 + x1) / 2, (z0 + z1) / 2)
    note = Note(id="n-told", view="elevation:south", text="Told from afar", anchor=anchor)
    noted = apply_edits(project, [PutNote(note=note)])
    warm(noted)
    edit = MoveOpening(opening=(held := noted.openings[0]).id, distance=held.distance + 20.0)
    after = remembering(noted, checked_edits(noted, [edit]))
    told = plain(bench_after(noted, after, 2, views_of(noted), [edit]))
    words = [mark.get("text") for drawing in told["drawings"] for mark in drawing["marks"]]
    assert words.count("Told from afar") == 1


def test_a_worker_that_ends_is_missed_by_nobody(pool: None) -> None:
    project = fernacre_bungalow()
    digests = warm(project)
    worker = POOL._workers[0]
    assert worker is not None
    worker._process.kill()
    worker._process.wait()
    told = plain(bench_of(project, 2, views_of(project)))
    assert [drawing["digest"] for drawing in told["drawings"]] == digests
    assert warm(project) == digests
    assert drawn_elsewhere(project) >= 1, "another one is there"


def test_a_busy_worker_is_not_waited_for(pool: None) -> None:
    project = fernacre_bungalow()
    jobs = [Job(view.name, project.scale) for view in views_of(project)]
    first, second = POOL.share(project, jobs), POOL.share(project, jobs)
    assert not first.elsewhere and not second.elsewhere, "its house is not made yet"
    POOL.wait()
    assert POOL.share(project, jobs).elsewhere


def test_what_fails_in_a_worker_fails_here_in_words(pool: None) -> None:
    project = fernacre_bungalow()
    warm(project)
    wanted = [*views_of(project), ViewWanted(name="section:none"), ViewWanted(name="elevation:none")]
    for _ in range(2):
        with pytest.raises(UnknownElement, match="no view"):
            bench_of(project, 2, wanted, strict=True)
        POOL.wait()


def test_views_stay_where_they_are_drawn(pool: None) -> None:
    project = fernacre_bungalow()
    jobs = [Job(view.name, project.scale) for view in views_of(project)]
    places = POOL._placed(project, jobs)
    assert HERE in places and 0 in places
    assert POOL._placed(project, list(reversed(jobs))) == list(reversed(places))
    assert POOL._placed(project, jobs[:1]) == [HERE], "one view alone is drawn here"


def test_documents_are_sent_without_their_hashes() -> None:
    project = fernacre_bungalow()
    hash(project)
    sent = pickle.loads(pickle.dumps(project))
    assert sent == project and not any(name.startswith("_") for name in sent.walls[0].__dict__)
