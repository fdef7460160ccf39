"""The rules of private stairs: which numbers of risers are legal, with which goings, and why others are not."""

from __future__ import annotations

import json
import math
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Literal

from ...errors import BadInput
from ...units import INCH, Units, format_length

RuleId = Literal["irc", "adk"]
MOST = 200
"""No stair has more risers than this."""
SLACK = 1e-6
"""Lengths are held against limits with this tolerance (mm), angles in degrees."""


@dataclass(frozen=True, slots=True)
class Limit:
    """A limit of a rule (mm, or degrees of a pitch), and where it is published."""

    of: str
    value: float
    source: str


@dataclass(frozen=True, slots=True)
class StairRule:
    """A rule for private stairs, by the names of its limits."""

    id: RuleId
    name: str
    limits: dict[str, Limit]

    def __getitem__(self, name: str) -> float:
        """The value of a limit. Raises: KeyError when the rule has none of this name."""
        return self.limits[name].value

    def get(self, name: str, otherwise: float) -> float:
        """The value of a limit, or another value where the rule names none."""
        limit = self.limits.get(name)
        return limit.value if limit else otherwise


@dataclass(frozen=True, slots=True)
class RiserSet:
    """So many equal risers (mm each), and the goings that are legal with them.

    `going_max` is None where the rule names none. `why`: what breaks the rule; none where there are legal goings.
    """

    risers: int
    riser: float
    going_min: float
    going_max: float | None
    why: str | None = None

    @property
    def is_legal(self) -> bool:
        """Whether there is a going that the rule allows."""
        return self.why is None

    def allows(self, going: float) -> bool:
        """Whether a going is legal with these risers."""
        high = math.inf if self.going_max is None else self.going_max
        return self.is_legal and self.going_min - SLACK <= going <= high + SLACK


@dataclass(frozen=True, slots=True)
class Stepping:
    """How a rise is parted: equal risers, one going (mm)."""

    risers: int
    riser: float
    going: float

    @property
    def treads(self) -> int:
        """One less than the risers: the last one leads onto the floor."""
        return self.risers - 1

    @property
    def total_run(self) -> float:
        """From the first riser to the last, in plan (mm)."""
        return self.treads * self.going

    @property
    def pitch_deg(self) -> float:
        """Of the line along the nosings."""
        return math.degrees(math.atan2(self.riser, self.going))

    @property
    def two_r_plus_g(self) -> float:
        """Twice the riser and the going (mm)."""
        return 2 * self.riser + self.going

    def opening_length(self, headroom: float, thickness: float) -> float:
        """How long the hole in the floor is, from the nosing of the upper floor to the lower edge of the header (mm).

        >>> round(Stepping(14, 108 / 14, 10).opening_length(80, 11.25), 2)
        118.29
        """
        return (headroom + thickness) * self.going / self.riser


@cache
def stair_rules() -> dict[RuleId, StairRule]:
    """Every rule by its id, its limits in mm."""
    rows = json.loads((files("deepsection.core.catalog") / "data" / "stair_rules.json").read_text("utf-8"))["rules"]
    return {row["id"]: _rule(row["id"], row["name"], row["unit"], row["limits"]) for row in rows}


def _rule(id: RuleId, name: str, unit: str, limits: list[dict[str, str | float]]) -> StairRule:
    mm = INCH if unit == "in" else 1.0
    made = {}
    for limit in limits:
        value = float(limit["value"])
        made[str(limit["id"])] = Limit(
            str(limit["of"]), value if limit["id"] == "pitch_max" else value * mm, str(limit["source"])
        )
    return StairRule(id, name, made)


def riser_sets(rule: StairRule, total_rise: float, units: Units) -> tuple[RiserSet, ...]:
    """The numbers of risers that come close to being legal, fewest first; of those that are not it is said why.

    Raises: BadInput where the rise is none, or so high that there would be more than `MOST` risers.
    """
    if total_rise <= 0:
        raise BadInput("the total rise must be greater than 0", field="total_rise", value=total_rise)
    fewest = max(1, math.ceil((total_rise - SLACK) / rule["riser_max"]))
    most = max(fewest, math.floor((total_rise + SLACK) / rule["riser_min"]))
    if fewest > MOST:
        raise BadInput(f"there would be more than {MOST} risers", field="total_rise", value=total_rise)
    return tuple(riser_set(rule, total_rise, n, units) for n in range(max(1, fewest - 1), min(MOST, most + 1) + 1))


