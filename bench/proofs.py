"""Ten thousand random logs of proofs of death: how many are called dead, and how many of those wrongly.

A log is a good one, spoilt: events left out, moved in time, given to another tester, or strewn in. What makes a proof
is checked here a second time and another way, by looking for the brackets around every pair instead of replaying.
"""

import sys
from collections import Counter
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from itertools import pairwise

import numpy as np

from evenprobe.isolation import Event, EventType, IsolationLog, Source, State, isolation, pairs_to_test
from evenprobe.practices import NORTH_AMERICA, PRACTICES
from evenprobe.supplies import SYSTEMS
from evenprobe.testers import kinds
from evenprobe.testers.fitness import Held, fitness
from evenprobe.testers.purposes import Purpose
from evenprobe.testers.ratings import Category, Leads, Place, Rating
from evenprobe.testers.tasks import Task
from evenprobe.wiring import Terminal

LOGS = 10_000
SEED = 7
START = datetime(2026, 11, 24, 9, 0, tzinfo=UTC)
MOST_SPOILS = 4

_RATED = Rating(Category.III, 690)
TESTERS = (
    Held("t", kinds.TWO_POLE, _RATED, battery="ok"),
    Held("u", kinds.TWO_POLE, _RATED, battery="ok"),
    Held("m", kinds.MULTIMETER, _RATED, battery="ok", leads=Leads(_RATED, True)),
    Held("weak", kinds.TWO_POLE, Rating(Category.II, 300), battery="ok"),
    Held("d", kinds.NON_CONTACT, Rating(Category.IV, 1000), always_on_light=True),
)
_LINES = {"230": "L", "120": "L", "120/240": "L1 L2", "230/400": "L1 L2 L3", "208Y/120": "L1 L2 L3"}
_OPENS = (EventType.UNLOCKED, EventType.RE_ENERGISED)
_RESETS = (*_OPENS, EventType.HANDED_OVER, EventType.SOURCE_FOUND)
Rng = np.random.Generator


@dataclass
class Count:
    logs: int
    states: Counter[State]
    false: list[int]


def good_log(rng: Rng) -> IsolationLog:
    """A complete proof of a random place, with two-pole or meter, AC and DC where the tester must be set."""
    system = SYSTEMS[str(rng.choice(list(_LINES)))]
    practice = PRACTICES[str(rng.choice([p.id for p in PRACTICES.values() if system in p.systems]))]
    terminals = tuple(Terminal(t) for t in f"{_LINES[system.id]} N PE".split())
    if rng.random() < 0.2:
        terminals = (*terminals, Terminal.CASE)
    sources = tuple(Source(f"s{i}", f"source {i}") for i in range(int(rng.integers(1, 4))))
    meter_may = practice is NORTH_AMERICA and rng.random() < 0.5
    tester = "m" if meter_may else "t"
    minute = 0.0
    events: list[Event] = []

    def then(type_: EventType, wait: float, **more: object) -> None:
        nonlocal minute
        minute += wait * rng.random()
        events.append(Event(START + timedelta(minutes=minute), type_, **more))  # type: ignore[arg-type]

    for source in sources:
        then(EventType.OFF, 2, source=source.id)
        then(EventType.LOCKED, 1, source=source.id)
    then(EventType.PROVED, 2, tester=tester, volts=239.0, against="proving-unit")
    for measuring, reference in pairs_to_test(terminals):
        volts = round(float(rng.uniform(0, 0.9)), 1)
        then(EventType.TESTED, 0.8, tester=tester, from_=measuring, to=reference, volts=volts)
    then(EventType.PROVED, 1, tester=tester, volts=239.0, against="proving-unit")
    return IsolationLog(
        practice, system, terminals, Place.INSTALLATION, sources, {t.id: t for t in TESTERS}, tuple(events),
        events[-1].at + timedelta(minutes=float(rng.uniform(0, 35))),
    )  # fmt: skip


def spoilt(log: IsolationLog, rng: Rng) -> IsolationLog:
    """The log after none to a few mishaps, again in time order."""
    events = list(log.events)
    for _ in range(int(rng.integers(0, MOST_SPOILS + 1))):
        index = int(rng.integers(len(events)))
        event = events[index]
        match int(rng.integers(7)):
            case 0:
                del events[index]
            case 1:
                events[index] = replace(event, at=event.at + timedelta(minutes=float(rng.uniform(-12, 12))))
            case 2 if event.tester:
                events[index] = replace(event, tester=str(rng.choice(list(log.testers))))
            case 3 if event.volts is not None:
                volts = float(rng.choice([0.0, 1.1, 30.0, 118.0, 231.0]))
                events[index] = replace(event, volts=volts, low_impedance=bool(rng.random() < 0.5))
            case 4 if event.tester:
                events[index] = replace(event, mode="dc")
            case 5:
                later = timedelta(minutes=float(rng.uniform(5, 40)))
                events[index:] = [replace(e, at=e.at + later) for e in events[index:]]
            case _:
                events.append(_strewn(log, rng, event.at))
    events.sort(key=lambda e: e.at)
    ends = max([log.at, *(e.at for e in events)])
    return replace(log, events=tuple(events), at=ends)


