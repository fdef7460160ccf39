"""Lettering that views write by themselves: where it stands, that none lies on another, and what drafters change."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

import pytest
import shapely
from shapely.affinity import rotate

from deepsection.core.drawing import Dimension, Drawing, Region, Stroke, Symbol, Text, explode
from deepsection.core.edits import CopyShow, MoveOpening, PutNote, Remove, SetAnnotation, apply_edits, changed, put
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import Annotation, ElevationView, Note, PartAnchor, Project, ViewShow
from deepsection.core.resolve import resolve
from deepsection.core.view import draw_view
from deepsection.demo import DEMOS, fernacre_bungalow, otterfold_house, quillback_house, wrenfold_house
from tests.builders import box_house, gable, window

near = pytest.approx
SOUTH = "elevation:south"


def windowed() -> Project:
    """A box of 8 x 6 m with a window 2.4 m from its south-west corner."""
    return put(gable(box_house(8000, 6000), 0.5, overhang=400.0, rake=300.0), window("w1", "south", 2400.0))


def drawn(project: Project, view: str = SOUTH, scale: float = 50.0) -> Drawing:
    return draw_view(resolve(project), project, view, scale)


def word(drawing: Drawing, key: str) -> Text:
    (found,) = [mark for mark in drawing.marks if isinstance(mark, Text) and mark.annotation == key]
    return found


def keys(drawing: Drawing) -> set[str]:
    return {mark.annotation for mark in drawing.marks if mark.annotation}


def moved(project: Project, key: str, **facts: Any) -> Project:
    return apply_edits(project, (SetAnnotation(view=SOUTH, annotation=Annotation(key=key, **facts)),))


# --- what a view says by itself -----------------------------------------------------------------------


def lettering(drawing: Drawing) -> list[tuple[str, shapely.Geometry]]:
    """The paper that each text takes. A mono letter is 0.6 of the font size wide, others less on average; capitals are
    0.698 of it high (the metrics of the fonts that ship)."""
    found = []
    for mark in explode(drawing).marks:
        if isinstance(mark, Text) and mark.text:
            high = mark.size * drawing.scale
            wide = len(mark.text) * high * (0.6 if mark.face == "mono" else 0.5) / 0.698
            x = mark.x - {"left": 0.0, "centre": wide / 2, "right": wide}[mark.align]
            y = mark.y - {"bottom": 0.0, "middle": high / 2, "top": high}[mark.valign]
            box = shapely.box(x, y, x + wide, y + high)
            found.append((mark.text, rotate(box, mark.angle, origin=(mark.x, mark.y))))
    return found


@pytest.mark.parametrize("make", DEMOS)
@pytest.mark.parametrize("side", ["south", "east", "north", "west"])
def test_no_lettering_lies_on_other_lettering(make: Callable[[], Project], side: str) -> None:
    """At the scale that the house is printed at, and at half of it."""
    project = make()
    building = resolve(project)
    for scale in (project.scale, 2 * project.scale):
        held = lettering(draw_view(building, project, f"elevation:{side}", scale))
        assert len(held) > 8
        for k, (text, box) in enumerate(held):
            for other, taken in held[k + 1 :]:
                shared = box.intersection(taken).area
                assert shared < 0.04 * min(box.area, taken.area), (scale, text, other)


def test_the_widths_under_an_elevation_are_those_of_the_walls() -> None:
    """By hand: the frame is 8000 wide, its skin 8 + 10 + 20 (or what the make-up says) outside of it; rakes reach 300
    past the frame's outside, less the skin that stands under them."""
    project = windowed()
    building = resolve(project)
    skin = next(wall.outer for wall in building.plan.walls if wall.wall.id == "west")
    dims = {mark.annotation: mark for mark in drawn(project).marks if isinstance(mark, Dimension)}
    overall = dims["width:overall"]
    assert (overall.x1, overall.x2) == near((0.0, 8000.0), abs=2 * skin + 0.01)
    assert overall.text == f"{round(overall.x2 - overall.x1)}"
    left = dims["width:left"]
    # The overhang as it was stated, from the outside of the sheathing; the overall from frame to frame.
    assert left.text == "300" and left.x2 - left.x1 == near(300.0) and 0.0 < overall.x1 - left.x2 < 20.0
    at_30 = put(project, ElevationView(id="e", name="At 30", look=120.0))
    assert "width:overall" not in keys(drawn(at_30, "elevation:e")), "none where every width is foreshortened"


