"""Particulars: the facts of one element as labelled fields, where they come from, and their checks.

One table says, per kind of element, what a field is called, how it reads, and which edit a typed
text becomes. The screen shows it and sends texts back; it knows no label of its own.
"""

from ..rows.rows import Field, Option
from .describe import Check, Particulars, Strip, StripLayer, SumRow, SumTable, describe_element
from .entries import enter, enter_all
from .fields import fields_of
from .ladder import LadderRung, LadderTerm, ladder

__all__ = [
    "Check",
    "Field",
    "LadderRung",
    "LadderTerm",
    "Option",
    "Particulars",
    "Strip",
    "StripLayer",
    "SumRow",
    "SumTable",
    "describe_element",
    "enter",
    "enter_all",
    "fields_of",
    "ladder",
]
