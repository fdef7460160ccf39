"""Views by name: `plan` (of the lowest storey), `plan:LEVEL`, `plan:framing:FLOOR`, `plan:roof`, `section:ID` ..."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from functools import lru_cache

from ..document.anchors import Anchor
from ..drawing import Drawing
from ..errors import UnknownElement
from ..model import Joisted, Project, ViewShow
from ..resolve import Building, resolve, storeys
from ._kinds import kind_of_part, part_kinds
from ._notes import anchor_at, note_lettering
from ._states import shown_by_state, states_of
from .backdrops import over_files
from .kinds import ROOF, SIDES, VIEW_KINDS, View, ViewKind, plan_name
from .setting import Setting


def list_views(project: Project) -> list[View]:
    """Every view of a project, in the order of work."""
    return [view for kind in VIEW_KINDS for view in kind.views(project)]


def _find(project: Project, name: str) -> tuple[ViewKind, View]:
    """A view with its kind; a plan also by the level of the lowest storey. Raises: UnknownElement."""
    sort, _, which = name.partition(":")
    wanted = plan_name(project, which) if sort == "plan" and which else name
    for kind in VIEW_KINDS:
        for view in kind.views(project):
            if view.name == wanted:
                return kind, view
    raise UnknownElement(f"this project has no view “{name}”", field="view", value=name)


def plan_level(project: Project, name: str) -> str:
    """The level that a plan shows, by the name of the view; of the roof plan, the highest. Raises: UnknownElement."""
    if name == ROOF:
        return storeys(project)[-1].level
    subject = _find(project, name)[1].subject
    return subject.level if isinstance(subject, Joisted) else str(subject)


def standing_name(project: Project, name: str) -> str:
    """The view itself while the project has it, else the plain one of its sort: what a screen shows after an undo."""
    if any(view.name == name for view in list_views(project)):
        return name
    return "plan" if name.startswith("plan:") else f"elevation:{SIDES[0]}"


def look_of(project: Project, name: str) -> float:
    """The look direction (deg, counter-clockwise from east) of a view. Raises: UnknownElement."""
    kind, view = _find(project, name)
    return kind.look(view)


@lru_cache(maxsize=4)
def _before(project: Project) -> Building:
    return resolve(project, works="before")


def _shown(building: Building, project: Project, show: ViewShow | None) -> Building:
    """The building as a view that leaves out elements or kinds of parts shows it."""
    if show is None or not (show.hidden or show.alone or show.kinds):
        return building
    kinds = part_kinds(project)
    kept = tuple(
        part
        for part in building.parts
        if part.element not in show.hidden
        and (not show.alone or part.element in show.alone)
        and kind_of_part(part, kinds) not in show.kinds
    )
    return building.with_parts(kept)


def draw_view(
    building: Building,
    project: Project,
    name: str,
    scale: float,
    *,
    look_deg: float | None = None,
    held: Mapping[str, tuple[float, float]] | None = None,
    on_paper: bool = False,
    draft: bool = False,
) -> Drawing:
    """The drawing of a view at a scale; `look_deg` turns a plan, `held` is where lettering stood before a drag.

    `on_paper`: for a sheet or a file, where wall sections are cut short. `draft`: sections show what they cut alone.

    Raises: UnknownElement.
    """
    kind, view = _find(project, name)
    show = project.show_of(name)
    works = show.works if show else "shown"
    look = kind.look(view) if look_deg is None or not kind.turns else look_deg
    setting = Setting(scale, project.units, (), project.grid, show, project.dimensioning, on_paper, held, draft)
    notes = [note for note in project.notes if note.view == name]
    sights = kind.sights(building, view, look) if notes else ()

    def drawn(whole: Building, lettering: bool = True) -> Drawing:
        kept = _shown(whole, project, show)
        gone = frozenset[str]()
        if kept is not whole and notes:
            gone = frozenset(part.element for part in whole.parts) - {part.element for part in kept.parts}
        lost, written = note_lettering(building, notes if lettering else (), sights, scale, gone)
        drawing = kind.draw(kept, view, look, replace(setting, notes=tuple(written)))
        return replace(drawing, messages=(*drawing.messages, *lost)) if lost else drawing

    states = states_of(project) if works == "shown" else {}
    drawing = drawn(_before(project) if works == "before" else building)
    if states:
        before = drawn(_before(project), lettering=False) if "removed" in states.values() else None
        drawing = shown_by_state(drawing, before, states)
    return over_files(drawing, project, look if kind.turns else None, on_paper) if kind.over_files else drawing


def lies_over_files(project: Project, name: str) -> bool:
    """Whether pages of files may lie under a view. Raises: UnknownElement."""
    return _find(project, name)[0].over_files


def anchor_in(
    building: Building, project: Project, name: str, of: str, u: float, v: float, look_deg: float | None = None
) -> Anchor:
    """What lies at a place of a view, for a note to hold on to; `of` is the part or the element of the mark there.

    Raises: UnknownElement, RefusedEdit where the view shows nothing in space there.
    """
    kind, view = _find(project, name)
    look = kind.look(view) if look_deg is None or not kind.turns else look_deg
    return anchor_at(building, project, kind.sights(building, view, look), of, u, v)
