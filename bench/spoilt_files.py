"""A hundred thousand spoilt files at the command: each answered or refused in words, none with a traceback or late.

The files are those of the demo's crew, a point, a sheet, a proof, a hunt and a sign-off each. Exit 1 where one failed.
"""

import contextlib
import io
import json
import multiprocessing
import os
import signal
import subprocess
import sys
import tempfile
import time
import traceback
import warnings
from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from pathlib import Path
from types import FrameType
from typing import Any

import numpy as np

from bench.spoiling import spoilt
from evenprobe import cli

FILES, SEED, WORKERS = 100_000, 20, 2
LONGEST_S = 10.0
COMMANDS = (
    *("interpret", "interpret", "predict", "identify", "verify"),
    *("solve", "fit", "isolate", "hunt", "judge") * 3,
)
"""Each as often as it stands here: those that reckon longest less often."""
AT_A_TIME = 2000
"""Files of one process: what it keeps of many installations that are no more would fill the memory."""
_ANSWERED, _REFUSED, _NOT_SOUND = 0, 2, 3

Seed = tuple[Sequence[str], bytes]
"""The words of a command, and a file that it answers."""

NETWORK = {
    "format": "even-probe/network", "version": 1, "frequency_hz": 60, "earth": "earth",
    "branches": [
        {"between": ["a", "earth"], "ohm": 0.02, "emf_v": 120.0},
        {"between": ["a", "b"], "ohm": 0.4, "henry": 1e-5},
        {"between": ["b", "earth"], "farad": 1e-9},
    ],
    "ask": [["a", "earth"], ["b", "earth"], ["a", "b"]],
}  # fmt: skip
KIT = {
    "format": "even-probe/kit", "version": 1, "practice": "north-america",
    "task": {"purpose": "prove-dead", "place": "installation", "system": "120/240", "on": "2026-11-24"},
    "tester": {
        "id": "m2", "kind": "multimeter", "category": "III", "rated_v": 600, "battery": "ok",
        "calibration_due": "2027-03-01",
        "leads": {"category": "III", "rated_v": 1000, "tip_covers": True, "ohm": 0.1},
        "adapters": [{"category": "II", "rated_v": 300}],
    },
}  # fmt: skip


@dataclass
class Count:
    """`longest`: seconds, and the number of the file. `failed`: its number, what was asked of it, and how it went."""

    files: int = 0
    codes: Counter[int] = field(default_factory=Counter)
    longest: tuple[float, int] = (0.0, -1)
    failed: list[tuple[int, str, str]] = field(default_factory=list)


class _TooLong(BaseException):
    """Passes every `except Exception` on its way."""


@contextlib.contextmanager
def seconds_at_most() -> Iterator[None]:
    """Meanwhile `one` is cut off where it takes too long."""

    def over(_signal: int, _frame: FrameType | None) -> None:
        raise _TooLong

    before = signal.signal(signal.SIGALRM, over)
    try:
        yield
    finally:
        signal.signal(signal.SIGALRM, before)


def at_the_command(words: Sequence[str], content: bytes) -> tuple[int, str]:
    """Its exit code and what it said on standard error; raises whatever the command does not catch."""
    said = io.StringIO()
    with tempfile.NamedTemporaryFile(suffix=".json") as file:
        Path(file.name).write_bytes(content)
        with contextlib.redirect_stderr(said), contextlib.redirect_stdout(io.StringIO()):
            code = cli.main([words[0], file.name, *words[1:]])
    return code, said.getvalue()


def one(number: int, seeds: Sequence[Seed], count: Count, seed: int = SEED) -> None:
    """The file of that number spoilt, given to its command, and counted."""
    rng = np.random.default_rng([seed, number])
    known = {words[0] for words, _ in seeds}
    commands = [command for command in COMMANDS if command in known]
    command = commands[int(rng.integers(len(commands)))]
    of_it = [each for each in seeds if each[0][0] == command]
    words, content = of_it[int(rng.integers(len(of_it)))]
    written = spoilt(content, rng)
    began = time.perf_counter()
    signal.setitimer(signal.ITIMER_REAL, LONGEST_S)
    try:
        code, said = at_the_command(words, written)
        count.codes[code] += 1
        if code not in (_ANSWERED, _REFUSED, _NOT_SOUND) or (code == _REFUSED) != bool(said.strip()):
            count.failed.append((number, words[0], f"exit {code}, said {said[:200]!r}"))
    except _TooLong:
        count.failed.append((number, words[0], f"not answered in {LONGEST_S:.0f} s"))
    except Exception:
        count.failed.append((number, words[0], traceback.format_exc()))
    finally:
        signal.setitimer(signal.ITIMER_REAL, 0)
    count.files += 1
    count.longest = max(count.longest, (time.perf_counter() - began, number))


