"""When something happened that a device tells of later, whatever its clock says and however long the way here was."""

from datetime import UTC, datetime, timedelta

from hypothesis import given
from hypothesis import strategies as st

from base.clocks import by_our_clock

NOON = datetime(2026, 11, 24, 12, 0, tzinfo=UTC)
seconds = st.floats(0, 20).map(lambda s: timedelta(seconds=s))


@given(st.lists(st.tuples(seconds, seconds), min_size=2, max_size=8), st.floats(-35, 35))
def test_what_is_sent_in_order_stays_in_order_on_a_slow_line(events, off_s):
    """Each happens some time after the one before, and is sent when that is there; the way here takes its time."""
    off, happened, arrived, placed = timedelta(seconds=off_s), NOON, NOON, []
    for apart, on_its_way in events:
        happened += apart
        sent = max(happened, arrived)
        arrived = sent + on_its_way
        placed.append(by_our_clock(arrived, happened + off, sent + off))
    assert placed == sorted(placed)
    assert all(when <= arrived for when in placed)


@given(st.floats(-1e7, 1e7), seconds)
def test_of_a_clock_that_is_off_only_how_long_ago_is_believed(off_s, waited):
    off = timedelta(seconds=off_s)
    placed = by_our_clock(NOON, NOON + off - waited, NOON + off)
    assert abs(placed - (NOON - waited)) <= timedelta(seconds=60)
    assert placed <= NOON


def test_what_makes_no_sense_happened_now():
    day = timedelta(days=1)
    for at, sent in ((None, NOON), (NOON, None), (NOON + 2 * day, NOON + day), (NOON - 3 * day, NOON)):
        assert by_our_clock(NOON, at, sent) == NOON
