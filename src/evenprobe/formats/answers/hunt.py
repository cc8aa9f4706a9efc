"""Where a fault can still be, and where to look next."""

from dataclasses import asdict
from typing import Annotated, Any

from pydantic import Field

from evenprobe.entries.documented import Among
from evenprobe.formats.answers.answer import Answer, unless_none
from evenprobe.hunting.board_map import BoardMap
from evenprobe.hunting.chains import ChainHunt
from evenprobe.hunting.findings import Chance, Contradiction, Hunt, HuntState, Seen, Task
from evenprobe.hunting.run import Place, Run
from evenprobe.hunting.sentences import WHY
from evenprobe.rounding import figures
from evenprobe.sentences import Sentence


def _share(share: float) -> float:
    return round(share, 3)


def _minutes(minutes: float) -> float:
    return round(minutes, 1)


def _said(sentence: Sentence | None) -> str | None:
    return None if sentence is None else str(sentence)


class SuspectOut(Answer):
    """A box, a stretch between two, or an element of a chain, and its share."""

    box: str | None = unless_none()
    stretch: list[str] | None = unless_none()
    element: str | None = unless_none()
    share: float

    @classmethod
    def of(cls, run: Run, place: Place, share: float) -> "SuspectOut":
        if place.stretch:
            return cls(stretch=[run.box[place.box].after, place.box], share=_share(share))
        return cls(box=place.box, share=_share(share))


class ChanceOut(Answer):
    """`seen`: what to write down where it comes to that, as the file has it."""

    when: str
    share: float
    seen: dict[str, Any] | None = unless_none()

    @classmethod
    def of(cls, chance: Chance) -> "ChanceOut":
        said = None if chance.seen is None else seen_as_told(chance.seen)
        return cls(when=chance.when, share=_share(chance.share), seen=said)


def seen_as_told(seen: Seen) -> dict[str, Any]:
    """What was seen as a circuit file has it."""
    return {key: value for key, value in asdict(seen).items() if value is not None}


class NextPlaceOut(Answer):
    """`expected_minutes`: of the whole plan from here."""

    at: str
    do: Annotated[str, Among(Task)]
    expected_minutes: float
    outcomes: list[ChanceOut]
    why: str


class ContradictionOut(Answer):
    """`between`: numbers of what was seen, from 0."""

    between: list[int]
    why: str

    @classmethod
    def of(cls, contradiction: Contradiction | None) -> "ContradictionOut | None":
        if contradiction is None:
            return None
        return cls(between=list(contradiction.between), why=str(contradiction.why))


class JointOut(Answer):
    """What a joint has beyond a sound run, least and most, and what it turns into heat at the load's amperes."""

    conductor: str
    ohm: list[float]
    watts: float


class RunHuntOut(Answer):
    """Of a hunt along a run. `joints`: poor ones that were measured."""

    state: Annotated[str, Among(HuntState)]
    suspects: list[SuspectOut]
    next: NextPlaceOut | None
    exact: bool
    in_order_minutes: float
    energise_up_to: str | None
    distance_m: list[float] | None
    contradiction: ContradictionOut | None
    joints: list[JointOut] = Field([], exclude_if=lambda joints: not joints)
    advice: str | None = unless_none()

    @classmethod
    def of(cls, run: Run, hunt: Hunt) -> "RunHuntOut":
        likeliest = sorted(hunt.share.items(), key=lambda item: -item[1])
        return cls(
            state=str(hunt.state),
            suspects=[SuspectOut.of(run, place, share) for place, share in likeliest],
            next=_next(hunt),
            exact=hunt.exact,
            in_order_minutes=_minutes(hunt.in_order_minutes),
            energise_up_to=hunt.energise_up_to,
            distance_m=None if hunt.distance_m is None else [round(metres, 1) for metres in hunt.distance_m],
            contradiction=ContradictionOut.of(hunt.contradiction),
            joints=[
                JointOut(conductor=j.conductor, ohm=[figures(ohm, 2) for ohm in j.ohm], watts=figures(j.watts, 2))
                for j in hunt.joints
            ],
            advice=_said(hunt.advice),
        )


def _next(hunt: Hunt) -> NextPlaceOut | None:
    if hunt.next is None:
        return None
    return NextPlaceOut(
        at=hunt.next.at,
        do=str(hunt.next.task),
        expected_minutes=_minutes(hunt.next.minutes),
        outcomes=[ChanceOut.of(chance) for chance in hunt.next.outcomes],
        why=str(hunt.next.why),
    )


class ChainHuntOut(Answer):
    """Of a hunt along a control chain. `next`: the element after which to measure."""

    state: Annotated[str, Among(HuntState)]
    suspects: list[SuspectOut]
    next: NextPlaceOut | None
    exact: bool
    in_order_minutes: float
    coil_share_percent: float | None
    contradiction: ContradictionOut | None
    advice: str | None = unless_none()

    @classmethod
    def of(cls, hunt: ChainHunt) -> "ChainHuntOut":
        following = None
        if hunt.next_after is not None:
            before = _whole_before(hunt)
            outcomes = [
                ChanceOut(when="volts gone", share=_share(before)),
                ChanceOut(when="volts there", share=_share(1 - before)),
            ]
            following = NextPlaceOut(
                at=hunt.next_after,
                do=str(Task.MEASURE),
                expected_minutes=_minutes(hunt.minutes),
                outcomes=outcomes,
                why=str(WHY.say("joint-halves")),
            )
        return cls(
            state=str(hunt.state),
            suspects=[SuspectOut(element=name, share=_share(share)) for name, share in hunt.share.items()],
            next=following,
            exact=True,
            in_order_minutes=_minutes(hunt.in_order_minutes),
            coil_share_percent=None if hunt.coil_share_percent is None else figures(hunt.coil_share_percent),
            contradiction=ContradictionOut.of(hunt.contradiction),
            advice=_said(hunt.advice),
        )


def _whole_before(hunt: ChainHunt) -> float:
    """Share of what lies up to the joint that is measured next."""
    found = 0.0
    for name, share in hunt.share.items():
        found += share
        if name == hunt.next_after:
            break
    return found


class RoundOut(Answer):
    on: list[str]


class OddOut(Answer):
    outlet: str
    why: str


class NextTapOut(Answer):
    """Which outlet to look at next, and in which round."""

    at: str
    do: Annotated[str, Among(Task)]
    round: int


class BoardMapOut(Answer):
    """Of a board that is mapped. `rounds`: the ways that are on in each."""

    state: Annotated[str, Among(HuntState)]
    rounds: list[RoundOut]
    found: dict[str, list[str]]
    odd: list[OddOut]
    next: NextTapOut | None
    contradiction: ContradictionOut | None

    @classmethod
    def of(cls, board: BoardMap) -> "BoardMapOut":
        following = None
        if board.next_outlet is not None and board.next_round is not None:
            following = NextTapOut(at=board.next_outlet, do=str(Task.PROBE), round=board.next_round)
        return cls(
            state=str(board.state),
            rounds=[RoundOut(on=list(on)) for on in board.rounds],
            found={outlet: list(ways) for outlet, ways in board.found.items()},
            odd=[OddOut(outlet=outlet, why=str(why)) for outlet, why in board.odd.items()],
            next=following,
            contradiction=ContradictionOut.of(board.contradiction),
        )
