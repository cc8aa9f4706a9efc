"""A poor joint along a run: halved with a load, by the step in drop between two neighbours.

With a known load at the far end a sound cable loses its ohms times the amperes, more the farther along. What a step
loses beyond that is a joint. Neutral to earth shows the neutral's drop by itself, whatever the supply does meanwhile;
line to earth less the same nearer the board is the line's; line to neutral is both.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from math import isclose

from evenprobe.conditions.one_line import POOR_JOINT
from evenprobe.hunting.between import PROBE_MINUTES, Between
from evenprobe.hunting.evidence import Looked
from evenprobe.hunting.findings import Chance, Contradiction, Hunt, HuntState, Joint, NextPlace, Task
from evenprobe.hunting.opens import hunted
from evenprobe.hunting.run import BOARD, Place, Run
from evenprobe.hunting.sentences import ADVICE, CONTRADICTIONS, WHY

_SOUND_SHARE = (0.88, 1.2)
"""Of a cable's ohms at 20 °C on record, cold and warm, and as it is made."""
_SOUND_SPLICE_OHM = 0.03
"""Of a good splice, at most: one a box."""
_SUPPLY_MOVES = 0.005
"""From one reading to the next, as a share of what is measured."""
_DISPLAY_V = 0.1
_SAME_LOAD_SHARE = 0.02


@dataclass(frozen=True)
class Drop:
    """Volts at a box, or the board, with a known load on.

    `volts`: by pair, `L-N`, `L-PE`, `N-PE`. `load_at`: the box the load is at; None for the farthest.
    """

    at: str
    volts: Mapping[str, float]
    load_a: float
    load_at: str | None = None


@dataclass(frozen=True)
class _Lost:
    """Ohms that a conductor has up to a box, by what it drops: (least, most)."""

    at: str
    metres: float
    ohm: tuple[float, float]
    amperes: float | None = None


@dataclass(frozen=True)
class _Step:
    """Between two that were measured: ohms beyond what the cable explains, least and most."""

    conductor: str
    one: str
    other: str
    excess: tuple[float, float]

    @property
    def is_poor(self) -> bool:
        return self.excess[0] > 0

    @property
    def is_sound(self) -> bool:
        return self.excess[1] < POOR_JOINT.low


def _neutral(drop: Drop) -> float | None:
    return drop.volts.get("N-PE")


def _line(drop: Drop) -> float | None:
    return None if "L-PE" not in drop.volts else -drop.volts["L-PE"]


def _both(drop: Drop) -> float | None:
    return None if "L-N" not in drop.volts or len(drop.volts) > 1 else -drop.volts["L-N"]


_CONDUCTORS: tuple[tuple[str, int, Callable[[Drop], float | None]], ...] = (
    ("N", 1, _neutral),
    ("L", 1, _line),
    ("L and N", 2, _both),
)
"""Which conductor, how many lengths of it, and what grows along the run by its drop."""


def hunt_poor_joint(
    run: Run,
    seen: Sequence[Drop | Looked],
    standing_at: str = BOARD,
    *,
    ohm_per_m: float,
    probe_minutes: float = PROBE_MINUTES,
) -> Hunt:
    """Where a poor joint can still be, what it has in ohms and turns into heat, and where to measure next.

    Parameters
    ----------
    run
        The run.
    seen
        Volts under a known load, in the order they were measured; the last of a box counts.
    standing_at
        Where whoever hunts stands.
    ohm_per_m
        Of one conductor at 20 °C.
    probe_minutes
        What measuring at a face takes.

    Returns
    -------
    Hunt
        `joints` are those that were measured. Ohms and watts.

    Examples
    --------
    >>> from evenprobe.hunting.run import Box
    >>> run = Run([Box("p1", "board", 10.0), Box("p2", "p1", 10.0)])
    >>> near, far = Drop("p1", {"N-PE": 0.8}, 10.0), Drop("p2", {"N-PE": 9.6}, 10.0)
    >>> found = hunt_poor_joint(run, [near, far], ohm_per_m=0.00741)
    >>> [(joint.conductor, round(joint.watts)) for joint in found.joints]
    [('N', 79)]
    """
    drops = {each.at: (number, each) for number, each in enumerate(seen) if isinstance(each, Drop)}
    looked = [each for each in seen if isinstance(each, Looked)]
    found_in = next((each.at for each in looked if each.here), None)
    far = _far_end(run, [drop for _, drop in drops.values()])
    path = list(run.path(far))
    steps = [
        step
        for name, lengths, volts in _CONDUCTORS
        for step in _steps(run, drops, path, name, lengths, volts, ohm_per_m)
    ]
    for step in steps:
        if step.excess[1] < 0:
            numbers = (
                sorted((drops[step.one][0], drops[step.other][0])) if step.one in drops else [drops[step.other][0]] * 2
            )
            why = CONTRADICTIONS.say("less-than-cable", one=step.one, other=step.other)
            return Hunt(HuntState.CONTRADICTORY, contradiction=Contradiction((numbers[0], numbers[-1]), why))
    poor = sorted((step for step in steps if step.is_poor), key=lambda step: -step.excess[0])
    amperes = max((drop.load_a for _, drop in drops.values()), default=0.0)
    joints = [
        Joint(step.conductor, (max(step.excess[0], 0.0), step.excess[1]), _watts(step, amperes), amperes)
        for step in poor
    ]
    if found_in is not None:
        at = run.distance_m[found_in]
        return Hunt(HuntState.FOUND, {Place(found_in): 1.0}, joints=joints, distance_m=(at, at))
    names = frozenset(each.at for each in looked)
    if not poor and far not in drops:
        return _load_first(run, path, names, standing_at, probe_minutes)
    if not poor and all(step.is_sound for step in steps):
        return Hunt(HuntState.CLEAR)
    near, end = (poor[0].one, poor[0].other) if poor else _least_sound(steps, far)
    between = path[0 if near == BOARD else path.index(near) + 1 : path.index(end) + 1]
    found = hunted(Between(run, near, between, True, names, probe_minutes), standing_at, Task.MEASURE)
    second = next((step for step in poor[1:] if (step.one, step.other) != (near, end)), None)
    advice = ADVICE.say("another-joint", one=second.one, other=second.other) if second else None
    return replace(found, joints=joints, advice=advice)


