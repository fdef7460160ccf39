"""What each wall, floor, beam, post and roof stands on."""

from __future__ import annotations

from dataclasses import dataclass

from ...building.placed import Key


@dataclass(frozen=True, slots=True)
class Loads:
    """Per element, the elements that carry it; of those that stand on the ground itself, none."""

    carriers: dict[str, tuple[str, ...]]

    def down_from(self, element: str) -> tuple[tuple[str, ...], ...]:
        """What carries an element, what carries that, and so on: step by step, each element where it comes first."""
        seen = {element}
        steps: list[tuple[str, ...]] = []
        now: tuple[str, ...] = (element,)
        while now:
            now = tuple(dict.fromkeys(id for held in now for id in self.carriers.get(held, ()) if id not in seen))
            seen.update(now)
            steps += [now] if now else []
        return tuple(steps)


LOADS: Key[Loads] = Key("loads")
"""The last stage."""
