"""What a tester can tell at a point as it stands, and what it never can; worst first."""

from evenprobe.conditions import Condition
from evenprobe.formats.answers.answer import Answer
from evenprobe.interpretation import Capabilities
from evenprobe.practices import Practice
from evenprobe.testers import Kind


class SeenOut(Answer):
    id: str
    title: str
    severity: str

    @classmethod
    def of(cls, condition: Condition, practice: Practice) -> "SeenOut":
        title = condition.title_in(practice)
        return cls(id=condition.id, title=title, severity=condition.severity.label)


class CapabilitiesOut(Answer):
    """Of what still stands what a tester can strike out here and what not; `says` and `blind_to` of its kind."""

    can: list[SeenOut]
    cannot: list[SeenOut]
    says: str
    blind_to: list[str]

    @classmethod
    def of(cls, found: Capabilities, kind: Kind, practice: Practice) -> "CapabilitiesOut":
        return cls(
            can=[SeenOut.of(condition, practice) for condition in found.can],
            cannot=[SeenOut.of(condition, practice) for condition in found.cannot],
            says=kind.says,
            blind_to=list(kind.blind_to),
        )