def _watts(step: _Step, amperes: float) -> float:
    """Heat in the middle of what the joint can be."""
    return amperes**2 * (max(step.excess[0], 0.0) + step.excess[1]) / 2


def _far_end(run: Run, drops: Sequence[Drop]) -> str:
    """Where the load is; the farthest box where nobody said."""
    said = [drop.load_at for drop in drops if drop.load_at is not None and drop.load_at != BOARD]
    return max(said or run.box, key=run.distance_m.__getitem__)


def _steps(
    run: Run,
    drops: Mapping[str, tuple[int, Drop]],
    path: Sequence[str],
    conductor: str,
    lengths: int,
    grows: Callable[[Drop], float | None],
    ohm_per_m: float,
) -> list[_Step]:
    """Between each two neighbours measured; of the neutral from the board on, where it is at earth."""
    lost = [_Lost(BOARD, 0.0, (0.0, 0.0))] if conductor == "N" and BOARD not in drops else []
    for name in (BOARD, *path):
        drop = drops[name][1] if name in drops else None
        volts = None if drop is None else grows(drop)
        if drop is not None and volts is not None:
            off = _DISPLAY_V + (0.0 if conductor == "N" else _SUPPLY_MOVES * abs(volts))
            ohm = (volts - off) / drop.load_a, (volts + off) / drop.load_a
            lost.append(_Lost(name, run.distance_m[name], ohm, drop.load_a))
    steps = []
    for one, other in pairwise(lost):
        if conductor != "N" and not _same_load(one, other):
            continue
        cable = lengths * ohm_per_m * (other.metres - one.metres)
        boxes = len([n for n in path if one.metres < run.distance_m[n] <= other.metres])
        sound = cable * _SOUND_SHARE[0], cable * _SOUND_SHARE[1] + lengths * boxes * _SOUND_SPLICE_OHM
        excess = other.ohm[0] - one.ohm[1] - sound[1], other.ohm[1] - one.ohm[0] - sound[0]
        steps.append(_Step(conductor, one.at, other.at, excess))
    return steps


def _same_load(one: _Lost, other: _Lost) -> bool:
    """Volts of a line are compared under one load only: what they were without it nobody measured."""
    return isclose(one.amperes or 0.0, other.amperes or 0.0, rel_tol=_SAME_LOAD_SHARE)


def _least_sound(steps: Sequence[_Step], far: str) -> tuple[str, str]:
    """Where nothing is told yet: the step that could hide the most."""
    worst = max(steps, key=lambda step: step.excess[1], default=None)
    return (BOARD, far) if worst is None else (worst.one, worst.other)


def _load_first(run: Run, path: Sequence[str], looked: frozenset[str], here: str, probe_minutes: float) -> Hunt:
    """The far end first: a sound run shows it there at once."""
    left = Between(run, BOARD, path, False, looked, probe_minutes)
    far = path[-1]
    minutes = run.walk_minutes(here, far) + probe_minutes
    if len(path) > 1:
        minutes += Between(run, BOARD, path, True, looked, probe_minutes).measured(far)[1]
    following = NextPlace(far, Task.MEASURE, minutes, (Chance("a drop", 1.0),), WHY.say("load-first"))
    return Hunt(HuntState.HUNTING, left.share, following, in_order_minutes=left.in_order(here))
