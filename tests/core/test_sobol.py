"""Sobol points: those of the library they were taken from."""

import numpy as np
import pytest
from scipy.stats import qmc

from evenprobe.sobol import sobol


def test_they_are_the_points_of_the_library() -> None:
    assert np.array_equal(sobol(96, 2048), qmc.Sobol(96, rng=20).random(2048))
    assert np.array_equal(sobol(7, 64), sobol(96, 64)[:, :7])


def test_each_number_alone_is_spread_evenly() -> None:
    halves = np.sort(np.floor(sobol(96, 1024) * 1024), axis=0)
    assert (halves == np.arange(1024)[:, None]).all()


def test_more_dimensions_than_there_are_is_said() -> None:
    with pytest.raises(ValueError, match="at most 96 dimensions, not 97"):
        sobol(97, 4)