@pytest.mark.parametrize(
    ("make", "hand"),
    [
        # 12 to the floor, 97 1/8 of a pre-cut stud with three plates; 9 1/4 rafters at 8:12 measured plumb, less the
        # 3 1/2 seat x 8/12, 13 ft of run x 8/12, and the deck and shingles plumb.
        (
            quillback_house,
            {
                "Plate": 109.125,
                # Windows and doors end 6 ft 10 over the floor; the eave lies 16 1/2 out of the bearing line.
                "Head of openings": 12 + 82,
                "Eave, Main roof": 109.125 + math.hypot(1, 8 / 12) * 9.25 - 3.5 * 8 / 12 - 16.5 * 8 / 12,
                "Ridge, Main roof": 109.125 + math.hypot(1, 8 / 12) * (9.25 + 1.03937) - 3.5 * 8 / 12 + 104,
            },
        ),
        # 10 of foundation, 1 1/2, 9 1/4, 3/4; 97 1/8; the floor again; 97 1/8; 12 ft of run.
        (
            otterfold_house,
            {
                "Upper plate": 10 + 11.5 + 97.125 + 10 + 97.125,
                "Ridge, Main roof": 225.75 + math.hypot(1, 8 / 12) * (9.25 + 1.03937) - 3.5 * 8 / 12 + 96,
            },
        ),
        # 150 to the floor, eleven courses of 225, one of 75, a 75 plate; 175 rafters at 30 degrees, a 60 seat, 3500 of
        # run, and 60.5 of battens and tiles.
        (
            fernacre_bungalow,
            {
                "Plate": 150 + 11 * 225 + 75 + 75,
                "Ridge, Main roof": 2775 + (175 + 60.5) / math.cos(math.radians(30))
                + (3500 - 60) * math.tan(math.radians(30)),
            },
        ),
    ],
)  # fmt: skip
def test_level_marks_stand_at_heights_worked_by_hand(make: Callable[[], Project], hand: dict[str, float]) -> None:
    """Within a tenth of a millimetre, on every side that shows them."""
    project = make()
    unit = 25.4 if project.units == "ft-in" else 1.0
    for side in ("south", "north"):
        marks = [mark for mark in drawn(project, f"elevation:{side}").marks if isinstance(mark, Symbol)]
        shown = {mark.texts[0]: mark.y for mark in marks if mark.kind == "level"}
        assert {name: shown[name] for name in hand} == near({name: z * unit for name, z in hand.items()}, abs=0.1)


# --- what drafters change -----------------------------------------------------------------------------


def test_a_moved_number_follows_its_window() -> None:
    """Moved by 10 and -4 mm on paper at 1:50, that is 500 and -200; when its window moves by 600, so does it."""
    project = windowed()
    before = word(drawn(project), "number:w1")
    away = moved(project, "number:w1", dx=10.0, dy=-4.0)
    after = word(drawn(away), "number:w1")
    assert (after.x - before.x, after.y - before.y) == near((500.0, -200.0))
    along = apply_edits(away, (MoveOpening(opening="w1", distance=3000.0),))
    later = word(drawn(along), "number:w1")
    assert (later.x - after.x, later.y - after.y) == near((600.0, 0.0))
    back = moved(away, "number:w1")
    assert word(drawn(back), "number:w1") == before and back.shows[0].annotations == ()


def test_a_word_away_from_what_it_speaks_of_is_led_back_to_it() -> None:
    project = windowed()
    building = resolve(project)
    clad = next(
        face for face in drawn(project).marks if isinstance(face, Region) and "south/cladding" in (face.part or "")
    )
    wall = shapely.Polygon([point[:2] for point in clad.rings[0]])
    away = draw_view(building, moved(project, "material:lap_board", dy=-80.0), SOUTH, 50.0)
    (leader,) = [m for m in away.marks if isinstance(m, Stroke) and m.annotation == "material:lap_board"]
    assert wall.buffer(1.0).contains(shapely.Point(leader.path[-1][:2]))
    assert not [m for m in drawn(project).marks if isinstance(m, Stroke) and m.feature == "leader"]


def test_others_make_way_for_a_word_that_was_moved() -> None:
    """The number goes where the name of the material stands by itself: the name stands elsewhere then."""
    project = windowed()
    name, number = word(drawn(project), "material:lap_board"), word(drawn(project), "number:w1")
    put_there = moved(project, "number:w1", dx=(name.x - number.x) / 50, dy=(name.y - number.y) / 50)
    other = word(drawn(put_there), "material:lap_board")
    assert (other.x, other.y) != (name.x, name.y)
    assert word(drawn(put_there), "number:w1").x == near(name.x)


