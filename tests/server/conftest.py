"""Two crews, one with a site; requests as their people make them."""

import base64
import io
import json
import os
import random
from types import SimpleNamespace
from uuid import uuid4

import pytest
from django.contrib.auth import get_user_model
from PIL import Image

from base.unchanged import forget_answers
from crews.models import Crew, Membership, Role, SecondPerson, SignInEvent
from evenprobe.isolation import QUESTIONS

PASSWORD = "a-long-password"
NAMED = (
    *("site", "supply", "board", "circuit", "point", "tester"),
    *("leads", "proof", "sheet", "photo", "round", "hunt", "equipment", "visit", "signed"),
)
"""What a crew of the tests has one of."""


@pytest.fixture(autouse=True)
def _ids_in_turn(monkeypatch):
    """Every test makes the same ids one after the other: what was reckoned for one is kept for the next."""
    monkeypatch.setattr("uuid.os", SimpleNamespace(urandom=random.Random(20).randbytes))


@pytest.fixture(autouse=True)
def _nothing_answered_before():
    """Each test's record begins to be counted anew."""
    forget_answers()


@pytest.fixture(autouse=True)
def _own_cache(settings, tmp_path_factory):
    """The run's own, for what is kept by content is right for every test."""
    own = tmp_path_factory.getbasetemp()
    kept = (own.parent if "PYTEST_XDIST_WORKER" in os.environ else own) / "interpretations"
    settings.CACHES = {"default": {**settings.CACHES["default"], "LOCATION": str(kept)}}


class Person:
    """Someone signed in, speaking JSON."""

    def __init__(self, client):
        self.client = client

    def get(self, path):
        answer = self.client.get(f"/api{path}")
        if answer.streaming and answer["Content-Type"].startswith("application/json"):
            whole = b"".join(answer.streaming_content)
            answer.streaming_content, answer.json = [whole], lambda: json.loads(whole)
        return answer

    def put(self, path, body):
        return self.client.put(f"/api{path}", json.dumps(body), content_type="application/json")

    def post(self, path, body):
        return self.client.post(f"/api{path}", json.dumps(body), content_type="application/json")


def member(client, crew_name, **about):
    """Somebody of a crew, its keeper unless said otherwise."""
    crew, _ = Crew.objects.get_or_create(name=crew_name)
    user = get_user_model().objects.create_user(f"{crew_name}-{uuid4().hex[:6]}", password=PASSWORD)
    Membership.objects.create(user=user, crew=crew, **{"role": Role.KEEPER, **about})
    client.force_login(user)
    return Person(client)


@pytest.fixture
def anna(db, client):
    return member(client, "ours")


@pytest.fixture
def stranger(db, client_class):
    return member(client_class(), "theirs")


@pytest.fixture
def client_class():
    from django.test import Client

    return Client


@pytest.fixture
def place(anna):
    """Ids of a site with one outlet, made through the API as a new user would."""
    ids = {name: str(uuid4()) for name in NAMED}
    steps = [
        (f"/sites/{ids['site']}", {"name": "Larkspur Hill", "practice": "north-america"}),
        (
            f"/supplies/{ids['supply']}",
            {"site": ids["site"], "name": "Service", "system": "120/240", "earthing": "TN-C-S"},
        ),
        (f"/boards/{ids['board']}", {"supply": ids["supply"], "name": "W"}),
        (
            f"/circuits/{ids['circuit']}",
            {"board": ids["board"], "name": "Workshop", "rating_a": 20, "conductor": "12 AWG"},
        ),
        (
            f"/points/{ids['point']}",
            {
                "circuit": ids["circuit"],
                "name": "Outlet 1",
                "kind": "outlet",
                "terminals": ["L", "N", "PE"],
                "length_m": 18,
            },
        ),
        (
            f"/parts/{ids['leads']}",
            {"role": "leads", "label": "Leads A", "category": "III", "rated_v": 1000, "tip_covers": True},
        ),
        (
            f"/testers/{ids['tester']}",
            {
                "label": "M2",
                "kind": "multimeter",
                "proved": True,
                "category": "III",
                "rated_v": 600,
                "usual_leads": ids["leads"],
            },
        ),
    ]
    for path, body in steps:
        answer = anna.put(path, body)
        assert answer.status_code == 200, answer.content
    return ids


VAN = {"label": "Visitors' van", "lines": 1, "amperes": 13, "volts_to_neutral": 120}
ASKED = {str(question.kind): False for question in QUESTIONS}


def proof_body(place, **changes):
    return {
        "supply": place["supply"],
        "circuit": place["circuit"],
        "name": "Workshop outlets",
        "what": "circuit",
        "terminals": ["L", "N", "PE"],
        "sources": [{"id": "s1", "label": "board W, 20 A"}],
        "asked": ASKED,
        **changes,
    }


@pytest.fixture
def proof(anna, place):
    """A proof of isolation just begun."""
    answer = anna.put(f"/proofs/{place['proof']}", proof_body(place))
    assert answer.status_code == 200, answer.content
    return place


