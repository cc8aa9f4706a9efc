"""Sobol points: evenly spread in many dimensions at once, the same every time.

Sobol, USSR Comp. Math. 7, 1967, in the Gray-code order of Antonov and Saleev, 1979, with the direction numbers of Joe
and Kuo (SIAM J. Sci. Comput. 30, 2008), scrambled as Matousek does (J. Complexity 14, 1998). They are the points of
SciPy's generator, whose direction numbers are kept in `directions.npy`, for that library's statistics take a second to
import; a test compares the two.
"""

from functools import cache
from importlib.resources import files
from typing import Any

import numpy as np
from numpy.typing import NDArray

_BITS = 30
_POWERS = 2 ** np.arange(_BITS, dtype=np.uint32)


def sobol(dimensions: int, count: int, seed: int = 20) -> NDArray[np.floating[Any]]:
    """The first points of a sequence.

    Parameters
    ----------
    dimensions : int
        At most 96.
    count : int
        How many; best a power of two.
    seed : int
        Of the scrambling.

    Returns
    -------
    array of float, (count, dimensions)
        In the unit cube, 1 excluded.

    Raises
    ------
    ValueError
        More dimensions than there are direction numbers for.

    Examples
    --------
    >>> points = sobol(2, 256)
    >>> points.shape, bool(abs(points.mean(axis=0) - 0.5).max() < 0.01)
    ((256, 2), True)
    """
    directions, shift = _scrambled(dimensions, seed)
    number = np.arange(count)
    gray = number ^ (number >> 1)
    drawn = np.tile(shift, (count, 1))
    for bit in range(int(count).bit_length()):
        drawn[gray >> bit & 1 == 1] ^= directions[:, bit]
    return np.asarray(drawn * 2.0**-_BITS)


def _scrambled(dimensions: int, seed: int) -> tuple[NDArray[np.uint32], NDArray[np.uint32]]:
    """Direction numbers (D, bits), their bits mixed by a lower triangle of ones and zeros, and a shift (D,)."""
    directions = _directions()
    if dimensions > len(directions):
        raise ValueError(f"at most {len(directions)} dimensions, not {dimensions}")
    [rng] = np.random.default_rng(seed).spawn(1)
    shift = rng.integers(2, size=(dimensions, _BITS), dtype=np.uint32) @ _POWERS
    below = np.tril(rng.integers(2, size=(dimensions, _BITS, _BITS), dtype=np.uint32))
    below[:, np.arange(_BITS), np.arange(_BITS)] = 1
    highest_first = directions[:dimensions, None, :] >> np.arange(_BITS - 1, -1, -1)[:, None] & 1
    mixed = (below.astype(np.int64) @ highest_first.astype(np.int64)) % 2
    return (mixed * _POWERS[::-1, None]).sum(axis=1).astype(np.uint32), shift


@cache
def _directions() -> NDArray[np.uint32]:
    """(96, bits)."""
    with (files("evenprobe.sobol") / "directions.npy").open("rb") as file:
        return np.asarray(np.load(file), dtype=np.uint32)