def _strewn(log: IsolationLog, rng: Rng, at: datetime) -> Event:
    kinds = [k for k in EventType if k not in (EventType.SOURCE_FOUND, EventType.CLOSED)]
    kind = EventType(str(rng.choice([str(k) for k in kinds])))
    measuring, reference = pairs_to_test(log.terminals)[int(rng.integers(len(pairs_to_test(log.terminals))))]
    return Event(
        at + timedelta(minutes=float(rng.uniform(-2, 6))),
        kind,
        source=log.sources[int(rng.integers(len(log.sources)))].id,
        tester=str(rng.choice(list(log.testers))),
        from_=measuring,
        to=reference,
        volts=float(rng.choice([0.0, 0.4, 12.0, 239.0])),
        alarm=bool(rng.random() < 0.5),
    )


def is_proved(log: IsolationLog) -> bool:
    """Whether some fit tester has every pair in brackets that nothing since has broken."""
    return any(_proved_with(log, held) for held in log.testers.values())


def _proved_with(log: IsolationLog, held: Held) -> bool:
    task = Task(Purpose.PROVE_DEAD, log.place, log.system, log.practice, on=log.at.date())
    return fitness(task, held).fit and all(
        any(_stands(log, held, i, frozenset(pair)) for i in range(len(log.events)))
        for pair in pairs_to_test(log.terminals)
    )


def _stands(log: IsolationLog, held: Held, index: int, pair: frozenset[Terminal]) -> bool:
    """Whether the event is a reading of nothing on the pair, in brackets, unbroken to the end."""
    reading = log.events[index]
    if reading.type is not EventType.TESTED or reading.tester != held.id or reading.pair != pair or reading.seen > 1:
        return False
    if reading.mode == "dc" and held.kind is not kinds.TWO_POLE:
        return False
    window = timedelta(minutes=log.rules.window_min)
    before = [i for i in _proofs(log, held) if i < index and reading.at - log.events[i].at <= window]
    after = [i for i in _proofs(log, held) if i > index and log.events[i].at - reading.at <= window]
    return (
        bool(before and after) and _locked_out(log, index) and _unbroken(log, held, before[-1], index, after[0], pair)
    )


def _proofs(log: IsolationLog, held: Held) -> list[int]:
    least = 50.0
    return [
        i
        for i, e in enumerate(log.events)
        if e.type is EventType.PROVED and e.tester == held.id and e.seen >= least
        and (e.mode == "ac" or held.kind is kinds.TWO_POLE)
    ]  # fmt: skip


def _locked_out(log: IsolationLog, index: int) -> bool:
    """Every source off and locked at the reading and ever since."""
    for source in log.sources:
        off = locked = False
        for i, event in enumerate(log.events):
            if event.source in (source.id, None):
                off = (off or event.type is EventType.OFF) and event.type is not EventType.RE_ENERGISED
                locked = (locked or event.type is EventType.LOCKED) and event.type not in _OPENS
            if i >= index and not (off and locked):
                return False
    return True


def _unbroken(log: IsolationLog, held: Held, before: int, index: int, after: int, pair: frozenset[Terminal]) -> bool:
    unattended = timedelta(minutes=log.rules.unattended_min)
    times = [e.at for e in log.events[index:]] + [log.at]
    if any(later - earlier > unattended for earlier, later in pairwise(times)):
        return False
    for i, event in enumerate(log.events):
        if i > before and event.type in _RESETS:
            return False
        if before < i < after and event.type is EventType.PROVE_FAILED and event.tester == held.id:
            return False
        if i > index and event.type is EventType.SCREENED and event.alarm:
            return False
        shows = event.seen if event.type is EventType.TESTED else 0.0
        if i > index and (shows >= log.touch_volts or (shows > 1 and event.pair == pair)):
            return False
    return True


def run(logs: int = LOGS, seed: int = SEED) -> Count:
    states: Counter[State] = Counter()
    false = []
    for number in range(logs):
        rng = np.random.default_rng([seed, number])
        log = spoilt(good_log(rng), rng)
        state = isolation(log).state
        states[state] += 1
        if state is State.PROVED_DEAD and not is_proved(log):
            false.append(number)
    return Count(logs, states, false)


def main(logs: int = LOGS, seed: int = SEED) -> int:
    count = run(logs, seed)
    said = ", ".join(f"{state} {n}" for state, n in sorted(count.states.items()))
    print(f"logs {count.logs}, false proved-dead {len(count.false)}; {said}")
    for number in count.false:
        print(f"  log {number} of seed {seed}")
    return bool(count.false)


if __name__ == "__main__":
    sys.exit(main(*(int(a) for a in sys.argv[1:])))
