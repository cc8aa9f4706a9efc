"""Spoilt files at the command: an answer or a refusal in words for each, and never a traceback."""

import json
import signal
import warnings

import numpy as np
import pytest
from bench.spoiling import spoilt
from bench.spoilt_files import Count, one, seconds_at_most

from tests.core.test_library import COMMANDS

FILES = 600
SEEDS = [([name, *options], json.dumps(content).encode()) for name, (content, options) in COMMANDS.items()]


def test_spoilt_files_are_answered_or_refused_in_words():
    count = Count()
    with seconds_at_most(), warnings.catch_warnings():
        warnings.simplefilter("error", RuntimeWarning)
        for number in range(FILES):
            one(number, SEEDS, count)
    assert count.failed == []
    assert min(count.codes[0], count.codes[2]) > FILES // 10, "some are still right, and some are not"


def test_a_file_is_spoilt_in_ways_that_differ_and_always_the_same():
    content = SEEDS[0][1]
    made = [spoilt(content, np.random.default_rng([1, number])) for number in range(200)]
    assert made == [spoilt(content, np.random.default_rng([1, number])) for number in range(200)]
    assert len(set(made)) > 150
    assert content not in made or made.count(content) < 20
    assert any(len(each) > 5000 for each in made), "an integer that is longer than any"


def test_what_takes_too_long_is_counted(monkeypatch):
    monkeypatch.setattr("bench.spoilt_files.LONGEST_S", 0.05)
    monkeypatch.setattr("bench.spoilt_files.at_the_command", lambda *_: signal.pause())
    count = Count()
    with seconds_at_most():
        one(0, SEEDS, count)
    assert [how for _, _, how in count.failed] == ["not answered in 0 s"]


@pytest.mark.parametrize("fails", [ZeroDivisionError("division"), RecursionError("deep")])
def test_what_is_raised_is_counted_with_its_traceback(monkeypatch, fails):
    def raises(*_):
        raise fails

    monkeypatch.setattr("bench.spoilt_files.at_the_command", raises)
    count = Count()
    with seconds_at_most():
        one(0, SEEDS, count)
    [(_, _, how)] = count.failed
    assert type(fails).__name__ in how
