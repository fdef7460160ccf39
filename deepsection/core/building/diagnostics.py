"""What is wrong with a building, at its place."""

from __future__ import annotations

from dataclasses import dataclass

from ..geometry import Point
from .checks import CHECKS, Check, Severity


@dataclass(frozen=True, slots=True)
class Diagnostic:
    """Something wrong with the building, with its place: element, field, value and limit."""

    code: str
    message: str
    element: str
    field: str | None = None
    value: float | None = None
    limit: float | None = None
    others: tuple[str, ...] = ()
    at: Point | None = None

    def __post_init__(self) -> None:
        if self.code not in CHECKS:
            raise LookupError(f"the check “{self.code}” is not declared")

    @property
    def check(self) -> Check:
        """The rule that is broken."""
        return CHECKS[self.code]

    @property
    def severity(self) -> Severity:
        """`blocking` where it cannot be built."""
        return self.check.severity

    @property
    def source(self) -> str | None:
        """Where the rule comes from; none where it is but geometry."""
        return self.check.source

    @property
    def identity(self) -> tuple[str, str, tuple[str, ...]]:
        """What makes two diagnostics the same complaint."""
        return self.code, self.element, self.others
