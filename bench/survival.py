"""No truth is ever struck out, and no danger cleared: random surveys with movement between readings, counted.

`python -m bench.survival` draws 2 000 with the seed of the day, `python -m bench.survival 10000 7` as many with seed 7.
What is done of a run is kept under `data/`, so that the same run of the same code goes on where it was stopped.
"""

import hashlib
import json
import sys
from collections import Counter
from concurrent.futures import ProcessPoolExecutor, as_completed
from dataclasses import dataclass, field
from datetime import UTC, datetime
from pathlib import Path

import numpy as np

from bench.draws import Draw, draw, points
from evenprobe.interpretation import PointInterpretation, Verdict, interpret
from evenprobe.interpretation.findings import State
from evenprobe.wiring import PointFacts

SURVEYS = 2_000
WORKERS = 2
ROOT = Path(__file__).parents[1]


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
        count.surveys += 1
        count.verdicts[result.verdict] += 1
        what = f"point {index} survey {number}: {drawn.truth.id}, {len(drawn.readings)} readings"
        if not drawn.is_held(result.conditions):
            count.lost.append(what)
        if _is_cleared(drawn, result, point):
            count.cleared.append(what)
    return count


def _is_cleared(drawn: Draw, result: PointInterpretation, point: PointFacts) -> bool:
    """Whether the answer calls safe what can hurt; of a device that fails it is the answer on protection."""
    if drawn.direct_on_metal and result.verdict is not Verdict.DANGER:
        return True
    if drawn.truth.device_blind:
        return result.protection.state is State.PASS
    hurts = not drawn.slight and drawn.truth.severity_at(point).can_hurt
    return hurts and result.verdict in (Verdict.SAFE, Verdict.CORRECT)


def run(surveys: int, seed: int, kept: Path) -> Count:
    """`kept`: a line of JSON for each point that is done; those in it are not drawn again."""
    each = -(-surveys // len(points()))
    total, done = Count(), done_in(kept)
    for part in done.values():
        _add(total, part)
    with ProcessPoolExecutor(WORKERS) as pool:
        jobs = {pool.submit(survey_point, i, each, seed): i for i in range(len(points())) if i not in done}
        for job in as_completed(jobs):
            part = job.result()
            with kept.open("a") as file:
                file.write(line_of(jobs[job], part))
            _add(total, part)
            tell(f"{total.surveys} of {each * len(points())} surveys")
            for line in [*part.lost, *part.cleared]:
                tell(line)
    return total


def _code() -> str:
    """What the answers come from, in short."""
    files = [ROOT / "bench" / "draws.py", *sorted((ROOT / "src" / "evenprobe").rglob("*.py"))]
    return hashlib.sha256(b"".join(file.read_bytes() for file in files)).hexdigest()[:8]


def line_of(point: int, part: Count) -> str:
    return json.dumps({"point": point, **vars(part)}) + "\n"


def done_in(kept: Path) -> dict[int, Count]:
    rows = [json.loads(line) for line in kept.read_text().splitlines()] if kept.exists() else []
    return {r.pop("point"): Count(**{**r, "verdicts": Counter(r["verdicts"])}) for r in rows}


def _add(total: Count, part: Count) -> None:
    total.surveys += part.surveys
    total.lost += part.lost
    total.cleared += part.cleared
    total.verdicts += part.verdicts


def tell(line: str) -> None:
    """To whoever waits for an hour: how far it is, and what was lost as soon as it is."""
    print(f"  {line}", file=sys.stderr, flush=True)


def main(surveys: int = SURVEYS, seed: int | None = None) -> int:
    seed = int(f"{datetime.now(UTC):%Y%m%d}") if seed is None else seed
    (ROOT / "data").mkdir(exist_ok=True)
    total = run(surveys, seed, ROOT / "data" / f"survival-{surveys}-{seed}-{_code()}.jsonl")
    struck, cleared = len(total.lost), len(total.cleared)
    print(f"surveys {total.surveys} (seed {seed}), truths struck out {struck}, dangers cleared {cleared}")
    print("verdicts " + ", ".join(f"{v} {n}" for v, n in sorted(total.verdicts.items())))
    for line in [*total.lost, *total.cleared]:
        print(f"  {line}")
    return bool(total.lost or total.cleared)


if __name__ == "__main__":
    sys.exit(main(*(int(a) for a in sys.argv[1:])))
