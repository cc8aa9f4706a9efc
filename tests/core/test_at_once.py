"""The verdict before the search: what it says by itself. That it is never another is asked in `test_interpretation`."""

import numpy as np
import pytest
from bench.draws import draw, points

from evenprobe.interpretation import Verdict, at_once, interpret
from evenprobe.quantities import PRESENCE, Measurement, Reading
from evenprobe.testers import Instrument
from evenprobe.testers.kinds import NON_CONTACT
from evenprobe.wiring import Terminal
from tests.core.installations import outlet, volts

FIRST_THREE = (volts("L-N", 120.4), volts("L-PE", 120.5), volts("N-PE", 0.1))
SURVEYS = 40


@pytest.mark.parametrize("count", [1, 2, 3])
def test_the_first_readings_of_an_outlet_are_answered_so(count):
    first = at_once(outlet(), FIRST_THREE[:count])
    assert first.verdict is Verdict.UNCONFIRMED
    assert "not known yet" in first.summary
    assert not first.conditions


ALARM = Reading("a", Measurement(PRESENCE, Terminal.PE, None, Instrument("d", NON_CONTACT, proved=True)), alarm=True)
LIVE = volts("PE-REF", 119.9)
DIRECT = volts("L-N", 48.0, dc=True)


@pytest.mark.parametrize(
    ("readings", "verdict", "said"),
    [
        ([*FIRST_THREE, LIVE], Verdict.DANGER, "Metalwork is at a dangerous voltage. Keep off, switch off, lock."),
        ([*FIRST_THREE, LIVE, ALARM], Verdict.DANGER, "Metalwork is at a dangerous voltage."),
        ([*FIRST_THREE, ALARM], Verdict.DANGER, "A tester says the metalwork is live. Keep off"),
        ([*FIRST_THREE, DIRECT], Verdict.HAZARD, "Treat as live."),
        ([volts("L-N", 1.0)], Verdict.DANGER, "Someone can be hurt now. Keep off, switch off, lock."),
    ],
    ids=["live metal", "live metal that a detector found too", "an alarm", "direct voltage", "no hot and neutral"],
)
def test_what_is_dangerous_is_said_at_once_and_by_what(readings, verdict, said):
    first = at_once(outlet(), readings)
    assert first.verdict is verdict is interpret(outlet(), readings).verdict
    assert said in first.summary


def test_most_random_surveys_are_answered_so_and_what_the_readings_say_is_what_the_whole_answer_says():
    point, rng = points()[0], np.random.default_rng(0)
    surveys = [draw(point, rng).readings for _ in range(SURVEYS)]
    given = [(readings, first) for readings in surveys if (first := at_once(point, readings))]
    assert SURVEYS / 2 < len(given) < SURVEYS
    for readings, first in given[:5]:
        whole = interpret(point, readings)
        for said in ("judgements", "not_counted", "direct", "insulation", "protection"):
            assert getattr(first, said) == getattr(whole, said)


def test_nothing_is_said_of_no_readings():
    assert at_once(outlet(), []) is None


def test_nothing_safe_is_said_before_everything_dangerous_was_looked_for():
    load = {"load_here_a": 10.0}
    readings = [*FIRST_THREE, volts("PE-REF", 0.1), volts("N-REF", 0.2), volts("L-REF", 120.4)]
    readings += [volts("L-N", 118.2, **load), volts("N-PE", 1.1, **load), volts("PE-REF", 0.1, **load)]
    for count in range(1, len(readings) + 1):
        first = at_once(outlet(), readings[:count])
        assert first is None or not first.verdict.is_safe


def test_nothing_is_said_where_the_search_decides():
    """Whether a supply that is too high is all that is wrong, only the search tells."""
    assert at_once(outlet(), [volts("L-N", 131.0), volts("L-PE", 131.2)]) is None
