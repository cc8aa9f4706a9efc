"""A short or an earth fault along a run: isolated, proved dead, loads out, halved with continuity.

At an opened box the feed pair and the onward pairs are taken apart and each side is tested for the joint. It is in the
feed side, in one onward side, or in neither and gone with the box apart: then it was in this box.
"""

from collections.abc import Mapping, Sequence
from dataclasses import replace

from evenprobe.hunting.evidence import Loop, Places, Split, left_by_split, two_that_exclude
from evenprobe.hunting.findings import Chance, Contradiction, Hunt, HuntState, NextPlace, Task
from evenprobe.hunting.left import Left
from evenprobe.hunting.plan import Plan, plan
from evenprobe.hunting.resistance import SILENT_OHM, Window, window_of
from evenprobe.hunting.run import BOARD, Place, Run
from evenprobe.hunting.sentences import ADVICE, CONTRADICTIONS, WHY
from evenprobe.sentences import Sentence

Seen = Split | Loop


def hunt_short(
    run: Run, seen: Sequence[Seen], standing_at: str = BOARD, *, ohm_per_m: float | None = None, volts: float = 230.0
) -> Hunt:
    """Where a short can still be, and which box to open next.

    Parameters
    ----------
    run
        The run.
    seen
        What was seen so far, in order.
    standing_at
        Where whoever hunts stands.
    ohm_per_m
        Of one conductor at 20 °C, where it is on record.
    volts
        Of the circuit, to say what load a steady resistance would be.

    Returns
    -------
    Hunt
        Shares sum to one over what is left.

    Examples
    --------
    >>> from evenprobe.hunting.run import Box
    >>> run = Run([Box("p1", "board", 10.0), Box("p2", "p1", 10.0), Box("p3", "p2", 10.0)])
    >>> found = hunt_short(run, [Split("board", onward=True), Split("p2", feed=True, onward=False)])
    >>> found.next.at, found.energise_up_to
    ('p1', None)
    """
    splits = [(number, each) for number, each in enumerate(seen) if isinstance(each, Split)]
    at_board = [(number, each) for number, each in splits if each.at == BOARD and each.onward is not None]
    shows = [(number, each) for number, each in splits if each.feed or each.shows_onward()]
    clear = [(number, each) for number, each in at_board if not each.shows_onward()]
    if clear and not shows:
        return Hunt(HuntState.CLEAR)
    if clear:
        return _contradictory(seen, sorted((clear[0][0], shows[0][0])))
    left = [left_by_split(run, each) for _, each in splits]
    pair = two_that_exclude(left)
    if pair is not None:
        return _contradictory(seen, [splits[i][0] for i in pair])
    weight, windows, advice = _weighed(run, seen, left, ohm_per_m, volts)
    opened = frozenset(each.at for _, each in splits if each.at != BOARD)
    remains = Left(run, weight, opened)
    whole = sum(weight.values())
    found = Hunt(
        HuntState.FOUND if remains.is_told(remains.region) else HuntState.HUNTING,
        share={place: weight[place] / whole for place in run.places if weight.get(place, 0.0) > 0},
        energise_up_to=_energise_up_to(run, opened, remains.region),
        distance_m=_distance(run, weight, windows),
        advice=advice,
    )
    if found.state is HuntState.FOUND:
        return found
    if not shows:
        return _measured_first(found, remains, standing_at)
    planned = plan(remains, standing_at)
    return found if planned is None else _planned(found, remains, planned, standing_at)


def _planned(found: Hunt, remains: Left, planned: Plan, here: str) -> Hunt:
    outcomes = tuple(remains.outcomes(planned.at))
    why = WHY.say("parts", shares=", ".join(f"{chance.share:.0%} {chance.when}" for chance in outcomes))
    following = NextPlace(planned.at, Task.OPEN, planned.minutes, outcomes, why)
    return replace(found, next=following, exact=planned.exact, in_order_minutes=remains.in_order(here))


def _measured_first(found: Hunt, remains: Left, here: str) -> Hunt:
    """The board's end comes first: without a joint there is nothing to hunt."""
    walk = remains.run.walk_minutes(here, BOARD)
    planned = plan(remains, BOARD)
    minutes, exact = (planned.minutes, planned.exact) if planned else (0.0, True)
    outcomes = (
        Chance("the joint shows", 1.0, Split(BOARD, onward=True)),
        Chance("clear", 0.0, Split(BOARD, onward=False)),
    )
    following = NextPlace(BOARD, Task.MEASURE, walk + minutes, outcomes, WHY.say("board-first"))
    return replace(found, next=following, exact=exact, in_order_minutes=walk + remains.in_order(BOARD))


def _contradictory(seen: Sequence[Seen], pair: Sequence[int]) -> Hunt:
    one, other = pair
    at = [seen[number].at for number in pair]
    if one == other:
        why = CONTRADICTIONS.say("both-sides", at=at[0])
    elif at[0] == at[1]:
        why = CONTRADICTIONS.say("twice", at=at[0])
    else:
        why = CONTRADICTIONS.say("apart", one=at[0], other=at[1])
    return Hunt(HuntState.CONTRADICTORY, contradiction=Contradiction((one, other), why))


def _weighed(
    run: Run, seen: Sequence[Seen], left: Sequence[Places], ohm_per_m: float | None, volts: float
) -> tuple[dict[Place, float], list[Window], Sentence | None]:
    """The weight of every place that the splits leave, less where the ohms measured do not fit."""
    region = frozenset(run.places).intersection(*left)
    weight = {place: run.weight(place) for place in run.places if place in region}
    windows: list[Window] = []
    advice = None
    for loop in seen:
        if not isinstance(loop, Loop):
            continue
        if loop.ohm > SILENT_OHM:
            advice = ADVICE.say("silent")
            continue
        if ohm_per_m is None:
            advice = ADVICE.say("no-conductor")
            continue
        window = window_of(run, loop, ohm_per_m)
        narrowed = {place: w * window.fits(place) for place, w in weight.items()} if window else {}
        if not any(narrowed.values()):
            load = volts**2 / max(loop.ohm - loop.null_ohm, 0.1)
            advice = ADVICE.say("load-in", ohm=loop.ohm - loop.null_ohm, watts=load, volts=volts)
            continue
        assert window is not None
        weight = narrowed
        windows.append(window)
    return weight, windows, advice


def _distance(run: Run, weight: Mapping[Place, float], windows: Sequence[Window]) -> tuple[float, float]:
    """Metres from the board to the nearest and to the farthest place it can be at."""
    spans = []
    for place, w in weight.items():
        if w <= 0:
            continue
        box = run.box[place.box]
        near = run.distance_m[box.after] if place.stretch else run.distance_m[box.id]
        far = run.distance_m[box.id]
        for window in windows:
            start, end = window.from_the_board(place)
            near, far = max(near, start), min(far, end)
        spans.append((near, far))
    return min(near for near, _ in spans), max(far for _, far in spans)


def _energise_up_to(run: Run, opened: frozenset[str], region: frozenset[Place]) -> str | None:
    """The last opened box before which everything is clear."""
    clear = [name for name in opened if all(p.box in run.beyond(name) and p != Place(name, True) for p in region)]
    return max(clear, key=run.distance_m.__getitem__, default=None)
