"""Edits in words, for undo and the log."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from .nouns import all_called, called
from .onroofs import Downpipe, RoofFitting
from .openings import Kind, Opening
from .project import Project

_PHRASES = {
    "put_make_up": "change a make-up",
    "put_rung": "change a level",
    "put_joint": "change a joint",
    "put_wall": "change a wall",
    "put_opening": "change {name}",
    "put_post": "change a post",
    "put_beam": "change a beam",
    "put_outside_steps": "change steps",
    "put_rail": "change a rail",
    "add_steps": "put steps to {name}",
    "add_rail": "put a rail",
    "put_room": "name a room",
    "put_construction": "draw a construction line",
    "clear_construction": "clear the construction lines",
    "add_bay": "add a bay",
    "offset_wall": "draw a parallel wall",
    "put_grid": "change grid line {name}",
    "put_ground_spot": "change a height of the ground",
    "put_ground_step": "change a step of the ground",
    "put_roof": "change {name}",
    "put_chimney": "change a chimney",
    "put_fitting": "change a {name}",
    "put_downpipe": "change a downpipe",
    "put_foundation": "change the foundation",
    "put_floor": "change {name}",
    "put_ceiling": "change {name}",
    "put_section": "change section {name}",
    "put_elevation": "change {name}",
    "put_show": "change how a view is shown",
    "set_annotation": "change the lettering of a view",
    "copy_show": "show other views alike",
    "put_note": "write a note",
    "put_sheet": "change sheet {name}",
    "set_project": "change the project",
    "draw_walls": "draw walls",
    "draw_outline": "draw a wall by its outline",
    "draw_roof": "put on {name}",
    "propose_roof": "put on a roof",
    "add_dormer": "build a dormer",
    "add_on_roof": "put a {name} on the roof",
    "set_roof_edge": "change an edge of {name}",
    "move_ridge": "move a ridge of {name}",
    "steepen_roof": "raise the ridge of {name}",
    "move_roof_edge": "move an edge of {name}",
    "move_joint": "move a corner",
    "move_wall": "move a wall",
    "transform": "move {name}",
    "align_wall": "align a wall",
    "round_corner": "round a corner",
    "set_wall_length": "change the length of a wall",
    "bend_wall": "bend a wall",
    "straighten_wall": "straighten a wall",
    "split_wall": "split a wall",
    "reverse_wall": "turn a wall round",
    "flip_wall": "flip a wall",
    "use_make_up": "choose a make-up",
    "put_kind": "change the kind {name}",
    "follow_kind": "choose the kind of {name}",
    "clear_exceptions": "clear exceptions of {name}",
    "make_kind": "make a kind of {name}",
    "repeat_opening": "repeat {name}",
    "spread_openings": "spread {name} over its wall",
    "centre_opening": "centre {name}",
    "line_up_openings": "line up openings",
    "space_openings": "space openings",
    "centre_under_gable": "centre {name} under its gable",
    "mirror_opening": "mirror {name}",
    "copy_opening": "copy {name}",
    "resize_opening": "resize {name}",
    "move_opening": "move {name}",
    "set_term": "change a part of a height",
    "set_total": "change a height",
    "add_rung": "insert a level",
    "add_storey": "add a storey over {name}",
    "part_corners": "part the corners of a wall",
    "remove_storey": "remove the storey {name}",
    "remove": "remove {name}",
}

_ADDING = {
    "put_kind": "add the kind {name}",
    "put_opening": "place {name}",
    "put_post": "place a post",
    "put_beam": "lay a beam",
    "put_rail": "put a rail",
    "put_grid": "draw grid line {name}",
    "put_ground_spot": "give a height of the ground",
    "put_ground_step": "step the ground",
    "put_roof": "put on {name}",
    "put_section": "draw section {name}",
    "put_elevation": "add {name}",
    "put_sheet": "add sheet {name}",
}


def describe(edits: Sequence[Any], project: Project) -> str:
    """What a group of edits does, in a few words: `move W1`."""
    if not edits:
        return "nothing"
    edit = edits[0]
    carried = next((getattr(edit, name) for name in type(edit).model_fields if name != "kind"), None)
    known = {element.id: element for element in project.elements()}
    if edit.kind == "remove":
        return f"remove {_all(edit.elements, known, project)}"
    if edit.kind == "add_on_roof":
        return _PHRASES[edit.kind].format(name=ON_ROOFS[edit.what])
    if edit.kind == "transform":
        return _transformed(edit, known, project)
    element = carried if hasattr(carried, "id") else known.get(str(carried))
    phrase = _PHRASES[edit.kind]
    if edit.kind in _ADDING and element is not None and element.id not in known:
        phrase = _ADDING[edit.kind]
    return phrase.format(name=_name(element, project) or "it")


def _transformed(edit: Any, known: dict[str, Any], project: Project) -> str:
    motion = edit.motion
    word = "mirror" if motion.mirror is not None else "turn" if motion.turn else "move"
    copied = "copy, mirrored, " if word == "mirror" else "copy, turned, " if word == "turn" else "copy "
    return f"{copied if edit.copies else f'{word} '}{_all(edit.elements, known, project)}"


def _all(ids: Sequence[str], known: dict[str, Any], project: Project) -> str:
    """One element by its name, several by kind and number."""
    held = [known[id] for id in ids if id in known]
    if len(held) == 1:
        name = _name(held[0], project)
        return name if name and isinstance(held[0], Opening | Kind) else called(held[0])
    return all_called(held) if held else "it"


def _name(element: Any, project: Project) -> str:
    if isinstance(element, Opening):
        return project.number_of(element)
    if isinstance(element, Kind):
        return element.name
    if isinstance(element, RoofFitting):
        return ON_ROOFS[element.fitting]
    if isinstance(element, Downpipe):
        return ON_ROOFS["downpipe"]
    return str(getattr(element, "number", None) or getattr(element, "name", ""))


ROOF_EDGES: dict[str, str] = {
    "eave": "eave",
    "gable": "gable",
    "half_hip": "half hip",
    "dutch_gable": "gable over a hip",
    "abutment": "against a wall",
    "joined": "into another roof",
}
"""What an edge of a roof can be, in words."""

ON_ROOFS: dict[str, str] = {
    "chimney": "chimney",
    "window": "roof window",
    "pipe": "pipe",
    "vent": "vent",
    "downpipe": "downpipe",
}
"""What goes through a roof or hangs on it, in words."""
