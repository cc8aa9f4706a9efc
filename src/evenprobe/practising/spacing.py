"""When something practised should come back: later each time it went well, at once where it did not.

Spaced repetition with growing gaps (Cepeda and others, Psychological Bulletin 132, 2006).
"""

from collections.abc import Sequence
from datetime import date, timedelta

_GAPS_DAYS = (1, 3, 8, 21, 60)
"""After so many times in a row that it went well."""


def due(went: Sequence[tuple[date, bool]]) -> date:
    """The day it should come back.

    Parameters
    ----------
    went : sequence of (date, bool)
        When it was practised and whether it was mastered then, in the order of time; at least one.

    Returns
    -------
    date

    Examples
    --------
    >>> str(due([(date(2026, 12, 1), True)])), str(due([(date(2026, 12, 1), True), (date(2026, 12, 2), False)]))
    ('2026-12-02', '2026-12-02')
    """
    last, _ = went[-1]
    in_a_row = next((n for n, (_, well) in enumerate(reversed(went)) if not well), len(went))
    return last if in_a_row == 0 else last + timedelta(days=_GAPS_DAYS[min(in_a_row, len(_GAPS_DAYS)) - 1])
