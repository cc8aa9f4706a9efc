"""Coming in by a one-time link, changing what somebody is, leaving: nobody loses their name on the record."""

import json
from concurrent.futures import ThreadPoolExecutor
from datetime import timedelta
from io import StringIO
from uuid import uuid4

import pytest
from django.contrib.auth import get_user_model
from django.core.management import CommandError, call_command
from django.db import connection
from django.utils import timezone

from crews.models import Crew, Membership
from history.models import Change
from people.models import OneTimeLink
from tests.server.conftest import Person, member
from tests.server.requests import entry, record

NEW = "another-long-password"


def link_for(keeper, **about):
    made = keeper.put(f"/people/links/{uuid4()}", {"name": "Ben Ash", "role": "apprentice", **about})
    assert made.status_code == 200, made.content
    return made.json()["key"]


def come_in(client, key, **about):
    body = {"username": "ben", "name": "Ben Ash", "password": NEW, **about}
    return client.post(f"/api/links/{key}", json.dumps(body), content_type="application/json")


def sign_in(client, username, password, **more):
    body = json.dumps({"username": username, "password": password, **more})
    return client.post("/api/session", body, content_type="application/json")


def said(answer):
    return answer.json()["problems"][0]["text"]


def test_somebody_joins_by_a_link_once_and_is_signed_in(anna, client_class):
    key, ben = link_for(anna), client_class()
    shown = ben.get(f"/api/links/{key}").json()
    assert (shown["crew"], shown["name"], shown["role"], shown["for_password"]) == (
        "ours",
        "Ben Ash",
        "apprentice",
        False,
    )
    answer = come_in(ben, key)
    assert answer.status_code == 200, answer.content
    assert (answer.json()["name"], answer.json()["role"]) == ("Ben Ash", "apprentice")
    assert answer.json()["beside"] == ["state-dead", "energise", "sign-off"]
    assert Person(ben).get("/session").json()["crew"] == "ours"
    assert come_in(client_class(), key, username="eve").status_code == 409
    assert sign_in(client_class(), "ben", NEW).status_code == 200
    assert [m["name"] for m in anna.get("/people").json()["members"]][1:] == ["Ben Ash"]
    assert anna.get("/people").json()["links"] == []


@pytest.mark.parametrize(
    ("about", "path"),
    [
        ({"password": "short"}, "password"),
        ({"password": "password123"}, "password"),
        ({"username": "two words"}, "username"),
        ({"username": ""}, "username"),
        ({"username": "x" * 130}, "username"),
        ({"name": "  "}, "name"),
        ({"name": "x" * 130}, "name"),
    ],
)
def test_a_slip_at_the_door_is_named_and_the_link_is_good_still(anna, client_class, about, path):
    key = link_for(anna)
    answer = come_in(client_class(), key, **about)
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"] == path
    assert come_in(client_class(), key).status_code == 200


def test_a_name_somebody_has_is_nobody_else_s_however_it_is_written(anna, client_class):
    assert come_in(client_class(), link_for(anna)).status_code == 200
    answer = come_in(client_class(), link_for(anna), username="Ben")
    assert answer.json()["problems"][0]["path"] == "username"


@pytest.mark.django_db(transaction=True)
def test_a_link_used_by_two_at_once_lets_one_in(anna, client_class):
    key = link_for(anna)

    def one(number):
        try:
            return come_in(client_class(), key, username=f"ben-{number}").status_code
        finally:
            connection.close()

    with ThreadPoolExecutor(4) as pool:
        statuses = sorted(pool.map(one, range(4)))
    assert statuses == [200, 409, 409, 409]
    assert Membership.objects.filter(crew__name="ours").count() == 2


def test_a_link_ends_after_two_days_or_when_it_is_withdrawn(anna, client_class):
    ended, withdrawn = link_for(anna), link_for(anna)
    one = OneTimeLink.objects.order_by("made_at").first()
    assert one.ends_at - one.made_at == timedelta(hours=48)
    OneTimeLink.objects.filter(id=one.id).update(ends_at=timezone.now())
    assert "has ended" in said(come_in(client_class(), ended))
    [left] = anna.get("/people").json()["links"]
    for _ in range(2):
        assert anna.put(f"/people/links/{left['id']}/withdrawn", {}).json()["links"] == []
    assert "has ended" in said(client_class().get(f"/api/links/{withdrawn}"))
    assert "opens nothing" in said(client_class().get(f"/api/links/{withdrawn}x"))
    assert "opens nothing" in said(client_class().get(f"/api/links/{uuid4().hex}:forged"))