def _share(told: tuple[int, int, Sequence[Seed]]) -> Count:
    first, last, seeds = told
    warnings.simplefilter("error", RuntimeWarning)
    count = Count()
    with seconds_at_most():
        for number in range(first, last):
            one(number, seeds, count)
    return count


def seeds_of_the_demo() -> list[Seed]:
    """Its files, made in a process and a place of their own."""
    with tempfile.TemporaryDirectory() as folder:
        told = os.environ | {"EVENPROBE_DATA": folder, "PLAIN_HTTP": "1", "PYTHONPATH": "server"}
        ask = [sys.executable, "-c", "from bench import spoilt_files; spoilt_files.write_seeds()"]
        written = subprocess.run(ask, env=told, check=True, capture_output=True).stdout
    return [(words, json.dumps(data).encode()) for words, data in json.loads(written.splitlines()[-1])]


def write_seeds() -> None:
    """On standard output, the demo's files as one line."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "project.settings")
    import django

    django.setup()
    from django.core.management import call_command

    with contextlib.redirect_stdout(io.StringIO()):
        call_command("migrate", verbosity=0)
        call_command("load_demo")
    print(json.dumps([*_seeds(), (["solve"], NETWORK), (["fit"], KIT)]))


def _seeds() -> Iterator[tuple[list[str], Any]]:
    """Of what the demo's crew has on record."""
    from django.contrib.auth import get_user_model
    from django.test import Client

    from hunts.logs import content_of, stands
    from hunts.models import Hunt
    from proofs.models import Proof
    from sheets.models import Sheet
    from signoffs.models import SignOff
    from sites.models import Point

    client = Client()
    client.force_login(get_user_model().objects.get(username="demo"))

    def saved(path: str) -> Any:
        answer = client.get(f"/api/{path}", headers={"host": "localhost"})
        return json.loads(answer.getvalue() if answer.streaming else answer.content)

    for point in Point.objects.order_by("id"):
        survey = saved(f"points/{point.id}/survey")
        if survey["points"][0].get("readings"):
            for words in (["interpret"], ["identify"], ["predict", "--condition", "open-neutral"]):
                yield words, survey
    for sheet in Sheet.objects.order_by("id"):
        yield ["judge"], saved(f"sheets/{sheet.id}/tests")
    for proof in Proof.objects.order_by("id"):
        yield ["isolate"], saved(f"proofs/{proof.id}/log")
    for hunt in Hunt.objects.order_by("id"):
        yield ["hunt"], content_of(hunt, stands(hunt.events.all()))
    for signed in SignOff.objects.order_by("id"):
        yield ["verify"], saved(f"sign-offs/{signed.id}/file")


def main(files: int = FILES, first: int = 0) -> int:
    """`first`: the number of the first file, to go on where another run ended."""
    seeds = seeds_of_the_demo()
    last = first + files
    shares = [(number, min(number + AT_A_TIME, last), seeds) for number in range(first, last, AT_A_TIME)]
    with multiprocessing.get_context("fork").Pool(WORKERS, maxtasksperchild=1) as pool:
        counts = []
        for count in pool.imap_unordered(_share, shares):
            counts.append(count)
            done, wrong = sum(each.files for each in counts), sum(len(each.failed) for each in counts)
            print(f"{done} of {files}, failed {wrong}", file=sys.stderr)
    codes = sum((count.codes for count in counts), Counter[int]())
    failed = [each for count in counts for each in count.failed]
    longest, slowest = max(count.longest for count in counts)
    print(
        f"spoilt files {files} of {len(seeds)}: answered {codes[_ANSWERED]}, not sound {codes[_NOT_SOUND]}, "
        f"refused in words {codes[_REFUSED]}, failed {len(failed)}, "
        f"longest {longest:.1f} s (file {slowest}; at most {LONGEST_S:.0f})"
    )
    for number, command, how in failed[:20]:
        print(f"  file {number} of seed {SEED} at {command}: {how}")
    return bool(failed)


if __name__ == "__main__":
    sys.exit(main(*(int(word) for word in sys.argv[1:])))
