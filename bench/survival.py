"""No truth is ever struck out, and no danger cleared: random surveys, counted."""

import sys
from collections import Counter
from concurrent.futures import ProcessPoolExecutor, as_completed
from dataclasses import dataclass, field

import numpy as np

from bench.draws import draw, points
from evenprobe.interpretation import Verdict, interpret

SURVEYS = 10_000
SEED = 7
WORKERS = 2


@dataclass
class Count:
    surveys: int = 0
    lost: list[str] = field(default_factory=list)
    cleared: list[str] = field(default_factory=list)
    verdicts: Counter[str] = field(default_factory=Counter)


def survey_point(index: int, surveys: int, seed: int) -> Count:
    """Surveys of one point, all against its one ensemble."""
    point = points()[index]
    count = Count()
    for number in range(surveys):
        drawn = draw(point, np.random.default_rng([seed, index, number]))
        result = interpret(point, drawn.readings)
        severity = drawn.truth.severity_at(point)
        count.surveys += 1
        count.verdicts[result.verdict] += 1
        what = f"point {index} survey {number}: {drawn.truth.id}, {len(drawn.readings)} readings"
        if not any(o.standing for o in result.conditions if o.condition.id == drawn.truth.id):
            count.lost.append(what)
        hurts = severity.can_hurt and result.verdict in (Verdict.SAFE, Verdict.CORRECT)
        if hurts or (drawn.direct_on_metal and result.verdict is not Verdict.DANGER):
            count.cleared.append(what)
    return count


def run(surveys: int = SURVEYS, seed: int = SEED) -> Count:
    each = -(-surveys // len(points()))
    total = Count()
    with ProcessPoolExecutor(WORKERS) as pool:
        jobs = [pool.submit(survey_point, i, each, seed) for i in range(len(points()))]
        for job in as_completed(jobs):
            part = job.result()
            total.surveys += part.surveys
            total.lost += part.lost
            total.cleared += part.cleared
            total.verdicts += part.verdicts
            tell(f"{total.surveys} of {each * len(jobs)} surveys")
            for line in [*part.lost, *part.cleared]:
                tell(line)
    return total


def tell(line: str) -> None:
    """To whoever waits for an hour: how far it is, and what was lost as soon as it is."""
    print(f"  {line}", file=sys.stderr, flush=True)


def main(surveys: int = SURVEYS, seed: int = SEED) -> int:
    total = run(surveys, seed)
    print(f"surveys {total.surveys}, truths struck out {len(total.lost)}, dangers cleared {len(total.cleared)}")
    print("verdicts " + ", ".join(f"{v} {n}" for v, n in sorted(total.verdicts.items())))
    for line in [*total.lost, *total.cleared]:
        print(f"  {line}")
    return bool(total.lost or total.cleared)


if __name__ == "__main__":
    sys.exit(main(*(int(a) for a in sys.argv[1:])))