def riser_set(rule: StairRule, total_rise: float, risers: int, units: Units) -> RiserSet:
    """So many risers, and what the rule says of them."""
    riser = total_rise / risers
    low, low_name = max(_lowest(rule, riser))
    high, high_name = min(_highest(rule, riser))
    bounded = None if math.isinf(high) else high
    why = None
    if riser > rule["riser_max"] + SLACK:
        why = _broken(rule, "riser_max", riser, units)
    elif riser < rule["riser_min"] - SLACK:
        why = _broken(rule, "riser_min", riser, units)
    elif low > high + SLACK:
        why = (
            f"{rule.limits[low_name].of} {_said(rule, low_name, units)} asks for a going of {format_length(low, units)}"
            f" or more, {rule.limits[high_name].of} {_said(rule, high_name, units)} for {format_length(high, units)}"
            " or less"
        )
    return RiserSet(risers, riser, low, bounded, why)


def _lowest(rule: StairRule, riser: float) -> list[tuple[float, str]]:
    """The least goings that single limits leave, with the names of these."""
    found = [(rule["going_min"], "going_min")]
    if "sum_min" in rule.limits:
        found.append((rule["sum_min"] - 2 * riser, "sum_min"))
    if "pitch_max" in rule.limits:
        found.append((riser / math.tan(math.radians(rule["pitch_max"])), "pitch_max"))
    return found


def _highest(rule: StairRule, riser: float) -> list[tuple[float, str]]:
    found = [(rule.get("going_max", math.inf), "going_max")]
    if "sum_max" in rule.limits:
        found.append((rule["sum_max"] - 2 * riser, "sum_max"))
    return found


def _said(rule: StairRule, name: str, units: Units) -> str:
    value = rule[name]
    return f"{value:g}°" if name == "pitch_max" else format_length(value, units)


def _broken(rule: StairRule, name: str, value: float, units: Units) -> str:
    """Which limit something breaks, in words with its source."""
    limit = rule.limits[name]
    shown = f"{value:.2f}°" if name == "pitch_max" else format_length(value, units)
    return f"{shown}: {limit.of} {_said(rule, name, units)} ({limit.source})"


def why_illegal(rule: StairRule, stepping: Stepping, units: Units) -> list[str]:
    """Every limit of risers and goings that a stair breaks, in words; none when it is legal."""
    measured = {
        "riser_max": stepping.riser,
        "riser_min": stepping.riser,
        "going_min": stepping.going,
        "going_max": stepping.going,
        "sum_min": stepping.two_r_plus_g,
        "sum_max": stepping.two_r_plus_g,
        "pitch_max": stepping.pitch_deg,
    }
    found = []
    for name, value in measured.items():
        if name in rule.limits:
            over = value - rule[name] if name.endswith("max") else rule[name] - value
            if over > SLACK and not (name.startswith(("going", "sum", "pitch")) and stepping.treads == 0):
                found.append(_broken(rule, name, value, units))
    return found


def choose(rule: StairRule, total_rise: float, going: float | None, units: Units) -> Stepping:
    """The fewest legal risers, with a going, or with the least legal one.

    Raises: BadInput with the rule that is broken where no number of risers is legal.
    """
    sets = riser_sets(rule, total_rise, units)
    legal = [held for held in sets if held.is_legal]
    for held in legal:
        if going is None or held.allows(going):
            return Stepping(held.risers, held.riser, held.going_min if going is None else going)
    if not legal:
        whys = "; ".join(f"{held.risers} of {held.why}" for held in sets)
        raise BadInput(f"no number of risers is legal: {whys}", field="total_rise", value=total_rise)
    assert going is not None
    fewest = legal[0]
    whys = "; ".join(why_illegal(rule, Stepping(fewest.risers, fewest.riser, going), units))
    raise BadInput(f"a going of {format_length(going, units)} is not legal: {whys}", field="going", value=going)


def usual_going(rule: StairRule, held: RiserSet) -> float:
    """The going that a stair begins with: the least legal one, up to whole quarters of an inch or 5 mm."""
    step = INCH / 4 if rule.id == "irc" else 5.0
    least = math.ceil((held.going_min - SLACK) / step) * step
    return least if held.allows(least) else held.going_min


def rule_for(tradition: str) -> RuleId:
    """The rule that a tradition names."""
    return "adk" if tradition == "masonry" else "irc"
