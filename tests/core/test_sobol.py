"""Sobol points: those of the library they were taken from."""

import numpy as np
import pytest
from scipy.stats import qmc

from evenprobe.sobol import sobol


@pytest.mark.parametrize(("dimensions", "count", "seed"), [(1, 8, 20), (46, 1024, 20), (46, 4, 0), (96, 2048, 20)])
def test_they_are_the_points_of_the_library(dimensions, count, seed):
    assert np.array_equal(sobol(dimensions, count, seed), qmc.Sobol(dimensions, rng=seed).random(count))


def test_each_number_alone_is_spread_evenly():
    cells = np.sort(np.floor(sobol(96, 1024) * 1024), axis=0)
    assert (cells == np.arange(1024)[:, None]).all()


def test_more_dimensions_than_there_are_is_said():
    with pytest.raises(ValueError, match="at most 96 dimensions, not 97"):
        sobol(97, 4)
