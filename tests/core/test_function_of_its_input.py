"""No answer depends on what was asked before, on the order of readings, on other points or on threads."""

from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace

import numpy as np
import pytest
from bench.draws import draw, points

from evenprobe.interpretation import ensemble_for, forget_ensembles, interpret
from evenprobe.interpretation.memory import Memory
from evenprobe.testers import TYPED
from tests.core.installations import outlet, standing, volts

POINTS = points()
SOME = [(4, 1), (17, 2), (33, 0), (55, 1)]
"""Points of one, two and three lines, and a survey of each."""
BROKEN_OFF = (43, 3)
"""Here a search with part of the readings was once broken off too soon."""


def drawn(index, seed):
    return POINTS[index], list(draw(POINTS[index], np.random.default_rng([41, index, seed])).readings)


@pytest.mark.parametrize(("index", "seed"), SOME)
def test_at_once_is_step_by_step_to_the_last_digit_whatever_was_asked_between(index, seed):
    point, readings = drawn(index, seed)
    forget_ensembles()
    at_once = interpret(point, readings, [TYPED])
    forget_ensembles()
    ensemble_for(point).prepare()
    for taken in range(1, len(readings)):
        interpret(point, readings[:taken], [TYPED])
    others = [replace(r, value=r.value * 1.1) if r.value and not r.measurement.dc else r for r in readings]
    interpret(point, others, [TYPED])
    assert interpret(point, readings, [TYPED]) == at_once


@pytest.mark.parametrize(("index", "seed"), SOME)
def test_the_order_of_readings_changes_nothing_that_is_said(index, seed):
    point, readings = drawn(index, seed)
    one, other = interpret(point, readings), interpret(point, readings[::-1])
    assert other.conditions == one.conditions
    assert (other.verdict, other.summary, other.next_tests) == (one.verdict, one.summary, one.next_tests)
    assert set(other.judgements) == set(one.judgements)
    assert set(other.not_counted) == set(one.not_counted)
    assert set(other.retake) == set(one.retake)


@pytest.mark.parametrize(("index", "seed"), [*SOME, BROKEN_OFF])
def test_what_stands_with_all_readings_stands_with_any_part_of_them(index, seed):
    """But for what it takes a reading to think of at all, and for a reference earth that another may put in doubt."""
    point, every = drawn(index, seed)
    readings = [r for r in every if not r.measurement.dc and r.measurement.reference.kind.alone]
    with_all = standing(interpret(point, readings))
    rng = np.random.default_rng(index)
    for taken in {1, 2, len(readings) // 2} - {0}:
        part = [readings[i] for i in sorted(rng.permutation(len(readings))[:taken])]
        assert with_all <= standing(interpret(point, part)), [r.id for r in part]


def test_threads_that_ask_one_bank_at_once_get_what_each_would_alone():
    point = outlet()
    asked = [
        [volts("L-N", 119.0 + n / 10), volts("N-PE", 0.2 * n), volts("L-N", 117.0, load_here_a=4.0 + n, id="loaded")]
        for n in range(4)
    ]
    alone = []
    for readings in asked:
        forget_ensembles()
        alone.append(interpret(point, readings, [TYPED]))
    forget_ensembles()
    with ThreadPoolExecutor(4) as pool:
        assert list(pool.map(lambda readings: interpret(point, readings, [TYPED]), asked)) == alone


def test_a_danger_that_fits_one_reading_is_not_struck_out_because_few_were_taken():
    """A high leg with much on it: its nearest sample lay far from a single reading."""
    point = outlet()
    assert "high-leg-on-single-phase" in standing(interpret(point, [volts("L-N", 150.0)]))


def test_a_memory_holds_so_much_and_what_was_kept_first_stays():
    memory: Memory[int, str] = Memory(3)
    assert [memory.of(n, lambda n=n: str(n)) for n in range(5)] == list("01234")
    assert [n for n, _ in memory.items()] == [2, 3, 4]
    assert memory.keep(4, "later") == "4"
    assert memory.known(0) is None


def test_a_memory_is_safe_under_threads():
    memory: Memory[int, int] = Memory(8)

    def ask(seed):
        rng = np.random.default_rng(seed)
        return all(memory.of(int(n), lambda n=n: int(n) * 2) == n * 2 for n in rng.integers(0, 40, size=3000))

    with ThreadPoolExecutor(8) as pool:
        assert all(pool.map(ask, range(8)))
