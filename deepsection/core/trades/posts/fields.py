"""Fields of posts and beams."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...catalog import materials, usual
from ...document.ids import free_ids
from ...edits import AddRail, PutBeam, PutPost, changed
from ...model import Beam, BeamEnd, Pad, Post, Project
from ...rows.rows import Row, action_row, choice_row, length_row, level_options, number_row, under

OF_POSTS = ("softwood", "concrete", "block", "block_modular", "steel", "stone")


def materials_of_posts() -> list[tuple[str, str]]:
    """What posts, beams, steps and rails can be made of."""
    return [(held.id, held.name) for held in materials().values() if held.id in OF_POSTS]


def post_fields(project: Project, post: Post) -> list[Row]:
    """Place, shape, sizes and heights of a post."""
    units = project.units

    def put(**changes: Any) -> Sequence[Any]:
        return [PutPost(post=changed(post, **changes))]

    rows = [
        choice_row("shape", "Shape", post.shape, [("square", "square"), ("round", "round")], lambda t: put(shape=t)),
        length_row(
            "width",
            "Diameter" if post.shape == "round" else "Width",
            post.width,
            units,
            lambda v: put(width=v),
            least=0.0,
        ),
    ]
    if post.shape == "square":
        turns = sorted({0.0, 30.0, 45.0, 60.0, post.turn})
        rows += [
            length_row("depth", "Depth", post.depth or post.width, units, lambda v: put(depth=v), least=0.0),
            choice_row(
                "turn",
                "Turned by",
                f"{post.turn:g}",
                [(f"{a:g}", f"{a:g}°") for a in turns],
                lambda t: put(turn=float(t)),
            ),
        ]
    return [
        *rows,
        choice_row("material", "Material", post.material, materials_of_posts(), lambda t: put(material=t)),
        length_row("x", "From the origin, east", post.x, units, lambda v: put(x=v)),
        length_row("y", "From the origin, north", post.y, units, lambda v: put(y=v)),
        choice_row(
            "base",
            "Stands on",
            post.base.level,
            level_options(project),
            lambda t: put(base=changed(post.base, level=t)),
        ),
        length_row(
            "base_offset", "Foot above that", post.base.offset, units, lambda v: put(base=changed(post.base, offset=v))
        ),
        choice_row(
            "top_level",
            "Goes up to",
            post.top.level,
            level_options(project),
            lambda t: put(top=changed(post.top, level=t)),
        ),
        length_row("top_offset", "Above that", post.top.offset, units, lambda v: put(top=changed(post.top, offset=v))),
        *under("Pad", _pad_fields(project, post)),
    ]


def _pad_fields(project: Project, post: Post) -> list[Row]:
    """The pad of a post: one or none, its width and thickness."""
    units = project.units
    usual_pad = Pad(width=usual("pad_width", units), thickness=usual("pad_thickness", units))

    def put(pad: Pad | None) -> Sequence[Any]:
        return [PutPost(post=changed(post, pad=pad))]

    on = choice_row(
        "pad",
        "Under its foot",
        "pad" if post.pad else "none",
        [("none", "nothing"), ("pad", "a pad")],
        lambda t: put(usual_pad if t == "pad" else None),
    )
    if (pad := post.pad) is None:
        return [on]
    return [
        on,
        length_row("pad_width", "Width", pad.width, units, lambda v: put(changed(pad, width=v)), least=0.0),
        length_row(
            "pad_thickness", "Thickness", pad.thickness, units, lambda v: put(changed(pad, thickness=v)), least=0.0
        ),
    ]


def beam_fields(project: Project, beam: Beam) -> list[Row]:
    """Sizes, level and ends of a beam."""
    units = project.units

    def put(**changes: Any) -> Sequence[Any]:
        return [PutBeam(beam=changed(beam, **changes))]

    def past(which: str, end: BeamEnd) -> Row:
        return length_row(
            f"{which}_past", f"Past its {which}", end.past, units, lambda v: put(**{which: changed(end, past=v)})
        )

    return [
        length_row("width", "Width", beam.width, units, lambda v: put(width=v), least=0.0),
        length_row("depth", "Depth", beam.depth, units, lambda v: put(depth=v), least=0.0),
        number_row("plies", "Plies", beam.plies, lambda n: put(plies=n)),
        choice_row("material", "Material", beam.material, materials_of_posts(), lambda t: put(material=t)),
        choice_row(
            "top_level",
            "Its top at",
            beam.top.level,
            level_options(project),
            lambda t: put(top=changed(beam.top, level=t)),
        ),
        length_row("top_offset", "Above that", beam.top.offset, units, lambda v: put(top=changed(beam.top, offset=v))),
        past("start", beam.start),
        past("end", beam.end),
        action_row("rail", "A rail under it", [AddRail(beam=beam.id, id=next(free_ids(project, "rail")))]),
    ]
