"""Twenty people at work at once: each records a reading every ten seconds, reads Today, and opens the next point.

Twice: on the demo's record, and on one of 2 000 points and 100 000 readings. Wanted: from a reading to its verdict 95
of 100 within 1 s, what is read within 200 ms, no error, all of the server under 1 GB; and Today, asked by one alone,
under 50 and 300 ms of the server's processor time. Exit 1 where not.
"""

import os
import random
import statistics
import sys
import threading
import time
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any
from uuid import UUID, uuid4, uuid5

import requests

from bench.serving import ROOT, Person, Server, demo_server

PORT, SECONDS, PEOPLE = 8136, 60.0, 20
RECORDS_EVERY_S, READS_EVERY_S = 10.0, 15.0
VERDICT_P95_S, READ_P95_S, MOST_MB = 1.0, 0.2, 1000.0
TODAY_CPU_MS = {"the demo": 50.0, "a large record": 300.0}
_TODAY_TIMES = 10
_IDLE_CPU_S = 0.05
"""In a second."""
_AT_THIS_SITE = UUID("5d0f6a52-0c1e-4b1c-9f6e-0d6a1d1f0001")
_POINTS_OF_EACH = 4
CHAIN = (("L", "N", 119.8, 0.4), ("L", "PE", 119.9, 0.4), ("N", "PE", 0.2, 0.1), ("PE", "REF", 0.2, 0.1))
"""What each of them reads in turn at a sound outlet: between what, volts, and by how much they differ."""


def entry_of(number: int, dice: random.Random) -> dict[str, Any]:
    one, other, volts, about = CHAIN[number % len(CHAIN)]
    value = round(max(0.0, dice.gauss(volts, about)), 1)
    return {"quantity": "voltage", "mode": "ac", "from": one, "to": other, "value": value, "unit": "V"}


@dataclass
class Taken:
    """Seconds of every answer, by what it was; and what was no answer."""

    seconds: dict[str, list[float]] = field(default_factory=dict)
    errors: list[str] = field(default_factory=list)

    def timed(self, what: str, ask: Callable[[], requests.Response]) -> requests.Response | None:
        began = time.perf_counter()
        try:
            answer = ask()
        except requests.RequestException as error:
            self.errors.append(f"{what}: {error}")
            return None
        self.seconds.setdefault(what, []).append(time.perf_counter() - began)
        if answer.status_code not in (requests.codes.ok, requests.codes.not_modified):
            self.errors.append(f"{what}: {answer.status_code} {answer.text[:200]}")
        return answer

    def p95(self, *whats: str) -> float:
        return p95([each for what in whats for each in self.seconds.get(what, [0.0])])


def p95(seconds: Sequence[float]) -> float:
    return statistics.quantiles(seconds, n=20, method="inclusive")[-1] if len(seconds) > 1 else seconds[0]


RECORDS, READS = "records", ("reads Today", "opens a point", "opens a site", "reads the sites")


