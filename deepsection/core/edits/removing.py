"""Taking elements away, with what cannot stand without them."""

from __future__ import annotations

from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from ..document.command import Command, all_named
from ..document.rebuilding import changed, rebuild
from ..document.values import Id
from ..errors import RefusedEdit
from ..model.places import beam_points, corner_point, joint_point
from ..model.project import Project
from ..trades.openings.edits.openings import alone
from ..trades.posts.model import Beam, BeamEnd
from ..trades.roofs.corners import with_corners
from ..trades.roofs.model import Corner, RoofBlock
from ..trades.walls.model import FreeJoint, Joint, TeeJoint


class Remove(Command):
    """Elements taken away, with what cannot stand without them.

    Openings and wall sections go with their wall, openings keep what they had from a removed kind; walls that met a
    removed one keep their end where it was.
    """

    kind: Literal["remove"] = "remove"
    phrase: ClassVar[str] = "remove {name}"
    elements: Annotated[tuple[Id, ...], Field(min_length=1)]

    def apply(self, project: Project) -> Project:
        """The project without the elements. Raises: UnknownElement, RefusedEdit."""
        gone = set(self.elements)
        for id in gone:
            if project.collection_of(id) == "joints":
                raise RefusedEdit("a joint goes with its walls; remove the walls", element=id)
        walls = tuple(wall for wall in project.walls if wall.id not in gone)
        used = {id for wall in walls for id in (wall.start, wall.end)}
        kept: dict[str, Any] = {
            name: tuple(element for element in getattr(project, name) if element.id not in gone)
            for name in project.collections
        }
        kept["openings"] = tuple(
            alone(project, o) if o.kind in gone else o for o in kept["openings"] if o.wall not in gone
        )
        kept["joints"] = tuple(_freed(project, joint, gone) for joint in project.joints if joint.id in used)
        kept["beams"] = tuple(_loosened(project, beam, gone) for beam in kept["beams"])
        kept["shows"] = tuple(
            changed(
                show,
                hidden=tuple(id for id in show.hidden if id not in gone),
                alone=tuple(id for id in show.alone if id not in gone),
                annotations=tuple(held for held in show.annotations if held.key.partition(":")[2] not in gone),
            )
            for show in kept["shows"]
        )
        kept["elevations"] = tuple(
            changed(view, walls=tuple(id for id in view.walls if id not in gone)) if view.walls else view
            for view in kept["elevations"]
            if view.room not in gone and not (view.walls and gone.issuperset(view.walls))
        )
        kept["sections"] = tuple(changed(line, room=None) if line.room in gone else line for line in kept["sections"])
        kept["wall_sections"] = tuple(held for held in kept["wall_sections"] if held.wall not in gone)
        kept["downpipes"] = tuple(pipe for pipe in kept["downpipes"] if pipe.roof not in gone)
        kept["roofs"] = tuple(_untied(project, roof, used) for roof in kept["roofs"])
        return rebuild(project, **kept)

    def words(self, project: Project) -> str:
        """What is removed: by its name, or several by kind and number."""
        return self.phrase.format(name=all_named(self.elements, project))


def _freed(project: Project, joint: Joint, gone: set[str]) -> Joint:
    if isinstance(joint, TeeJoint) and joint.wall in gone:
        x, y = joint_point(project, joint.id)
        return FreeJoint(id=joint.id, x=x, y=y, join=joint.join)
    if isinstance(joint, FreeJoint) and joint.through in gone:
        return joint.model_copy(update={"through": None})
    return joint


def _loosened(project: Project, beam: Beam, gone: set[str]) -> Beam:
    """A beam whose posts are removed keeps its ends where they were."""
    ends = {
        name: BeamEnd(x=spot[0], y=spot[1])
        for name, end, spot in zip(("start", "end"), (beam.start, beam.end), beam_points(project, beam))
        if end.post in gone
    }
    loose: Beam = changed(beam, **ends)
    return loose


def _untied(project: Project, roof: RoofBlock, used: set[str]) -> RoofBlock:
    def held(corner: Corner) -> Corner:
        if corner.joint is None or corner.joint in used:
            return corner
        x, y = corner_point(project, corner)
        return Corner(id=corner.id, x=x, y=y)

    return with_corners(roof, held)
