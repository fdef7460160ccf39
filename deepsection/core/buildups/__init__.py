"""Build-ups: what is built at junctions, as pieces that are made for the views whose scale shows them."""

from .changing import Wanted, set_build_ups
from .choosing import Built, built_fact, built_of
from .making import fixings_at, made_of, note_of, with_pieces

__all__ = [
    "Built",
    "Wanted",
    "built_fact",
    "built_of",
    "fixings_at",
    "made_of",
    "note_of",
    "set_build_ups",
    "with_pieces",
]
