"""Whole pieces of work through a line that loses answers: everything is sent again, and nothing is there twice.

The same work is done over a sound line beside it, and both come to the same.
"""

from uuid import uuid4

import pytest
from django.apps import apps

from tests.server.conftest import PICTURE, VAN, Person, proof_body
from tests.server.on_sheets import ENERGISED, REASON, UNLOCKED, fill, lines, put, put_test
from tests.server.requests import entry, record
from tests.server.test_proofs import prove_dead, send
from tests.server.test_rounds import PLUG_TESTER, event

APPS = ("kit", "sites", "work", "proofs", "sheets", "rounds", "plugging", "hunts", "meters")


class Lucky(Person):
    """Over a sound line."""

    def put(self, path, body):
        answer = super().put(path, body)
        assert answer.status_code == 200, (path, body, answer.content)
        return answer


class Unlucky(Person):
    """Whose line lost the answer to everything, so that all of it was sent again, some of it late."""

    def __init__(self, client):
        super().__init__(client)
        self.late = []

    def put(self, path, body):
        first = super().put(path, body)
        assert super().put(path, body).status_code == first.status_code, (path, body)
        self.late.append((path, body, first.status_code))
        return first

    def all_again(self):
        """Everything once more after the work is done, as a device does that was away: it changes nothing."""
        return [(path, super(Unlucky, self).put(path, body).status_code, was) for path, body, was in self.late]


def counted():
    """How many of each record there are."""
    models = [model for app in APPS for model in apps.get_app_config(app).get_models()]
    return {model.__name__: model._default_manager.count() for model in models}


def added(work, person, place):
    before = counted()
    work(person, place)
    return {name: count - before[name] for name, count in counted().items()}


def isolation(person, place):
    prove_dead(person, place)
    send(person, place, {"type": "stated"})


def dead_tests(person, place):
    prove_dead(person, place)
    fill(person, place)
    line = next(iter(lines(person, place)))
    left = {"type": "left", "line": next(i for i in lines(person, place) if "insulation" in i), "reason": REASON}
    assert put(person, place, left).status_code == 200
    correction = put_test(person, place, line, "low_ohm", first := str(uuid4()), measured_ohm=0.21)
    assert correction.status_code == 200
    put_test(person, place, line, "low_ohm", supersedes=first, measured_ohm=0.22)
    taken_back = str(uuid4())
    put_test(person, place, line, "low_ohm", taken_back, measured_ohm=0.9)
    put(person, place, None, supersedes=taken_back)
    send(person, place, UNLOCKED)
    put(person, place, {**ENERGISED, "reason": REASON})


def readings(person, place):
    for pair, value in ((("L", "N"), 119.8), (("L", "PE"), 119.9), (("N", "PE"), 0.1)):
        assert record(person, place, entry(value, pair), tester=place["tester"]).status_code == 200
    slip = str(uuid4())
    record(person, place, entry(11.98, ("PE", "REF")), slip)
    record(person, place, entry(0.1, ("PE", "REF")), supersedes=slip)
    gone = str(uuid4())
    record(person, place, entry(60.0), gone)
    assert person.put(f"/points/{place['point']}/withdrawals/{uuid4()}", {"reading": gone}).status_code == 200


def a_round(person, place):
    tester, place = str(uuid4()), {**place, "round": str(uuid4())}
    person.put(f"/testers/{tester}", PLUG_TESTER)
    person.put(f"/rounds/{place['round']}", {"site": place["site"], "circuit": place["circuit"], "tester": tester})
    readings(person, place)
    event(person, place, place["point"], "pressed")
    event(person, place, place["point"], "watched", tripped=True, reason="the freezer too")
    event(person, place, place["point"], "reset")
    event(person, place, place["point"], "skipped", reason="behind the lathe")


def kit_and_places(person, place):
    tester = str(uuid4())
    person.put(f"/testers/{tester}", {"label": "M9", "kind": "multimeter", "category": "III", "rated_v": 600})
    person.put(f"/testers/{tester}/checks/{uuid4()}", {"entry": {"battery": "good", "leads": "good"}})
    person.put(f"/testers/{tester}/link", {"address": "TCPIP::127.0.0.1::5025::SOCKET"})
    person.put(f"/parts/{uuid4()}", {"role": "leads", "label": "Leads R3"})
    person.put(f"/equipment/{uuid4()}", VAN)
    person.put(f"/photos/{uuid4()}", {"image": PICTURE})
    strange = {"supply": {"system": "120"}, "outlet": {"name": "Pitch 4", "terminals": ["L", "N", "PE"]}}
    new_site = {"name": "Event field", "practice": "north-america"}
    person.put(f"/outlets/{uuid4()}", {**strange, "site": str(uuid4()), "new_site": new_site})


def begun_anew(person, place):
    """Another proof and sheet of the same circuit, for the same work to be done once more."""
    other = {**place, "proof": str(uuid4()), "sheet": str(uuid4())}
    assert person.put(f"/proofs/{other['proof']}", proof_body(other)).status_code == 200
    assert (
        person.put(f"/sheets/{other['sheet']}", {"circuit": other["circuit"], "temperature_c": 20}).status_code == 200
    )
    return other


@pytest.mark.parametrize("work", [isolation, dead_tests, readings, a_round, kit_and_places])
def test_what_is_sent_twice_is_there_once(anna, bench_kit, work):
    once = added(work, Lucky(anna.client), bench_kit)
    assert sum(once.values()) > 5
    unlucky = Unlucky(anna.client)
    assert added(work, unlucky, begun_anew(anna, bench_kit)) == once
    there = counted()
    for path, status, was in unlucky.all_again():
        assert status in (was, 409), path
    assert counted() == there
