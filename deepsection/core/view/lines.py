"""Continuity of the views of a project: of details and of wall sections."""

from __future__ import annotations

from dataclasses import dataclass

from ..buildups import with_pieces
from ..errors import BadInput
from ..junctions import Junction
from ..junctions.sizes import DETAIL_SIZES
from ..model import Detail, Project, WallSection
from ..resolve import Building
from .continuity import Continuity, continuity_in
from .cut import cut_parts
from .details.making import detail_of
from .details.place import detail_place, junction_of
from .line_marks import gap_words
from .strips.place import strip_place, strip_window

FINE = 5.0
"""Lines are followed through all pieces that the finest details show."""


@dataclass(frozen=True, slots=True)
class ViewLines:
    """The lines of a view, and in words where they are open."""

    lines: tuple[Continuity, ...]
    words: tuple[str, ...]


def view_lines(project: Project, building: Building, name: str) -> ViewLines:
    """The lines that keep out weather, air, cold and vapour in a detail or a wall section, by the name of the view.

    Raises: BadInput for other views, and where the view has lost its place.
    """
    kind, _, id = name.partition(":")
    detail = next((held for held in project.details if held.id == id), None) if kind == "detail" else None
    if detail is not None:
        junction = junction_of(building, detail)
        found = junction_lines(building, junction, detail) if junction is not None else None
        if found is None:
            raise BadInput(f"detail {detail.name} has lost its place", field="view", value=name)
        return found
    strip = next((held for held in project.wall_sections if held.id == id), None) if kind == "section" else None
    if strip is None:
        raise BadInput(
            "lines are followed in details and in wall sections: name one of these", field="view", value=name
        )
    return _strip_lines(building, strip)


def junction_lines(building: Building, junction: Junction, detail: Detail | None = None) -> ViewLines | None:
    """The lines at a junction, within a detail of it; None where it cannot be cut so."""
    if junction.kind not in DETAIL_SIZES:
        return None
    place = detail_place(building, detail or detail_of(junction, "detail", "detail"), junction)
    if place is None:
        return None
    built = with_pieces(building, place.frame, place.window, FINE)
    lines = continuity_in(built, cut_parts(built, place.frame, place.window), place.window, frame=place.frame)
    return _told(built, lines)


def _strip_lines(building: Building, strip: WallSection) -> ViewLines:
    place = strip_place(building, strip)
    if place is None:
        raise BadInput(f"wall section {strip.name} lies past the end of its wall", field="view", value=strip.id)
    window, _ = strip_window(building, place, 1.0)
    built = with_pieces(building, place.frame, window, FINE)
    cut = cut_parts(built, place.frame, window)
    return _told(
        built, continuity_in(built, cut, window, inside="left" if place.out > 0 else "right", frame=place.frame)
    )


def _told(building: Building, lines: list[Continuity]) -> ViewLines:
    return ViewLines(tuple(lines), tuple(words for line in lines for words in gap_words(line, building)))
