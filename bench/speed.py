"""What an answer costs, against a floor measured in the same run: as milliseconds, and as a share of it.

F is the time `numpy.linalg.inv` takes for a random well-conditioned complex128 stack of shape (20480, 16, 16).
"""

import json
import os
import subprocess
import sys
import time
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import partial
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any
from uuid import uuid4

import numpy as np

from evenprobe.installation.modes import AS_FOUND
from evenprobe.interpretation import Ensemble, ensemble_for, forget_ensembles, interpret
from evenprobe.practices import CONTINENTAL, NORTH_AMERICA
from evenprobe.quantities import VOLTAGE, Measurement, Reading
from evenprobe.supplies import SYSTEMS, Earthing
from evenprobe.testers import TYPED
from evenprobe.wiring import CircuitFacts, PointFacts, PointKind, Terminal, conductor_named

ROOT = Path(__file__).parents[1]
REPEATS = 5
OUTLETS = 12
LINE_VOLTS_FROM = 50.0
SUPPLY_MOVES_V, LITTLE_SHARE = 0.5, 0.1
CHAIN: list[tuple[str, str, float, dict[str, Any]]] = [
    ("L", "N", 119.8, {}),
    ("L", "PE", 119.9, {}),
    ("N", "PE", 0.1, {}),
    ("PE", "REF", 0.1, {}),
    ("N", "PE", 2.0, {"load_here_a": 10.0}),
    ("L", "N", 115.2, {"load_here_a": 10.0}),
]


def outlet() -> PointFacts:
    contacts = (Terminal.L, Terminal.N, Terminal.PE)
    circuit = CircuitFacts(15, conductor_named("14 AWG"), 24)
    return PointFacts(NORTH_AMERICA, SYSTEMS["120"], Earthing.TN_C_S, PointKind.OUTLET, contacts, circuit)


def three_lines() -> PointFacts:
    contacts = tuple(Terminal(name) for name in ("L1", "L2", "L3", "N", "PE"))
    circuit = CircuitFacts(32, conductor_named("6 mm2"), 20)
    return PointFacts(CONTINENTAL, SYSTEMS["230/400"], Earthing.TN_S, PointKind.OUTLET, contacts, circuit)


def two_lines() -> PointFacts:
    contacts = tuple(Terminal(name) for name in ("L1", "L2", "N", "PE"))
    circuit = CircuitFacts(30, conductor_named("10 AWG"), 12)
    return PointFacts(NORTH_AMERICA, SYSTEMS["120/240"], Earthing.TN_C_S, PointKind.OUTLET, contacts, circuit)


SIX_PAIRS = {"L1 N": 120.1, "L2 N": 119.8, "L1 L2": 239.9, "L1 PE": 120.2, "L2 PE": 119.9, "N PE": 0.2}
TEN_PAIRS = {
    "L1 N": 231.0, "L2 N": 230.0, "L3 N": 229.5, "L1 L2": 399.0, "L2 L3": 398.5, "L1 L3": 399.2,
    "L1 PE": 231.0, "L2 PE": 230.2, "L3 PE": 229.6, "N PE": 0.3,
}  # fmt: skip
DOUBLED = {**TEN_PAIRS, "L1 L2": 0.4, "L2 L3": 399.0, "L2 N": 230.8, "L2 PE": 230.9}
LOST = {**TEN_PAIRS, "L3 N": 1.2, "L3 PE": 1.4, "L2 L3": 229.4, "L1 L3": 230.6}
"""A sound point of three lines, one with two of them on one leg, one with a line lost."""
SURVEY = {
    "format": "even-probe/survey", "version": 1, "practice": "north-america",
    "supply": {"system": "120", "earthing": "TN-C-S"},
    "points": [{
        "id": "p", "kind": "outlet", "terminals": ["L", "N", "PE"],
        "readings": [
            {"quantity": "voltage", "from": one, "to": other, "value": value, "unit": "V"}
            for one, other, value in (("L", "N", 119.8), ("L", "PE", 119.9), ("N", "PE", 0.1))
        ],
    }],
}  # fmt: skip


def of_pairs(pairs: dict[str, float]) -> list[Reading]:
    """A reading of each pair."""
    ends = {pair: [Terminal(end) for end in pair.split()] for pair in pairs}
    return [
        Reading(pair, Measurement(VOLTAGE, ends[pair][0], ends[pair][1], TYPED), value=value)
        for pair, value in pairs.items()
    ]


def contradictory() -> list[Reading]:
    """Twenty readings of an outlet of which no condition explains all."""
    found = [each for turn in range(3) for each in chain(turn)]
    odd = Reading("odd", Measurement(VOLTAGE, Terminal("L"), Terminal("PE"), TYPED), value=61.0)
    return [*found, odd, replace(odd, id="odd too", value=60.8)]


