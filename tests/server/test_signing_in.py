"""Signing in under a flood: misses are slowed, hashes are capped, and who has an account gets in."""

import json
import threading
from concurrent.futures import ThreadPoolExecutor

import pytest
from django.db import connection

from crews import signing_in
from crews.devices import address_of
from crews.signing_in import FORGOTTEN_AFTER_S, LONGEST_WAIT_S, MISSES_FREE, Misses
from tests.server.conftest import PASSWORD, member


@pytest.fixture(autouse=True)
def _nobody_missed_yet(monkeypatch):
    monkeypatch.setattr(signing_in, "misses", Misses())


@pytest.fixture
def _waits_are_long(monkeypatch):
    """So that a wait is not over before the next line of a test."""
    monkeypatch.setattr(signing_in, "FIRST_WAIT_S", 60.0)


def sign_in(client, name, password="wrong-password", **extra):
    body = json.dumps({"username": name, "password": password})
    return client.post("/api/session", body, content_type="application/json", **extra)


def name_of(person):
    from django.contrib.auth import get_user_model

    return get_user_model().objects.get(pk=person.client.session["_auth_user_id"]).username


@pytest.mark.usefixtures("_waits_are_long")
def test_after_five_misses_a_name_waits_and_is_answered_without_a_hash(anna, client_class, monkeypatch):
    name, elsewhere = name_of(anna), client_class()
    for _ in range(MISSES_FREE):
        assert sign_in(elsewhere, name).status_code == 403
    monkeypatch.setattr(signing_in, "authenticate", lambda *_a, **_k: pytest.fail("a hash was made"))
    answer = sign_in(elsewhere, name, PASSWORD)
    assert answer.status_code == 429
    assert "try again in" in answer.json()["problems"][0]["text"]


@pytest.mark.usefixtures("_waits_are_long")
def test_an_address_waits_too_however_many_names_it_tries_and_another_does_not(anna, client_class):
    name, flood = name_of(anna), client_class()
    statuses = [sign_in(flood, f"nobody-{n}").status_code for n in range(MISSES_FREE + 2)]
    assert statuses[-1] == 429
    assert sign_in(client_class(), name, PASSWORD, REMOTE_ADDR="10.0.0.9").status_code == 200


@pytest.mark.usefixtures("_waits_are_long")
def test_a_device_somebody_signed_in_on_is_no_stranger_at_the_same_address(anna, client_class):
    name, own, flood = name_of(anna), client_class(), client_class()
    assert sign_in(own, name, PASSWORD).status_code == 200
    for n in range(MISSES_FREE + 2):
        sign_in(flood, f"nobody-{n}")
    assert sign_in(flood, name, PASSWORD).status_code == 429
    assert sign_in(own, name, PASSWORD).status_code == 200
    forged = client_class()
    forged.cookies[signing_in.KNOWN_DEVICE] = f"{name}:123:forged"
    assert sign_in(forged, name, PASSWORD).status_code == 429


@pytest.mark.usefixtures("_waits_are_long")
def test_a_flood_that_has_to_wait_costs_the_database_nothing(anna, client_class, django_assert_num_queries):
    flood = client_class()
    for n in range(MISSES_FREE + 1):
        sign_in(flood, f"nobody-{n}")
    with django_assert_num_queries(0):
        answer = sign_in(flood, "nobody at all")
    assert (answer.status_code, answer["Content-Type"]) == (429, "application/json")
    assert "try again in" in answer.json()["problems"][0]["text"]
    assert answer["Permissions-Policy"]


def test_waits_double_up_to_a_minute_and_are_forgotten_in_time():
    counted, key = Misses(), ("name", "anna")
    waits = []
    for _ in range(MISSES_FREE + 10):
        counted.missed(key, 100.0)
        waits.append(counted.wait_s(key, 100.0))
    assert waits[MISSES_FREE - 2] == 0
    assert waits[MISSES_FREE - 1 : MISSES_FREE + 2] == [1.0, 2.0, 4.0]
    assert waits[-1] == LONGEST_WAIT_S
    assert counted.wait_s(key, 100.0 + FORGOTTEN_AFTER_S + 1) == 0
    counted.forget(key)
    assert counted.wait_s(key, 100.0) == 0


def test_no_more_names_are_remembered_than_there_is_room_for(monkeypatch):
    monkeypatch.setattr(signing_in, "REMEMBERED", 3)
    counted = Misses()
    for n in range(10):
        for _ in range(MISSES_FREE):
            counted.missed(("name", str(n)), 5.0)
    assert [counted.wait_s(("name", str(n)), 5.0) > 0 for n in range(10)] == [False] * 7 + [True] * 3


@pytest.mark.django_db(transaction=True)
def test_hashes_of_strangers_are_made_one_at_a_time_and_a_member_does_not_notice(anna, client_class, monkeypatch):
    under_way, most = [], []
    begun, member_was_answered = threading.Event(), threading.Event()

    def slow(*_args, **_kwargs):
        under_way.append(1)
        most.append(len(under_way))
        begun.set()
        member_was_answered.wait(60)
        under_way.pop()

    monkeypatch.setattr(signing_in, "authenticate", slow)

    def try_one(number):
        try:
            return sign_in(client_class(), f"n{number}", REMOTE_ADDR=f"10.0.{number}.1").status_code
        finally:
            connection.close()

    with ThreadPoolExecutor(8) as pool:
        statuses = pool.map(try_one, range(24))
        assert begun.wait(60)
        assert anna.get("/session").status_code == 200
        assert under_way, "the hash was still being made when the member was answered"
        member_was_answered.set()
        found = list(statuses)
    assert max(most) == 1
    assert set(found) <= {403, 429}


@pytest.mark.parametrize("name", ["\ud800", "a\u0000", "x" * 500])
def test_a_name_nobody_can_have_is_refused_in_words(client, db, name):
    answer = sign_in(client, name)
    assert answer.status_code in (403, 422)
    assert answer.json()["problems"][0]["text"]


def test_behind_a_front_the_address_is_the_one_the_front_says(settings, rf):
    request = rf.get("/", REMOTE_ADDR="127.0.0.1", headers={"X-Forwarded-For": "6.6.6.6, 10.1.1.1"})
    assert address_of(request) == "127.0.0.1"
    settings.BEHIND_A_FRONT = True
    assert address_of(request) == "10.1.1.1"


def test_a_member_of_another_crew_is_slowed_alone(anna, client_class):
    other = member(client_class(), "theirs")
    tries = client_class()
    for _ in range(MISSES_FREE + 1):
        sign_in(tries, name_of(anna), REMOTE_ADDR="10.0.0.7")
    assert sign_in(client_class(), name_of(other), PASSWORD, REMOTE_ADDR="10.0.0.8").status_code == 200
