"""A contact that is to be open, closed, and to latch: a device, a switch, a fuse."""

from collections.abc import Iterable
from typing import Annotated, ClassVar, Literal

from pydantic import Field, model_validator
from typing_extensions import override

from evenprobe.deadtests.accuracy import Accuracy
from evenprobe.deadtests.continuity import closed_contact
from evenprobe.deadtests.judgement import Outcome
from evenprobe.deadtests.kinds.entry import LOW_OHM_ACCURACY, Ohms, OneTest
from evenprobe.deadtests.kinds.row import DEAD_TESTS, Choice, DeadTest, Figure
from evenprobe.deadtests.sheet import Line, SheetCircuit, Step
from evenprobe.entries import FieldError, YesNo
from evenprobe.practices import Practice


class ClosedContactTest(OneTest):
    usual: ClassVar[Accuracy] = LOW_OHM_ACCURACY

    kind: Literal["closed-contact"]
    what: Annotated[str, Field(min_length=1, max_length=60)]
    open_over_range: YesNo | None = None
    closed_ohm: Ohms | None = None
    closed_over_range: Literal[True] | None = None
    null_ohm: Ohms | None = None
    latches: YesNo | None = None

    @model_validator(mode="after")
    def _measured(self) -> "ClosedContactTest":
        if self.closed_ohm is not None or self.closed_over_range:
            self._exactly_one("closed_ohm", "closed_over_range")
        elif self.open_over_range is None and self.latches is None:
            raise FieldError("closed_ohm", "is missing; or say open_over_range")
        return self

    @override
    def outcome(self, practice: Practice) -> Outcome:
        closed = None if self.closed_ohm is None else self.accuracy.shows(self.closed_ohm)
        if self.closed_over_range:
            closed = self.accuracy.beyond()
        return closed_contact(self.what, closed, self.null_ohm, self.open_over_range, latches=self.latches)


def _the_device(circuit: SheetCircuit) -> Iterable[Line]:
    """The circuit's own."""
    device = circuit.practice.words["protective device"]
    yield Line("device", Step.DEVICE, "closed-contact", device.capitalize(), {"what": device})


CLOSED_CONTACT = DEAD_TESTS.add(
    DeadTest(
        id="closed-contact",
        rank=4,
        title="Contact",
        entry=ClosedContactTest,
        step=Step.DEVICE,
        lines=_the_device,
        fields=(
            Choice(
                key="open_over_range",
                label="Open, it reads",
                answers=((True, "Over-range, OL", "open: over-range"), (False, "Still joined", "open: still joined")),
            ),
            Figure(
                key="closed_ohm",
                label="Closed, it reads",
                unit="ohm",
                over_range="closed_over_range",
                said="closed {:g} Ω",
            ),
            Choice(key="latches", label="It latches", answers=((True, "Yes", ""), (False, "No", "does not latch"))),
        ),
        known=frozenset({"null_ohm", "accuracy"}),
    )
)
