"""Tables: projects, their versions (the edit log), and documents kept once by content."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import Boolean, DateTime, ForeignKey, Integer, LargeBinary, String, Text, UniqueConstraint
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column


class Base(DeclarativeBase):
    """All tables."""


class ProjectRow(Base):
    """A project; `version` is its latest one."""

    __tablename__ = "projects"
    id: Mapped[str] = mapped_column(String(40), primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    version: Mapped[int] = mapped_column(Integer)
    created: Mapped[datetime] = mapped_column(DateTime)
    changed: Mapped[datetime] = mapped_column(DateTime)
    archived: Mapped[bool] = mapped_column(Boolean, default=False)


class DocumentRow(Base):
    """A document, compressed, named by the SHA-256 of its JSON: undo stores nothing twice.

    `writer` is the version of the program that wrote it.
    """

    __tablename__ = "documents"
    digest: Mapped[str] = mapped_column(String(64), primary_key=True)
    data: Mapped[bytes] = mapped_column(LargeBinary)
    writer: Mapped[str | None] = mapped_column(String(40))


class FileRow(Base):
    """A file that lies under views, as it came, named by its SHA-256: kept once, however many versions show it."""

    __tablename__ = "files"
    digest: Mapped[str] = mapped_column(String(64), primary_key=True)
    data: Mapped[bytes] = mapped_column(LargeBinary)


class VersionRow(Base):
    """One version of a project: what was done, the document after it, and where undo and redo lead.

    `label` is what undo would take back; `words` say how this version came to be, where that differs; `mark` is a
    name that somebody gave to this point.
    """

    __tablename__ = "versions"
    __table_args__ = (UniqueConstraint("project_id", "version"),)
    key: Mapped[int] = mapped_column(Integer, primary_key=True, autoincrement=True)
    project_id: Mapped[str] = mapped_column(ForeignKey("projects.id", ondelete="CASCADE"), index=True)
    version: Mapped[int] = mapped_column(Integer)
    digest: Mapped[str] = mapped_column(ForeignKey("documents.digest"))
    label: Mapped[str] = mapped_column(String(200))
    edits: Mapped[str] = mapped_column(Text)
    undo_to: Mapped[int | None] = mapped_column(Integer)
    redo_to: Mapped[int | None] = mapped_column(Integer)
    made: Mapped[datetime] = mapped_column(DateTime)
    words: Mapped[str | None] = mapped_column(String(240))
    mark: Mapped[str | None] = mapped_column(String(120))
