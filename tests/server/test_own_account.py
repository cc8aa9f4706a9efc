"""One's own way in: password, devices, the log, two steps; and a second person for what a life hangs on."""

import json
import time
from datetime import timedelta
from uuid import uuid4

import pytest
from django.contrib.auth import get_user_model
from django.utils import timezone
from django_otp.oath import totp
from django_otp.plugins.otp_totp.models import TOTPDevice

from crews import second, signing_in
from crews.models import SecondPerson, SignInEvent
from crews.signing_in import Misses
from proofs.models import ProofEvent
from signoffs.models import SignOff
from tests.server.conftest import PASSWORD, member
from tests.server.test_proofs import prove_dead

NEW = "another-long-password"


@pytest.fixture(autouse=True)
def _nobody_missed_yet(monkeypatch):
    monkeypatch.setattr(signing_in, "misses", Misses())


def user_of(person):
    return get_user_model().objects.get(pk=person.get("/session").json()["account"])


def sign_in(client, person, password=PASSWORD, **more):
    body = json.dumps({"username": user_of(person).username, "password": password, **more})
    return client.post("/api/session", body, content_type="application/json", headers={"User-Agent": PHONE})


PHONE = "Mozilla/5.0 (Linux; Android 14; Pixel) AppleWebKit/537.36 Chrome/130 Mobile Safari/537.36"


def delete(person, path):
    return person.client.delete(f"/api{path}")


def test_a_password_is_changed_with_the_old_one_and_signs_every_other_device_out(anna, client_class):
    phone = client_class()
    assert sign_in(phone, anna).status_code == 200
    wrong = anna.put("/own/password", {"old": "not-mine-at-all", "new": NEW})
    assert (wrong.status_code, wrong.json()["problems"][0]["path"]) == (403, "old")
    weak = anna.put("/own/password", {"old": PASSWORD, "new": "short"})
    assert (weak.status_code, weak.json()["problems"][0]["path"]) == (422, "new")
    assert anna.put("/own/password", {"old": PASSWORD, "new": NEW}).status_code == 200
    assert phone.get("/api/session").status_code == 401
    assert anna.get("/session").status_code == 200
    assert sign_in(phone, anna).status_code == 403
    assert sign_in(phone, anna, NEW).status_code == 200


def test_devices_are_listed_and_a_lost_one_is_signed_out(anna, client_class, stranger):
    phone = client_class()
    sign_in(phone, anna)
    devices = anna.get("/own").json()["devices"]
    assert sorted(one["here"] for one in devices) == [False, True]
    [lost] = [one for one in devices if not one["here"]]
    assert (lost["device"], lost["address"]) == ("Chrome on a phone", "127.0.0.1")
    assert phone.session.session_key not in json.dumps(devices)
    assert delete(stranger, f"/own/devices/{lost['id']}").status_code == 404
    assert phone.get("/api/session").status_code == 200
    assert len(delete(anna, f"/own/devices/{lost['id']}").json()["devices"]) == 1
    assert phone.get("/api/session").status_code == 401
    assert delete(anna, f"/own/devices/{lost['id']}").status_code == 404


def test_the_log_tells_what_happened_to_the_way_in_and_a_flood_fills_no_disk(anna, client_class, monkeypatch):
    monkeypatch.setattr(signing_in, "MISSES_FREE", 10_000)
    phone = client_class()
    sign_in(phone, anna)
    delete_session = phone.delete("/api/session")
    assert delete_session.status_code == 204
    for _ in range(signing_in.LOGGED_AN_HOUR + 5):
        sign_in(client_class(), anna, "not-the-password")
    log = anna.get("/own").json()["log"]
    assert [one["what"] for one in log][::-1][:2] == ["signed-in", "signed-out"]
    assert SignInEvent.objects.filter(what="wrong-password").count() == signing_in.LOGGED_AN_HOUR
    assert SignInEvent.objects.exclude(user=user_of(anna)).count() == 0


def code_for(person):
    device = TOTPDevice.objects.get(user=user_of(person))
    device.last_t, device.throttling_failure_count = -1, 0
    device.save()
    return f"{totp(device.bin_key):06d}"


