"""What is signed: verdicts, readings, dead tests, proofs and limits as they stood, in the words of that day.

`evidence` holds the same once more as the open formats write it, so that any core can judge it anew.
"""

from datetime import date
from typing import Any, Literal

from evenprobe.entries import Name, Strict, Text, Time, YesNo
from evenprobe.formats.fields import PracticeName
from evenprobe.formats.words import VerdictWord

SignedWhat = Literal["circuit", "site", "visit"]


class SignedReading(Strict):
    """`where`: between which points. `why`: why it does not count, where it does not."""

    id: Name
    where: Text
    seen: Text
    how: Text = ""
    at: Time
    by: Text = ""
    tester: Text = ""
    source: Text = ""
    counts: YesNo
    why: Text = ""


class BesideSigned(Strict):
    """An answer beside the wiring's verdict: whether it insulates, whether its device trips."""

    state: Name
    text: Text = ""


class CouldBe(Strict):
    """What is still possible where a point is not safe."""

    title: Text
    severity: Name
    look_for: Text = ""
    mend: Text = ""


class SignedPhoto(Strict):
    """`on`: what it shows or hangs on, in words."""

    id: Name
    sha256: Name
    on: Text = ""
    taken_at: Time


class SignedPoint(Strict):
    """A point's three answers. `decides`: the reading that would decide, where it is not safe."""

    id: Name
    name: Text
    room: Text = ""
    kind: Name
    terminals: list[Name]
    length_m: float | None = None
    verdict: VerdictWord
    insulation: BesideSigned
    protection: BesideSigned
    summary: Text
    decides: Text = ""
    could_be: list[CouldBe] = []
    readings: list[SignedReading] = []
    photos: list[SignedPhoto] = []


class SignedTest(Strict):
    """A dead test. `limit`: what it was held against, in words; `doubt`: why it could confirm nothing."""

    id: Name
    title: Text
    shown: Text
    result: Name
    text: Text
    limit: Text = ""
    source: Text = ""
    at: Time
    by: Text = ""
    tester: Text = ""
    doubt: Text = ""


class SignedProof(Strict):
    """A proof of isolation. `locks`: names of those put on, with who did."""

    id: Name
    name: Text
    state: Name
    proved_at: Time | None = None
    stated_by: Text = ""
    sources: list[Text] = []
    locks: list[Text] = []


class SignedCircuit(Strict):
    """`verdict`: the worst of its points."""

    id: Name
    name: Text
    board: Text
    supply: Text
    schedule: Text
    verdict: VerdictWord
    points: list[SignedPoint] = []
    dead_tests: list[SignedTest] = []
    proofs: list[SignedProof] = []
    photos: list[SignedPhoto] = []


class SignedTester(Strict):
    """`checked_at`: the last check of that day."""

    id: Name
    label: Text
    kind: Text
    rating: Text = ""
    calibration_due: date | None = None
    checked_at: Time | None = None
    attention: list[Text] = []


class SignedLimit(Strict):
    """`says`: its figures with unit, in words."""

    id: Name
    title: Text
    says: Text
    source: Text


class NotTested(Strict):
    """`what`: circuit and point, or the test, in words."""

    id: Name
    what: Text
    why: Text = ""


class ToDo(Strict):
    """`by_when`: what the verdict of the point asks for, in words."""

    what: Text
    by_when: Text


class SignedOf(Strict):
    """What was signed."""

    what: SignedWhat
    id: Name
    name: Text


class SignedVisit(Strict):
    """`why`: the intake's words."""

    id: Name
    why: Text
    begun_at: Time | None = None
    closed_at: Time | None = None
    people: list[Text] = []
    open: list[Text] = []


class Evidence(Strict):
    """As the open formats write it: a survey, a tests file, isolation logs."""

    survey: dict[str, Any] | None = None
    tests: dict[str, Any] | None = None
    isolations: list[dict[str, Any]] = []


class SignedContent(Strict):
    """`by`: whose session it was; `typed_name`: what was typed to sign. `core`, `program`: versions it was made by."""

    signed_at: Time
    by: Text
    typed_name: Text = ""
    remarks: Text = ""
    crew: Text
    core: Name
    program: Name
    of: SignedOf
    site: Text
    practice: PracticeName
    visit: SignedVisit | None = None
    circuits: list[SignedCircuit]
    not_tested: list[NotTested] = []
    next: list[ToDo] = []
    """What has to be done next, the worst first."""
    testers: list[SignedTester] = []
    limits: list[SignedLimit] = []
    evidence: Evidence = Evidence()

    def points(self) -> list[SignedPoint]:
        """Of all circuits, in order."""
        return [point for circuit in self.circuits for point in circuit.points]
