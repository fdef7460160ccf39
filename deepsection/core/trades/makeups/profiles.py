"""What members of floors are like across, in words."""

from __future__ import annotations

from dataclasses import dataclass

from .model import Profile


@dataclass(frozen=True, slots=True)
class Made:
    """A profile: what its members are called, what lies on them, their flanges; whether their maker sizes them."""

    members: str
    filled: str = ""
    flanges: str = ""
    by_maker: bool = True

    @property
    def words(self) -> str:
        """All of it as a choice."""
        return f"{self.members}{self.filled}"


PROFILES: dict[Profile, Made] = {
    "solid": Made("solid", by_maker=False),
    "I": Made("I-joists", flanges="flanges"),
    "open": Made("open-web joists", flanges="chords"),
    "T": Made("concrete beams", ", blocks on them", "toes"),
}
