"""The order of a visit's work: board by board, dead before live, and the live tests along the way from room to room."""

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import groupby

from evenprobe.planning.minutes import Earlier, Estimate, estimate
from evenprobe.planning.sentences import TWO_PEOPLE
from evenprobe.planning.work import WORKS, Work
from evenprobe.supplies import SupplySystem
from evenprobe.wiring import PointKind, Terminal


@dataclass(frozen=True)
class PlannedPoint:
    """`room`: where it is, where anybody said."""

    id: str
    name: str
    kind: PointKind
    terminals: tuple[Terminal, ...]
    room: str = ""

    @property
    def pairs(self) -> int:
        count = len(self.terminals)
        return count * (count - 1) // 2

    @property
    def where(self) -> str:
        """The room, or the point itself where nobody said in which it is."""
        return self.room or self.name

    @property
    def plugs_in(self) -> bool:
        """Whether it is measured without opening anything."""
        return self.kind is PointKind.OUTLET


@dataclass(frozen=True)
class PlannedCircuit:
    """`sources`: what had to be off when it was last isolated. `earlier`: how long works took before."""

    id: str
    name: str
    board: str
    system: SupplySystem
    points: tuple[PlannedPoint, ...]
    residual_ma: float | None = None
    sources: tuple[str, ...] = ()
    earlier: Mapping[Work, Sequence[Earlier]] = field(default_factory=dict)


@dataclass(frozen=True)
class PlannedStep:
    """One work on one circuit. `two_people`: why a second person is wanted, empty where one is enough."""

    work: Work
    circuit: PlannedCircuit
    points: tuple[PlannedPoint, ...]
    estimate: Estimate
    two_people: str


@dataclass(frozen=True)
class GoesDark:
    """Who has to be warned: where it goes dark while a circuit is off, and for how many minutes."""

    circuit: PlannedCircuit
    places: tuple[str, ...]
    minutes: float


@dataclass(frozen=True)
class Plan:
    """In the order of the work. `way`: boards and rooms in the order they are walked to."""

    steps: tuple[PlannedStep, ...]
    warn: tuple[GoesDark, ...]
    way: tuple[str, ...]

    @property
    def minutes(self) -> float:
        """All of it, one after the other."""
        return sum(step.estimate.minutes for step in self.steps)


def plan(circuits: Sequence[PlannedCircuit], works: Collection[Work]) -> Plan:
    """What to do in which order.

    Parameters
    ----------
    circuits
        Those chosen, board by board in the order of the record.
    works
        What is wanted of them; what has to come before is added.

    Returns
    -------
    Plan
        Steps, who goes dark, and the way.

    Examples
    --------
    >>> from evenprobe.supplies import SYSTEMS
    >>> socket = PlannedPoint("p1", "Socket by the door", PointKind.OUTLET, tuple(map(Terminal, ("L", "N", "PE"))))
    >>> office = PlannedCircuit("c1", "Office sockets", "Mill board", SYSTEMS["230"], (socket,))
    >>> found = plan([office], [Work.DEAD_TESTS])
    >>> [str(step.work) for step in found.steps], round(found.minutes)
    (['isolate', 'dead-tests'], 17)
    """
    wanted = {need for work in works for need in (work, *WORKS[work].needs)}
    dead = [work for work in Work if work in wanted and WORKS[work].goes_dark]
    steps: list[PlannedStep] = []
    for _, group in groupby(circuits, key=lambda circuit: circuit.board):
        of_board = list(group)
        steps += [_step(work, circuit) for circuit in of_board for work in dead]
        if Work.LIVE_TESTS in wanted:
            steps += [_step(Work.LIVE_TESTS, circuit) for circuit in _along_the_way(of_board)]
    return Plan(tuple(steps), tuple(_warned(steps)), tuple(_way(steps)))


def _step(work: Work, circuit: PlannedCircuit) -> PlannedStep:
    found = estimate(
        work,
        sources=max(1, len(circuit.sources)),
        points=len(circuit.points),
        pairs=sum(point.pairs for point in circuit.points),
        earlier=circuit.earlier.get(work, ()),
    )
    return PlannedStep(work, circuit, circuit.points, found, _two_people(work, circuit))


def _two_people(work: Work, circuit: PlannedCircuit) -> str:
    """Why one person alone is not enough: live parts are open at arm's length, or no one sees what is fed from afar."""
    opened = [point.name for point in circuit.points if not point.plugs_in]
    if work is Work.LIVE_TESTS and opened:
        return str(TWO_PEOPLE.say("live-open", points=opened[0] if len(opened) == 1 else f"{len(opened)} points"))
    if work is Work.ISOLATE and len(circuit.sources) > 1:
        return str(TWO_PEOPLE.say("several-sources", sources=", ".join(circuit.sources)))
    return ""


def _along_the_way(circuits: Sequence[PlannedCircuit]) -> Iterator[PlannedCircuit]:
    """Each circuit after one that ends where it begins, where there is such a one; in the order given otherwise."""
    waiting, here = list(circuits), ""
    while waiting:
        following = next((c for c in waiting if c.points and c.points[0].where == here), waiting[0])
        waiting.remove(following)
        here = following.points[-1].where if following.points else here
        yield following


def _warned(steps: Sequence[PlannedStep]) -> Iterator[GoesDark]:
    """A circuit is dark from when it is isolated until its dead tests are done."""
    off = [step for step in steps if WORKS[step.work].goes_dark]
    for _, group in groupby(off, key=lambda step: step.circuit.id):
        own = list(group)
        circuit = own[0].circuit
        places = tuple(dict.fromkeys(point.where for point in circuit.points))
        yield GoesDark(circuit, places, sum(step.estimate.minutes for step in own))


def _way(steps: Sequence[PlannedStep]) -> list[str]:
    """Each place once in a row; points whose room nobody said are where their circuit is."""
    walked = []
    for step in steps:
        walked.append(step.circuit.board)
        if step.work is not Work.ISOLATE:
            walked += [point.room or step.circuit.name for point in step.points]
    return [place for place, _ in groupby(walked)]
