"""What cannot be had at a site today: remembered for whoever said it, there and nowhere else, until the day ends."""

from datetime import timedelta
from uuid import uuid4

import pytest
from django.utils import timezone

VOLTS = {"quantity": "voltage", "mode": "ac", "unit": "V"}
SOUND = (("L", "N", 119.8), ("L", "PE", 119.9), ("N", "PE", 0.1))


def needs(bench):
    return {need for test in bench["interpretation"]["next_tests"] for need in test["needs"]}


@pytest.fixture
def measured(anna, place):
    for one, other, volts in SOUND:
        entry = {**VOLTS, "from": one, "to": other, "value": volts}
        answer = anna.put(f"/points/{place['point']}/readings/{uuid4()}", {"entry": entry})
    assert needs(answer.json())
    return place


def say(user, place, *cannot):
    return user.put(f"/points/{place['point']}/cannot", {"cannot": list(cannot)})


def test_what_cannot_be_had_is_not_asked_for_and_can_be_taken_back(anna, measured):
    before = anna.get(f"/points/{measured['point']}/bench").json()
    said = say(anna, measured, "reference", "open").json()
    assert said["cannot"] == ["reference", "open"]
    assert not needs(said) & {"reference", "open"}
    assert anna.get(f"/points/{measured['point']}/bench").json() == said
    again = {**VOLTS, "from": "L", "to": "N", "value": 119.9}
    recorded = anna.put(f"/points/{measured['point']}/readings/{uuid4()}", {"entry": again}).json()
    assert not needs(recorded) & {"reference", "open"}
    back = say(anna, measured).json()
    assert back["cannot"] == []
    assert needs(before) <= needs(back)


def test_another_point_of_the_site_knows_it_and_one_elsewhere_does_not(anna, measured):
    say(anna, measured, "load")
    other, loose = str(uuid4()), str(uuid4())
    circuit = anna.get(f"/points/{measured['point']}/bench").json()["circuit"]["id"]
    anna.put(f"/points/{other}", {"circuit": circuit, "name": "x", "kind": "outlet", "terminals": ["L", "N", "PE"]})
    anna.put(f"/loose-outlets/{loose}", {"practice": "north-america", "terminals": ["L", "N", "PE"]})
    assert anna.get(f"/points/{other}/bench").json()["cannot"] == ["load"]
    assert anna.get(f"/points/{loose}/bench").json()["cannot"] == []


def test_it_is_forgotten_the_next_day(anna, measured, monkeypatch):
    say(anna, measured, "load")
    tomorrow = timezone.localdate() + timedelta(days=1)
    monkeypatch.setattr("readings.visit.timezone.localdate", lambda: tomorrow)
    assert anna.get(f"/points/{measured['point']}/bench").json()["cannot"] == []


def test_what_is_no_obstacle_is_refused_by_name(anna, measured):
    answer = say(anna, measured, "mood")
    assert answer.status_code == 422
    assert "cannot" in answer.json()["problems"][0]["path"]
    assert anna.get(f"/points/{measured['point']}/bench").json()["cannot"] == []
