"""From a replayed log to the answer: state, what is missing, pairs, the clock and the next step."""

from collections.abc import Iterator
from dataclasses import replace
from datetime import timedelta

from evenprobe.isolation.bracketing import Bracketing, Taken
from evenprobe.isolation.log import IsolationLog
from evenprobe.isolation.next_step import steps_ahead
from evenprobe.isolation.replay import Replay
from evenprobe.isolation.sentences import MISSING
from evenprobe.isolation.standing import Isolation, Missing, PairState, State


def isolation(log: IsolationLog) -> Isolation:
    """What a log of isolation amounts to at its own time.

    A pure function of the log: nothing else is remembered, and a proof runs out by `log.at` alone.

    Parameters
    ----------
    log : IsolationLog
        Its events in time order, none later than `log.at`.

    Returns
    -------
    Isolation
        The state, what is missing, what went wrong and the one next step.

    Examples
    --------
    >>> from evenprobe.formats import IsolationFile, parse
    >>> file = {"format": "even-probe/isolation", "version": 1, "practice": "british"}
    >>> file |= {"at": "2026-11-24T10:00:00+00:00", "supply": {"system": "230"}, "terminals": ["L", "N", "PE"]}
    >>> file |= {"sources": [{"id": "s1", "label": "way 1"}]}
    >>> found = isolation(parse(IsolationFile, file).log())
    >>> str(found.state), found.next_step.text
    ('energised', 'switch off way 1')
    """
    replay = Replay(log)
    for index, event in enumerate(log.events):
        replay.take(Taken(index, event))
    replay.wait_until(log.at)
    return _outcome(log, replay)


def _outcome(log: IsolationLog, replay: Replay) -> Isolation:
    tester, active = replay.active() or (None, None)
    state = _state(replay)
    proved = state is State.PROVED_DEAD
    missing = [] if proved or state is State.CLOSED else list(_missing(replay, active))
    waiting = [reading.event.at for _, reading in active.waiting.values()] if active else []
    stated = replay.stated if proved else None
    if stated and replay.proved_at and stated.at < replay.proved_at:
        stated = None
    so_far = Isolation(
        state=state,
        proved_at=replay.proved_at if proved else None,
        expires_at=replay.runs_out if proved else None,
        missing=tuple(missing),
        problems=tuple(replay.problems),
        pairs=tuple(_pair_states(replay, active, missing)),
        sources=tuple(replay.sources.values()),
        history=tuple(replay.history),
        counted=_counted(active) if active else (),
        tester=tester,
        prove_again_by=min(waiting) + timedelta(minutes=log.rules.window_min) if waiting else None,
        stated_at=stated.at if stated else None,
        stated_by=stated.by if stated else "",
        was_proved_at=None if proved else replay.was_proved_at or replay.proved_at,
        loosened=log.rules.loosened(log.practice),
        reason=log.rules.reason,
    )
    return replace(so_far, ahead=steps_ahead(log, so_far, replay.bracketings, replay.unexplained))


def _state(replay: Replay) -> State:
    if replay.closed:
        return State.CLOSED
    if replay.alive:
        return State.ENERGISED
    if replay.ended is not None:
        return State.VOID
    if replay.complete() is not None:
        return State.PROVED_DEAD
    proving = any(r.begun for r in replay.bracketings.values())
    if replay.isolated() and not proving:
        return State.ISOLATED
    begun = proving or any(s.off or s.locked for s in replay.sources.values())
    return State.PROVING if begun else State.ENERGISED


def _missing(replay: Replay, active: Bracketing | None) -> Iterator[Missing]:
    for state in replay.sources.values():
        source = state.source
        if not state.off:
            yield Missing("source-not-off", MISSING.say("source-not-off", source=source.label), source.id)
        if not state.locked:
            yield Missing("source-not-locked", MISSING.say("source-not-locked", source=source.label), source.id)
    if active is None:
        yield Missing("not-proved-before", MISSING.say("not-proved-before"))
    yield from _untested(replay, active)
    if active is None or active.waiting or not active.covered:
        yield Missing("not-proved-after", MISSING.say("not-proved-after"))


def _untested(replay: Replay, active: Bracketing | None) -> Iterator[Missing]:
    """Of each pair every mode that is to be read; where there is but one nobody needs to be told which."""
    modes = replay.modes()
    for pair in replay.pairs:
        between = replay.log.between(*pair)
        for mode in modes:
            slot = frozenset(pair), mode
            read = active is not None and (slot in active.waiting or slot in active.covered)
            if read and slot[0] not in replay.unexplained:
                continue
            if len(modes) > 1:
                said = MISSING.say("pair-not-tested-on", between=between, mode=mode.upper())
                yield Missing("pair-not-tested", said, None, pair, mode)
            else:
                yield Missing("pair-not-tested", MISSING.say("pair-not-tested", between=between), None, pair)


def _pair_states(replay: Replay, active: Bracketing | None, missing: list[Missing]) -> list[PairState]:
    states = []
    for pair in replay.pairs:
        shown = replay.last_shown.get(frozenset(pair))
        still = [m.mode for m in missing if m.pair == pair]
        states.append(
            PairState(
                pair,
                done=active is not None and not still,
                volts=None if shown is None else shown.volts if shown.volts is not None else shown.at_least,
                below=None if shown is None or shown.volts is not None else shown.below,
                needs=next((m for m in still if m is not None), None),
                unexplained=frozenset(pair) in replay.unexplained,
            )
        )
    return states


def _counted(active: Bracketing) -> tuple[int, ...]:
    taken = [t for three in active.covered.values() for t in three]
    taken += [t for two in active.waiting.values() for t in two]
    taken += active.proofs.values()
    return tuple(sorted({t.index for t in taken}))
