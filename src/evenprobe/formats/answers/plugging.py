"""Whether something may be plugged in, check by check, and the reading that decides where it is not known yet."""

from typing import Annotated

from pydantic import Field

from evenprobe.entries.documented import Among
from evenprobe.formats.answers.answer import Answer
from evenprobe.formats.answers.interpretation import CircumstanceOut
from evenprobe.formats.answers.limits import LimitOut
from evenprobe.formats.words import QuantityWord
from evenprobe.plugging import PlugIn
from evenprobe.plugging.answer import Answer as PlugInAnswer
from evenprobe.plugging.check import Check, Result
from evenprobe.quantities import Measurement


class TakeOut(Answer):
    """A reading to take."""

    quantity: QuantityWord
    from_: str | None = Field(alias="from")
    to: str | None
    circumstance: CircumstanceOut

    @classmethod
    def of(cls, m: Measurement) -> "TakeOut":
        return cls(
            quantity=str(m.quantity),
            from_=m.from_ and str(m.from_),
            to=m.to and str(m.to),
            circumstance=CircumstanceOut.of(m),
        )


class NeedOut(Answer):
    """One check."""

    id: str
    title: str
    result: Annotated[str, Among(Result)]
    text: str
    limit: LimitOut | None

    @classmethod
    def of(cls, check: Check) -> "NeedOut":
        return cls(
            id=check.id,
            title=check.title,
            result=str(check.result),
            text=check.text,
            limit=None if check.limit is None else LimitOut.of(check.limit),
        )


class MayPlugIn(Answer):
    """`answer`: plug-in, one-more or do-not."""

    answer: Annotated[str, Among(PlugInAnswer)]
    says: str
    take: TakeOut | None
    checks: list[NeedOut]

    @classmethod
    def of(cls, found: PlugIn) -> "MayPlugIn":
        return cls(
            answer=str(found.answer),
            says=found.says,
            take=TakeOut.of(found.take) if found.take else None,
            checks=[NeedOut.of(check) for check in found.checks],
        )
