"""What a test of a sheet's line measures, before anything is shown: its reading without a value."""

from collections.abc import Mapping
from typing import Any

from evenprobe.deadtests.completing import whole_test
from evenprobe.deadtests.kinds import DEAD_TESTS, Figure
from evenprobe.deadtests.sheet import Line
from evenprobe.entries import parse
from evenprobe.practices import Practice

_SEEN = frozenset({"value", "at_least", "below", "over_range", "unit"})
_SOMETHING = 1.0
"""Stands for what is not read yet."""


def _figure_of(line: Line) -> Figure | None:
    """The one figure that is read off a display; None of a test that takes several, as a ring does, or none."""
    figures = [f for f in DEAD_TESTS[line.kind].fields if isinstance(f, Figure) and not f.printed]
    return figures[0] if len(figures) == 1 else None


def measured_along(
    line: Line, typed: Mapping[str, Any], practice: Practice, loads: Mapping[str, Any] | None = None
) -> dict[str, Any] | None:
    """The reading that a test of the line will be.

    Parameters
    ----------
    line : Line
        Of a sheet.
    typed : mapping
        What was picked so far, as the test voltage.
    practice : Practice
    loads : mapping, optional
        What was said of the loads and of the neutral.

    Returns
    -------
    dict or None
        As the survey format has it, without what is seen; None for what says nothing of conductors, or takes several
        readings.

    Raises
    ------
    FormatError
        Where what was picked is none of the test's.

    Examples
    --------
    >>> from evenprobe.deadtests.sheet import Step
    >>> from evenprobe.practices import BRITISH
    >>> earth = Line("1", Step.CONTINUITY, "continuity", "E to socket", {"from": "PE", "to": "BOARD-PE"})
    >>> measured_along(earth, {}, BRITISH)
    {'from': 'PE', 'to': 'BOARD-PE', 'device': 'open', 'quantity': 'resistance'}
    """
    figure = _figure_of(line)
    if figure is None:
        return None
    beyond = (figure.key, figure.over_range, figure.at_least, "unit")
    picked = {key: value for key, value in typed.items() if key not in beyond}
    whole = whole_test(line, {"id": line.id, **picked, figure.key: _SOMETHING}, loads=loads)
    test = parse(DEAD_TESTS[line.kind].entry, whole)
    reading = test.as_reading(test.outcome(practice))
    return None if reading is None else {key: value for key, value in reading.items() if key not in _SEEN}
