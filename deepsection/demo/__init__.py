"""The shipped demo projects: invented houses, invented places."""

from .quillback import quillback_house

DEMOS = (quillback_house,)

__all__ = ["DEMOS", "quillback_house"]
