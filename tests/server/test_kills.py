"""What was acknowledged is there once, though the server is killed in the middle of it and again."""

import pytest
from bench.kills import run

WRITES, EVERY, PORT = 30, 14, 8143


@pytest.mark.sqlite
def test_nothing_acknowledged_is_lost_or_there_twice():
    told, there = run(WRITES, EVERY, PORT)
    assert told.kills >= 1
    assert told.refused == []
    assert len(told.acknowledged) == WRITES
    assert {there[word] for word in told.acknowledged} == {1}
