"""Twice the samples change no verdict."""

import numpy as np

from bench.draws import draw, points
from evenprobe.interpretation import interpret

SURVEYS = 60


def main() -> int:
    """Interpret the same surveys from 1024 and from 2048 samples a condition; print and return the differences."""
    changed = []
    for number in range(SURVEYS):
        index = number % len(points())
        point = points()[index]
        drawn = draw(point, np.random.default_rng([99, index, number]))
        one, two = (interpret(point, drawn.readings, samples=n).verdict for n in (1024, 2048))
        if one != two:
            changed.append(f"point {index} survey {number}: {drawn.truth.id}, {one} became {two}")
    print(f"samples doubled on {SURVEYS} surveys: {len(changed)} verdicts changed")
    for line in changed:
        print(f"  {line}")
    return len(changed)
