"""Logs of proofs of isolation to try: a good one of any supply, and its parts to take away."""

from datetime import UTC, datetime, timedelta

from evenprobe.isolation import Event, EventType, IsolationLog, Source, SourceKind, pairs_to_test
from evenprobe.practices import PRACTICES
from evenprobe.supplies import SYSTEMS
from evenprobe.testers import kinds
from evenprobe.testers.fitness import Held
from evenprobe.testers.ratings import Category, Leads, Place, Rating
from evenprobe.wiring import Terminal

START = datetime(2026, 11, 24, 9, 0, tzinfo=UTC)
T = Terminal
SINGLE, SPLIT = (T.L, T.N, T.PE), (T.L1, T.L2, T.N, T.PE)
THREE_PHASE = (T.L1, T.L2, T.L3, T.N, T.PE)
III_690 = Rating(Category.III, 690)
METER = Held("m", kinds.MULTIMETER, III_690, "M", battery="ok", leads=Leads(III_690, True))
TWO_POLE = Held("t", kinds.TWO_POLE, III_690, "T", battery="ok")
OTHER = Held("o", kinds.TWO_POLE, III_690, "O", battery="ok")
DETECTOR = Held("d", kinds.NON_CONTACT, Rating(Category.IV, 1000), "D", always_on_light=True)
TESTERS = {held.id: held for held in (METER, TWO_POLE, OTHER, DETECTOR)}
FEED = Source("s1", "board W, way 3")
SECOND = Source("s2", "control feed", SourceKind.CONTROL)
SOLAR = Source("s3", "roof", SourceKind.SOLAR)


def at(minutes):
    return START + timedelta(minutes=minutes)


def event(minutes, type_, **more):
    return Event(at(minutes), EventType(type_), **more)


def proof(minutes, tester="t", volts=239.0, **more):
    return event(minutes, "proved", tester=tester, volts=volts, against="proving-unit", **more)


def reading(minutes, pair, tester="t", volts=0.0, **more):
    return event(minutes, "tested", from_=pair[0], to=pair[1], tester=tester, volts=volts, **more)


def isolating(source="s1", minutes=0.0):
    return [event(minutes, "off", source=source), event(minutes, "locked", source=source, lock="K-07")]


def readings(terminals, minutes=3.0, tester="t", **more):
    return [reading(minutes + i / 10, pair, tester, **more) for i, pair in enumerate(pairs_to_test(terminals))]


def good_round(terminals, minutes=2.0, tester="t", **more):
    return [
        proof(minutes, tester, **more),
        *readings(terminals, minutes + 1, tester, **more),
        proof(minutes + 4, tester, **more),
    ]


def log(*events, terminals=SINGLE, system="230", practice="british", sources=(FEED,), now=None, **more):
    flat = [e for part in events for e in (part if isinstance(part, list) else [part])]
    return IsolationLog(
        practice=PRACTICES[practice],
        system=SYSTEMS[system],
        terminals=terminals,
        place=Place.INSTALLATION,
        sources=tuple(sources),
        testers=TESTERS,
        events=tuple(flat),
        at=at(now) if now is not None else flat[-1].at if flat else START,
        **more,
    )


def codes(found):
    return {p.code for p in found.problems} | {m.code for m in found.missing}