class Electrician(threading.Thread):
    """One of the twenty, at points of their own."""

    def __init__(self, person: Person, number: int, site: str, points: Sequence[str], taken: Taken) -> None:
        super().__init__(daemon=True)
        self._person, self._site, self._points, self._taken = person, site, points, taken
        self._dice = random.Random(number)
        self._etags: dict[str, str] = {}
        self._begins = RECORDS_EVERY_S * number / PEOPLE
        self.until = 0.0

    def run(self) -> None:
        time.sleep(self._begins)
        due = {"record": time.monotonic(), "read": time.monotonic() + self._dice.random() * READS_EVERY_S}
        recorded = 0
        while time.monotonic() < self.until:
            if time.monotonic() >= due["record"]:
                due["record"] += RECORDS_EVERY_S
                if recorded % len(CHAIN) == 0:
                    self._read("opens a point", f"/points/{self._at(recorded)}/bench")
                path = f"/points/{self._at(recorded)}/readings/{uuid4()}"
                body = {"entry": entry_of(recorded, self._dice)}
                self._taken.timed(RECORDS, lambda path=path, body=body: self._person.send_to("put", path, body))  # type: ignore[misc]
                recorded += 1
            if time.monotonic() >= due["read"]:
                due["read"] += READS_EVERY_S
                self._read("reads Today", "/today")
                if self._dice.random() < 1 / 3:
                    self._read("reads the sites", "/sites")
                    self._read("opens a site", f"/sites/{self._site}")
            time.sleep(max(0.0, min(due.values()) - time.monotonic()))

    def _at(self, recorded: int) -> str:
        return self._points[recorded // len(CHAIN) % len(self._points)]

    def _read(self, what: str, path: str) -> None:
        """As a browser does: with what it was given last, for an answer that is the same not to be sent again."""
        known = {"If-None-Match": self._etags[path]} if path in self._etags else {}
        answer = self._taken.timed(what, lambda: self._person.send_to("get", path, headers=known))
        if answer is not None and "ETag" in answer.headers:
            self._etags[path] = answer.headers["ETag"]


def at_work(server: Server, site: str, points: Sequence[Sequence[str]], seconds: float) -> Taken:
    taken, one = Taken(), Person(server)
    one.sign_in()
    people = []
    for number, own in enumerate(points):
        person = Person(server)
        person.cookies.update(one.cookies)
        people.append(Electrician(person, number, site, own, taken))
    until = time.monotonic() + seconds
    for each in people:
        each.until = until
        each.start()
    for each in people:
        each.join(seconds + 120)
    return taken


def new_points(person: Person, name: str, people: int = PEOPLE) -> tuple[str, list[list[str]]]:
    """A site with a circuit and outlets for each of them, made by somebody signed in."""
    site = uuid5(_AT_THIS_SITE, name)
    supply, board = uuid5(site, "supply"), uuid5(site, "board")
    made: list[tuple[str, dict[str, Any]]] = [
        (f"/sites/{site}", {"name": f"Larkspur Hill, {name}", "practice": "north-america"}),
        (f"/supplies/{supply}", {"site": str(site), "name": "Service", "system": "120", "earthing": "TN-C-S"}),
        (f"/boards/{board}", {"supply": str(supply), "name": "W"}),
    ]
    points: list[list[str]] = []
    for number in range(people):
        circuit = uuid5(board, f"{number}")
        about = {"board": str(board), "name": f"W{number + 1}", "rating_a": 15, "conductor": "14 AWG"}
        made.append((f"/circuits/{circuit}", about))
        points.append([])
        for place in range(_POINTS_OF_EACH):
            point = uuid5(circuit, f"{place}")
            points[-1].append(str(point))
            outlet = {"name": f"Outlet {place + 1}", "kind": "outlet", "terminals": ["L", "N", "PE"]}
            length = {"length_m": 8.0 + 4 * place + number % 5}
            made.append((f"/points/{point}", {"circuit": str(circuit), **outlet, **length}))
    for path, body in made:
        person.send_to("put", path, body).raise_for_status()
    return str(site), points


class Watched:
    """Memory and processor time of a server and of what it started."""

    def __init__(self, server: Server) -> None:
        self._group = server.group
        self.most_mb = 0.0
        self._on = True
        self._thread = threading.Thread(target=self._look, daemon=True)

    def _processes(self) -> Iterator[Path]:
        for process in Path("/proc").glob("[0-9]*"):
            try:
                if os.getpgid(int(process.name)) == self._group:
                    yield process
            except ProcessLookupError:
                continue

    @property
    def cpu_s(self) -> float:
        return sum(self._cpu(process) for process in self._processes())

    @staticmethod
    def _cpu(process: Path) -> float:
        """User and system time, with that of children that ended (proc_pid_stat, 14 to 17)."""
        try:
            told = (process / "stat").read_text().rsplit(")", 1)[1].split()
        except OSError:
            return 0.0
        return sum(int(each) for each in told[11:15]) / os.sysconf("SC_CLK_TCK")

    @staticmethod
    def _mb(process: Path) -> float:
        """What is its own of the memory, and its part of what it shares."""
        try:
            told = (process / "smaps_rollup").read_text()
        except OSError:
            return 0.0
        return sum(int(line.split()[1]) for line in told.splitlines() if line.startswith("Pss:")) / 1024

    def _look(self) -> None:
        while self._on:
            self.most_mb = max(self.most_mb, sum(map(self._mb, self._processes())))
            time.sleep(0.5)

    @contextmanager
    def looking(self) -> "Iterator[Watched]":
        self._thread.start()
        try:
            yield self
        finally:
            self._on = False
            self._thread.join()


def settled(server: Server) -> None:
    """Until the server has nothing more to do by itself: every answer is made that it keeps."""
    watched, before = Watched(server), -1.0
    while watched.cpu_s - before > _IDLE_CPU_S:
        before = watched.cpu_s
        time.sleep(1.0)


def today_cpu_ms(server: Server) -> float:
    """Of one person asking again and again, by somebody who was not answered before."""
    person, watched = Person(server), Watched(server)
    person.sign_in()
    person.send_to("get", "/today").raise_for_status()
    before = watched.cpu_s
    for _ in range(_TODAY_TIMES):
        person.send_to("get", "/today").raise_for_status()
    return (watched.cpu_s - before) * 1000 / _TODAY_TIMES


def run(server: Server, on: str, seconds: float) -> bool:
    """Whether all is as wanted."""
    keeper = Person(server)
    keeper.sign_in()
    site, points = new_points(keeper, on)
    settled(server)
    cpu_ms = today_cpu_ms(server)
    with Watched(server).looking() as watched:
        taken = at_work(server, site, points, seconds)
    verdicts, reads = taken.p95(RECORDS), taken.p95(*READS)
    print(f"\n{PEOPLE} people for {seconds:g} s on {on}:")
    print(f"  reading to verdict, 95 of 100 within {verdicts:.3f} s of {len(taken.seconds[RECORDS])} (at most 1)")
    of_each = ", ".join(f"{what} {taken.p95(what):.3f}" for what in READS)
    print(f"  what is read {reads:.3f} s (at most 0.2): {of_each}")
    print(f"  Today, alone: {cpu_ms:.0f} ms of processor (at most {TODAY_CPU_MS[on]:g})")
    print(f"  memory of all processes {watched.most_mb:.0f} MB at most (at most {MOST_MB:g})")
    print(f"  errors: {len(taken.errors)}", *taken.errors[:5], sep="\n    ")
    wanted = verdicts <= VERDICT_P95_S and reads <= READ_P95_S and watched.most_mb <= MOST_MB
    return wanted and not taken.errors and cpu_ms <= TODAY_CPU_MS[on]


def main(seconds: float = SECONDS) -> int:
    with demo_server(PORT, PYTHONPATH=str(ROOT)) as server:
        small = run(server, "the demo", seconds)
        server.stop()
        print(server.manage("shell", "-c", "from bench.large_record import make; make()"))
        server.start()
        large = run(server, "a large record", seconds)
    return not (small and large)


if __name__ == "__main__":
    sys.exit(main(*(float(word) for word in sys.argv[1:])))
