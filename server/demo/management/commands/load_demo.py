"""Load the demo scenario. Run again, it changes nothing: every id and every reading is derived from fixed seeds.

But for what lives by the clock: today's checks, and the proofs of isolation, which begin anew once theirs has run out.
"""

import os
from datetime import UTC, datetime, timedelta
from http import HTTPStatus
from typing import Any
from uuid import UUID, uuid4

import numpy as np
from django.contrib.auth import get_user_model
from django.core.management.base import BaseCommand
from django.db import transaction
from django.utils import timezone

from base.acting import acting_as
from base.problems import Refused
from crews.models import Crew, Membership
from demo.crew import CREW, PASSWORD, PEOPLE, USERNAME, demo_id
from demo.hidden import hidden_point
from demo.kit import ON_THE_WIRE, PARTS, TESTERS
from demo.loading_hunts import load_hunts
from demo.loading_sheets import load_sheets
from demo.proofs import PROOFS, DemoProof
from demo.record import load_record
from demo.sites import EQUIPMENT, ROUND, SITES, DemoPoint
from evenprobe.isolation import QUESTIONS
from evenprobe.quantities import PRESENCE, RESISTANCE, TRIP, VOLTAGE, Measurement, Reading
from evenprobe.simulation import HiddenPoint, TesterErrors
from evenprobe.testers import Instrument
from evenprobe.wiring import Terminal
from kit.models import Tester
from kit.services import check, put_part, put_tester
from meters.scpi import USUAL_PORT
from meters.services import put_link
from plugging.services import put_equipment
from proofs.models import Proof
from proofs.services import begin, record_event
from readings.point_view import PointView
from readings.services import record
from readings.standings import old_ones, settle
from rounds.services import begin as begin_round
from sites.models import Point
from sites.services import put_board, put_circuit, put_point, put_site, put_supply

_STARTED = datetime(2026, 11, 23, 9, 30, tzinfo=UTC)
_SET_UP = _STARTED - timedelta(days=1)
_STRAY_VOLTS = 0.3
"""What a stray reading shows: the probe touched nothing."""


_TAKEN_WITH = {"alarm": "d1", "trip": "t1", "draws": "c1", "ohm": "l4", "lifted": "l4"}
_CHECKED_BEFORE = timedelta(hours=2)
_ANEW_AFTER = timedelta(minutes=4)
_PROVING_VOLTS = 239.0


def _event(words: str, tester: str, number: int) -> dict[str, Any]:
    """An event of the isolation format from such as `locked s1 K-07` or `tested L1 N 14.2`."""
    what, *rest = words.split()
    setting = {"mode": "ac", "range": "auto"} if tester.startswith("m") else {"mode": "ac"}
    match what, rest:
        case "locked", [source, lock]:
            return {"type": what, "source": source, "lock": lock, "tag": True}
        case (("off" | "unlocked"), [source]):
            return {"type": what, "source": source}
        case "proved", []:
            return {"type": what, "against": "proving-unit", "shows_v": _PROVING_VOLTS, **setting}
        case "tested", [measuring, reference, *shown]:
            volts = float(shown[0]) if shown else number % 3 / 10
            pair = {"from": measuring, "to": reference}
            return {"type": what, **pair, "shows_v": volts, **setting}
        case "screened", []:
            return {"type": what, "alarm": False}
        case _:
            return {"type": what}


