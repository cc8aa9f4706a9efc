"""An open conductor along a run: halved with presence, live, at faces and screws, no box opened.

Live at a box: the fault is beyond it. Dead: it is there or before. When a live box and a dead one are neighbours, what
is left is the onward joint of the first, the cable between, and the feed joint of the second; those are opened,
isolated and proved dead before a hand goes in.
"""

from collections.abc import Sequence

from evenprobe.hunting.between import PROBE_MINUTES, Between
from evenprobe.hunting.evidence import Looked, Presence
from evenprobe.hunting.findings import Chance, Contradiction, Hunt, HuntState, NextPlace, Task
from evenprobe.hunting.run import BOARD, Place, Run
from evenprobe.hunting.sentences import ADVICE, CONTRADICTIONS, WHY

_LIVE_SHARE, _DEAD_SHARE = 0.8, 0.2
"""Of nominal, from where on and up to where it tells; between the two it may be stray, or a poor joint."""


def hunt_open(
    run: Run, seen: Sequence[Presence | Looked], standing_at: str = BOARD, *, probe_minutes: float = PROBE_MINUTES
) -> Hunt:
    """Where an open conductor can still be, and where to measure or to open next.

    Parameters
    ----------
    run
        The run.
    seen
        What was seen so far, in order.
    standing_at
        Where whoever hunts stands.
    probe_minutes
        What measuring at a face takes.

    Returns
    -------
    Hunt
        Shares sum to one over what is left.

    Examples
    --------
    >>> from evenprobe.hunting.run import Box
    >>> run = Run([Box("p1", "board", 5.0), Box("p2", "p1", 20.0)])
    >>> found = hunt_open(run, [Presence("p1", True), Presence("p2", False)])
    >>> [(place.box, place.stretch, round(share, 3)) for place, share in found.share.items()]
    [('p1', False, 0.357), ('p2', True, 0.286), ('p2', False, 0.357)]
    """
    lives = [(i, each.at) for i, each in enumerate(seen) if isinstance(each, Presence) and each.live]
    deads = [(i, each.at) for i, each in enumerate(seen) if isinstance(each, Presence) and not each.live]
    for i, dead in deads:
        for j, live in lives:
            if dead == live or dead in run.path(live):
                key = "twice" if dead == live else "live-beyond-dead"
                why = CONTRADICTIONS.say(key, at=dead, one=dead, other=live)
                return Hunt(HuntState.CONTRADICTORY, contradiction=Contradiction((min(i, j), max(i, j)), why))
    if any(at == BOARD for _, at in deads):
        return Hunt(HuntState.CLEAR, advice=ADVICE.say("dead-at-board"))
    looked = [each for each in seen if isinstance(each, Looked)]
    found_in = next((each.at for each in looked if each.here), None)
    if found_in is not None:
        return Hunt(HuntState.FOUND, {Place(found_in): 1.0}, distance_m=(run.distance_m[found_in],) * 2)
    path = _common_path(run, [at for _, at in deads])
    if path is None:
        return _at_its_ends(run, lives, standing_at)
    live_on_it = [name for name in path if any(name in run.path(live) for _, live in lives)]
    near = live_on_it[-1] if live_on_it else BOARD
    left = Between(
        run, near, path[len(live_on_it) :], bool(deads), frozenset(each.at for each in looked), probe_minutes
    )
    return hunted(left, standing_at, Task.PROBE)


def _common_path(run: Run, deads: Sequence[str]) -> Sequence[str] | None:
    """The boxes that feed all that is dead; all of a run without branches where nothing was found dead yet."""
    if not deads:
        return [box.id for box in run.boxes] if run.is_line else None
    paths = [run.path(dead) for dead in deads]
    return [name for name in paths[0] if all(name in path for path in paths)]


def _at_its_ends(run: Run, lives: Sequence[tuple[int, str]], here: str) -> Hunt:
    """On a tree of which nothing was found dead: measure at the end that the most hangs before."""
    known = {name for _, live in lives for name in run.path(live)}
    weight = {place: run.weight(place) for place in run.places if place.box not in known}
    if not weight:
        return Hunt(HuntState.CLEAR)
    whole = sum(weight.values())
    ends = [box.id for box in run.boxes if not run.after[box.id] and box.id not in known]

    def on_the_way(name: str) -> float:
        return sum(w for place, w in weight.items() if place.box in run.path(name)) / whole

    at = max(ends, key=on_the_way)
    dead = on_the_way(at)
    outcomes = Chance("live", 1 - dead, Presence(at, live=True)), Chance("dead", dead, Presence(at, live=False))
    minutes = run.walk_minutes(here, at) + PROBE_MINUTES
    following = NextPlace(at, Task.PROBE, minutes, outcomes, WHY.say("end-first"))
    share = {place: w / whole for place, w in weight.items() if w > 0}
    return Hunt(HuntState.HUNTING, share, following, exact=False)


def shows_live(volts: float, nominal: float) -> bool | None:
    """Whether volts at a face are those of a whole run; None where they are neither those nor next to nothing.

    Parameters
    ----------
    volts
        Between the two conductors of which one is open.
    nominal
        Of the supply.

    Examples
    --------
    >>> shows_live(118.0, 120.0), shows_live(0.4, 120.0), shows_live(47.0, 120.0)
    (True, False, None)
    """
    if volts >= _LIVE_SHARE * nominal:
        return True
    return False if volts <= _DEAD_SHARE * nominal else None


def hunted(left: Between, here: str, task: Task) -> Hunt:
    """What is left between two places, with the next to measure at, or to open where they are neighbours."""
    share = left.share
    if not share:
        return Hunt(HuntState.CLEAR)
    run = left.run
    metres = [run.distance_m[p.box] for p in share]
    metres += [run.distance_m[run.box[p.box].after] for p in share if p.stretch]
    distance = min(metres), max(metres)
    if len(share) == 1:
        return Hunt(HuntState.FOUND, share, distance_m=distance)
    if left.to_measure:
        at, minutes = left.measured(here)
        number = next(i for i, half in enumerate(left.halves) if half.place == Place(at)) + 1
        whole = sum(half.weight for half in left.halves)
        before = sum(half.weight for half in left.halves[:number]) / whole
        outcomes = (
            (Chance("dead", before, Presence(at, live=False)), Chance("live", 1 - before, Presence(at, live=True)))
            if task is Task.PROBE
            else (Chance("drops before", before), Chance("drops beyond", 1 - before))
        )
        why = WHY.say("parts", shares=", ".join(f"{chance.share:.0%} {chance.when}" for chance in outcomes))
        following = NextPlace(at, task, minutes, outcomes, why)
    else:
        opened, minutes = left.opened(here)
        assert opened is not None
        outcomes = (
            Chance("in this box", share[Place(opened)], Looked(opened, here=True)),
            Chance("not here", 1 - share[Place(opened)], Looked(opened, here=False)),
        )
        following = NextPlace(opened, Task.OPEN, minutes, outcomes, WHY.say("open-suspect"))
    return Hunt(HuntState.HUNTING, share, following, in_order_minutes=left.in_order(here), distance_m=distance)