def test_the_same_link_asked_for_again_is_the_same_and_no_other(anna):
    link, body = str(uuid4()), {"name": "Ben", "role": "apprentice"}
    first, again = anna.put(f"/people/links/{link}", body), anna.put(f"/people/links/{link}", body)
    assert first.json() == again.json()
    assert anna.put(f"/people/links/{link}", {**body, "role": "keeper"}).status_code == 409


@pytest.mark.parametrize(
    ("about", "path"),
    [
        ({"role": "owner"}, "role"),
        ({"role": "guest"}, "site"),
        ({"role": "guest", "site": str(uuid4()), "until": "2027-01-01"}, "site"),
        ({"role": "electrician", "until": "2027-01-01"}, "site"),
        ({"name": ""}, "name"),
    ],
)
def test_a_link_for_what_there_is_not_is_refused_by_name(anna, about, path):
    answer = anna.put(f"/people/links/{uuid4()}", {"name": "Ben", "role": "apprentice", **about})
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"] == path


def test_a_guest_s_link_carries_the_site_and_the_day(anna, place, client_class):
    day = str(timezone.localdate() + timedelta(days=3))
    key = link_for(anna, role="guest", site=place["site"], until=day)
    session = come_in(client_class(), key).json()
    assert (session["role"], session["site"], session["until"], session["may"]) == (
        "guest",
        place["site"],
        day,
        ["read"],
    )


def test_a_forgotten_password_is_set_anew_by_a_link_and_ends_what_was_open(anna, client_class):
    ben = client_class()
    come_in(ben, link_for(anna))
    account = Person(ben).get("/session").json()["account"]
    key = anna.put(f"/people/links/{uuid4()}", {"account": account}).json()["key"]
    shown = client_class().get(f"/api/links/{key}").json()
    assert (shown["for_password"], shown["username"]) == (True, "ben")
    elsewhere = client_class()
    assert come_in(elsewhere, key, username="", name="", password="a-third-long-password").status_code == 200
    assert Person(ben).get("/session").status_code == 401
    assert sign_in(client_class(), "ben", NEW).status_code == 403
    assert sign_in(client_class(), "ben", "a-third-long-password").status_code == 200


def test_whoever_left_is_out_at_once_keeps_their_name_and_can_come_back(anna, place, client_class):
    ben = client_class()
    come_in(ben, link_for(anna))
    account = Person(ben).get("/session").json()["account"]
    record(Person(ben), place, entry(119.8))
    for _ in range(2):
        assert anna.put(f"/people/{account}/left", {"left": True}).status_code == 200
    assert Person(ben).get("/session").status_code == 401
    assert "any more" in said(sign_in(client_class(), "ben", NEW))
    [reading] = anna.get(f"/points/{place['point']}/bench").json()["readings"]
    assert reading["by"] == "Ben Ash"
    assert anna.put(f"/people/links/{uuid4()}", {"account": account}).status_code == 422
    anna.put(f"/people/{account}/left", {"left": False})
    assert sign_in(client_class(), "ben", NEW).status_code == 200


def test_a_crew_keeps_a_keeper(anna, client_class):
    account = anna.get("/session").json()["account"]
    assert anna.put(f"/people/{account}", {"role": "electrician"}).status_code == 409
    assert anna.put(f"/people/{account}/left", {"left": True}).status_code == 409
    other = member(client_class(), "ours", role="apprentice")
    theirs = other.get("/session").json()["account"]
    assert anna.put(f"/people/{theirs}", {"role": "keeper"}).status_code == 200
    assert anna.put(f"/people/{account}", {"role": "electrician"}).status_code == 200
    assert anna.get("/people").status_code == 403
    [change] = Change.objects.filter(what="person", of=str(theirs))
    assert (change.before, change.after) == ({"role": "apprentice"}, {"role": "keeper"})
    assert change.by_name == change.by.username


def test_a_first_crew_is_made_by_a_command_and_its_keeper_comes_in_by_the_link(db, client_class):
    out = StringIO()
    call_command("new_crew", "Larkspur crew", "Anna Reed", at="https://probe.example.org/", stdout=out)
    address = out.getvalue().split()[-1]
    assert address.startswith("https://probe.example.org/join#")
    session = come_in(client_class(), address.split("#")[1], username="anna", name="Anna Reed").json()
    assert (session["crew"], session["role"], "people" in session["may"]) == ("Larkspur crew", "keeper", True)
    for crew, keeper in (("Larkspur crew", "Anna"), (" ", "Anna"), ("Loom crew", " ")):
        with pytest.raises(CommandError):
            call_command("new_crew", crew, keeper)
    assert Crew.objects.count() == 1


def test_an_account_is_never_deleted_from_under_the_record(anna):
    with pytest.raises(Exception, match="protected"):
        get_user_model().objects.get(pk=anna.get("/session").json()["account"]).delete()
