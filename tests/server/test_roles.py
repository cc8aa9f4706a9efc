"""Every route of the document with every role; a new route has to be given the least role that gets it."""

from datetime import timedelta
from uuid import uuid4

import pytest
from django.utils import timezone

from crews.models import Crew, Membership, Role
from project.api import api
from tests.server.conftest import Person, member
from tests.server.least import LEAST
from tests.server.requests import entry, record

IN_ORDER = ["guest", "apprentice", "electrician", "keeper"]
LEAST_OF = {tuple(line.split()): role for role, lines in LEAST.items() for line in lines.strip().splitlines()}
WORDS = {"what": "readings", "table": "readings", "scope": "point", "of": str(uuid4()), "key": "x", "account": "0"}


def routes():
    for path, methods in api.get_openapi_schema()["paths"].items():
        for method in methods:
            yield method.upper(), path.removeprefix("/api")


def ask(person, method, path, **given):
    filled = path
    while "{" in filled:
        name = filled[filled.index("{") + 1 : filled.index("}")]
        filled = filled.replace(f"{{{name}}}", str(given.get(name, WORDS.get(name, uuid4()))))
    body = {} if method in ("PUT", "POST") else {"QUERY_STRING": ""}
    if method in ("PUT", "POST"):
        return getattr(person.client, method.lower())(f"/api{filled}", body, content_type="application/json")
    return getattr(person.client, method.lower())(f"/api{filled}")


def test_every_route_has_its_least_role():
    assert set(routes()) == set(LEAST_OF)


@pytest.fixture
def of_role(place, client_class):
    """Somebody of a role in the crew that has `place`; a guest of its site."""

    def made(role, **about):
        if role == "guest":
            about = {"site": place["site"], "until": timezone.localdate() + timedelta(days=1), **about}
        return member(client_class(), "ours", role=role, **about)

    return made


@pytest.mark.parametrize("role", IN_ORDER)
def test_a_role_is_refused_what_is_above_it_and_nothing_else(of_role, role):
    """A route that is open answers of what is asked, with anything but that the role may not."""
    person = of_role(role)
    for method, path in routes():
        least = LEAST_OF[method, path]
        if least == "nobody" or (method, path) == ("DELETE", "/session"):
            continue
        answer = ask(person, method, path)
        refused = answer.status_code == 403 and "is not your password" not in answer.content.decode()
        refused = refused and "needs no second" not in answer.content.decode()
        above = IN_ORDER.index(least) > IN_ORDER.index(role)
        assert refused == above, (role, method, path, answer.status_code, answer.content[:200])


def test_without_signing_in_only_the_way_in_is_open(client, db):
    nobody = Person(client)
    for method, path in routes():
        answer = ask(nobody, method, path)
        if LEAST_OF[method, path] == "nobody":
            assert answer.status_code != 404 or "link" in answer.content.decode()
        else:
            assert answer.status_code == 401, (method, path)


def test_a_guest_reads_one_site_of_the_crew_and_nothing_of_another(of_role, signed, anna):
    record(anna, signed, entry(119.8))
    other = {name: str(uuid4()) for name in ("site", "supply", "board", "circuit", "point")}
    anna.put(f"/sites/{other['site']}", {"name": "Fennwick Cottage", "practice": "north-america"})
    supply = {"site": other["site"], "name": "Service", "system": "120/240", "earthing": "TN-C-S"}
    anna.put(f"/supplies/{other['supply']}", supply)
    anna.put(f"/boards/{other['board']}", {"supply": other["supply"], "name": "F"})
    anna.put(f"/circuits/{other['circuit']}", {"board": other["board"], "name": "Kitchen"})
    point = {"circuit": other["circuit"], "name": "Outlet 9", "kind": "outlet", "terminals": ["L", "N", "PE"]}
    assert anna.put(f"/points/{other['point']}", point).status_code == 200
    guest = of_role("guest")
    of_site = [
        "/sites/{site}", "/points/{point}/bench", "/points/{point}/trends", "/boards/{board}/schedule",
        "/timeline/site/{site}", "/timeline/circuit/{circuit}", "/timeline/point/{point}",
    ]  # fmt: skip
    own_only = [
        "/proofs/{proof}",
        "/sheets/{sheet}",
        "/visits/{visit}",
        "/sign-offs/{signed}",
        "/sign-offs/{signed}/file",
    ]
    for path in of_site + own_only:
        assert guest.get(path.format(**signed)).status_code == 200, path
    for path in of_site:
        assert guest.get(path.format(**other)).status_code == 404, path
    assert guest.get(f"/timeline/tester/{signed['tester']}").status_code == 404
    assert [site["id"] for site in guest.get("/sites").json()] == [signed["site"]]
    bench = f"/points/{signed['point']}/bench"
    assert set(anna.get(bench).json()["functions"]) > set(guest.get(bench).json()["functions"]) == {""}
    assert [len(guest.get(path).json()) for path in ("/visits", "/sign-offs")] == [1, 1]
    Membership.objects.filter(role=Role.GUEST).update(site=other["site"])
    for path in of_site + own_only:
        assert guest.get(path.format(**signed)).status_code == 404, path
    assert [guest.get(path).json() for path in ("/visits", "/sign-offs")] == [[], []]


def test_a_guest_s_last_day_is_the_last(of_role, place):
    guest = of_role("guest", until=timezone.localdate())
    assert guest.get(f"/sites/{place['site']}").status_code == 200
    Membership.objects.filter(role=Role.GUEST).update(until=timezone.localdate() - timedelta(days=1))
    answer = guest.get(f"/sites/{place['site']}")
    assert answer.status_code == 403
    assert "any more" in answer.json()["problems"][0]["text"]
    for _ in range(2):
        assert guest.get("/session").status_code == 401


@pytest.mark.parametrize("role", ["apprentice", "electrician"])
def test_taking_kit_out_of_use_is_a_keeper_s_by_whatever_route(of_role, place, role):
    person = of_role(role)
    tester = {"label": "M2", "kind": "multimeter"}
    assert person.put(f"/testers/{place['tester']}", tester).status_code == 200
    assert person.put(f"/testers/{place['tester']}", {**tester, "retired": True}).status_code == 403
    assert person.put(f"/parts/{place['leads']}", {"role": "leads", "label": "A", "retired": True}).status_code == 403
    assert person.put(f"/places/point/{place['point']}/retired", {"retired": True}).status_code == 403


def test_nobody_reaches_another_crew_s_people(anna, stranger, place):
    [own] = Membership.objects.filter(crew=Crew.objects.get(name="ours"))
    assert [one["account"] for one in anna.get("/people").json()["members"]] == [own.user_id]
    link = str(uuid4())
    made = {"name": "Ben", "role": "apprentice"}
    assert anna.put(f"/people/links/{link}", made).status_code == 200
    assert stranger.put(f"/people/{own.user_id}", {"role": "guest"}).status_code == 404
    assert stranger.put(f"/people/{own.user_id}/left", {"left": True}).status_code == 404
    assert stranger.put(f"/people/links/{link}/withdrawn", {}).status_code == 404
    assert stranger.put(f"/people/links/{link}", made).status_code == 409
    assert stranger.put(f"/people/links/{uuid4()}", {"account": own.user_id}).status_code == 404
    guest = {"name": "Eve", "role": "guest", "site": place["site"], "until": "2027-01-01"}
    assert stranger.put(f"/people/links/{uuid4()}", guest).status_code == 422
    assert len(anna.get("/people").json()["links"]) == 1
    assert len(stranger.get("/people").json()["members"]) == 1