class Command(BaseCommand):
    help = __doc__

    def handle(self, *_args: Any, **_options: Any) -> None:
        """What an older version loaded stays as it is: readings simulated by another physics are not its readings."""
        try:
            points = self._load()
        except Refused as refused:
            if refused.status != HTTPStatus.CONFLICT:
                raise
            self.stdout.write(f"demo: of an older version, kept as it is; sign in as {USERNAME} with {PASSWORD}")
            return
        settle(old_ones())
        self.stdout.write(f"demo: {len(points)} points; sign in as {USERNAME} with {PASSWORD}")

    def _load(self) -> list[Point]:
        with transaction.atomic():
            crew, user = self._crew()
            with acting_as(user, _SET_UP):
                return self._write_down(crew, user)

    def _write_down(self, crew: Crew, user: Any) -> list[Point]:
        testers = self._kit(crew, user)
        points = list(self._sites(crew))
        site, room = ROUND
        begin_round(crew, user, demo_id("round", *ROUND), demo_id(site), None, room, testers["m2"].id)
        for number, (point, demo) in enumerate(points):
            self._measure(crew, user, point, demo, testers, _STARTED + timedelta(minutes=11 * number))
        for needs in EQUIPMENT:
            put_equipment(crew, demo_id("equipment", needs["label"]), needs)
        for proof in PROOFS:
            self._prove(crew, user, proof, testers)
        load_sheets(crew, user, testers)
        load_hunts(crew, user)
        load_record(crew, user)
        return [point for point, _ in points]

    @staticmethod
    def _crew() -> tuple[Crew, Any]:
        crew, _ = Crew.objects.get_or_create(id=CREW, defaults={"name": "Larkspur and Fennwick crew"})
        for username, name, about in PEOPLE:
            user, made = get_user_model().objects.get_or_create(username=username, defaults={"first_name": name})
            if made:
                user.set_password(PASSWORD)
                user.save()
            Membership.objects.get_or_create(user=user, defaults={"crew": crew, **about})
        return crew, get_user_model().objects.get(username=USERNAME)

    @staticmethod
    def _kit(crew: Crew, user: Any) -> dict[str, Tester]:
        parts = {p.key: put_part(crew, demo_id("part", p.key), p.role, p.entry) for p in PARTS}
        testers = {}
        for demo in TESTERS:
            leads = parts[demo.leads].id if demo.leads else None
            testers[demo.key] = put_tester(crew, demo_id("tester", demo.key), demo.entry, usual_leads=leads)
            if demo.checked:
                check_id = demo_id("check", demo.key, f"{timezone.localdate()}")
                at = timezone.now() - _CHECKED_BEFORE
                check(crew, user, testers[demo.key].id, check_id, demo.checked, at)
        port = os.environ.get("METER_PORT", str(USUAL_PORT))
        put_link(crew, testers[ON_THE_WIRE].id, f"TCPIP::127.0.0.1::{port}::SOCKET")
        return testers

    @staticmethod
    def _prove(crew: Crew, user: Any, demo: DemoProof, testers: dict[str, Tester]) -> None:
        """The proof as it would stand now; the last load's, if that ran out, is closed."""
        now = timezone.now()
        earlier = Proof.objects.filter(site__crew=crew, name=demo.name).first()
        if earlier is not None:
            if now - earlier.begun_at < _ANEW_AFTER:
                return
            record_event(crew, user, earlier.id, demo_id("closed", str(earlier.id)), {"type": "closed"})
        proof_id = uuid4()
        site, supply, board, circuit = demo.on
        yes = {kind for _, _, kind in demo.sources}
        content = {
            "name": demo.name,
            "what": demo.what,
            "terminals": list(demo.terminals),
            "place": "installation",
            "wet": False,
            "sources": [{"id": i, "label": label, "kind": kind} for i, label, kind in demo.sources],
            "asked": {str(q.kind): str(q.kind) in yes for q in QUESTIONS},
        }
        begin(crew, user, proof_id, demo_id(site, supply), demo_id(site, board, circuit), content)
        start = now - timedelta(minutes=demo.minutes_ago)
        for number, (minute, tester, words) in enumerate(demo.events):
            record_event(
                crew, user, proof_id, demo_id(str(proof_id), str(number)), _event(words, tester, number),
                testers[tester].id if tester else None, at=start + timedelta(minutes=minute), sent_at=now,
            )  # fmt: skip

    @staticmethod
    def _sites(crew: Crew) -> Any:
        for s in SITES:
            site = put_site(crew, demo_id(s.name), s.name, s.practice)
            for u in s.supplies:
                supply = put_supply(crew, demo_id(s.name, u.name), site.id, u.name, u.system, u.earthing)
                for b in u.boards:
                    board = put_board(crew, demo_id(s.name, b.name), supply.id, b.name)
                    for c in b.circuits:
                        circuit_id = demo_id(s.name, b.name, c.name)
                        about = c.name, c.rating_a, c.conductor, c.residual_ma, c.curve
                        put_circuit(crew, circuit_id, board.id, *about)
                        for p in c.points:
                            point_id = demo_id(s.name, b.name, c.name, p.name)
                            where = point_id, circuit_id, p.name, p.kind, list(p.terminals), p.length_m, p.room
                            yield put_point(crew, *where), p

    def _measure(
        self,
        crew: Crew,
        user: Any,
        point: Point,
        demo: DemoPoint,
        testers: dict[str, Tester],
        start: datetime,
    ) -> None:
        if not demo.measured:
            return
        facts = PointView(point).facts
        hidden = hidden_point(facts, demo)
        errors = TesterErrors(np.random.default_rng(demo.seed + 1000))
        for number, setup in enumerate(demo.measured):
            tester = testers[next((t for word, t in _TAKEN_WITH.items() if word in setup), demo.tester)]
            reading = self._read(hidden, errors, setup, tester.instrument().instrument())
            reading_id = demo_id("reading", str(point.id), str(number))
            at = start + timedelta(seconds=50 * number)
            supersedes = None
            if demo.slip == number and reading["value"] is not None:
                supersedes = demo_id("slip", str(point.id))
                slipped = {**reading, "value": round(reading["value"] / 10, 2)}
                record(crew, user, point.id, supersedes, slipped, tester.id, None, at)
            self._record(crew, user, point.id, reading_id, reading, tester.id, supersedes, at)

    @staticmethod
    def _record(
        crew: Crew,
        user: Any,
        point_id: UUID,
        reading_id: UUID,
        entry: dict[str, Any],
        tester: UUID,
        supersedes: UUID | None,
        at: datetime,
    ) -> None:
        record(crew, user, point_id, reading_id, entry, tester, supersedes, at + timedelta(seconds=20))

    @staticmethod
    def _read(hidden: HiddenPoint, errors: TesterErrors, setup: str, tester: Instrument) -> dict[str, Any]:
        """A reading of the survey format for a setup such as `N-PE here 10 alone`, `L-PE low`, `N-PE ohm`, `PE alarm`.

        `alone` is with nothing else on, `lifted` ohms with the neutral off its bar; `draws` is what a machine takes,
        running and starting; `stray` is a probe that touched nothing; `false-alarm` a detector set off by something
        nearby.
        """
        pair, *how = setup.split()
        if how[:1] == ["draws"]:
            return {"quantity": "current", "from": pair, "value": float(how[1]), "max": float(how[2]), "unit": "A"}
        if pair == "trip":
            test_ma = float(how[0])
            press = Measurement(TRIP, None, None, tester, test_ma=test_ma)
            return {"quantity": "trip", "test_ma": test_ma, "value": hidden.read("", press, errors).tripped}
        ends = [Terminal(name) for name in pair.split("-", 1)]
        if how in (["alarm"], ["false-alarm"]):
            quiet = Measurement(PRESENCE, ends[0], None, tester)
            seen = hidden.read("", quiet, errors).alarm or how == ["false-alarm"]
            return {"quantity": "presence", "from": str(ends[0]), "value": seen}
        entry: dict[str, Any] = {"quantity": "voltage", "mode": "ac", "from": str(ends[0]), "to": str(ends[1])}
        options: dict[str, Any] = {}
        if how[:1] == ["low"]:
            options["input"] = entry["input"] = "low-z"
        elif how[:1] == ["here"]:
            options["load_here_a"] = entry["load_here_a"] = float(how[1])
        elif how[:1] == ["elsewhere"]:
            options["load_elsewhere_a"] = entry["load_elsewhere_a"] = float(how[1])
        elif how[:1] in (["ohm"], ["lifted"]):
            options["device"] = "open"
            entry = {"quantity": "resistance", "from": entry["from"], "to": entry["to"], "device": "open"}
            if how == ["lifted"]:
                options["neutral"] = entry["neutral"] = "lifted"
        if how[-1:] == ["alone"]:
            options["nothing_else_on"] = entry["nothing_else_on"] = True
        quantity = RESISTANCE if entry["quantity"] == "resistance" else VOLTAGE
        reading: Reading = hidden.read("", Measurement(quantity, ends[0], ends[1], tester, **options), errors)
        if reading.over_range:
            return {**entry, "over_range": True, "unit": "ohm"}
        value = _STRAY_VOLTS if how == ["stray"] else round(reading.value or 0.0, 2)
        return {**entry, "value": value, "unit": quantity.unit}
