"""Sobol points: evenly spread in many dimensions at once, the same every time.

Sobol, USSR Comp. Math. 7, 1967, in the Gray-code order of Antonov and Saleev, 1979; Owen's scrambling (J. Complexity
14, 1998). Which bits each number of a point is made of was taken from SciPy's generator once, with seed 20, and is kept
in `scrambled.npy`, for that library's statistics take a second to import; a test compares the two.
"""

from functools import cache
from importlib.resources import files
from typing import Any

import numpy as np
from numpy.typing import NDArray

_BITS = 30


def sobol(dimensions: int, count: int) -> NDArray[np.floating[Any]]:
    """The first points of the sequence.

    Parameters
    ----------
    dimensions : int
        At most 96.
    count : int
        How many; best a power of two.

    Returns
    -------
    array of float, (count, dimensions)
        In the unit cube, 1 excluded.

    Raises
    ------
    ValueError
        More dimensions than the table has.

    Examples
    --------
    >>> points = sobol(2, 256)
    >>> points.shape, bool(abs(points.mean(axis=0) - 0.5).max() < 0.01)
    ((256, 2), True)
    """
    table = _table()
    if dimensions > len(table):
        raise ValueError(f"at most {len(table)} dimensions, not {dimensions}")
    directions, shift = table[:dimensions, :_BITS], table[:dimensions, _BITS]
    number = np.arange(count)
    gray = number ^ (number >> 1)
    drawn = np.tile(shift, (count, 1))
    for bit in range(int(count).bit_length()):
        drawn[gray >> bit & 1 == 1] ^= directions[:, bit]
    return np.asarray(drawn * 2.0**-_BITS)


@cache
def _table() -> NDArray[np.uint32]:
    """(96, 31): of each dimension the direction numbers, then the shift."""
    with (files("evenprobe.sobol") / "scrambled.npy").open("rb") as file:
        return np.asarray(np.load(file), dtype=np.uint32)
