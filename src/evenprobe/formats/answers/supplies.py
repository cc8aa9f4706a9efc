"""Which supply an outlet's readings can be all right on."""

from collections.abc import Iterable

from evenprobe.formats.answers.answer import Answer
from evenprobe.formats.answers.interpretation import ReasonOut
from evenprobe.formats.words import EarthingWord, SystemWord
from evenprobe.interpretation import SupplyGuess
from evenprobe.practices import Practice
from evenprobe.rounding import figures


class TitledCondition(Answer):
    id: str
    title: str


class SupplyOut(Answer):
    """`likelihood` sums to 1 over those that fit. `reasons`: the reading that excludes it most plainly."""

    system: SystemWord
    title: str
    earthing: EarthingWord
    fits: bool
    likelihood: float
    conditions: list[TitledCondition]
    reasons: list[ReasonOut]

    @classmethod
    def of(cls, guess: SupplyGuess, practice: Practice) -> "SupplyOut":
        return cls(
            system=guess.system.id,
            title=guess.system.title,
            earthing=str(guess.earthing),
            fits=guess.fits,
            likelihood=figures(guess.likelihood),
            conditions=[TitledCondition(id=c.id, title=c.title_in(practice)) for c in guess.conditions],
            reasons=[ReasonOut.of(guess.reason)] if guess.reason else [],
        )


class PointSupplies(Answer):
    id: str
    supplies: list[SupplyOut]


class SuppliesOut(Answer):
    """What `identify` answers: every point, with its supplies the likeliest first."""

    points: list[PointSupplies]

    @classmethod
    def of(cls, points: Iterable[tuple[str, Iterable[SupplyGuess]]], practice: Practice) -> "SuppliesOut":
        return cls(
            points=[
                PointSupplies(id=name, supplies=[SupplyOut.of(guess, practice) for guess in guesses])
                for name, guesses in points
            ]
        )
