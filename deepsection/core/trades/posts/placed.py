"""Posts and beams in place."""

from __future__ import annotations

from dataclasses import dataclass

from shapely.geometry import Polygon

from ...building.placed import Key
from ...geometry import Point
from ...memo import hashed_once
from ...units import HeightSum
from .model import Beam, Post


@hashed_once
@dataclass(frozen=True)
class PlacedPost:
    """A post in plan, with its foot and top."""

    post: Post
    outline: Polygon
    foot: HeightSum
    top: HeightSum


@hashed_once
@dataclass(frozen=True)
class PlacedBeam:
    """A beam in plan, with its ends and its top."""

    beam: Beam
    outline: Polygon
    start: Point
    end: Point
    top: HeightSum


POSTS: Key[tuple[PlacedPost, ...]] = Key("posts")


BEAMS: Key[tuple[PlacedBeam, ...]] = Key("beams")
