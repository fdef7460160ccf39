"""Processes that draw beside this one, so that the views of one edit are drawn on all cores.

Each is sent the document and makes building and views of its own. What it remembers of a view stays with it, so a view
is drawn where it was drawn before. A worker that is busy or gone is not waited for; what fails there is drawn here,
where it says what is wrong. Run as a module, with the descriptor of its end of a pipe, this is a worker.
"""

from __future__ import annotations

import logging
import os
import pickle
import signal
import subprocess
import sys
from collections.abc import Mapping, Sequence
from multiprocessing.connection import Connection, Pipe
from typing import NamedTuple

from deepsection.core.memo import LruCache, tune_memory
from deepsection.core.model import Project
from deepsection.core.view import built, draw_view, opened

from .answers import Answer, Sent, answer

log = logging.getLogger("deepsection")

WEIGHTS = {"plan": 2, "elevation": 3, "section": 5}
"""About how much work views of a kind are, against one another; others count as one."""
HERE = -1
"""Where a view is drawn that no worker draws."""


class Job(NamedTuple):
    """A view to draw: by name, at a scale; a plan turned; `placed`, where its lettering stood before a drag; `draft`,
    what is cut alone; `before`, the drawing of it that the screen holds."""

    view: str
    scale: float
    look_deg: float | None = None
    placed: Mapping[str, tuple[float, float]] | None = None
    draft: bool = False
    before: Sent | None = None


def drawn_answer(project: Project, job: Job) -> Answer:
    """A view, drawn and ready to be sent. Raises whatever goes wrong."""
    held = opened(project)
    drawing = draw_view(
        held.building, held.project, job.view, job.scale, look_deg=job.look_deg, held=job.placed, draft=job.draft
    )
    return answer(drawing, job.before)


class _Worker:
    """One process, and what it was sent last."""

    def __init__(self) -> None:
        self._pipe, theirs = Pipe()
        self._process = subprocess.Popen(
            [sys.executable, "-m", __name__, str(theirs.fileno())],
            pass_fds=[theirs.fileno()],
            env={**os.environ, "PYTHONPATH": os.pathsep.join(path for path in sys.path if path)},
        )
        theirs.close()
        self._owed = 0
        self._follows = False
        self.house: Project | None = None
        self.ready_for: str | None = None
        """The project whose house it has made."""

    def send(self, project: Project, jobs: Sequence[Job]) -> None:
        """Ask for views of a document; without any, its house is made. Raises: OSError where it is gone."""
        self._pipe.send_bytes(pickle.dumps((None if project is self.house else project, tuple(jobs)), protocol=5))
        self.house, self._owed, self._follows = project, self._owed + 1, not jobs

    def is_free(self) -> bool:
        """Whether it would draw at once: idle, or but making a house. Raises: OSError, EOFError when it is gone."""
        while self._owed and self._pipe.poll():
            self.receive()
        return self._owed == 0 or (self._owed == 1 and self._follows)

    def receive(self) -> list[Answer | None]:
        """The answer to what it was asked first. Raises: OSError, EOFError when it is gone."""
        answers: list[Answer | None] = self._pipe.recv()
        self._owed -= 1
        assert self.house is not None
        self.ready_for = self.house.id
        return answers

    def last(self) -> list[Answer | None]:
        """The answer to what it was asked last. Raises: OSError, EOFError when it is gone."""
        answers: list[Answer | None] = []
        while self._owed:
            answers = self.receive()
        return answers

    def end(self) -> None:
        self._pipe.close()
        self._process.kill()
        self._process.wait()


class Shared:
    """Jobs of one document, some of which are being drawn by workers."""

    def __init__(self, pool: Pool, asked: Mapping[int, Sequence[int]]) -> None:
        self._pool, self._asked = pool, asked
        self.elsewhere = frozenset(place for places in asked.values() for place in places)
        """The places of the jobs that workers draw."""

    def answers(self) -> dict[int, Answer]:
        """What they drew, by the places of the jobs; what failed is not there. Waits for it."""
        found: dict[int, Answer] = {}
        for index, places in self._asked.items():
            answers = self._pool.answers_of(index)
            found |= {place: held for place, held in zip(places, answers) if held is not None}
        return found


