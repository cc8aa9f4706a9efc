"""The state of a proof of isolation, and the one next thing to do."""

from datetime import datetime
from typing import Annotated, Any, Self

from pydantic import Field, field_serializer

from evenprobe.entries.documented import Among
from evenprobe.formats.answers.answer import Answer, unless_none
from evenprobe.isolation import Isolation
from evenprobe.isolation.log import Mode, SourceKind
from evenprobe.isolation.standing import State, Step, StepKind
from evenprobe.wiring import Terminal


class MissingOut(Answer):
    code: str
    text: str
    source: str | None = unless_none()
    from_: str | None = unless_none("from")
    to: str | None = unless_none()
    mode: Mode | None = unless_none()


class ProofProblemOut(Answer):
    code: str
    text: str
    event: int
    reasons: list[str]


class PairOut(Answer):
    from_: str = Field(alias="from")
    to: str
    done: bool
    shows_v: float | None
    below_v: float | None
    needs: str | None
    unexplained: bool


class SourceOut(Answer):
    id: str
    label: str
    kind: Annotated[str, Among(SourceKind)]
    off: bool
    locked: bool
    lock: str


class NextOut(Answer):
    step: Annotated[str, Among(StepKind)]
    text: str
    source: str | None
    from_: str | None = Field(alias="from")
    to: str | None
    mode: Mode | None
    tester: str | None

    @classmethod
    def of(cls, step: Step) -> Self:
        ends = _ends(step.pair) or {"from_": None, "to": None}
        return cls(step=str(step.kind), text=step.text, source=step.source, **ends, mode=step.mode, tester=step.tester)


class SettledOut(Answer):
    was: str
    text: str
    event: int


class IsolationOut(Answer):
    """What `isolate` answers."""

    state: Annotated[str, Among(State)]
    proved_at: datetime | None
    expires_at: datetime | None
    missing: list[MissingOut]
    problems: list[ProofProblemOut]
    pairs: list[PairOut]
    sources: list[SourceOut]
    next: NextOut
    history: list[SettledOut]
    counted: list[int]
    prove_again_by: datetime | None
    stated_at: datetime | None
    stated_by: str
    was_proved_at: datetime | None
    loosened: list[str]
    reason: str

    @field_serializer("proved_at", "expires_at", "prove_again_by", "stated_at", "was_proved_at")
    def _with_its_offset(self, at: datetime | None) -> str | None:
        return None if at is None else at.isoformat()

    def said_of(self, event: int) -> list[str]:
        """What is said of one event of the log."""
        problems = [p.text for p in self.problems if p.event == event]
        return problems + [p.text for p in self.history if p.event == event]

    @classmethod
    def of(cls, found: Isolation) -> Self:
        return cls(
            state=str(found.state),
            proved_at=found.proved_at,
            expires_at=found.expires_at,
            missing=[
                MissingOut(code=m.code, text=m.text, source=m.source, **_ends(m.pair), mode=m.mode)
                for m in found.missing
            ],
            problems=[
                ProofProblemOut(code=p.code, text=p.text, event=p.event, reasons=list(p.reasons))
                for p in found.problems
            ],
            pairs=[
                PairOut(
                    **_ends(p.pair),
                    done=p.done,
                    shows_v=p.volts,
                    below_v=p.below,
                    needs=p.needs,
                    unexplained=p.unexplained,
                )
                for p in found.pairs
            ],
            sources=[
                SourceOut(
                    id=s.source.id,
                    label=s.source.label,
                    kind=str(s.source.kind),
                    off=s.off,
                    locked=s.locked,
                    lock=s.lock,
                )
                for s in found.sources
            ],
            next=NextOut.of(found.next_step),
            history=[SettledOut(was=p.code, text=p.text, event=p.event) for p in found.history],
            counted=list(found.counted),
            prove_again_by=found.prove_again_by,
            stated_at=found.stated_at,
            stated_by=found.stated_by,
            was_proved_at=found.was_proved_at,
            loosened=list(found.loosened),
            reason=found.reason,
        )


def _ends(pair: tuple[Terminal, Terminal] | None) -> dict[str, Any]:
    return {} if pair is None else {"from_": str(pair[0]), "to": str(pair[1])}
