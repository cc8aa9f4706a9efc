"""Evidence of several readings: in an order of its own, which of several alike confine most, and which are at odds."""

from collections.abc import Sequence

from evenprobe.quantities.measurement import Evidence

Extremes = tuple[Evidence, Evidence]


def in_order(evidence: Sequence[Evidence]) -> list[Evidence]:
    """Evidence by what it says, so that nothing depends on the order in which readings were taken down.

    Parameters
    ----------
    evidence : sequence of Evidence

    Returns
    -------
    list of Evidence
    """
    return sorted(evidence, key=lambda e: (repr(e.key), e.reading.id))


def confining(evidence: Sequence[Evidence]) -> tuple[Evidence, ...]:
    """Of readings repeated with one tester the one that confines most from below and the one from above.

    They confine a prediction as much as all of them do, so a reading taken ten times costs no more than twice.

    Parameters
    ----------
    evidence : sequence of Evidence

    Returns
    -------
    tuple of Evidence
        In the order given.
    """
    kept = {id(e) for group in _repeated(evidence) for e in _extremes(group)}
    return tuple(e for e in evidence if id(e) in kept)


def at_odds(evidence: Sequence[Evidence]) -> Extremes | None:
    """Two readings of one thing, with one tester or two alike, that no value explains.

    Parameters
    ----------
    evidence : sequence of Evidence

    Returns
    -------
    (Evidence, Evidence) or None
        None where there are no two such.
    """
    for group in _repeated(evidence):
        below, above = _extremes(group)
        if below.low - below.tolerance > above.high + above.tolerance:
            return below, above
    for group in _repeated(evidence, by_any_like_tester=True):
        below = max(group, key=lambda e: e.interval[0])
        above = min(group, key=lambda e: e.interval[1])
        if below.interval[0] > above.interval[1]:
            return below, above
    return None


def _extremes(group: Sequence[Evidence]) -> Extremes:
    return max(group, key=lambda e: e.low - e.tolerance), min(group, key=lambda e: e.high + e.tolerance)


def _repeated(evidence: Sequence[Evidence], *, by_any_like_tester: bool = False) -> list[list[Evidence]]:
    """The evidence in groups of one prediction each: one setup, whichever probe was where."""
    groups: dict[tuple[object, ...], list[Evidence]] = {}
    for e in evidence:
        m = e.measurement
        ability = m.instrument.volts()
        connected = ability and (ability.input_ohm, ability.input_farad, ability.low_input_ohm)
        who = connected if by_any_like_tester else (e.tester, e.gain_share)
        groups.setdefault((m.setup(), who), []).append(e)
    return list(groups.values())
