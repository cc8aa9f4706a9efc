"""Sentences apart from what says them: a key with what is filled in, and a table of the words in one place a package.

What is found is told by its key and its parameters; how it reads is in the table, for people to go through.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any


@dataclass(frozen=True)
class Sentence:
    """One sentence of a table.

    Parameters
    ----------
    key : str
        What it is in the table.
    words : str
        The table's words, a format string.
    about : tuple of (str, object)
        What is filled in, by name.
    """

    key: str
    words: str
    about: tuple[tuple[str, Any], ...] = ()

    def __str__(self) -> str:
        return self.words.format(**dict(self.about))


class Sentences:
    """A package's table: its words by key.

    Examples
    --------
    >>> doors = Sentences({"open": "{door} is open for {minutes:g} min"})
    >>> str(doors.say("open", door="board W", minutes=5.0))
    'board W is open for 5 min'
    """

    def __init__(self, words: Mapping[str, str]) -> None:
        self.words = dict(words)

    def say(self, key: str, **about: Any) -> Sentence:
        """A sentence with everything it speaks of. Raises KeyError for one that is not in the table."""
        return Sentence(key, self.words[key], tuple(sorted(about.items())))