class Pool:
    """So many workers; none until it is opened. Whoever calls holds the geometry lock."""

    def __init__(self) -> None:
        self._workers: list[_Worker | None] = []
        self._places: LruCache[tuple[str, str], int] = LruCache(size=200)
        self._followed: str | None = None

    def open(self, count: int) -> None:
        """Have so many workers, each started when it is first needed."""
        self.close()
        self._workers = [None] * count

    def close(self) -> None:
        """End them all."""
        for worker in self._workers:
            if worker is not None:
                worker.end()
        self._workers = []
        self._places.cache_clear()

    def wait(self) -> None:
        """Wait until every worker has done what it was asked."""
        for index in range(len(self._workers)):
            self.answers_of(index)

    def follow(self, project: Project) -> None:
        """Let workers make the house of a document that will be drawn, while it is made here."""
        if project.id == self._followed:
            for index, worker in enumerate(self._workers):
                if worker is not None and worker.ready_for == project.id and worker.house is not project:
                    self._send(index, project, ())

    def share(self, project: Project, jobs: Sequence[Job]) -> Shared:
        """Have some of several views drawn by workers that are free, and the others made ready for the next time."""
        placed: dict[int, list[int]] = {}
        for place, index in enumerate(self._placed(project, jobs)):
            if index != HERE:
                placed.setdefault(index, []).append(place)
        asked: dict[int, list[int]] = {}
        for index, places in placed.items():
            worker = self._workers[index]
            is_ready = worker is not None and worker.ready_for == project.id
            if self._send(index, project, [jobs[place] for place in places]) and is_ready:
                asked[index] = places
        self._followed = project.id if placed else None
        return Shared(self, asked)

    def answers_of(self, index: int) -> list[Answer | None]:
        """What a worker was asked for last; nothing where it is gone."""
        worker = self._workers[index]
        try:
            return worker.last() if worker is not None else []
        except (OSError, EOFError):
            self._lose(index)
            return []

    def _placed(self, project: Project, jobs: Sequence[Job]) -> list[int]:
        """Where each view is drawn: where it was before, else where there is least to do."""
        if not self._workers or len(jobs) < 2:
            return [HERE] * len(jobs)
        load = dict.fromkeys((HERE, *range(len(self._workers))), 0)
        weights = {job.view: WEIGHTS.get(job.view.partition(":")[0], 1) for job in jobs}
        known = {job.view: self._places.get((project.id, job.view)) for job in jobs}
        for view in sorted(weights, key=lambda view: (known[view] is None, -weights[view])):
            index = known[view]
            if index is None:
                # The first that has least to do; of equals a worker, since this process does the rest.
                index = min(sorted(load, reverse=True), key=lambda held: load[held])
            load[index] += weights[view]
            known[view] = index
            self._places.put((project.id, view), index)
        return [index if (index := known[job.view]) is not None else HERE for job in jobs]

    def _send(self, index: int, project: Project, jobs: Sequence[Job]) -> bool:
        """Ask a worker; one that is still at something else is left alone."""
        worker = self._workers[index]
        try:
            if worker is None:
                worker = self._workers[index] = _Worker()
            elif not worker.is_free():
                return False
            worker.send(project, jobs)
            return True
        except (OSError, EOFError):
            self._lose(index)
            return False

    def _lose(self, index: int) -> None:
        log.warning("a process that draws has ended; its views are drawn without it")
        worker, self._workers[index] = self._workers[index], None
        if worker is not None:
            worker.end()


POOL = Pool()
"""That of the service; the command line and the tests draw without workers."""


def usual_count() -> int:
    """How many workers there are: as DEEPSECTION_WORKERS says, else one for each core but one, two at most."""
    stated = os.environ.get("DEEPSECTION_WORKERS", "")
    return int(stated) if stated.isdigit() else min(2, (os.cpu_count() or 1) - 1)


def _with_known(project: Project, before: Project | None) -> Project:
    """The same document, of the elements that another has already: what was made of those is found by identity."""
    if before is None or before.id != project.id:
        return project
    known = {}
    for name in project.collections:
        held = {element.id: element for element in getattr(before, name)}
        known[name] = tuple(was if (was := held.get(one.id)) == one else one for one in getattr(project, name))
    return project.model_copy(update=known)


def _answered(project: Project, job: Job) -> Answer | None:
    try:
        return drawn_answer(project, job)
    except Exception:
        # It is drawn again by who asked, and fails there in words.
        return None


def _work(pipe: Connection) -> None:
    """Answer until the other end is gone."""
    project: Project | None = None
    while True:
        try:
            sent, jobs = pickle.loads(pipe.recv_bytes())
        except (EOFError, OSError):
            return
        project = project if sent is None else _with_known(sent, project)
        assert project is not None
        try:
            # What cannot be built is found out where it is asked for, and not looked into here as well.
            built(project).parts  # noqa: B018
        except Exception:
            log.debug("this house cannot be built; who asked for it says why")
        try:
            pipe.send([_answered(project, job) for job in jobs])
        except OSError:
            return


if __name__ == "__main__":
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    tune_memory()
    _work(Connection(int(sys.argv[1])))
