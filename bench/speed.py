"""What an answer costs, against a floor measured in the same run.

F is the time `numpy.linalg.inv` takes for a random well-conditioned complex128 stack of shape (20480, 16, 16).
"""

import json
import os
import time
from collections.abc import Callable
from functools import partial
from typing import Any
from uuid import uuid4

import numpy as np

from evenprobe.interpretation import Bank, bank_for, interpret
from evenprobe.supplies import SYSTEMS, Earthing, PracticeId
from evenprobe.testers import TYPED, Measurement, Quantity, Reading
from evenprobe.wiring import CircuitFacts, PointFacts, PointKind, Terminal, conductor_named

REPEATS = 5
LINE_VOLTS_FROM = 50.0
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
    return PointFacts(PracticeId.NORTH_AMERICA, SYSTEMS["120"], Earthing.TN_C_S, PointKind.OUTLET, contacts, circuit)


def chain(turn: int = 0) -> list[Reading]:
    """The readings of a sound outlet in turn; in another `turn` of a supply a little higher, so that none is known."""
    return [
        Reading(
            f"r{i}",
            Measurement(Quantity.VOLTAGE, Terminal(a), Terminal(b), TYPED, **how),
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


def cold() -> float:
    """A point nobody has opened: the bank drawn and solved, three readings interpreted."""

    def once() -> None:
        bank_for.cache_clear()
        interpret(outlet(), chain()[:3])

    once()
    return min(seconds(once) for _ in range(REPEATS))


def warm() -> list[float]:
    """Each reading of the chain recorded in turn at an open point, other values every time."""
    interpret(outlet(), chain())
    return [
        seconds(partial(interpret, outlet(), chain(turn)[:n]))
        for turn in range(1, 1 + REPEATS)
        for n in range(1, 1 + len(CHAIN))
    ]


def over_http() -> list[float]:
    """The same through the server's whole stack, from request to answer, on a database of its own."""
    os.environ["DATABASE_URL"] = "sqlite:///:memory:"
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "project.settings")
    import django

    django.setup()
    from django.conf import settings
    from django.contrib.auth import get_user_model
    from django.core.management import call_command
    from django.test import Client

    settings.CACHES = {"default": {"BACKEND": "django.core.cache.backends.locmem.LocMemCache"}}
    call_command("migrate", verbosity=0)
    from crews.models import Crew, Membership
    from sites.services import put_board, put_circuit, put_point, put_site, put_supply

    crew = Crew.objects.create(name="bench")
    user = get_user_model().objects.create_user("bench")
    Membership.objects.create(user=user, crew=crew)
    site = put_site(crew, uuid4(), "bench", "north-america")
    board = put_board(crew, uuid4(), put_supply(crew, uuid4(), site.id, "s", "120", "TN-C-S").id, "b")
    circuit = put_circuit(crew, uuid4(), board.id, "c", 15, "14 AWG")
    client = Client()
    client.force_login(user)
    bank_for.cache_clear()
    times = []
    for turn in range(REPEATS):
        point = put_point(crew, uuid4(), circuit.id, f"p{turn}", "outlet", ["L", "N", "PE"], 24)
        for a, b, value, how in CHAIN:
            entry = {
                "quantity": "voltage",
                "mode": "ac",
                "from": a,
                "to": b,
                "value": value + _shift(value, turn),
                "unit": "V",
                **how,
            }
            path = f"/api/points/{point.id}/readings/{uuid4()}"
            body = json.dumps({"entry": entry})

            def put(path: str = path, body: str = body) -> None:
                answer = client.put(path, body, content_type="application/json")
                assert answer.status_code == 200, answer.content

            times.append(seconds(put))
    return times[len(CHAIN) :]


def spread(times: list[float]) -> str:
    median, tail = np.percentile(times, [50, 95])
    return f"median {median * 1000:.0f} ms, 95th percentile {tail * 1000:.0f} ms"


def main() -> None:
    f = floor()
    c = cold()
    print(f"F {f:.3f} s; cold single-phase point {c:.3f} s = {c / f:.2f} F (at most 1.5)")
    print(f"a new bank alone {seconds(lambda: Bank(outlet()).solved((False, False))) / f:.2f} F")
    print(f"warm reading to verdict, core: {spread(warm())} (aim 20 ms)")
    print(f"warm reading to verdict, over HTTP at the server: {spread(over_http())} (aim 60 ms)")


if __name__ == "__main__":
    main()
