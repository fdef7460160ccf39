"""Fields of stairs, and the table of their legal numbers of risers."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from ...edits import PutStair, changed
from ...model import Project, Stair, StairTurn
from ...rows.outcome import OutcomeRow, OutcomeTable
from ...rows.rows import Row, action_row, choice_row, length_row, level_options, number_row, text_row, under
from ...units import Units, format_length
from ..levels.place import resolve_levels
from ..posts.fields import materials_of_posts
from .layout import LANDING_WELL
from .place import stepping_of
from .placed import PlacedStair
from .rules import RiserSet, StairRule, riser_sets, stair_rules

SIDES = [("left", "left"), ("right", "right")]
BUILDS = [
    ("housed", "treads between housed strings"),
    ("cut", "treads on cut strings"),
    ("mono", "treads on one carriage"),
    ("concrete", "a concrete flight"),
]
RAILS = [("none", "none"), ("left", "at the left, going up"), ("right", "at the right, going up"), ("both", "both")]
KINDS = [("landing", "a quarter on a landing"), ("half landing", "half round on a landing"), ("winders", "winders")]
Put = Callable[..., Sequence[Any]]
YES = [("yes", "yes"), ("no", "no")]


def stair_fields(project: Project, stair: Stair) -> list[Row]:
    """What is said of a stair, in the order in which it is set out."""
    units = project.units

    def put(**changes: Any) -> Sequence[Any]:
        return [PutStair(stair=changed(stair, **changes))]

    def length(name: str, label: str, least: float | None = 0.0) -> Row:
        return length_row(name, label, getattr(stair, name), units, lambda v: put(**{name: v}), least=least)

    def switch(name: str, label: str) -> Row:
        return choice_row(
            name, label, "yes" if getattr(stair, name) else "no", YES, lambda t: put(**{name: t == "yes"})
        )

    rules = [(rule.id, rule.name) for rule in stair_rules().values()]
    rows = [
        text_row("name", "Name", stair.name, lambda t: put(name=t)),
        choice_row("level", "From", stair.level, level_options(project), lambda t: put(level=t)),
        choice_row("upper", "Up to", stair.upper, level_options(project), lambda t: put(upper=t)),
        choice_row("rule", "Rule", stair.rule, rules, lambda t: put(rule=t)),
        *_stepping_rows(project, stair, put),
        length("width", "Width"),
        *_turn_rows(project, stair, put),
        choice_row("build", "Built as", stair.build, BUILDS, lambda t: put(build=t)),
        length("depth", "Waist" if stair.build == "concrete" else "Depth of the strings"),
    ]
    if stair.build != "concrete":
        rows += [
            length("string", "Thickness of the strings"),
            *([length("carriages", "Maximum spacing of the strings")] if stair.build == "cut" else []),
            length("tread", "Thickness of the treads"),
            length("nosing", "Nosing", None),
            switch("open_risers", "Open risers"),
            *([] if stair.open_risers else [length("riser_board", "Thickness of the risers")]),
            choice_row(
                "below", "Below it", stair.below, [("open", "open"), ("closed", "closed by panels")],
                lambda t: put(below=t),
            ),
        ]  # fmt: skip
    return [
        *rows,
        choice_row("material", "Material", stair.material, materials_of_posts(), lambda t: put(material=t)),
        choice_row("rails", "Rails", stair.rails, RAILS, lambda t: put(rails=t)),
        switch("hole", "Hole in the floor, by headroom"),
        switch("guard", "Guard round the hole"),
        length("x", "Foot, east of the origin", None),
        length("y", "Foot, north of the origin", None),
        _angle_row(stair, put),
    ]


def _angle_row(stair: Stair, put: Put) -> Row:
    ways = {0.0: "east", 90.0: "north", 180.0: "west", -90.0: "south"}
    turns = [*ways, *([] if stair.turn in ways else [stair.turn])]
    options = [(f"{a:g}", ways.get(a, f"{a:g}°")) for a in turns]
    return choice_row("turn", "Up towards", f"{stair.turn:g}", options, lambda t: put(turn=float(t)))


def total_rise(project: Project, stair: Stair) -> float:
    """From the level at its foot to the one at its head (mm); may be none."""
    levels = resolve_levels(project.rungs, project.make_ups)
    return levels[stair.upper].z - levels[stair.level].z


def _stepping_rows(project: Project, stair: Stair, put: Put) -> list[Row]:
    """The number of risers, from those that are legal, and the going."""
    units, rise, rule = project.units, total_rise(project, stair), stair_rules()[stair.rule]
    if not 0 < rise < 100 * rule["riser_max"]:
        return []
    stepping = stepping_of(stair, rise, units)
    legal = [held for held in riser_sets(rule, rise, units) if held.is_legal]
    options = [("", f"the fewest legal ones: {legal[0].risers}" if legal else "as its rule has it")]
    options += [(str(held.risers), f"{held.risers} of {format_length(held.riser, units)}") for held in legal]
    now = "" if stair.risers is None else str(stair.risers)
    if now not in {value for value, _ in options}:
        options.append((now, f"{now} of {format_length(rise / int(now), units)}, not legal"))
    return [
        choice_row("risers", "Risers", now, options, lambda t: put(risers=int(t) if t else None)),
        length_row("going", "Going", stepping.going, units, lambda v: put(going=v), least=0.0),
        *([action_row("usual_going", "Going as the rule has it", put(going=None))] if stair.going else []),
    ]


def _turn_rows(project: Project, stair: Stair, put: Put) -> list[Row]:
    """The turns one after another, and a button for one more."""
    rows: list[Row] = []
    for k in range(len(stair.turns)):
        rows += under(f"Turn {k + 1}" if len(stair.turns) > 1 else "Turn", _one_turn(project, stair, k, put))
    if stair.curve is None and len(stair.turns) < 6:
        rise = total_rise(project, stair)
        treads = stepping_of(stair, rise, project.units).treads if rise > 50 else 0
        taken = max((turn.after + (turn.winders if turn.kind == "winders" else 1) for turn in stair.turns), default=1)
        after = max(taken, (taken + treads) // 2)
        if after <= treads:
            rows.append(action_row("add_turn", "Add a turn", put(turns=(*stair.turns, StairTurn(after=after)))))
    return rows


def _one_turn(project: Project, stair: Stair, k: int, put: Put) -> list[Row]:
    turn, rest = stair.turns[k], (*stair.turns[:k], *stair.turns[k + 1 :])

    def own(**changes: Any) -> Sequence[Any]:
        return put(turns=(*stair.turns[:k], changed(turn, **changes), *stair.turns[k + 1 :]))

    rows = [
        choice_row(f"turn_{k}_kind", "Turns", turn.kind, KINDS, lambda t: own(kind=t)),
        choice_row(f"turn_{k}_side", "To the", turn.side, SIDES, lambda t: own(side=t)),
        number_row(f"turn_{k}_after", "At riser", turn.after, lambda n: own(after=n)),
    ]
    if turn.kind == "winders":
        rows.append(number_row(f"turn_{k}_winders", "Winders", turn.winders, lambda n: own(winders=n)))
    if turn.kind == "half landing":
        well = LANDING_WELL if turn.well is None else turn.well
        rows.append(length_row(f"turn_{k}_well", "Well", well, project.units, lambda v: own(well=v)))
    return [*rows, action_row(f"turn_{k}_remove", "Straight on instead", put(turns=rest))]


def stair_outcome(placed: PlacedStair | None, units: Units) -> tuple[OutcomeTable, ...]:
    """The legal numbers of risers with the chosen one, why others fail, and what the stair comes to."""
    if placed is None:
        return ()
    rule, stepping = stair_rules()[placed.stair.rule], placed.stepping
    sets = riser_sets(rule, placed.rise.total, units)
    rows = [OutcomeRow(_name(held, units, held.risers == stepping.risers), _says(held, rule, units)) for held in sets]
    facts = [
        OutcomeRow("risers", f"{stepping.risers} of {format_length(stepping.riser, units)}"),
        OutcomeRow("treads", f"{stepping.treads} of {format_length(stepping.going, units)}"),
        OutcomeRow("pitch", f"{stepping.pitch_deg:.1f}°"),
        OutcomeRow("twice the riser and the going", format_length(stepping.two_r_plus_g, units)),
    ]
    if placed.hole is not None and placed.under is not None:
        length = stepping.opening_length(rule["headroom"], placed.head - placed.under)
        facts.append(OutcomeRow("hole along the nosings", format_length(length, units)))
    return (
        OutcomeTable("Stepping", format_length(placed.rise.total, units), tuple(facts)),
        OutcomeTable(f"Numbers of risers, {rule.name}", f"{sum(held.is_legal for held in sets)} legal", tuple(rows)),
    )


def _name(held: RiserSet, units: Units, chosen: bool) -> str:
    return f"{held.risers} of {format_length(held.riser, units)}" + (", chosen" if chosen else "")


def _says(held: RiserSet, rule: StairRule, units: Units) -> str:
    if held.why:
        return held.why
    low = format_length(held.going_min, units)
    return f"going from {low}" if held.going_max is None else f"going {low} to {format_length(held.going_max, units)}"
