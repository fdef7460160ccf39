"""Every check of the building: what it tests, how grave a fault is, and the source of its rule.

A check is made where what it tests is known, and says there the place and the remedy; here they can be read in a row.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Severity = Literal["blocking", "warning"]
PRACTICE = "common practice, no source"
MEMORY = "from memory"


@dataclass(frozen=True, slots=True)
class Check:
    """A rule: `blocking` where what breaks it cannot be built. `source`: none where it is but geometry."""

    code: str
    tests: str
    severity: Severity = "warning"
    source: str | None = None


WALLS = (
    Check("wall-too-short", "a wall is longer than it is thick", "blocking"),
    Check("wall-too-low", "the top of a wall lies above its foot", "blocking"),
    Check("wall-off-plate", "a wall ends near the plate of its storey", source=PRACTICE),
    Check("wall-through-roof", "a wall ends under the eave that it carries"),
    Check("wall-on-air", "a wall stands on a floor, a foundation, the ground or a wall"),
    Check("walls-cross", "walls meet at joints and do not cross", "blocking"),
    Check("arc-too-tight", "the hollow face of an arc does not turn inside out", "blocking"),
    Check("arc-leans", "a wall that leans is straight", "blocking"),
    Check("arc-raked", "a raked wall is straight", "blocking"),
    Check("arc-battered", "a battered wall is straight", "blocking"),
    Check("arc-tapers", "a tapered wall is straight", "blocking"),
    Check("batter-to-nothing", "a battered wall has a thickness at its top", "blocking"),
    Check("frame-tapers", "a tapered wall is solid", "blocking"),
    Check("taper-to-nothing", "a tapered wall has a thickness at its end", "blocking"),
    Check("outline-crosses", "the outline of a wall holds an area", "blocking"),
    Check("outline-layered", "a wall with an outline of its own has one layer", "blocking"),
    Check("outline-shaped", "a wall with an outline of its own is straight and upright", "blocking"),
    Check("moulding-off", "a moulding lies on its wall"),
    Check("room-open", "a room is enclosed by walls"),
    Check("section-misses", "a section line crosses the house"),
    Check("section-step-off", "a section line steps between its ends"),
    Check("section-crosses", "the line of a section does not cross itself"),
    Check("section-in-face", "a section runs clear of the faces of walls along it"),
    Check("section-low", "the top of a section lies above its bottom"),
    Check("wall-section-off", "a wall section lies on its wall"),
    Check("break-over-level", "no break of a wall section leaves out a level"),
)
MAKE_UPS = (
    Check("cladding-inside", "cladding lies outside of sheathing and frame", source=PRACTICE),
    Check("vapour-cold", "vapour control lies on the warm side of all insulation", source=PRACTICE),
    Check("membrane-thick", "a membrane is thin", source=PRACTICE),
    Check("bearing-lost", "the layer that is said to bear is a structure layer"),
    Check("plate-not-bearing", "the wall plate lies on the layer that bears", source=PRACTICE),
    Check("name-contradicts", "the name of a make-up fits its layers", source=PRACTICE),
)
OPENINGS = (
    Check("opening-too-wide", "an opening is narrower than its wall", "blocking"),
    Check("opening-off-wall", "an opening lies within its wall", "blocking"),
    Check("opening-too-high", "the head of an opening lies below the top of its wall", "blocking"),
    Check("openings-overlap", "openings of a wall lie clear of each other", "blocking"),
    Check("arch-too-high", "an arch rises no more than half its width", "blocking"),
    Check("side-lights-too-wide", "there is room between side lights", "blocking"),
    Check("niche-too-deep", "a niche does not go through its wall", "blocking"),
    Check("header-squeezed", "a header has room below the top plates", source=PRACTICE),
    Check("opening-meets-roof", "no roof runs into an opening"),
    Check("door-into-wall", "a door opens clear of walls"),
    Check("doors-meet", "doors open clear of each other"),
    Check("door-at-end", "a door has wall beside it for its jamb", source=PRACTICE),
)
FLOORS = (
    Check("floor-unframed", "the make-up of a joist floor has joists"),
    Check("floor-spans-nothing", "joists span between walls"),
    Check("floor-hangs-out", "all of a floor is carried"),
    Check("floor-rise", "the layers of a floor fill the height between its levels"),
    Check(
        "joist-span", "joists span no farther than they reach", source=f"IRC table R502.3.1(2); NDS; EN 338 ({MEMORY})"
    ),
    Check(
        "ceiling-span",
        "joists of ceilings span no farther than they reach",
        source=f"IRC table R802.5.1(1); NDS; EN 338 ({MEMORY})",
    ),
    Check("slab-span", "suspended slabs span no farther than they reach", source=f"BS 8110-1, table 3.9 ({MEMORY})"),
    Check("edge-bearing", "a framed edge leaves joists a bearing", source=f"IRC R502.6 ({MEMORY})"),
    Check("joist-bearing-short", "joists lie far enough on what bears them", source=f"IRC R502.6 ({MEMORY})"),
    Check("joist-end-free", "joists end on what bears them, or hang on it"),
    Check("beam-misses", "a beam under joists meets them"),
    Check("ceiling-over-nothing", "a ceiling lies over closed walls"),
    Check("deck-inside", "a deck lies beside the house, or in a floor of its kind"),
    Check("set-in-rise", "a floor that is set into another one bears where that one does"),
    Check("set-in-unlike", "a part of a slab is a slab"),
    Check("set-in-over", "a part of a slab lies beside its other parts, its holes and what bears it"),
    Check("set-in-wall", "a wall stands on a floor at its foot"),
    Check("deck-unborne", "joists of a deck lie on two bearings"),
    Check(
        "cantilever-long",
        "joists run past what bears them by a quarter of their span at most",
        source=f"IRC R507.6 ({MEMORY})",
    ),
    Check(
        "floor-overhang",
        "a floor stands out over the wall below by no more than its joists are deep",
        source=f"IRC R502.3.3 ({MEMORY})",
    ),
    Check(
        "guard-missing",
        "a deck high over the ground has rails",
        source=f"IRC R312.1.1; Approved Document K ({MEMORY})",
    ),
    Check("off-foundation", "the layer that bears stands on the foundation wall", source=PRACTICE),
    Check("ground-high", "the ground lies below the top of the foundation"),
    Check("footing-bare", "footings are covered by the ground"),
    Check("foundation-low", "a foundation wall ends above the ground beside it", source=f"IRC R404.1.6 ({MEMORY})"),
    Check("pad-bare", "a pad under a post lies in the ground"),
    Check("step-misses", "a step of a foundation crosses its walls"),
    Check("step-high", "a foundation wall is higher than a step beside it"),
    Check(
        "steps-near",
        "footings overlap at a step",
        source=f"Approved Document A, 2E2 ({MEMORY}); in feet and inches: {PRACTICE}",
    ),
    Check("hatch-off", "a loft hatch lies in the ceiling of a room"),
    Check("hatch-small", "a loft hatch lets somebody through", source=f"IRC R807.1 ({MEMORY})"),
    Check("hatch-ladder", "the ladder of a loft hatch comes down within its room"),
    Check("set-down-off", "a set-down lies within its slab, and over no other one"),
    Check(
        "set-down-deep", "a set-down digs no deeper than the footings around it", source="common practice, no source"
    ),
    Check("wall-on-slab", "a slab is deeper under walls that bear on it", source=PRACTICE),
    Check("pony-low", "pony walls have room for studs", source=PRACTICE),
    Check(
        "rafters-off-studs",
        "under a single top plate rafters stand over studs",
        source=f"IRC R602.3.2, exception ({MEMORY})",
    ),
    Check("pony-thin", "studs of pony walls are as deep as those above", source=f"IRC R602.9 ({MEMORY})"),
)
LOADS = (
    Check(
        "beam-span",
        "a beam reaches from post to post under the floor that it carries",
        source=f"NDS, chapters 3 and 4; EN 338 ({MEMORY})",
    ),
    Check("beam-end-free", "both ends of a beam are carried", "blocking"),
    Check("post-on-joists", "a post stands on what carries it down", source=PRACTICE),
    Check(
        "bearing-offset",
        "a wall that bears across joists stands over what bears them",
        source=f"IRC R502.4 ({MEMORY})",
    ),
)
STAIRS = (
    Check("stair-level", "a stair leads up, to a level that lies near enough"),
    Check(
        "stair-illegal",
        "risers and goings of a stair are legal",
        source=f"IRC R311.7.5; Approved Document K, table 1.1 and 1.4 ({MEMORY})",
    ),
    Check("stair-narrow", "a stair is wide enough", source=f"IRC R311.7.1 ({MEMORY}); 800 mm: {PRACTICE}"),
    Check("stair-flight-high", "there is a landing in time", source=f"IRC R311.7.3 ({MEMORY})"),
    Check(
        "stair-landing",
        "a landing is as long as it must be",
        source=f"IRC R311.7.6; Approved Document K, 1.20 ({MEMORY})",
    ),
    Check("stair-turn", "a stair turns below its head"),
    Check(
        "stair-winders",
        "winders are deep enough",
        source=f"IRC R311.7.5.2.1; Approved Document K, 1.25 ({MEMORY})",
    ),
    Check(
        "stair-gap", "no ball goes between the treads", source=f"IRC R311.7.5.1; Approved Document K, 1.9 ({MEMORY})"
    ),
    Check("stair-throat", "enough is left of a cut string", source=PRACTICE),
    Check(
        "stair-headroom",
        "there is headroom along the nosings",
        source=f"IRC R311.7.2; Approved Document K, 1.11 ({MEMORY})",
    ),
    Check("stair-through-wall", "a stair runs clear of walls"),
    Check("stair-at-window", "a stair runs clear of windows"),
    Check("stair-no-floor", "a stair leads onto a floor"),
    Check("hole-off-floor", "a hole lies within its floor"),
)
ROOFS = (
    Check("roof-outline", "the slopes of a roof close over its outline", "blocking"),
    Check("roof-hidden", "a roof does not lie wholly under another one", "blocking"),
    Check("roof-hole", "roofs that meet leave no hole between them"),
    Check("roof-meets-nothing", "an edge that runs into another roof meets one"),
    Check("roof-too-high", "a roof is lower than the one that it runs into"),
    Check("abutment-without-wall", "an edge that lies against a wall has one there"),
    Check("no-room-for-fascia", "an overhang leaves room for its fascia"),
    Check("fascias-apart", "fascias meet at one height"),
    Check("birdsmouth-too-deep", "a birdsmouth leaves half of the rafter", "blocking", PRACTICE),
    Check(
        "birdsmouth-deep",
        "a birdsmouth takes a quarter of the rafter at most; in masonry a third",
        source=f"IRC R802.7.1 ({MEMORY}); a third: common practice",
    ),
    Check("vault-without-roof", "a vaulted room has a roof over its walls"),
    Check("vault-above-roof", "a vault stays below its rafters"),
    Check("vault-open", "walls beside a vault go up to the roof"),
)
ON_ROOFS = (
    Check("chimney-alone", "a chimney goes through a roof"),
    Check(
        "chimney-low",
        "a chimney ends as far above the roof as the rule of the tradition asks",
        source=f"IRC R1003.9; Approved Document J, diagram 17 ({MEMORY})",
    ),
    Check("chimney-too-low", "a chimney ends above its foot", "blocking"),
    Check("fitting-off-roof", "what goes through a roof stands on one"),
    Check("fitting-off-slope", "what goes through a roof stands on one slope"),
    Check("pipe-low", "a vent pipe ends clear of the roof", source=f"IRC P3103.1.1 ({MEMORY})"),
    Check("on-roof-overlap", "what goes through a roof stands clear of the rest"),
    Check("downpipe-without-eave", "a downpipe hangs at an eave"),
    Check("downpipe-without-gutter", "a downpipe hangs from a gutter"),
)
OUTDOORS = (
    Check("post-too-low", "the top of a post lies above its foot", "blocking"),
    Check("beam-spans-nothing", "a beam has a length", "blocking"),
    Check("steps-without-rise", "steps lead down to ground that lies lower"),
    Check(
        "ramp-steep", "a ramp falls by one in twelve at most", source=f"IRC R311.8.1; Approved Document M ({MEMORY})"
    ),
    Check("too-many-steps", "there are no more than a hundred steps"),
    Check("rail-too-short", "a rail is longer than its posts are thick"),
    Check("rail-too-long", "a rail is no longer than can be drawn"),
    Check("slab-inside", "a porch slab lies beside the house"),
    Check("slab-high", "a porch slab lies below the floor", source=PRACTICE),
    Check("slab-falls-in", "a porch slab falls away from the house", source=PRACTICE),
)
COMMENTS = (Check("comment-open", "comments from outside are settled"),)
BACKGROUNDS = (Check("background-lost", "a background lies under a view that is there"),)
DRAWING = (Check("left-out", "an element, and a view, can be drawn", "blocking"),)
OPENED = (Check("unchecked", "all checks of a house can be worked out"),)

CHECKS = {
    check.code: check
    for group in (
        WALLS,
        MAKE_UPS,
        OPENINGS,
        FLOORS,
        LOADS,
        STAIRS,
        ROOFS,
        ON_ROOFS,
        OUTDOORS,
        COMMENTS,
        BACKGROUNDS,
        DRAWING,
        OPENED,
    )
    for check in group
}
"""Every check by its code."""
