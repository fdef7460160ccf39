"""Build-ups: what is built at junctions, as pieces that are made for the views whose scale shows them."""

from .choosing import Built, all_built
from .making import fixings_at, made_of, with_pieces

__all__ = ["Built", "all_built", "fixings_at", "made_of", "with_pieces"]
