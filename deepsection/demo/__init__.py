"""The shipped demo projects: invented houses, invented places."""

from .fernacre import fernacre_bungalow
from .hollin import hollin_bothy
from .larkmoor import larkmoor_house
from .otterfold import otterfold_house
from .quillback import quillback_house
from .tansy import tansy_lodge
from .wrenfold import wrenfold_house

DEMOS = (
    quillback_house,
    fernacre_bungalow,
    otterfold_house,
    tansy_lodge,
    hollin_bothy,
    wrenfold_house,
    larkmoor_house,
)

__all__ = [
    "DEMOS",
    "fernacre_bungalow",
    "hollin_bothy",
    "larkmoor_house",
    "otterfold_house",
    "quillback_house",
    "tansy_lodge",
    "wrenfold_house",
]