def test_lettering_is_rewritten_and_hidden() -> None:
    project = moved(windowed(), "material:lap_board", text="Cedar, oiled")
    assert word(drawn(project), "material:lap_board").text == "Cedar, oiled"
    gone = moved(project, "level:level:plate", hidden=True)
    assert "level:level:plate" in keys(drawn(project)) and "level:level:plate" not in keys(drawn(gone))
    assert "level:level:floor" in keys(drawn(gone))
    other = draw_view(resolve(gone), gone, "elevation:north", 50.0)
    assert "level:level:plate" in keys(other), "other views keep it"


def test_dimensions_and_level_marks_move_as_they_can() -> None:
    """A dimension by how far its line stands off and its text along it; a level mark keeps its height."""
    project = windowed()
    before = drawn(project)
    after = drawn(moved(moved(project, "height:overall", dx=-5.0, dy=3.0), "level:level:plate", dx=4.0, dy=2.0))

    def pick(drawing: Drawing, key: str, kind: type) -> Any:
        return next(mark for mark in drawing.marks if mark.annotation == key and isinstance(mark, kind))

    old, new = (pick(d, "height:overall", Dimension) for d in (before, after))
    assert (new.offset - old.offset, new.aside) == near((5.0, 3.0)) and new.text == old.text
    was, now = (pick(d, "level:level:plate", Symbol) for d in (before, after))
    assert (now.x - was.x, now.y) == near((200.0, was.y)) and now.values[1] - was.values[1] == near(2.0)


def test_what_is_removed_takes_its_annotations_along() -> None:
    project = moved(windowed(), "number:w1", dx=3.0)
    assert apply_edits(project, (Remove(elements=("w1",)),)).shows[0].annotations == ()


def test_an_annotation_without_a_key_is_refused() -> None:
    with pytest.raises(ValueError, match="key"):
        Annotation(key="")


def test_a_note_is_moved_and_hidden_with_its_kind() -> None:
    project = windowed()
    note = Note(id="note-1", view=SOUTH, text="New gutter", anchor=PartAnchor.on("w1/frame//head"))
    project = apply_edits(project, (PutNote(note=note),))
    texts = [mark.text for mark in drawn(project).marks if isinstance(mark, Text)]
    assert "New gutter" in texts
    quiet = put(project, ViewShow(id="s", view=SOUTH, kinds=("notes", "numbers")))
    texts = [mark.text for mark in drawn(quiet).marks if isinstance(mark, Text)]
    assert "New gutter" not in texts and "number:w1" not in keys(drawn(quiet))


# --- kinds, keys, and the same for other views --------------------------------------------------------


def roles(drawing: Drawing) -> set[str]:
    return {
        mark.part.split("/")[1]
        for mark in drawing.marks
        if isinstance(mark, Region) and mark.feature == "face" and mark.part
    }


def test_kinds_of_parts_are_left_out() -> None:
    project = wrenfold_house()
    whole = roles(drawn(project))
    assert {"gutter", "roofing", "cladding", "frame", "downpipe", "chimney"} <= whole
    show = ViewShow(id="s", view=SOUTH, kinds=("gutters", "roofs", "on_roofs"))
    some = roles(drawn(put(project, show)))
    assert not some & {"gutter", "downpipe", "roofing", "chimney"} and {"cladding", "frame"} <= some
    alone = roles(drawn(put(project, ViewShow(id="s", view=SOUTH, alone=("roof-main",)))))
    assert "roofing" in alone and not alone & {"cladding", "frame", "chimney"}


def test_keys_of_materials_stand_in_a_legend_once_each() -> None:
    project = put(wrenfold_house(), ViewShow(id="s", view=SOUTH, materials="keys"))
    texts = [mark for mark in drawn(project).marks if isinstance(mark, Text)]
    on = {mark.text: mark.annotation for mark in texts if (mark.annotation or "").startswith("material:")}
    rows = [mark for mark in texts if (mark.annotation or "").startswith("legend:")]
    named = {a.text: b.text for a, b in zip(rows[::2], rows[1::2])}
    assert set(on) == {"1", "2", "3"} == set(named)
    assert sorted(named.values()) == ["Asphalt shingles", "Lap boards", "Modular brick"]
    assert all((on[key] or "")[9:] == (row.annotation or "")[7:] for key, row in zip(named, rows[::2]))


