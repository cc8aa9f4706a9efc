"""Whether something may be plugged in, check by check, and the reading that decides where it is not known yet."""

from pydantic import Field

from evenprobe.formats.answers.answer import Answer
from evenprobe.formats.answers.interpretation import CircumstanceOut
from evenprobe.formats.answers.limits import LimitOut
from evenprobe.plugging import PlugIn
from evenprobe.plugging.check import Check
from evenprobe.quantities import Measurement


class TakeOut(Answer):
    """A reading to take."""

    quantity: str
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
    result: str
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

    answer: str
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
