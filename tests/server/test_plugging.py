"""Before plugging in, through the API: equipment, an outlet nobody has on record, and the answer."""

from uuid import uuid4

import pytest

from plugging.models import Equipment
from sites.models import Point, Site
from tests.server.conftest import VAN

OUTLET = {"name": "Pitch 4", "terminals": ["L1", "L2", "N", "PE"], "rating_a": 50}


def volts(one, other, value):
    return {"quantity": "voltage", "mode": "ac", "from": one, "to": other, "value": value, "unit": "V"}


def read(person, point, *readings):
    for one, other, value in readings:
        path = f"/points/{point}/readings/{uuid4()}"
        assert person.put(path, {"entry": volts(one, other, value)}).status_code == 200


@pytest.fixture
def van(anna, place):
    assert anna.put(f"/equipment/{place['equipment']}", VAN).status_code == 200
    return place["equipment"]


def test_each_reading_changes_what_is_asked_for_until_it_is_a_no(anna, place, van):
    path = f"/points/{place['point']}/plug-in/{van}"
    found = anna.get(path).json()
    assert (found["answer"], found["take"]["from"], found["take"]["to"]) == ("one-more", "L", "N")
    assert found["reads_like"] == []
    read(anna, place["point"], ("L", "N", 119.8), ("L", "PE", 119.9), ("N", "PE", 0.1))
    found = anna.get(
        path,
    ).json()
    assert found["answer"] == "one-more"
    assert [q["entry"]["value"] for q in found["quick"]] == [119.8, 119.9, 0.1]
    assert "120/240" in {like["system"] for like in found["reads_like"]}
    assert {c["result"] for c in found["checks"] if c["id"] in ("order", "earth", "supply")} == {"open"}
    read(anna, place["point"], ("PE", "REF", 119.4))
    found = anna.get(path).json()
    assert (found["answer"], found["verdict"]) == ("do-not", "danger")
    assert "local codes" in found["caution"].lower()


def test_an_outlet_nobody_has_on_record_is_written_down_with_what_feeds_it(anna, place):
    site, point, machine = str(uuid4()), str(uuid4()), str(uuid4())
    body = {
        "site": site,
        "new_site": {"name": "Event field", "practice": "north-america"},
        "supply": {"system": "120/240"},
        "outlet": OUTLET,
    }
    for _ in range(2):
        answer = anna.put(f"/outlets/{point}", body)
        assert answer.status_code == 200, answer.content
    assert (Site.objects.count(), Point.objects.count()) == (2, 2)
    needs = {"label": "Stall", "lines": 2, "amperes": 30, "volts_to_neutral": 120, "volts_between_lines": 240}
    anna.put(f"/equipment/{machine}", needs)
    read(anna, point, ("L1", "L2", 208.1), ("L1", "N", 120.2), ("L2", "N", 120.1))
    found = anna.get(f"/points/{point}/plug-in/{machine}").json()
    assert found["answer"] == "do-not"
    assert found["reads_like"][0]["system"] == "208Y/120"
    supply = {"site": site, "name": "Field", "system": "208Y/120", "earthing": "TN-S"}
    assert anna.put(f"/supplies/{found['supply']['id']}", supply).status_code == 200
    assert anna.get(f"/points/{point}/plug-in/{machine}").json()["system"] == "208Y/120"


def test_an_outlet_on_record_is_not_moved_to_a_circuit_of_its_own(anna, place):
    body = {"site": place["site"], "supply": {"system": "120/240"}, "outlet": OUTLET}
    assert anna.put(f"/outlets/{place['point']}", body).status_code == 409
    assert str(Point.objects.get().circuit_id) == place["circuit"]


@pytest.mark.parametrize(
    ("changes", "path"),
    [
        ({"volts_to_neutral": None}, "volts_to_neutral"),
        ({"lines": 4}, "lines"),
        ({"lines": 2}, "volts_between_lines"),
        ({"volts_between_lines": 240}, "volts_between_lines"),
        ({"amperes": 0}, "amperes"),
        ({"label": " "}, "label"),
    ],
)
def test_needs_that_make_no_sense_are_refused_with_where(anna, place, changes, path):
    answer = anna.put(f"/equipment/{place['equipment']}", {**VAN, **changes})
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"] == path
    assert Equipment.objects.count() == 0


@pytest.mark.parametrize(
    ("supply", "outlet", "path"),
    [
        ({"system": "300"}, OUTLET, "system"),
        ({"system": "230"}, OUTLET, "system"),
        ({"system": "120/240"}, {**OUTLET, "terminals": ["L9"]}, "terminals"),
        ({"system": "120/240"}, {**OUTLET, "rating_a": -1}, "rating_a"),
    ],
)
def test_a_strange_outlet_that_makes_no_sense_leaves_nothing_behind(anna, place, supply, outlet, path):
    site = {"site": str(uuid4()), "new_site": {"name": "Event field", "practice": "north-america"}}
    answer = anna.put(f"/outlets/{uuid4()}", {**site, "supply": supply, "outlet": outlet})
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"].startswith(path)
    assert (Site.objects.count(), Point.objects.count()) == (1, 1)