def test_walls_unfolded_share_the_keys_of_their_materials() -> None:
    """One number for a material, whichever wall names it; and shade falls on each as on a view of its own."""
    house = wrenfold_house()
    walls = tuple(wall.id for wall in house.walls if wall.status == "outer")[:3]
    view = ElevationView(id="u", name="Unfolded", look=90.0, walls=walls)
    plain = drawn(put(house, view), "elevation:u")
    shown = drawn(put(house, view, ViewShow(id="s", view="elevation:u", materials="keys", shade=True)), "elevation:u")
    named = {m.annotation: m.text for m in plain.marks if isinstance(m, Text) and "material:" in (m.annotation or "")}
    keyed = {m.annotation: m.text for m in shown.marks if isinstance(m, Text) and "material:" in (m.annotation or "")}
    rows = [m.text for m in shown.marks if isinstance(m, Text) and (m.annotation or "").startswith("legend:")]
    legend = dict(zip(rows[::2], rows[1::2]))
    assert len(named) >= 2 and {key: legend[keyed[key]] for key in named} == named
    shaded = [mark for mark in shown.marks if isinstance(mark, Region) and mark.feature == "shade"]
    assert shaded and not any(getattr(mark, "feature", None) == "shade" for mark in plain.marks)
    hatch = {shown.hatches[mark.hatch].name for mark in shaded if mark.hatch is not None}
    assert hatch == {"shade"}, "each wall's hatches keep their own patterns"


def test_small_heights_stand_between_the_string_and_the_overall() -> None:
    """Figures that do not fit their stretches stand in two columns; the overall line is clear of both, at any scale."""
    for make in DEMOS:
        project = make()
        for scale in (project.scale, 2 * project.scale):
            marks = drawn(project, SOUTH, scale).marks
            heights = [m for m in marks if isinstance(m, Dimension) and m.feature == "height"]
            overall = next((m for m in heights if m.annotation == "height:overall"), None)
            if overall is not None:
                # A figure is 2.5 high, 1 off its line.
                reach = max(m.offset + m.raised + 3.5 for m in heights if m is not overall)
                assert overall.offset > reach + 1.0, (project.name, scale)


def test_a_pitch_mark_stands_clear_of_a_roof_behind_it() -> None:
    """The wing of the bungalow is lower than its main roof: on the north its triangle stands over both."""
    drawing = drawn(fernacre_bungalow(), "elevation:north", 125.0)
    (mark,) = [mark for mark in drawing.marks if isinstance(mark, Symbol) and mark.kind == "pitch"]
    side = mark.values[1]
    behind = [
        shapely.Polygon([(x, y) for x, y, _ in face.rings[0]])
        for face in drawing.marks
        if isinstance(face, Region) and face.feature == "face"
    ]
    ends = sorted((mark.x, mark.x + side * 9.0 * 125.0))
    triangle = shapely.box(ends[0], mark.y, ends[1], mark.y + 9.0 * 125.0 * mark.values[0])
    assert not any(triangle.intersects(face) for face in behind)


def test_other_views_are_shown_alike() -> None:
    """All but the annotations, which are those of the view itself."""
    project = moved(wrenfold_house(), "number:w1", dx=3.0)
    project = put(project, changed(project.shows[0], kinds=("gutters",), shade=True))
    alike = apply_edits(project, (CopyShow(view=SOUTH, to=("elevation:north", "elevation:west")),))
    (south, north, west) = alike.shows
    assert (north.kinds, north.shade, north.annotations) == (("gutters",), True, ())
    assert south == project.shows[0] and west.view == "elevation:west" and len({s.id for s in alike.shows}) == 3
    with pytest.raises((RefusedEdit, ValueError)):
        CopyShow(view=SOUTH, to=())


def test_a_note_goes_with_what_it_speaks_of() -> None:
    """Left out with its window, without a word that it has lost it; there again with it."""
    project = windowed()
    note = Note(id="note-1", view=SOUTH, text="Obscure glass", anchor=PartAnchor.on("w1/frame//"))
    project = put(project, note)
    key = next(part.key for part in resolve(project).parts if part.element == "w1" and part.role == "frame")
    project = put(project, changed(note, anchor=PartAnchor.on(key)))
    assert "Obscure glass" in [mark.text for mark in drawn(project).marks if isinstance(mark, Text)]
    without = drawn(put(project, ViewShow(id="s", view=SOUTH, hidden=("w1",))))
    assert "Obscure glass" not in [mark.text for mark in without.marks if isinstance(mark, Text)]
    assert without.messages == ()
