"""Which device feeds which outlet: a board mapped by switching patterns, not way by way.

Each way has a number of its own; in round r those are on whose number has bit r. What an outlet shows over the rounds
is the number of the way that feeds it. One round more carries parity, so that a slip is told (R. W. Hamming, Bell Syst.
Tech. J. 29, 1950). Patterns are only for locating: before work, prove dead.
"""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import combinations, count

from evenprobe.hunting.findings import Contradiction, HuntState
from evenprobe.hunting.sentences import CONTRADICTIONS, ODD
from evenprobe.sentences import Sentence

Pattern = tuple[bool, ...]


@dataclass(frozen=True)
class Tapped:
    """What an outlet was in a round, counted from 1."""

    outlet: str
    round: int
    live: bool


@dataclass(frozen=True)
class BoardMap:
    """How far a board is mapped.

    Parameters
    ----------
    state
        Found when every outlet was told in every round.
    rounds
        Of each the ways that are on, in the order they stand.
    found
        Ways by outlet.
    odd
        Outlets that no single way explains, with why.
    next_round, next_outlet
        What to look at next.
    contradiction
        An outlet that was live and dead in one round.
    """

    state: HuntState
    rounds: Sequence[Sequence[str]]
    found: Mapping[str, Sequence[str]] = field(default_factory=dict)
    odd: Mapping[str, Sentence] = field(default_factory=dict)
    next_round: int | None = None
    next_outlet: str | None = None
    contradiction: Contradiction | None = None


def map_board(
    ways: Sequence[str],
    outlets: Sequence[str],
    seen: Sequence[Tapped],
    *,
    fixed_on: Collection[str] = (),
    fixed_off: Collection[str] = (),
) -> BoardMap:
    """The rounds to switch, and what the outlets showed so far comes to.

    Parameters
    ----------
    ways
        Of the board, as they stand.
    outlets
        In walking order.
    seen
        What was tapped so far.
    fixed_on, fixed_off
        Ways that must stay as they are.

    Returns
    -------
    BoardMap
        With its rounds whatever was seen.

    Examples
    --------
    >>> plan = map_board(["1", "2", "3"], ["lamp"], [])
    >>> [list(on) for on in plan.rounds]
    [['1', '3'], ['2', '3'], ['1', '2']]
    >>> told = [Tapped("lamp", 1, True), Tapped("lamp", 2, True), Tapped("lamp", 3, False)]
    >>> map_board(["1", "2", "3"], ["lamp"], told).found["lamp"]
    ['3']
    """
    patterns = _patterns([way for way in ways if way not in fixed_on and way not in fixed_off], bool(fixed_on))
    number = len(next(iter(patterns.values()), ()))
    always: Pattern = (True,) * number
    shown = patterns | dict.fromkeys(fixed_on, always) | dict.fromkeys(fixed_off, (False,) * number)
    rounds = [[way for way in ways if shown[way][r]] for r in range(number)]
    lives: dict[str, dict[int, tuple[int, bool]]] = {outlet: {} for outlet in outlets}
    for index, tap in enumerate(seen):
        earlier = lives[tap.outlet].get(tap.round)
        if earlier is not None and earlier[1] != tap.live:
            why = CONTRADICTIONS.say("round-twice", outlet=tap.outlet, round=tap.round)
            return BoardMap(HuntState.CONTRADICTORY, rounds, contradiction=Contradiction((earlier[0], index), why))
        lives[tap.outlet][tap.round] = index, tap.live
    found: dict[str, Sequence[str]] = {}
    odd: dict[str, Sentence] = {}
    for outlet, by_round in lives.items():
        if len(by_round) < number:
            continue
        pattern = tuple(by_round[r + 1][1] for r in range(number))
        ways_of, why_odd = _fed_by(pattern, patterns, fixed_on, fixed_off)
        if ways_of:
            found[outlet] = ways_of
        if why_odd is not None:
            odd[outlet] = why_odd
    missing = [(r + 1, outlet) for r in range(number) for outlet in outlets if r + 1 not in lives[outlet]]
    if not missing:
        return BoardMap(HuntState.FOUND, rounds, found, odd)
    return BoardMap(HuntState.HUNTING, rounds, found, odd, *missing[0])


def _patterns(ways: Sequence[str], on_is_taken: bool) -> dict[str, Pattern]:
    """In which rounds each is on, the parity round last; none of them never, and none always where that is taken."""
    bits = len(ways).bit_length()
    while True:
        codes = (code for code in count(1) if not (on_is_taken and all(_pattern(code, bits))))
        found = {way: next(codes) for way in ways}
        if max(found.values(), default=0) < 1 << bits:
            return {way: _pattern(code, bits) for way, code in found.items()}
        bits += 1


def _pattern(code: int, bits: int) -> Pattern:
    return (*(bool(code >> bit & 1) for bit in range(bits)), code.bit_count() % 2 == 1)


def _fed_by(
    pattern: Pattern, patterns: Mapping[str, Pattern], fixed_on: Collection[str], fixed_off: Collection[str]
) -> tuple[Sequence[str], Sentence | None]:
    """The way, and why a pattern is odd where no single one explains it."""
    alone = [way for way, own in patterns.items() if own == pattern]
    if alone:
        return alone, None
    if not any(pattern):
        ways = list(fixed_off)
        return ways if len(ways) == 1 else [], ODD.say("never" if not ways else "off-ways", ways=", ".join(ways))
    if all(pattern) and fixed_on:
        ways = list(fixed_on)
        return ways if len(ways) == 1 else [], None if len(ways) == 1 else ODD.say("on-ways", ways=", ".join(ways))
    together = [
        f"{one} and {other}"
        for (one, a), (other, b) in combinations(patterns.items(), 2)
        if tuple(x or y for x, y in zip(a, b, strict=True)) == pattern
    ]
    if sum(pattern) % 2 == 1 and not together:
        return [], ODD.say("parity")
    if not together:
        return [], ODD.say("no-way")
    return [], ODD.say("two-ways", ways=" or ".join(together))
