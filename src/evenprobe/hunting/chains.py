"""A control chain: elements in series between a feed and a return, halved with volts against the return.

Full voltage up to the open element and nothing behind it. A closed contact that drops more than two per cent of the
supply is a bad one; what a coil needs to pull in is a limit of IEC 60947-4-1.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Literal

import numpy as np

from evenprobe.hunting.findings import Contradiction, HuntState
from evenprobe.hunting.line import Line, Stop
from evenprobe.hunting.sentences import ADVICE, CONTRADICTIONS
from evenprobe.limits.components import COIL_PULL_IN
from evenprobe.sentences import Sentence

FEED = "feed"
"""What comes before the first element."""
ElementKind = Literal["contact", "fuse", "coil", "terminal"]
JOINT_MINUTES = 1.0
"""To measure at a joint of the chain."""
_BAD_CONTACT_SHARE = 0.02
"""Of the supply, across what should be closed."""
_GONE_SHARE = 0.1
"""Of the supply, what may be left behind an open element."""
_FIRST_LOSS_SHARE = 0.1
"""Of the supply, what may be missing before the first element already."""


@dataclass(frozen=True)
class Element:
    """Of a chain. `closed`: whether it should be closed now. `rated_v`: of a coil."""

    id: str
    kind: ElementKind = "contact"
    closed: bool = True
    rated_v: float | None = None


@dataclass(frozen=True)
class Volts:
    """Between the joint after an element, or the feed, and the return."""

    after: str
    volts: float


@dataclass(frozen=True)
class ChainHunt:
    """What a hunt along a chain has come to.

    Parameters
    ----------
    state
        How far it is.
    share
        Of elements that can still be it, by id; `feed` is what comes before the first.
    next_after
        The element after which to measure next.
    minutes, in_order_minutes
        Expected from here, by the plan and joint by joint.
    coil_share_percent
        What the coil gets of its rated voltage.
    contradiction, advice
        As of any hunt.
    """

    state: HuntState
    share: Mapping[str, float] = field(default_factory=dict)
    next_after: str | None = None
    minutes: float = 0.0
    in_order_minutes: float = 0.0
    coil_share_percent: float | None = None
    contradiction: Contradiction | None = None
    advice: Sentence | None = None


def hunt_chain(elements: Sequence[Element], seen: Sequence[Volts], supply_v: float) -> ChainHunt:
    """Which element does not let the supply through.

    Parameters
    ----------
    elements
        In order from the feed.
    seen
        Volts of joints against the return, in the order they were measured; the last of a joint counts.
    supply_v
        What should be at the feed.

    Returns
    -------
    ChainHunt
        Shares sum to one over what is left.

    Examples
    --------
    >>> chain = [Element("stop"), Element("limit"), Element("k1", "coil", rated_v=230.0)]
    >>> found = hunt_chain(chain, [Volts("stop", 229.0), Volts("limit", 0.4)], 230.0)
    >>> str(found.state), dict(found.share)
    ('found', {'limit': 1.0})
    """
    joints = [FEED, *(element.id for element in elements)]
    last = {each.after: (number, each.volts) for number, each in enumerate(seen)}
    known = [(joint, *last[joints[joint]]) for joint in range(len(joints)) if joints[joint] in last]
    for (_, i, before), (_, j, behind) in pairwise(known):
        if behind > before + _BAD_CONTACT_SHARE * supply_v:
            why = CONTRADICTIONS.say("volts-back", one=seen[i].after, other=seen[j].after)
            return ChainHunt(HuntState.CONTRADICTORY, contradiction=Contradiction((min(i, j), max(i, j)), why))
    coil = next((number for number, element in enumerate(elements) if element.kind == "coil"), None)
    reach = len(elements) if coil is None else coil
    volts = {joint: shown for joint, _, shown in known if joint <= reach}
    if volts.get(0, supply_v) < (1 - _FIRST_LOSS_SHARE) * supply_v:
        return ChainHunt(HuntState.FOUND, {FEED: 1.0}, advice=ADVICE.say("feed-low", volts=volts[0], supply=supply_v))
    first, beyond = _between(volts, reach, supply_v)
    share = _coil_share(elements, coil, volts)
    if first == reach:
        return _at_the_coil(elements, coil, share)
    suspects = [element.id for element in elements[first:beyond]]
    if beyond == reach and reach not in volts and coil is not None:
        suspects.append(elements[coil].id)
    shares = {name: 1 / len(suspects) for name in suspects}
    if len(suspects) == 1:
        return ChainHunt(
            HuntState.FOUND, shares, coil_share_percent=share, advice=_advice(elements[first], volts, first)
        )
    stops = [Stop(0.0, JOINT_MINUTES, number, number) for number in range(1, len(suspects)) if first + number <= reach]
    line = Line(np.ones(len(suspects)), stops, 0.0, 0.0, 0.0)
    costs = line.first_costs(np.zeros(len(stops))) / len(suspects)
    middle = np.flatnonzero(np.isclose(costs, costs.min()))
    best = int(middle[len(middle) // 2])
    return ChainHunt(
        HuntState.HUNTING,
        shares,
        joints[first + stops[best].before],
        float(costs[best]),
        _one_by_one(len(suspects)),
        share,
    )


def _between(volts: Mapping[int, float], reach: int, supply_v: float) -> tuple[int, int]:
    """The joint up to which the supply is whole, and the first known behind which it is not."""
    whole, at = 0, volts.get(0, supply_v)
    for joint in sorted(volts):
        if at - volts[joint] > _BAD_CONTACT_SHARE * supply_v:
            return whole, joint
        whole, at = joint, volts[joint]
    return whole, reach


def _one_by_one(suspects: int) -> float:
    """Minutes expected joint by joint: the last two are told apart by one measurement."""
    looks = [min(number, suspects - 1) for number in range(1, suspects + 1)]
    return JOINT_MINUTES * sum(looks) / suspects


def _coil_share(elements: Sequence[Element], coil: int | None, volts: Mapping[int, float]) -> float | None:
    if coil is None or coil not in volts:
        return None
    rated = elements[coil].rated_v
    return None if rated is None else 100 * volts[coil] / rated


def _at_the_coil(elements: Sequence[Element], coil: int | None, share: float | None) -> ChainHunt:
    """All of the supply comes through: it is the coil or its return, or the supply is less than the coil needs."""
    if coil is None:
        return ChainHunt(HuntState.CLEAR)
    name = elements[coil].id
    low = COIL_PULL_IN.band.low
    if share is not None and low is not None and share < low:
        advice = ADVICE.say("coil-low", share=share, least=low)
        return ChainHunt(HuntState.FOUND, {FEED: 1.0}, coil_share_percent=share, advice=advice)
    return ChainHunt(HuntState.FOUND, {name: 1.0}, coil_share_percent=share, advice=ADVICE.say("coil-or-return"))


def _advice(element: Element, volts: Mapping[int, float], first: int) -> Sentence | None:
    if not element.closed:
        return ADVICE.say("open-as-it-should", element=element.id)
    behind = volts.get(first + 1, 0.0)
    gone = behind <= _GONE_SHARE * max(volts.values())
    return ADVICE.say("operate" if gone else "bad-contact", element=element.id)
