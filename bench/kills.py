"""Two thousand acknowledged writes while the server is killed again and again: none lost, none there twice.

Whoever writes does as a device does: what was not acknowledged is sent again under its own id until it is. Each write
says a word of its own, by which it is looked for in the database in the end. Exit 1 where one is lost or there twice.
"""

import random
import sqlite3
import sys
import threading
import time
from collections import Counter
from collections.abc import Iterator
from contextlib import closing
from dataclasses import dataclass, field
from queue import Empty, Queue
from uuid import uuid4

import requests

from bench.serving import Person, Server, empty_server

WRITES, EVERY, PORT, SEED = 2_000, 60, 8133, 20
"""`EVERY`: writes between two kills, on the average."""
WRITERS, POINTS = 4, 40

Write = tuple[str, str, dict[str, object]]
"""Its own word, where it is sent, and what is sent."""


@dataclass
class Told:
    """`acknowledged`: words of the writes that were. `again`: how often one had to be sent again."""

    acknowledged: set[str] = field(default_factory=set)
    again: int = 0
    kills: int = 0
    refused: list[str] = field(default_factory=list)


def run(writes: int, every: int, port: int = PORT) -> tuple[Told, Counter[str]]:
    """What was acknowledged, and how often each word is in the database in the end."""
    with empty_server(port) as server:
        server.start()
        person = Person(server)
        person.join("Larkspur crew")
        waiting: Queue[Write] = Queue()
        for write in _writes(person, writes):
            waiting.put(write)
        told = Told()
        writers = [threading.Thread(target=_write, args=(server, person, waiting, told)) for _ in range(WRITERS)]
        for writer in writers:
            writer.start()
        _kill_meanwhile(server, writers, told, every)
        server.kill()
        return told, _in_the_database(server)


def _kill_meanwhile(server: Server, writers: list[threading.Thread], told: Told, every: int) -> None:
    rng, at = random.Random(SEED), every
    while any(writer.is_alive() for writer in writers):
        if len(told.acknowledged) >= at:
            time.sleep(rng.random() * 0.2)
            server.kill()
            told.kills += 1
            server.start()
            at = len(told.acknowledged) + rng.randint(every // 2, 2 * every)
        time.sleep(0.01)


def _writes(person: Person, writes: int) -> Iterator[Write]:
    """Readings at points in turn, every fourth a check of a tester, every tenth a place of its own."""
    site, supply, board, circuit, tester = (str(uuid4()) for _ in range(5))
    points = [str(uuid4()) for _ in range(POINTS)]
    about = [
        (f"/sites/{site}", {"name": "Larkspur Hill", "practice": "north-america"}),
        (f"/supplies/{supply}", {"site": site, "name": "Service", "system": "120/240", "earthing": "TN-C-S"}),
        (f"/boards/{board}", {"supply": supply, "name": "W"}),
        (f"/circuits/{circuit}", {"board": board, "name": "Workshop", "rating_a": 20}),
        (f"/testers/{tester}", {"label": "Meter M2", "kind": "multimeter"}),
    ]
    outlet = {"circuit": circuit, "kind": "outlet", "terminals": ["L", "N", "PE"]}
    about += [(f"/points/{point}", {**outlet, "name": f"Outlet {n}"}) for n, point in enumerate(points)]
    for path, body in about:
        person.send_to("put", path, body).raise_for_status()
    for number in range(writes):
        word, id_ = f"write {number} of {writes}", uuid4()
        if number % 10 == 9:
            yield word, f"/points/{id_}", {**outlet, "name": word}
        elif number % 4 == 3:
            yield word, f"/testers/{tester}/faults/{id_}", {"what": word}
        else:
            pair = {"from": "L", "to": "N", "value": 119.0 + number % 9 / 10, "unit": "V"}
            entry = {"quantity": "voltage", "mode": "ac", **pair, "note": word}
            yield word, f"/points/{points[number % POINTS]}/readings/{id_}", {"entry": entry}


def _write(server: Server, joined: Person, waiting: "Queue[Write]", told: Told) -> None:
    person = Person(server)
    person.cookies.update(joined.cookies)
    while True:
        try:
            word, path, body = waiting.get_nowait()
        except Empty:
            return
        while (answer := _sent(person, path, body)) is None or answer.status_code in (429, 503):
            told.again += 1
            time.sleep(0.05)
        if answer.ok:
            told.acknowledged.add(word)
        else:
            told.refused.append(f"{word}: {answer.status_code} {answer.text[:200]}")


def _sent(person: Person, path: str, body: dict[str, object]) -> requests.Response | None:
    try:
        return person.send_to("put", path, body)
    except requests.RequestException:
        return None


def _in_the_database(server: Server) -> Counter[str]:
    found: Counter[str] = Counter()
    with closing(sqlite3.connect(server.data / "evenprobe.sqlite3")) as database:
        assert database.execute("PRAGMA integrity_check").fetchone() == ("ok",)
        for select in (
            "SELECT json_extract(entry, '$.note') FROM work_reading",
            "SELECT what FROM kit_testerfault",
            "SELECT name FROM sites_point",
        ):
            found.update(word for (word,) in database.execute(select))
    return found


def main(writes: int = WRITES, every: int = EVERY) -> int:
    told, there = run(writes, every)
    lost = [word for word in told.acknowledged if not there[word]]
    twice = [word for word in told.acknowledged if there[word] > 1]
    print(
        f"writes acknowledged {len(told.acknowledged)} of {writes}, server killed {told.kills} times, sent again "
        f"{told.again} times; lost {len(lost)}, there twice {len(twice)}, refused {len(told.refused)}"
    )
    for line in (lost + twice + told.refused)[:20]:
        print(f"  {line}")
    return bool(lost or twice or told.refused) or len(told.acknowledged) < writes


if __name__ == "__main__":
    sys.exit(main(*(int(word) for word in sys.argv[1:])))