def chain(turn: int = 0) -> list[Reading]:
    """The readings of a sound outlet in turn; in another `turn` of a supply a little higher, so that none is known."""
    return [
        Reading(
            f"r{i}",
            Measurement(VOLTAGE, Terminal(a), Terminal(b), TYPED, **how),
            value=value + _shift(value, turn),
        )
        for i, (a, b, value, how) in enumerate(CHAIN)
    ]


def _shift(value: float, turn: int) -> float:
    return 0.1 * turn if value > LINE_VOLTS_FROM else 0.0


def seconds(what: Callable[[], object]) -> float:
    start = time.perf_counter()
    what()
    return time.perf_counter() - start


def floor() -> float:
    rng = np.random.default_rng(0)
    shape = (20480, 16, 16)
    stack = rng.normal(size=shape) + 1j * rng.normal(size=shape) + 32 * np.eye(16)
    return min(seconds(lambda: np.linalg.inv(stack)) for _ in range(REPEATS))


def cold(point: PointFacts, readings: Sequence[Reading]) -> list[float]:
    """A point nobody has opened: the ensemble drawn and solved, its readings interpreted."""

    def once() -> None:
        forget_ensembles()
        interpret(point, readings)

    once()
    return [seconds(once) for _ in range(REPEATS)]


def warm(point: PointFacts, readings: Sequence[Reading]) -> list[float]:
    """Each reading recorded in turn at outlets described alike, after the first of them; no two show the same."""
    rng = np.random.default_rng(0)
    interpret(point, readings)
    ensemble_for(point).prepare()
    return [
        seconds(partial(interpret, point, outlet[:n]))
        for outlet in (_as_the_next_shows(readings, rng) for _ in range(OUTLETS))
        for n in range(1, 1 + len(readings))
    ]


def _as_the_next_shows(readings: Sequence[Reading], rng: np.random.Generator) -> list[Reading]:
    """A supply moves by some half a volt from one reading to the next, and a small voltage by a tenth of itself."""

    def other(value: float) -> float:
        spread = SUPPLY_MOVES_V if value > LINE_VOLTS_FROM else LITTLE_SHARE * max(value, SUPPLY_MOVES_V)
        return round(abs(value + spread * float(rng.normal())), 1)

    return [replace(r, value=None if r.value is None else other(r.value)) for r in readings]


def at_a_shell(*words: str) -> list[float]:
    """Seconds of the command as a whole process."""
    command = [str(Path(sys.executable).parent / "evenprobe"), *words]
    with TemporaryDirectory() as folder:
        file = Path(folder) / "survey.json"
        file.write_text(json.dumps(SURVEY))
        asked = [*command, str(file)] if "--help" not in words else command
        return [seconds(lambda: subprocess.run(asked, capture_output=True, check=True)) for _ in range(REPEATS)]


@dataclass(frozen=True)
class Server:
    """The whole stack, from request to answer, on a database of its own, with one circuit of one crew."""

    client: Any
    crew: Any
    supply: Any
    circuit: Any

    def put(self, path: str, body: dict[str, Any]) -> float:
        """Seconds from sending to the answer."""
        content = json.dumps(body)

        def send() -> None:
            answer = self.client.put(path, content, content_type="application/json")
            assert answer.status_code == 200, answer.content

        return seconds(send)


def server() -> Server:
    sys.path.insert(0, str(ROOT / "server"))
    os.environ["DATABASE_URL"] = "sqlite:///:memory:"
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "project.settings")
    os.environ.setdefault("PLAIN_HTTP", "1")
    import django

    django.setup()
    from django.conf import settings
    from django.contrib.auth import get_user_model
    from django.core.management import call_command
    from django.test import Client

    settings.CACHES = {"default": {"BACKEND": "django.core.cache.backends.locmem.LocMemCache"}}
    call_command("migrate", verbosity=0)
    from crews.models import Crew, Membership
    from sites.services import put_board, put_circuit, put_site, put_supply

    crew = Crew.objects.create(name="bench")
    user = get_user_model().objects.create_user("bench")
    Membership.objects.create(user=user, crew=crew, role="keeper")
    site = put_site(crew, uuid4(), "bench", "north-america")
    supply = put_supply(crew, uuid4(), site.id, "s", "120", "TN-C-S")
    circuit = put_circuit(crew, uuid4(), put_board(crew, uuid4(), supply.id, "b").id, "c", 15, "14 AWG")
    client = Client()
    client.force_login(user)
    return Server(client, crew, supply, circuit)


