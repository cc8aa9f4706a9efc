"""Files of the record: 50 000 readings out as a table and in beside others who write; a report of forty points.

Wanted: out in 5 s; in, with the look before it, in 30 s while nobody else who writes waits longer than a second; the
report in 3 s. Machines differ, so each stands beside C: the time plain Python takes to read the same rows out of the
same file, hash each, and store them in a database of its own.
"""

import csv
import hashlib
import io
import os
import sqlite3
import tempfile
import threading
import time
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any
from uuid import uuid4

ROWS, CIRCUITS, POINTS = 50_000, 100, 10
HEADER = "taken at,circuit,point,quantity,from,to,mode,value [V],tester,by"
BEGUN = datetime(2026, 1, 1, tzinfo=UTC)
PAIRS = (("L", "N", 119.6), ("L", "PE", 119.8), ("N", "PE", 0.4))
PRINTED = 40


def seconds(do: Callable[[], Any]) -> float:
    begun = time.perf_counter()
    do()
    return time.perf_counter() - begun


def table() -> bytes:
    """Three pairs in turn over all points, a minute apart."""
    lines = [HEADER]
    for number in range(ROWS):
        a, b, volts = PAIRS[number % 3]
        where = f"C{number % CIRCUITS},Outlet {number // CIRCUITS % POINTS}"
        at = (BEGUN + timedelta(minutes=number)).isoformat()
        lines.append(f"{at},{where},voltage,{a},{b},ac,{volts + number % 7 / 10:.1f},Meter M2,Bert")
    return "\r\n".join(lines).encode()


def plain(content: bytes, where: Path) -> float:
    """C."""

    def once() -> None:
        rows = list(csv.reader(io.StringIO(content.decode())))[1:]
        with sqlite3.connect(where / "plain.sqlite3") as database:
            database.execute(f"CREATE TABLE plain ({', '.join(f'c{n}' for n in range(11))})")
            marks = ", ".join("?" * 11)
            database.executemany(
                f"INSERT INTO plain VALUES ({marks})",
                ([hashlib.sha256("".join(row).encode()).hexdigest(), *row] for row in rows),
            )

    return seconds(once)


class Writer:
    """Somebody else, who writes all the while. `waits`: how long each write took, in seconds."""

    def __init__(self, write: Callable[[], Any]) -> None:
        self.waits: list[float] = []
        self._write, self._over = write, threading.Event()
        self._thread = threading.Thread(target=self._go_on)

    def _go_on(self) -> None:
        while not self._over.is_set():
            self.waits.append(seconds(self._write))
            time.sleep(0.02)

    def __enter__(self) -> "Writer":
        self._thread.start()
        return self

    def __exit__(self, *_: object) -> None:
        self._over.set()
        self._thread.join()


def site(crew: Any) -> Any:
    """A thousand outlets on a hundred circuits, and a meter."""
    from kit.services import put_tester
    from sites.models import Board, Circuit, Point, Site, Supply

    made = Site.objects.create(crew=crew, name="Larkspur Hill Observatory", practice="north-america")
    supply = Supply.objects.create(site=made, name="Service", system="120/240", earthing="TN-C-S")
    board = Board.objects.create(supply=supply, name="Warm room board W")
    circuits = [Circuit(board=board, name=f"C{n}", rating_a=20) for n in range(CIRCUITS)]
    Circuit.objects.bulk_create(circuits)
    outlet = {"kind": "outlet", "terminals": ["L", "N", "PE"]}
    Point.objects.bulk_create(Point(circuit=c, name=f"Outlet {n}", **outlet) for c in circuits for n in range(POINTS))
    put_tester(crew, uuid4(), {"label": "Meter M2", "kind": "multimeter", "proved": True})
    return made


def in_and_out(crew: Any, author: Any, content: bytes, c: float) -> None:
    from crews.models import Crew
    from evenprobe.formats.tables import READINGS
    from exchange.rows.bringing import bring_in, look
    from exchange.rows.matching import Asked
    from readings.models import Reading
    from tables.csv_files import csv_lines
    from tables.readings import reading_rows

    at = site(crew)
    looked = seconds(lambda: look(crew, READINGS, content, at, Asked()))
    with Writer(lambda: Crew.objects.create(name="another")) as other:
        brought = seconds(lambda: bring_in(crew, author, READINGS, "bench.csv", content, at, Asked()))
    both = looked + brought
    print(f"{ROWS} readings in: look {looked:.1f} s, bring {brought:.1f} s, both {both / c:.1f} C (at most 30 s)")
    print(f"others wrote {len(other.waits)} times and waited {max(other.waits):.2f} s at the longest (at most 1)")
    own = Reading.objects.filter(point__circuit__board__supply__site__crew=crew)
    out = min(seconds(lambda: sum(map(len, csv_lines(READINGS.header, reading_rows(own))))) for _ in range(3))
    print(f"{ROWS} readings out: {out:.1f} s = {out / c:.1f} C (at most 5 s)")


def report(crew: Any, author: Any, c: float) -> None:
    """Of a site of forty points with three readings each, its answers known."""
    from readings.services import record
    from reports.report import report_pdf
    from signoffs.services import draft
    from sites.services import put_board, put_circuit, put_point, put_site, put_supply

    at = put_site(crew, uuid4(), "Fennwick Weaving Shed", "north-america")
    supply = put_supply(crew, uuid4(), at.id, "Mains", "120/240", "TN-C-S")
    board = put_board(crew, uuid4(), supply.id, "Mill board")
    for circuit in range(4):
        on = put_circuit(crew, uuid4(), board.id, f"Sockets {circuit}", 20, "12 AWG")
        for number in range(PRINTED // 4):
            point = put_point(crew, uuid4(), on.id, f"Socket {number}", "outlet", ["L", "N", "PE"], 3.0 * number + 2)
            for a, b, volts in PAIRS:
                entry = {"quantity": "voltage", "mode": "ac", "from": a, "to": b, "value": volts, "unit": "V"}
                record(crew, author, point.id, uuid4(), entry)
    draft(crew, author, "site", at.id)
    took = min(seconds(lambda: report_pdf(draft(crew, author, "site", at.id), None)) for _ in range(3))
    print(f"report of {PRINTED} points: {took:.1f} s = {took / c:.1f} C (at most 3 s)")


def main() -> None:
    with tempfile.TemporaryDirectory() as folder:
        os.environ["EVENPROBE_DATA"] = folder
        os.environ.setdefault("DJANGO_SETTINGS_MODULE", "project.settings")
        os.environ.setdefault("PLAIN_HTTP", "1")
        import django

        django.setup()
        from django.contrib.auth import get_user_model
        from django.core.management import call_command

        from crews.models import Crew

        call_command("migrate", verbosity=0)
        crew = Crew.objects.create(name="Larkspur crew")
        author = get_user_model().objects.create_user("bench", first_name="Bert")
        content = table()
        c = plain(content, Path(folder))
        print(f"C {c:.2f} s")
        in_and_out(crew, author, content, c)
        report(crew, author, c)


if __name__ == "__main__":
    main()