def test_two_steps_ask_for_a_code_after_the_password_and_paper_stands_in_for_the_phone(anna, client_class):
    begun = anna.post("/own/two-step", {}).json()
    assert begun["picture"].startswith("data:image/svg+xml")
    assert sign_in(client_class(), anna).status_code == 200, "nothing is asked for before a code came back"
    assert anna.put("/own/two-step", {"code": "000000"}).status_code == 422
    codes = anna.put("/own/two-step", {"code": code_for(anna)}).json()["codes"]
    assert len(set(codes)) == 8
    asked = sign_in(client_class(), anna)
    assert (asked.status_code, asked.json()["problems"][0]["path"]) == (403, "code")
    assert (
        sign_in(client_class(), anna, "wrong-password", code=code_for(anna)).json()["problems"][0]["path"] == "password"
    )
    assert sign_in(client_class(), anna, code="123456").json()["problems"][0]["path"] == "code"
    code = code_for(anna)
    assert sign_in(client_class(), anna, code=code).status_code == 200
    assert sign_in(client_class(), anna, code=code).status_code == 403, "a code is good once"
    assert sign_in(client_class(), anna, code=codes[0]).status_code == 200
    assert sign_in(client_class(), anna, code=codes[0]).status_code == 403
    assert anna.post("/own/two-step", {}).status_code == 409
    assert anna.put("/own/two-step/off", {"password": "not-mine-at-all"}).status_code == 403
    assert anna.put("/own/two-step/off", {"password": PASSWORD}).json()["two_step"] is False
    assert sign_in(client_class(), anna).status_code == 200


@pytest.fixture
def ben(anna, client_class):
    return member(client_class(), "ours", role="apprentice")


def word(person, of, act, beside, password=PASSWORD):
    return person.put(f"/seconds/{of}", {"act": act, "username": user_of(beside).username, "password": password})


def state(person, place, event):
    return person.put(f"/proofs/{place['proof']}/events/{event}", {"entry": {"type": "stated"}})


def test_an_apprentice_does_not_state_dead_alone(anna, ben, proof):
    prove_dead(ben, proof)
    event = str(uuid4())
    alone = state(ben, proof, event)
    assert (alone.status_code, alone.json()["problems"][0]["path"]) == (403, "second")
    assert not ProofEvent.objects.filter(type="stated").exists()
    assert word(ben, event, "state-dead", anna, "not-hers-at-all").status_code == 403
    assert word(ben, event, "state-dead", anna).json()["by"] == user_of(anna).username
    assert state(ben, proof, str(uuid4())).status_code == 403, "the word is good for one act"
    for _ in range(2):
        assert state(ben, proof, event).status_code == 200
    shown = ben.get(f"/proofs/{proof['proof']}").json()
    assert shown["state"]["stated_by"] == f"{user_of(ben).username} with {user_of(anna).username}"


def test_a_word_is_another_s_of_the_crew_who_may_and_is_old_in_ten_minutes(anna, ben, proof, client_class, monkeypatch):
    prove_dead(ben, proof)
    event = str(uuid4())
    other = member(client_class(), "ours", role="apprentice")
    foreign = member(client_class(), "theirs")
    for nobody in (ben, other, foreign):
        assert word(ben, event, "state-dead", nobody).status_code == 403
    assert word(anna, event, "state-dead", ben).status_code == 422
    assert word(ben, event, "sign-off", member(client_class(), "ours", role="electrician")).status_code == 403
    assert word(ben, event, "state-dead", anna).status_code == 200
    assert word(ben, event, "energise", anna).status_code == 409
    assert word(other, event, "state-dead", anna).status_code == 409
    monkeypatch.setattr(second, "GOOD_FOR", timedelta(0))
    time.sleep(0.01)
    assert state(ben, proof, event).status_code == 403


def test_an_apprentice_s_alarm_is_never_held_back(ben, proof):
    prove_dead(ben, proof)
    on = ben.put(f"/proofs/{proof['proof']}/events/{uuid4()}", {"entry": {"type": "re-energised"}})
    assert on.status_code == 200
    assert on.json()["state"]["state"] != "proved-dead"


def test_energising_and_signing_off_need_the_second_too(anna, ben, sheet, client_class):
    entry = str(uuid4())
    body = {"entry": {"type": "energised", "reason": "asked for by the customer"}}
    path = f"/sheets/{sheet['sheet']}/entries/{entry}"
    assert ben.put(path, body).json()["problems"][0]["path"] == "second"
    assert word(ben, entry, "energise", anna).status_code == 200
    assert ben.put(path, body).json()["gate"]["energised"]["by"].endswith(f"with {user_of(anna).username}")
    electrician = member(client_class(), "ours", role="electrician")
    draft = electrician.get(f"/drafts/circuit/{sheet['circuit']}").json()
    signing = {
        "what": "circuit", "of": sheet["circuit"], "typed_name": draft["name"],
        "whys": {one["id"]: "no time" for one in draft["content"]["not_tested"]},
    }  # fmt: skip
    sign_off = str(uuid4())
    assert electrician.put(f"/sign-offs/{sign_off}", signing).status_code == 403
    assert word(electrician, sign_off, "sign-off", anna).status_code == 200
    assert electrician.put(f"/sign-offs/{sign_off}", signing).status_code == 200
    assert SignOff.objects.get().by_name == f"{user_of(electrician).username} with {user_of(anna).username}"
    assert SecondPerson.objects.filter(at__lte=timezone.now()).count() == 2
