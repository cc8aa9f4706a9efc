"""The forms of the dead tests, as a front end shows them: what each asks for, field by field."""

from typing import Literal

from pydantic import BaseModel

from evenprobe.deadtests.kinds import Choice, DeadTest, FormField, Pairs
from evenprobe.formats.words import DeadTestWord
from evenprobe.testers.purposes import Purpose


class FieldAnswerRow(BaseModel):
    value: bool | float
    label: str


class FieldRow(BaseModel):
    """A field of the form of a dead test: a figure, a choice of a few answers, or pairs of figures.

    Of a figure: `units` a display may show it in, the keys that say `over_range` or `at_least` a number instead, and
    whether it is `printed` on the part. Of a choice: its `answers`, and whether the line knows which it is, `preset`.
    Of pairs: what each is of, and how many `rows`.
    """

    entered: Literal["figure", "choice", "pairs"]
    key: str
    label: str = ""
    unit: str = ""
    units: list[str] = []
    over_range: str = ""
    at_least: str = ""
    printed: bool = False
    answers: list[FieldAnswerRow] = []
    preset: bool = False
    labels: list[str] = []
    rows: int = 0

    @classmethod
    def of(cls, field: FormField) -> "FieldRow":
        match field:
            case Choice(key=key, label=label, answers=answers, preset=preset):
                rows = [FieldAnswerRow(value=value, label=picked) for value, picked, _ in answers]
                return cls(entered="choice", key=key, label=label, answers=rows, preset=preset)
            case Pairs(key=key, labels=labels, unit=unit, rows=count):
                return cls(entered="pairs", key=key, labels=list(labels), unit=unit, rows=count)
            case figure:
                return cls(
                    entered="figure",
                    key=figure.key,
                    label=figure.label,
                    unit=figure.unit,
                    units=list(figure.units),
                    over_range=figure.over_range,
                    at_least=figure.at_least,
                    printed=figure.printed,
                )


class DeadTestRow(BaseModel):
    """A kind of dead test. `use`: what a tester is taken for that makes it, `ohms` or `insulation`."""

    id: DeadTestWord
    title: str
    use: Literal["ohms", "insulation"]
    fields: list[FieldRow]

    @classmethod
    def of(cls, kind: DeadTest) -> "DeadTestRow":
        return cls(
            id=kind.id,
            title=kind.title,
            use="insulation" if kind.purpose is Purpose.INSULATION else "ohms",
            fields=[FieldRow.of(field) for field in kind.fields],
        )
