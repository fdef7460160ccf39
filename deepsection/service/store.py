"""Projects in the database: an append-only log of versions, each with its whole document.

Undo and redo append a version that holds an earlier document; nothing is ever overwritten.
"""

from __future__ import annotations

import hashlib
import zlib
from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import Engine, select
from sqlalchemy.dialects import postgresql, sqlite
from sqlalchemy.exc import IntegrityError, OperationalError
from sqlalchemy.orm import Session

from deepsection.core.errors import BadInput, StaleVersion, UnknownElement
from deepsection.core.memo import LruCache
from deepsection.core.model import Project, dump_project, load_project
from deepsection.core.version import VERSION

from .tables import DocumentRow, FileRow, ProjectRow, VersionRow


@dataclass(frozen=True, slots=True)
class Stored:
    """A version of a project as it was saved."""

    project: Project
    version: int
    label: str
    undo: str | None
    redo: str | None
    saved: datetime


@dataclass(frozen=True, slots=True)
class Listed:
    """A project in the list."""

    id: str
    name: str
    version: int
    changed: datetime
    archived: bool


@dataclass(frozen=True, slots=True)
class Point:
    """A version in the history: how it came to be, when, and the name it was given."""

    version: int
    words: str
    made: datetime
    mark: str | None


class Store:
    """Reads and appends versions. Safe to share between threads: every call has its own session."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def list(self) -> list[Listed]:
        """Every project, the one changed last first."""
        with Session(self._engine) as session:
            rows = session.scalars(select(ProjectRow).order_by(ProjectRow.changed.desc())).all()
            return [_listed(row) for row in rows]

    def create(self, project: Project, label: str, *, alone: bool = False) -> Stored:
        """A new project at version 1; `alone`: only when no other has its name, however many are made at once.

        Raises: StaleVersion when its id is taken, BadInput when its name is.
        """
        now = _now()
        with Session(self._engine) as session:
            session.add(ProjectRow(id=project.id, name=project.name, version=1, created=now, changed=now))
            try:
                session.flush()
            except IntegrityError as error:
                raise StaleVersion(f"a project “{project.id}” is here already") from error
            if alone:
                # Whoever writes holds the database until it is done: what is read now is all there is.
                others = session.scalars(select(ProjectRow.name).where(ProjectRow.id != project.id)).all()
                if project.name.casefold() in {name.casefold() for name in others}:
                    raise name_taken(project.name)
            session.add(self._version(session, project, 1, label, "[]", None, None, now))
            session.commit()
        return self.load(project.id)

    def load(self, id: str) -> Stored:
        """The latest version. Raises: UnknownElement."""
        with Session(self._engine) as session:
            return self._stored(session, self._row(session, id))

    def append(self, id: str, base: int, project: Project, label: str, edits: str) -> Stored:
        """The next version after `base`. Raises: UnknownElement, StaleVersion."""
        with Session(self._engine) as session:
            row = self._latest(session, id, base)
            self._add(
                session, row, self._version(session, project, base + 1, label, edits, base, None, _now()), project.name
            )
            return self._stored(session, row)

    def step(self, id: str, base: int, back: bool) -> Stored:
        """Undo or redo: a new version with the document of an earlier one. Raises: StaleVersion, UnknownElement."""
        with Session(self._engine) as session:
            row = self._latest(session, id, base)
            current = self._version_row(session, id, base)
            target = current.undo_to if back else current.redo_to
            if target is None:
                raise StaleVersion("there is nothing to undo" if back else "there is nothing to redo")
            goal = self._version_row(session, id, target)
            words = f"undo: {current.label}" if back else f"redo: {goal.label}"
            redo_to = base if back else goal.redo_to
            return self._again(session, row, goal, goal.label, words, goal.undo_to, redo_to)

    def back(self, id: str, base: int, version: int) -> Stored:
        """Back to any version: a new one with its document; undo takes it back.

        Raises: StaleVersion, UnknownElement.
        """
        with Session(self._engine) as session:
            row = self._latest(session, id, base)
            goal = self._version_row(session, id, version)
            label = f"go back to “{goal.mark or goal.words or goal.label}”"[:200]
            return self._again(session, row, goal, label, None, base, None)

    def _again(
        self,
        session: Session,
        row: ProjectRow,
        goal: VersionRow,
        label: str,
        words: str | None,
        undo_to: int | None,
        redo_to: int | None,
    ) -> Stored:
        version = VersionRow(
            project_id=row.id,
            version=row.version + 1,
            digest=goal.digest,
            label=label,
            words=words,
            edits="[]",
            undo_to=undo_to,
            redo_to=redo_to,
            made=_now(),
        )
        self._add(session, row, version, _document(session, goal.digest).name)
        return self._stored(session, row)

    def last_sound(self, id: str, base: int, sound: Callable[[Project], bool]) -> int:
        """The latest version before `base` whose document is sound. Raises: UnknownElement, StaleVersion."""
        with Session(self._engine) as session:
            self._latest(session, id, base)
            rows = session.execute(
                select(VersionRow.version, VersionRow.digest)
                .where(VersionRow.project_id == id, VersionRow.version < base)
                .order_by(VersionRow.version.desc())
            ).all()
            known: dict[str, bool] = {}
            for version, digest in rows:
                if digest not in known:
                    known[digest] = sound(_document(session, digest))
                if known[digest]:
                    return int(version)
        raise StaleVersion("no earlier version can be drawn entirely either")

    def history(self, id: str) -> tuple[Point, ...]:
        """Every version, the latest first. Raises: UnknownElement."""
        with Session(self._engine) as session:
            self._row(session, id)
            query = select(VersionRow).where(VersionRow.project_id == id).order_by(VersionRow.version.desc())
            return tuple(Point(v.version, v.words or v.label, v.made, v.mark) for v in session.scalars(query))

    def mark(self, id: str, version: int, name: str | None) -> None:
        """Give a version a name, or take it away. Raises: UnknownElement."""
        with Session(self._engine) as session:
            self._version_row(session, id, version).mark = name
            session.commit()

    def archive(self, id: str, archived: bool) -> None:
        """Put a project away, or bring it back. Raises: UnknownElement."""
        with Session(self._engine) as session:
            self._row(session, id).archived = archived
            session.commit()

    def put_file(self, data: bytes) -> str:
        """Keep a file that is to lie under a view. Returns its digest."""
        digest = hashlib.sha256(data).hexdigest()
        with Session(self._engine) as session:
            if session.get(FileRow, digest) is None:
                session.execute(_insert_of(session)(FileRow).values(digest=digest, data=data).on_conflict_do_nothing())
                session.commit()
        return digest

    def file(self, digest: str) -> bytes:
        """A file by its digest. Raises: UnknownElement."""
        with Session(self._engine) as session:
            row = session.get(FileRow, digest)
            if row is None:
                raise UnknownElement("this file is not here; bring it again")
            return row.data

    def files(self, project: Project) -> dict[str, bytes]:
        """The files that a project shows under its views and beside its house, those that are here, by digest."""
        wanted = {held.file for held in project.backgrounds} | {held.file for held in project.model_bodies}
        with Session(self._engine) as session:
            rows = session.scalars(select(FileRow).where(FileRow.digest.in_(wanted))) if wanted else ()
            return {row.digest: row.data for row in rows}

    def _add(self, session: Session, row: ProjectRow, version: VersionRow, name: str) -> None:
        session.add(version)
        row.version, row.changed, row.name = version.version, version.made, name
        try:
            session.commit()
        except (IntegrityError, OperationalError) as error:
            raise _stale(version.version - 1, version.version) from error

    def _row(self, session: Session, id: str) -> ProjectRow:
        row = session.get(ProjectRow, id)
        if row is None:
            raise UnknownElement(f"there is no project “{id}”", element=id)
        return row

    def _latest(self, session: Session, id: str, base: int) -> ProjectRow:
        row = self._row(session, id)
        if row.version != base:
            raise _stale(base, row.version)
        return row

    def _version_row(self, session: Session, id: str, version: int) -> VersionRow:
        query = select(VersionRow).where(VersionRow.project_id == id, VersionRow.version == version)
        row = session.scalars(query).one_or_none()
        if row is None:
            raise UnknownElement(f"this project has no version {version}", element=id, field="version", value=version)
        return row

    def _version(
        self,
        session: Session,
        project: Project,
        version: int,
        label: str,
        edits: str,
        undo_to: int | None,
        redo_to: int | None,
        made: datetime,
    ) -> VersionRow:
        data = dump_project(project)
        digest = hashlib.sha256(data).hexdigest()
        _documents.put(digest, project)
        if session.get(DocumentRow, digest) is None:
            # Another request may keep the same document at this moment.
            session.execute(
                _insert_of(session)(DocumentRow)
                .values(digest=digest, data=zlib.compress(data, 3), writer=VERSION)
                .on_conflict_do_nothing()
            )
        return VersionRow(
            project_id=project.id,
            version=version,
            digest=digest,
            label=label,
            edits=edits,
            undo_to=undo_to,
            redo_to=redo_to,
            made=made,
        )

    def _stored(self, session: Session, row: ProjectRow) -> Stored:
        version = self._version_row(session, row.id, row.version)
        project = _document(session, version.digest)
        undo = version.label if version.undo_to is not None else None
        redo = self._version_row(session, row.id, version.redo_to).label if version.redo_to is not None else None
        return Stored(project, row.version, version.label, undo, redo, version.made)


_documents: LruCache[str, Project] = LruCache(size=64)
"""Documents by their digest: one that was just kept, or read, is the same object, and all that was made of it holds."""


def _document(session: Session, digest: str) -> Project:
    held = _documents.get(digest)
    if held is None:
        row = session.get_one(DocumentRow, digest)
        held = load_project(zlib.decompress(row.data), row.writer)
        _documents.put(digest, held)
    return held


def name_taken(name: str) -> BadInput:
    """The refusal of a name that another project has."""
    return BadInput(f"a project called “{name}” is here already; choose another name", field="name", value=name)


def _insert_of(session: Session) -> Any:
    """The insert of this database that knows what to do with a row that is there already."""
    return postgresql.insert if session.get_bind().dialect.name == "postgresql" else sqlite.insert


def _listed(row: ProjectRow) -> Listed:
    return Listed(row.id, row.name, row.version, row.changed, row.archived)


def _stale(base: int, latest: int) -> StaleVersion:
    return StaleVersion(
        "this project was changed in another window; that change is shown now, please do yours again",
        field="base_version",
        value=base,
        limit=latest,
    )


def _now() -> datetime:
    return datetime.now(UTC).replace(tzinfo=None)
