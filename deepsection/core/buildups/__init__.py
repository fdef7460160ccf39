"""Build-ups: what is built at junctions, as pieces that are made for the views whose scale shows them."""

from .changing import Wanted, has_parameter, set_build_ups, typed
from .choosing import Built, built_fact, built_of
from .making import fixings_at, made_of, note_of, with_pieces

__all__ = [
    "Built",
    "Wanted",
    "built_fact",
    "built_of",
    "fixings_at",
    "has_parameter",
    "made_of",
    "note_of",
    "set_build_ups",
    "typed",
    "with_pieces",
]
