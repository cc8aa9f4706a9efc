"""Whether a tester is fit for a task, and why not."""

from evenprobe.formats.answers.answer import Answer
from evenprobe.formats.words import CategoryWord
from evenprobe.testers.fitness import Finding, Fitness
from evenprobe.testers.ratings import Rating


class FindingOut(Answer):
    """Something that makes a tester unfit, or is to be known of it: a code and words."""

    code: str
    text: str

    @classmethod
    def of(cls, finding: Finding) -> "FindingOut":
        return cls(code=finding.code, text=finding.text)


class RatingOut(Answer):
    """A category and the volts that go with it."""

    category: CategoryWord | None
    voltage: float | None

    @classmethod
    def of(cls, rating: Rating) -> "RatingOut":
        return cls(category=rating.category.name if rating.category else None, voltage=rating.volts)


class LinkOut(Answer):
    """A part of what is held. `weakest`: it brings the whole down to what it is."""

    name: str
    category: CategoryWord | None
    voltage: float | None
    weakest: bool


class FitnessOut(Answer):
    """What `fit` answers. `chain`: tester, leads and adapters, with `effective` what they come to together."""

    fit: bool
    effective: RatingOut
    problems: list[FindingOut]
    warnings: list[FindingOut]
    chain: list[LinkOut]

    @classmethod
    def of(cls, found: Fitness) -> "FitnessOut":
        return cls(
            fit=found.fit,
            effective=RatingOut.of(found.effective),
            problems=[FindingOut.of(finding) for finding in found.problems],
            warnings=[FindingOut.of(finding) for finding in found.warnings],
            chain=[
                LinkOut(name=link.name, weakest=link.weakest, **dict(RatingOut.of(link.rating))) for link in found.chain
            ],
        )
