"""A floor laid within the walls of a storey, where there is none."""

from __future__ import annotations

from typing import Any, ClassVar, Literal

from shapely.geometry import Point

from ...catalog import usual
from ...document.command import Command
from ...document.ids import free_among
from ...document.rebuilding import changed, get_element, put
from ...document.values import Id, Mm
from ...errors import RefusedEdit
from ...model.places import house_area
from ...model.project import Project
from ..levels.model import LayerRef, Rung, Term
from ..makeups.model import Framing, MakeUp
from .model import Floor

OVER_GROUND, COVER = "floor-ground", "ground-cover"
"""The make-ups of a floor over a crawl space and of its ground that ship with projects."""


class LayFloor(Command):
    """A floor within the closed walls around a place.

    Over walls it bears on their plate. On a foundation with a slab it bears on a sill plate, or if it is of concrete on
    the foundation wall; the slab gives way to a
    crawl space, and the level rises to what the parts add up to.
    """

    kind: Literal["lay_floor"] = "lay_floor"
    phrase: ClassVar[str] = "lay a floor"
    id: Id
    level: Id
    x: Mm
    y: Mm

    def apply(self, project: Project) -> Project:
        """The project with the floor. Raises: RefusedEdit, UnknownElement."""
        level = get_element(project, self.level, Rung)
        there = next((floor for floor in project.floors if floor.level == level.id), None)
        if there is not None:
            raise RefusedEdit(f"{there.name} lies here already", element=there.id)
        if not house_area(project, level.id).contains(Point(self.x, self.y)):
            raise RefusedEdit("a floor lies within closed outer walls: click there", element=level.id)
        founded = next((held for held in project.foundations if held.level == level.id), None)
        below = next((rung for rung in project.rungs if rung.id == level.from_rung), None)
        make_up = _make_up(project, over_ground=founded is not None)
        if founded is None:
            if below is None or below.surface not in ("plate", "sill"):
                raise RefusedEdit(f"{level.name} is not measured from walls that reach up to it", element=level.id)
            raised = changed(level, terms=floor_terms(make_up), free=_free(make_up))
            return put(project, raised, self._floor(level, below.id, make_up))
        return self._over_crawl_space(project, level, founded, make_up)

    def _over_crawl_space(self, project: Project, level: Rung, founded: Any, make_up: MakeUp) -> Project:
        """The slab of a foundation replaced by joists on a sill plate."""
        grade = next((rung.id for rung in project.rungs if rung.surface == "grade"), None)
        if grade is None:
            raise RefusedEdit("there is no grade to measure a crawl space from", element=level.id)
        ids = free_among({held.id for held in project.elements()}, level.id[:30])
        units = project.units

        def rung(name: str, surface: str, under: str, term: str, value: float, way: str = "up") -> Rung:
            terms = (Term(id="part", name=term, value=value),)
            return Rung.model_validate(
                {
                    "id": next(ids),
                    "name": name,
                    "surface": surface,
                    "from_rung": under,
                    "direction": way,
                    "terms": terms,
                    "free": "part",
                }
            )

        stem = rung("Top of foundation", "foundation", grade, "wall above grade", usual("stem_above_grade", units))
        framing = _framing(make_up)
        timber = framing is not None and framing.timber
        # Concrete lies on the foundation wall itself.
        sill = rung("Sill plate", "sill", stem.id, "sill plate", usual("member_thickness", units)) if timber else None
        bearing = sill or stem
        crawl = rung("Crawl space", "finish", grade, "dug below grade", usual("crawl_dug", units), "down")
        raised = changed(level, from_rung=bearing.id, direction="up", terms=floor_terms(make_up), free=_free(make_up))
        cover = next((held.id for held in project.make_ups if held.id == COVER), None)
        on = changed(founded, top=stem.id, sill=sill.id if sill else None, slab_level=crawl.id, slab=cover)
        below = (stem, sill) if sill else (stem,)
        return put(project, *below, crawl, raised, on, self._floor(level, bearing.id, make_up))

    def _floor(self, level: Rung, bearing: str, make_up: MakeUp) -> Floor:
        return Floor(id=self.id, name=level.name, level=level.id, bearing=bearing, make_up=make_up.id)


def _make_up(project: Project, *, over_ground: bool) -> MakeUp:
    framed = [held for held in project.make_ups if held.use == "floor" and floor_terms(held)]
    own = [held for held in framed if (held.id == OVER_GROUND) == over_ground]
    if not framed:
        raise RefusedEdit("this project has no make-up for floors; bring one from another project")
    return (own or framed)[0]


def _framing(make_up: MakeUp) -> Framing | None:
    return make_up.layers[make_up.carrying].framing if make_up.carrying is not None else None


def _free(make_up: MakeUp) -> str:
    return floor_terms(make_up)[0].id


def floor_terms(make_up: MakeUp) -> tuple[Term, ...]:
    """The layers from the underside of what carries up, as parts of a height; none where nothing carries."""
    if make_up.carrying is None:
        return ()
    return tuple(
        Term(id=layer.id, name=layer.name, layer=LayerRef(make_up=make_up.id, layer=layer.id))
        for layer in reversed(make_up.layers[: make_up.carrying + 1])
    )
