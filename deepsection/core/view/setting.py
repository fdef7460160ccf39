"""What a view is drawn with, besides the building and what is looked at."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ..drawing import Lettered
from ..drawing.chains import Measure
from ..model import Dimensioning, GridLine, StringShow, ViewShow
from ..units import Units

USUAL_RULE = Dimensioning()


@dataclass(frozen=True, slots=True)
class Setting:
    """Scale and units of a drawing, its notes, grid and rules of dimensions of its project, how the view is shown."""

    scale: float
    units: Units
    notes: tuple[Lettered, ...] = ()
    grid: tuple[GridLine, ...] = ()
    show: ViewShow | None = None
    rule: Dimensioning = USUAL_RULE
    on_paper: bool = False
    """Whether it is drawn for a sheet, where wall sections are cut short."""
    held: Mapping[str, tuple[float, float]] | None = None
    """Where lettering stood in the drawing before, while something is dragged: shifts in paper mm, by key."""
    draft: bool = False
    """Whether sections show what they cut alone, while their line is dragged and the drawing is to follow at once."""

    @property
    def measure(self) -> Measure:
        """How strings write their lengths."""
        return self.rule.measure(self.units)

    def string(self, name: str) -> StringShow:
        """How the view shows a string of dimensions; a plain one where nothing was said."""
        held = self.show.strings if self.show else ()
        return next((string for string in held if string.name == name), None) or StringShow(name=name)

    def shows(self, name: str, usual: bool = True) -> bool:
        """Whether a string is shown; some are not, where nothing was said."""
        said = self.string(name).shown
        return usual if said == "usual" else said == "shown"

    def rule_of(self, name: str) -> Dimensioning:
        """The rules of one string: those of the project, and what the view says of it."""
        held = self.string(name)
        said = {"density": held.density, "openings": held.openings, "walls": held.walls}
        changes = {field: value for field, value in said.items() if value is not None}
        return self.rule.model_copy(update=changes) if changes else self.rule