def readings_over_http(at: Server) -> list[float]:
    """Each reading of the chain recorded at the Bench, other values every time."""
    from sites.services import put_point

    forget_ensembles()
    times = []
    for turn in range(REPEATS):
        point = put_point(at.crew, uuid4(), at.circuit.id, f"p{turn}", "outlet", ["L", "N", "PE"], 24)
        for a, b, value, how in CHAIN:
            volts = {"quantity": "voltage", "mode": "ac", "value": value + _shift(value, turn), "unit": "V"}
            path = f"/api/points/{point.id}/readings/{uuid4()}"
            times.append(at.put(path, {"entry": {**volts, "from": a, "to": b, **how}}))
    return times[len(CHAIN) :]


def proof_over_http(at: Server) -> list[float]:
    """Each event of a proof of death recorded, from off to proved dead."""
    from evenprobe.isolation import QUESTIONS
    from kit.services import put_tester

    tester = put_tester(at.crew, uuid4(), {"kind": "two-pole", "category": "III", "rated_v": 690}).id
    isolating: list[dict[str, Any]] = [{"entry": {"type": what, "source": "s1"}} for what in ("off", "locked")]
    proved = {"type": "proved", "against": "proving-unit", "shows_v": 239.0}
    pairs = (("L", "N"), ("L", "PE"), ("N", "PE"))
    tested = [{"type": "tested", "shows_v": 0.0, "from": a, "to": b} for a, b in pairs]
    events = isolating + [{"entry": entry, "tester": str(tester)} for entry in (proved, *tested, proved)]
    times: list[float] = []
    for turn in range(REPEATS):
        path = f"/api/proofs/{uuid4()}"
        what = {"name": f"c{turn}", "what": "circuit", "terminals": ["L", "N", "PE"]}
        sources = [{"id": "s1", "label": "way 1"}]
        asked = {str(q.kind): False for q in QUESTIONS}
        at.put(path, {"supply": str(at.supply.id), **what, "sources": sources, "asked": asked})
        times += [at.put(f"{path}/events/{uuid4()}", event) for event in events]
    return times


@dataclass(frozen=True)
class Figure:
    """What took so many seconds, and the most that is wanted: median and 95th percentile, as shares of F or seconds."""

    what: str
    times: list[float]
    median: float
    p95: float | None = None
    in_seconds: bool = False

    def said(self, f: float) -> str:
        """With the floor of this run."""
        median, tail = np.percentile(self.times, [50, 95])
        told = f"{self.what}: median {median * 1000:.0f} ms, 95th percentile {tail * 1000:.0f} ms"
        wanted = f"{self.median:g}" + (f", {self.p95:g}" if self.p95 is not None else "")
        if self.in_seconds:
            return f"{told} (at most {wanted} s)"
        return f"{told} = {median / f:.2f} F, {tail / f:.2f} F (at most {wanted} F)"


def main() -> None:
    f = floor()
    print(f"F {f:.3f} s; a new ensemble {seconds(lambda: Ensemble(outlet()).solved(AS_FOUND)) / f:.2f} F")
    one = warm(outlet(), chain())
    figures = [
        Figure("warm reading to verdict, one line", one, 0.07, 0.2),
        Figure("two lines", warm(two_lines(), of_pairs(SIX_PAIRS)), 0.15, 0.5),
        Figure("three lines", warm(three_lines(), of_pairs(TEN_PAIRS)), 0.15, 0.5),
        Figure("cold point of one line, three readings", cold(outlet(), chain()[:3]), 0.6),
        *(
            Figure(f"cold point of three lines, ten pairs, {name}", cold(three_lines(), of_pairs(pairs)), 1.5)
            for name, pairs in (("sound", TEN_PAIRS), ("two lines on one leg", DOUBLED), ("a line lost", LOST))
        ),
        Figure("twenty readings that nothing explains", cold(outlet(), contradictory()), 3.0),
        Figure("`evenprobe interpret` of one outlet", at_a_shell("interpret"), 1.2, in_seconds=True),
        Figure("`evenprobe --help`", at_a_shell("--help"), 0.3, in_seconds=True),
    ]
    print(*(figure.said(f) for figure in figures), sep="\n")
    at = server()
    http = readings_over_http(at)
    more = (np.median(http) - np.median(one)) * 1000
    print(f"the same over HTTP at the server: median {np.median(http) * 1000:.0f} ms, {more:.0f} more (at most 25)")
    proof = np.percentile(proof_over_http(at), [50, 95]) * 1000
    print(f"event of a proof to its state, over HTTP: median {proof[0]:.0f} ms, 95th percentile {proof[1]:.0f} ms")


if __name__ == "__main__":
    main()
