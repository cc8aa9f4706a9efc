"""What was given once is not given again while nothing changed, and never to somebody else."""

import gzip
from datetime import date

import pytest

from base import unchanged
from base.models import Changes
from tests.server.conftest import member
from tests.server.requests import entry, record
from tests.server.test_proofs import prove_dead

PATHS = (
    "/today",
    "/sites",
    "/sites/{site}",
    "/standing/not-safe",
    "/rounds",
    "/rounds/{round}",
    "/hunts",
    "/hunts/{hunt}",
)


@pytest.fixture(autouse=True)
def _one_minute(monkeypatch):
    """An answer holds for a minute; no test is to fall into the next."""
    monkeypatch.setattr(unchanged, "_MINUTE_S", 1e9)


def again(person, path, tag):
    return person.client.get(f"/api{path}", headers={"If-None-Match": tag})


@pytest.mark.parametrize("path", PATHS)
def test_the_same_is_not_sent_again_until_something_changes(anna, sheet, path):
    path = path.format(**sheet)
    first = anna.get(path)
    assert again(anna, path, first["ETag"]).status_code == 304
    assert anna.get(path).content == first.content
    record(anna, sheet, entry(119.9, ("PE", "REF")), tester=sheet["tester"])
    changed = again(anna, path, first["ETag"])
    assert changed.status_code == 200
    assert changed["ETag"] != first["ETag"]


def test_what_changes_a_list_is_in_it_at_once(anna, place):
    anna.get("/today")
    record(anna, place, entry(119.9, ("PE", "REF")), tester=place["tester"])
    assert [point["verdict"] for point in anna.get("/today").json()["points"]] == ["danger"]


def test_nobody_of_another_crew_or_role_is_told_the_same(anna, stranger, place, client_class):
    record(anna, place, entry(119.9, ("PE", "REF")), tester=place["tester"])
    tag = anna.get("/today")["ETag"]
    assert again(stranger, "/today", tag).status_code == 200
    assert stranger.get("/today").json()["points"] == []
    guest = member(client_class(), "ours", role="guest", site=place["site"], until=date(2099, 1, 1))
    assert [site["id"] for site in anna.get("/sites").json()] == [place["site"]]
    tag = anna.get("/sites")["ETag"]
    assert again(guest, "/sites", tag).status_code == 200
    assert again(guest, "/today", anna.get("/today")["ETag"]).status_code == 403
    anna.client.logout()
    assert again(anna, "/sites", tag).status_code == 401


def test_another_of_the_crew_is_given_what_was_worked_out_already(anna, place, client_class, monkeypatch):
    first = anna.get("/today").content
    other = member(client_class(), "ours")
    anna.get("/today")
    monkeypatch.setattr("overviews.today._visits", lambda _crew: pytest.fail("worked out again"))
    before = anna.get("/today")
    assert other.get("/today").content == before.content == first


def test_while_a_proof_runs_nothing_is_given_from_before(anna, proof):
    prove_dead(anna, proof)
    assert "ETag" not in anna.get("/today")


def test_the_next_minute_it_is_worked_out_again(anna, place, monkeypatch):
    tag = anna.get("/today")["ETag"]
    monkeypatch.setattr(unchanged, "_MINUTE_S", 1e-6)
    assert again(anna, "/today", tag).status_code == 200


def test_without_a_number_of_changes_nothing_is_said_to_be_the_same(anna, place):
    Changes.objects.all().delete()
    assert "ETag" not in anna.get("/today")


def test_text_goes_compressed(anna, place):
    plain = anna.get("/reference")
    packed = anna.client.get("/api/reference", headers={"Accept-Encoding": "gzip"})
    assert packed["Content-Encoding"] == "gzip"
    assert gzip.decompress(packed.content) == plain.content
    assert len(packed.content) < len(plain.content) / 3
