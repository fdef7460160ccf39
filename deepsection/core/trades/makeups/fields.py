"""Fields of make-ups, layer by layer."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Any, get_args

from ...catalog import materials, usual
from ...edits import PutMakeUp, changed
from ...errors import RefusedEdit
from ...model import Framing, Layer, MakeUp, Project, bearing_layer
from ...rows.rows import Row, action_row, choice_row, length_row, number_row, text_row
from ...units import Units, format_thickness
from .model import Function, Sheets
from .names import derived_name
from .profiles import PROFILES

FILLS = ("quilt", "rigid", "block")
"""The hatches of what fills the space between members."""
OF_UNITS = {"unit_frame", "glass", "door_leaf", "trim", "louvre", "earth"}
"""Materials of which no layer is made."""


def make_up_fields(project: Project, make_up: MakeUp) -> list[Row]:
    """Name and copy of a make-up, and for each layer (as a group) what it is, how thick, how framed, and its place."""
    derived = derived_name(make_up)
    named = []
    if derived != make_up.name:
        edit = PutMakeUp(make_up=changed(make_up, name=derived))
        named.append(action_row("derive", f"Name it “{derived}”", [edit]))
    rows = [
        text_row("name", "Name", make_up.name, lambda t: [PutMakeUp(make_up=changed(make_up, name=t))]),
        *named,
        action_row("copy", "Copy it as a new make-up", [PutMakeUp(make_up=_copy(project, make_up))]),
    ]
    if make_up.use == "wall":
        rows.append(
            length_row(
                "corner_boards",
                "Corner boards, 0 for none",
                make_up.corner_boards,
                project.units,
                lambda v: [PutMakeUp(make_up=changed(make_up, corner_boards=v))],
            )
        )
        structure = [layer for layer in make_up.layers if layer.function == "structure"]
        if len(structure) > 1:
            bears, choices = make_up.layers[bearing_layer(make_up)], [(layer.id, layer.name) for layer in structure]
            rows.append(
                choice_row("bearing", "Floors and roofs bear on", bears.id, choices, lambda t: _bearing(make_up, t))
            )
    for position in range(len(make_up.layers)):
        rows += [
            replace(row, field=replace(row.field, group=make_up.layers[position].id))
            for row in _layer(project, make_up, position)
        ]
    return rows


def _layer(project: Project, make_up: MakeUp, position: int) -> list[Row]:
    layer, units = make_up.layers[position], project.units

    def put(**changes: Any) -> Sequence[Any]:
        return _with(make_up, position, changed(layer, **changes))

    def id(name: str) -> str:
        return f"{layer.id}:{name}"

    rows = [
        text_row(id("name"), "Layer", layer.name, lambda t: put(name=t)),
        choice_row(
            id("material"),
            "Material",
            layer.material,
            [(held.id, held.name) for held in materials().values() if held.id not in OF_UNITS],
            lambda t: put(material=t),
        ),
        choice_row(
            id("function"),
            "Function",
            layer.function,
            [(function, function) for function in get_args(Function)],
            lambda t: put(function=t, framing=layer.framing if t == "structure" else None),
        ),
        length_row(
            id("thickness"),
            "Thickness",
            layer.thickness,
            units,
            lambda v: put(thickness=v),
            least=0.0,
            write=format_thickness,
        ),
    ]
    if layer.function == "structure":
        rows += _framing(project, make_up.use, layer, put)
    if make_up.use == "floor" and layer.function == "sheathing":
        rows += _sheets(layer, units, put)
    if make_up.use == "wall":
        ways = [("no", "no"), ("frame", "up to the frame")]
        rows.append(choice_row(id("reveal"), "Turns into reveals", layer.reveal, ways, lambda t: put(reveal=t)))
        if layer.reveal != "no":
            gap = "Stops before the frame by"
            rows.append(length_row(id("reveal_gap"), gap, layer.reveal_gap, units, lambda v: put(reveal_gap=v)))
    rows.append(
        text_row(id("note"), "Its note in drawings", layer.note or "", lambda t: put(note=t or None), empty=True)
    )
    return [*rows, *_places(project, make_up, position)]


def _sheets(layer: Layer, units: Units, put: Callable[..., Sequence[Any]]) -> list[Row]:
    """The size of the sheets that a subfloor is laid in."""
    held = layer.sheets
    begun = Sheets(length=usual("sheet_length", units), width=usual("sheet_width", units))

    def sized(**changes: Any) -> Sequence[Any]:
        return put(sheets=changed(held, **changes))

    rows = [
        choice_row(
            f"{layer.id}:laid",
            "Laid in",
            "sheets" if held else "one",
            [("sheets", "sheets"), ("one", "no sheets that are drawn")],
            lambda t: put(sheets=(held or begun) if t == "sheets" else None),
        )
    ]
    if held:
        rows += [
            length_row(f"{layer.id}:sheet_length", "Sheets long", held.length, units, lambda v: sized(length=v)),
            length_row(f"{layer.id}:sheet_width", "Sheets wide", held.width, units, lambda v: sized(width=v)),
        ]
    return rows


def _framing(project: Project, use: str, layer: Layer, put: Callable[..., Sequence[Any]]) -> list[Row]:
    framing, units = layer.framing, project.units
    begun = Framing(spacing=usual("member_spacing", units), thickness=usual("member_thickness", units))

    def framed(**changes: Any) -> Sequence[Any]:
        return put(framing=changed(framing, **changes))

    def id(name: str) -> str:
        return f"{layer.id}:{name}"

    kinds = [("solid", "solid"), ("framed", "members at a spacing")]
    rows = [
        choice_row(
            id("framed"),
            "Built as",
            "framed" if framing else "solid",
            kinds,
            lambda t: put(framing=(framing or begun) if t == "framed" else None),
        )
    ]
    if framing is None:
        return rows
    fillings = [
        ("", "nothing"),
        *((held.id, held.name) for held in materials().values() if held.cut in FILLS),
    ]
    return [
        *rows,
        length_row(id("spacing"), "Spacing", framing.spacing, units, lambda v: framed(spacing=v), least=0.0),
        length_row(
            id("member"), "Member thickness", framing.thickness, units, lambda v: framed(thickness=v), least=0.0
        ),
        *_profile(use, layer, framed, id, units),
        number_row(id("bottom_plates"), "Bottom plates", framing.bottom_plates, lambda n: framed(bottom_plates=n)),
        number_row(id("top_plates"), "Top plates", framing.top_plates, lambda n: framed(top_plates=n)),
        choice_row(id("infill"), "Between them", framing.infill or "", fillings, lambda t: framed(infill=t or None)),
    ]


def _profile(
    use: str, layer: Layer, framed: Callable[..., Sequence[Any]], id: Callable[[str], str], units: Units
) -> list[Row]:
    """Whether the joists of a floor are solid or I-joists, and what these are like."""
    framing = layer.framing
    if use != "floor" or framing is None:
        return []
    kinds = [(profile, made.words) for profile, made in PROFILES.items()]
    rows = [choice_row(id("profile"), "Members are", framing.profile, kinds, lambda t: framed(profile=t))]
    if framing.profile != "solid":
        flange, web = framing.flange, framing.web
        what = PROFILES[framing.profile].flanges
        rows += [
            length_row(id("flange"), f"Depth of the {what}", flange, units, lambda v: framed(flange=v), least=0.0),
            length_row(id("web"), "Thickness of the web", web, units, lambda v: framed(web=v), least=0.0),
        ]
    return rows


def _places(project: Project, make_up: MakeUp, position: int) -> list[Row]:
    """What moves, adds and takes away: words for walls go outward and inward, for all else up and down."""
    layer, last = make_up.layers[position], len(make_up.layers) - 1
    first_way, other_way, beside = (
        ("Move outward", "Move inward", "Add a layer inside of it")
        if make_up.use == "wall"
        else ("Move up", "Move down", "Add a layer below it")
    )
    rows = []
    if position > 0:
        rows.append(action_row(f"{layer.id}:out", first_way, _moved(make_up, position, position - 1)))
    if position < last:
        rows.append(action_row(f"{layer.id}:in", other_way, _moved(make_up, position, position + 1)))
    rows.append(action_row(f"{layer.id}:add", beside, _added(make_up, position)))
    if last > 0:
        remove = action_row(f"{layer.id}:remove", "Remove this layer", ())
        rows.append(Row(remove.field, lambda _: _without(project, make_up, layer)))
    return rows


def _bearing(make_up: MakeUp, id: str) -> Sequence[Any]:
    """The make-up with another layer that bears; a wall plate goes there."""
    plate = next((layer.wall_plate for layer in make_up.layers if layer.wall_plate), None)
    layers = tuple(changed(layer, wall_plate=plate if layer.id == id else None) for layer in make_up.layers)
    return [PutMakeUp(make_up=changed(make_up, bearing=id, layers=layers))]


def _with(make_up: MakeUp, position: int, layer: Layer) -> Sequence[Any]:
    layers = (*make_up.layers[:position], layer, *make_up.layers[position + 1 :])
    return [PutMakeUp(make_up=changed(make_up, layers=layers))]


def _moved(make_up: MakeUp, position: int, to: int) -> Sequence[Any]:
    layers = list(make_up.layers)
    layers.insert(to, layers.pop(position))
    return [PutMakeUp(make_up=changed(make_up, layers=tuple(layers)))]


def _added(make_up: MakeUp, position: int) -> Sequence[Any]:
    taken = {layer.id for layer in make_up.layers}
    id = next(f"layer-{n}" for n in range(1, len(taken) + 2) if f"layer-{n}" not in taken)
    layer = Layer(id=id, name="new board", material="plywood", function="sheathing", thickness=12.0)
    layers = (*make_up.layers[: position + 1], layer, *make_up.layers[position + 1 :])
    return [PutMakeUp(make_up=changed(make_up, layers=layers))]


def _without(project: Project, make_up: MakeUp, layer: Layer) -> Sequence[Any]:
    """The make-up without a layer. Raises: RefusedEdit where walls or heights are measured by it."""
    walls = [w for w in project.walls if w.make_up == make_up.id and w.set_out.layer == layer.id]
    if walls:
        raise RefusedEdit(
            f"the set-out face of {len(walls)} walls lies on {layer.name}; set these out on another layer first",
            element=make_up.id,
            field=f"{layer.id}:remove",
        )
    for rung in project.rungs:
        if any(term.layer and (term.layer.make_up, term.layer.layer) == (make_up.id, layer.id) for term in rung.terms):
            raise RefusedEdit(
                f"the height of {rung.name} counts {layer.name}; take it out of that height first",
                element=make_up.id,
                field=f"{layer.id}:remove",
            )
    layers = tuple(held for held in make_up.layers if held.id != layer.id)
    bearing = None if make_up.bearing == layer.id else make_up.bearing
    return [PutMakeUp(make_up=changed(make_up, layers=layers, bearing=bearing))]


def _copy(project: Project, make_up: MakeUp) -> MakeUp:
    taken = {element.id for element in project.elements()}
    id = next(f"make-up-{n}" for n in range(1, len(taken) + 2) if f"make-up-{n}" not in taken)
    names = {held.name for held in project.make_ups}
    name = next(text for n in range(1, 999) if (text := f"{make_up.name}, copy{f' {n}' if n > 1 else ''}") not in names)
    copied: MakeUp = changed(make_up, id=id, name=name)
    return copied


def make_up_name(project: Project, id: str) -> str:
    """The name of a make-up by its id."""
    return next(held.name for held in project.make_ups if held.id == id)
