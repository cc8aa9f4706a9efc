"""A guided hunt's texts in the practice's words: its letters on contacts, its names for what it speaks of."""

from dataclasses import replace

from evenprobe.practices import Practice
from evenprobe.sentences import Sentence


def in_words(practice: Practice, text: str) -> str:
    """A text of a step or an ending. `{L}`, `{N}` and `{PE}` are letters on contacts."""
    return text.format(**practice.named, **practice.letters)


def said_in(practice: Practice, sentence: Sentence) -> str:
    """A sentence of what chose the way, its pair by the practice's letters and its outcome in its words."""
    about = dict(sentence.about)
    if "pair" in about:
        about["pair"] = practice.between(*about["pair"].split("-"), word="to")
    for key in ("outcome", "step", "now"):
        if key in about:
            about[key] = in_words(practice, about[key]) if isinstance(about[key], str) else about[key]
    about = practice.named | about
    return str(replace(sentence, about=tuple(about.items())))
