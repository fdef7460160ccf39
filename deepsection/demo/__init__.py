"""The shipped demo projects: invented houses, invented places."""

from .fernacre import fernacre_bungalow
from .quillback import quillback_house

DEMOS = (quillback_house, fernacre_bungalow)

__all__ = ["DEMOS", "fernacre_bungalow", "quillback_house"]
