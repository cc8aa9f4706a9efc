"""Ring circuits: both ends of each conductor, then every outlet with the ends cross-joined.

Two conductors in a ring, cross-joined, make the outlet's reading about a quarter of both ends' sum wherever it
sits; a spur adds its own length to both pairs, a poor joint at one outlet only to the pair it is in.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from evenprobe.deadtests.judgement import Outcome, Result, worst
from evenprobe.deadtests.sentences import JUDGED
from evenprobe.limits.dead_tests import RING, RING_MARGIN_OHMS, ring_outlet

ROOM = 1.15
"""A chart's height over its highest bar."""
_ENDS_MATCH_SHARE = 0.1
"""Line and neutral of one cable are of one length, so their ends differ by no more than this and the margin."""


@dataclass(frozen=True)
class RingOutlet:
    """An outlet's readings, in ohms: ends of L and N cross-joined, ends of L and PE cross-joined.

    `label`: what people call it, where its id is not that.
    """

    id: str
    r1_rn: float | None = None
    r1_r2: float | None = None
    label: str = ""

    @property
    def name(self) -> str:
        return self.label or self.id


def ring(ends: Mapping[str, float | None], outlets: Sequence[RingOutlet]) -> Outcome:
    """`ends`: r1, rn and r2 in ohms, None for one that reads over-range."""
    broken = [name for name, ohms in ends.items() if ohms is None]
    if broken:
        conductors = " and ".join(_CONDUCTOR[end] for end in broken)
        return Outcome(Result.FAIL, [JUDGED.say("ring.broken", conductors=conductors)], RING, {"broken": broken})
    r1, rn, r2 = (float(ends[name] or 0.0) for name in ("r1", "rn", "r2"))
    expected = {"r1_rn": (r1 + rn) / 4, "r1_r2": (r1 + r2) / 4}
    above = {o.id: _above(o, expected) for o in outlets}
    spurs = [o.id for o in outlets if above[o.id] and above[o.id] == _measured(o)]
    poor = {o.id: next(iter(above[o.id])) for o in outlets if above[o.id] and o.id not in spurs}
    computed: dict[str, Any] = {
        "expected_r1_rn": expected["r1_rn"],
        "expected_r1_r2": expected["r1_r2"],
        "spurs": spurs,
        "poor_joints": list(poor),
        "limit_r1_rn": ring_outlet(expected["r1_rn"]).band.high,
        "limit_r1_r2": ring_outlet(expected["r1_r2"]).band.high,
    }
    names = {o.id: o.name for o in outlets}
    unlike = abs(r1 - rn) > RING_MARGIN_OHMS + _ENDS_MATCH_SHARE * max(r1, rn)
    results = [Result.FAIL] * (unlike or bool(poor)) + [Result.NOTE] * bool(spurs or not outlets)
    said = [JUDGED.say("ring.ends-differ")] if unlike else []
    said += [JUDGED.say("ring.poor-joint", outlet=names[o], joint=_JOINT[pair]) for o, pair in poor.items()]
    said += [JUDGED.say("ring.spurs", outlets=", ".join(names[spur] for spur in spurs))] if spurs else []
    said += [JUDGED.say("ring.no-outlet")] if not outlets else []
    return Outcome(worst(results), said or [JUDGED.say("ring.pass")], ring_outlet(expected["r1_rn"]), computed)


@dataclass(frozen=True)
class RingBar:
    """One reading of an outlet in a bar chart: shares of the chart's height. `spur`: it lies on one."""

    outlet: str
    pair: str
    up: float
    expected: float
    limit: float
    spur: bool
    poor_joint: bool


def ring_bars(outcome: Outcome, outlets: Sequence[RingOutlet]) -> tuple[RingBar, ...]:
    """Every reading of every outlet beside what it should be, in the order they were given."""
    figures = outcome.computed
    readings = [(o.id, pair, getattr(o, pair)) for o in outlets for pair in ("r1_rn", "r1_r2")]
    read = [(name, pair, ohms) for name, pair, ohms in readings if ohms is not None]
    if not read or "spurs" not in figures:
        return ()
    top = ROOM * max([figures["limit_r1_rn"], figures["limit_r1_r2"], *(ohms for _, _, ohms in read)])
    return tuple(
        RingBar(
            name,
            pair,
            ohms / top,
            figures[f"expected_{pair}"] / top,
            figures[f"limit_{pair}"] / top,
            name in figures["spurs"],
            name in figures["poor_joints"],
        )
        for name, pair, ohms in read
    )


_CONDUCTOR = {"r1": "line", "rn": "neutral", "r2": "protective conductor"}
_JOINT = {"r1_rn": "neutral", "r1_r2": "protective"}


def _measured(outlet: RingOutlet) -> set[str]:
    return {pair for pair in ("r1_rn", "r1_r2") if getattr(outlet, pair) is not None}


def _above(outlet: RingOutlet, expected: Mapping[str, float]) -> set[str]:
    return {p for p in _measured(outlet) if getattr(outlet, p) > ring_outlet(expected[p]).band.high}
