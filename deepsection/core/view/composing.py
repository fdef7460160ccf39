"""How every view of a building is put together: surfaces, what is cut, and lettering, none of it on another."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import replace
from typing import Literal

from ..drawing import Drawing, Label, Lettered, Region, moved
from ..drawing.chains import String
from ..drawing.cropping import Window, cropped
from ..geometry import Frame
from ..resolve import Building, Part
from ._annotations import Annotations, lettered
from ._earth import Earth
from ._seen import edge_strokes, face_regions
from ._symbols import opening_symbols
from .edges import Edge
from .faces import Face
from .hatching import HatchTable
from .setting import Setting
from .shade import shade_marks


class Composition:
    """A view of a building in the making. Each step adds marks over those before it."""

    def __init__(
        self, building: Building, name: str, frame: Frame, setting: Setting, hatches: HatchTable | None = None
    ):
        self.building, self.name, self.frame, self.setting = building, name, frame, setting
        self.hatches = hatches or HatchTable(setting.scale)
        self.changes = Annotations(setting.show, setting.scale)
        self.marks: list[Lettered] = []
        self.strings: tuple[String, ...] = ()

    def surfaces(
        self,
        faces: Sequence[Face],
        edges: Iterable[Edge],
        *,
        shaded_by: tuple[Part, ...] = (),
        earth: Earth | None = None,
    ) -> None:
        """Visible faces with their tone, hatch, shade, lines and symbols of opening."""
        show = self.setting.show
        self.marks += face_regions(faces, self.frame, self.hatches, toned=bool(show and show.tone))
        if show and show.shade and shaded_by:
            self.marks += shade_marks(faces, shaded_by, self.frame, self.hatches)
        self.marks += edge_strokes(edges, self.building, earth=earth)
        self.marks += opening_symbols(self.building, faces, self.frame)

    def beyond(self, faces: Sequence[Face], edges: Iterable[Edge]) -> None:
        """Faces behind a cut, and their lines, light."""
        self.marks += face_regions(faces, self.frame, self.hatches, beyond=True)
        self.marks += edge_strokes(edges, self.building, pen="beyond")

    def take(self, other: Composition, shift: float) -> None:
        """The marks of another composition, moved to the right by so much."""
        index = self.hatches.join(other.hatches)
        for mark in other.marks:
            assert not isinstance(mark, Label)
            if isinstance(mark, Region) and mark.hatch is not None:
                mark = replace(mark, hatch=index[mark.hatch])
            self.marks.append(moved(mark, shift, 0.0))

    def crop(self, window: Window) -> None:
        """What there is so far as a window shows it."""
        marks = [mark for mark in self.marks if not isinstance(mark, Label)]
        self.marks = list(cropped(marks, window, self.hatches.moved))

    def dimension(self, strings: Iterable[String]) -> None:
        """Strings of dimensions."""
        held = tuple(strings)
        self.strings += held
        self.marks += [mark for string in held for mark in string.marks]

    def letter(self, own: Iterable[Lettered]) -> None:
        """What the view writes by itself, and its notes."""
        self.marks += own
        self.marks += self.setting.notes

    def drawing(self, title: str, kind: Literal["elevation", "section"], messages: Sequence[str] = ()) -> Drawing:
        """The finished drawing."""
        marks, bounds, left_out, shifts = lettered(self.marks, self.setting)
        return Drawing(
            name=self.name,
            title=title,
            kind=kind,
            scale=self.setting.scale,
            marks=marks,
            hatches=self.hatches.all(),
            sums=tuple(self.building.sums.values()),
            bounds=bounds,
            look=(self.frame.dx, self.frame.dy),
            messages=tuple(messages),
            left_out=left_out,
            shifts=shifts,
            strings=tuple((string.name, string.shown) for string in self.strings),
        )
