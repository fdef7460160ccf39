"""What elements are called in messages, titles and the history: plain words, with the right article."""

from __future__ import annotations

import difflib
from collections.abc import Iterable, Sequence
from typing import Any

from .declaring import About


def noun_of(kind: type) -> str:
    """The noun for elements of a kind.

    >>> from deepsection.core.model import RoofBlock
    >>> noun_of(RoofBlock)
    'roof'
    """
    about = getattr(kind, "about", None)
    return about.noun if isinstance(about, About) else "project"


def with_article(noun: str) -> str:
    """A noun with its article.

    >>> with_article("opening"), with_article("roof")
    ('an opening', 'a roof')
    """
    return f"{'an' if noun[0] in 'aeiou' else 'a'} {noun}"


def counted(count: int, noun: str, plural: str) -> str:
    """So many of a thing.

    >>> counted(2, "wall", "walls"), counted(1, "wall", "walls")
    ('2 walls', 'a wall')
    """
    return with_article(noun) if count == 1 else f"{count} {plural}"


def called(element: Any, number: str | None = None) -> str:
    """What an element is called: its number or name, or what it is."""
    if number:
        return number
    name = getattr(element, "name", None)
    noun = noun_of(type(element))
    return f"{noun} {name}" if name and len(str(name)) < 3 else str(name or with_article(noun))


def all_called(elements: Iterable[Any]) -> str:
    """Several elements by kind and number: `3 walls and a note`."""
    counts: dict[tuple[str, str], int] = {}
    for element in elements:
        words = (element.about.noun, element.about.plural)
        counts[words] = counts.get(words, 0) + 1
    return listed([counted(count, *words) for words, count in counts.items()])


def listed(words: Sequence[str]) -> str:
    """Words in a row.

    >>> listed(["width"]), listed(["x", "y", "z"])
    ('width', 'x, y and z')
    """
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} and {words[-1]}"


def nearest(word: str, known: Iterable[str]) -> str | None:
    """The known word that is meant by a misspelt one.

    >>> nearest("put_rof", ["put_roof", "put_wall"])
    'put_roof'
    """
    return next(iter(difflib.get_close_matches(word, list(known), n=1, cutoff=0.6)), None)