def picture(width=2, height=2, kind="PNG"):
    """A picture with nothing to see, in base 64."""
    kept = io.BytesIO()
    Image.new("RGB", (width, height)).save(kept, kind)
    return base64.b64encode(kept.getvalue()).decode()


PICTURE = picture()


@pytest.fixture
def sheet(anna, proof):
    """A sheet of dead tests just begun on the circuit of a proof just begun, and a picture."""
    answer = anna.put(f"/sheets/{proof['sheet']}", {"circuit": proof["circuit"], "temperature_c": 20})
    assert answer.status_code == 200, answer.content
    answer = anna.put(f"/photos/{proof['photo']}", {"image": PICTURE})
    assert answer.status_code == 200, answer.content
    answer = anna.put(f"/equipment/{proof['equipment']}", VAN)
    assert answer.status_code == 200, answer.content
    answer = anna.put(f"/rounds/{proof['round']}", {"site": proof["site"], "circuit": proof["circuit"]})
    assert answer.status_code == 200, answer.content
    told = {"circuit": proof["circuit"], "happened": "trips-at-once", "kind": "short"}
    answer = anna.put(f"/hunts/{proof['hunt']}", told)
    assert answer.status_code == 200, answer.content
    return proof


@pytest.fixture
def signed(anna, sheet):
    """The same with a visit planned to it, and the circuit signed off."""
    about = {"site": sheet["site"], "why": "Yearly test", "planned_for": "2026-12-01"}
    made = {**about, "circuits": [sheet["circuit"]], "works": ["live-tests"]}
    answer = anna.put(f"/visits/{sheet['visit']}", made)
    assert answer.status_code == 200, answer.content
    signing = {"what": "circuit", "of": sheet["circuit"]}
    draft = anna.get(f"/drafts/circuit/{sheet['circuit']}").json()
    signing |= {"typed_name": draft["name"], "whys": {one["id"]: "no time" for one in draft["content"]["not_tested"]}}
    answer = anna.put(f"/sign-offs/{sheet['signed']}", signing)
    assert answer.status_code == 200, answer.content
    return sheet


@pytest.fixture
def bench_kit(anna, sheet):
    """A low-ohm tester and an insulation tester beside the multimeter."""
    made = {"low_ohm": str(uuid4()), "insulation": str(uuid4())}
    for key, kind in (("low_ohm", "low-ohm"), ("insulation", "insulation-tester")):
        rated = {"category": "III", "rated_v": 600, "usual_leads": sheet["leads"], "test_v": [250, 500, 1000]}
        answer = anna.put(f"/testers/{made[key]}", {"label": key, "kind": kind, "proved": True, **rated})
        assert answer.status_code == 200, answer.content
    return {**sheet, **made}


@pytest.fixture
def recorded(anna, signed):
    """A row in every table of the record."""
    for path, body in (
        (
            f"/points/{signed['point']}/readings",
            {"entry": {"quantity": "voltage", "from": "L", "to": "N", "value": 120}},
        ),
        (
            f"/points/{signed['point']}/readings",
            {
                "entry": {"quantity": "voltage", "from": "L", "to": "PE", "value": 119.5},
                "tester": signed["tester"],
            },
        ),
        (f"/proofs/{signed['proof']}/events", {"entry": {"type": "off", "source": "s1"}}),
        (f"/sheets/{signed['sheet']}/entries", {"entry": {"type": "looked", "item": "burnt", "good": True}}),
        (f"/rounds/{signed['round']}/events", {"point": signed["point"], "kind": "skipped", "reason": "locked"}),
        (f"/hunts/{signed['hunt']}/events", {"kind": "seen", "entry": {"at": "board", "onward": True}}),
        (f"/testers/{signed['tester']}/checks", {"entry": {"battery": "good"}}),
        (f"/testers/{signed['tester']}/faults", {"what": "reads 0"}),
        (f"/visits/{signed['visit']}/events", {"kind": "begun"}),
        ("/hung", {"photo": signed["photo"], "on": "point", "of": signed["point"]}),
    ):
        answer = anna.put(f"{path}/{uuid4()}", body)
        assert answer.status_code == 200, answer.content
    case = str(uuid4())
    assert anna.put(f"/practice/{case}", {"name": "cold-kettle"}).status_code == 200
    there = f"/practice/{case}/api/practised"
    touched = anna.client.put(f"{there}/acts/{uuid4()}", {"doing": "touched"}, content_type="application/json")
    assert touched.json()["over"]
    assert anna.client.get(f"{there}/debrief").status_code == 200
    own = get_user_model().objects.get(pk=anna.get("/session").json()["account"])
    SignInEvent.objects.create(user=own, what=SignInEvent.What.IN)
    by = {"by": own, "by_name": own.username, "beside": own, "crew": own.membership.crew}
    SecondPerson.objects.create(id=uuid4(), act="state-dead", **by)
    return signed
