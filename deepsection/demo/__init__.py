"""The shipped demo projects: invented houses, invented places."""

from .fernacre import fernacre_bungalow
from .hollin import hollin_bothy
from .otterfold import otterfold_house
from .quillback import quillback_house
from .tansy import tansy_lodge

DEMOS = (quillback_house, fernacre_bungalow, otterfold_house, tansy_lodge, hollin_bothy)

__all__ = ["DEMOS", "fernacre_bungalow", "hollin_bothy", "otterfold_house", "quillback_house", "tansy_lodge"]
