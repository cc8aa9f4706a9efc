"""The kit through the API: what is written down, checked today, and held in a hand."""

from datetime import timedelta
from uuid import uuid4

import pytest
from django.utils import timezone

from kit.models import Check
from tests.tampering import tampering

FULL = {
    "label": "Two-pole T1",
    "kind": "two-pole",
    "category": "III",
    "rated_v": 690,
    "functions": ["voltage-ac", "voltage-dc"],
    "steps_v": [12, 50, 120, 230, 400, 690],
    "input_ohm": 200000,
    "calibration_due": "2027-03-01",
    "always_on_light": True,
    "known_issue": "",
}


def page(person, tester):
    answer = person.get(f"/testers/{tester}")
    assert answer.status_code == 200, answer.content
    return answer.json()


def fits(person, tester, purpose, place="installation"):
    return [f for f in page(person, tester)["fits"] if (f["purpose"], f["place"]) == (purpose, place)]


def check(person, tester, entry, check_id=None):
    return person.put(f"/testers/{tester}/checks/{check_id or uuid4()}", {"entry": entry})


def test_a_tester_s_page_says_what_it_is_fit_for_blind_to_and_when_proved(anna, place):
    new = str(uuid4())
    assert anna.put(f"/testers/{new}", FULL).status_code == 200
    found = page(anna, new)
    assert found["tester"]["entry"]["steps_v"] == FULL["steps_v"]
    assert found["blind_to"]
    assert found["last_proof"] is None
    assert all(f["system"] == "120/240" for f in found["fits"])
    assert [f["fit"] for f in fits(anna, new, "prove-dead")] == [True]
    (origin,) = fits(anna, new, "prove-dead", "origin")
    assert [p["code"] for p in origin["problems"]] == ["category-too-low"]


@pytest.mark.parametrize(
    ("changes", "path"),
    [
        ({"kind": "spoon"}, "kind"),
        ({"category": "V"}, "category"),
        ({"rated_v": -1}, "rated_v"),
        ({"rated_v": "many"}, "rated_v"),
        ({"calibration_due": "soon"}, "calibration_due"),
        ({"fuse": "maybe"}, "fuse"),
        ({"steps_v": [0]}, "steps_v[0]"),
    ],
)
def test_a_bad_entry_is_named_by_field(anna, place, changes, path):
    answer = anna.put(f"/testers/{uuid4()}", {**FULL, **changes})
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"] == path


def test_today_s_check_feeds_fitness(anna, place):
    assert fits(anna, place["tester"], "live-voltage")[0]["fit"]
    assert check(anna, place["tester"], {"battery": "bad"}).status_code == 200
    (found,) = fits(anna, place["tester"], "live-voltage")
    assert [p["code"] for p in found["problems"]] == ["battery-low"]
    check(anna, place["tester"], {"battery": "good", "tips": "bad", "lead_ohm": 0.8})
    codes = {p["code"] for p in fits(anna, place["tester"], "continuity")[0]["problems"]}
    assert codes == {"tip-covers-off", "category-too-low", "leads-resistive"}
    assert anna.get("/today").json()["kit"][0]["attention"] == ["tip covers are off: category II until they are on"]
    assert [c["in_force"] for c in page(anna, place["tester"])["checks"]] == [True, False]


def test_yesterday_s_check_counts_no_more(anna, place):
    check(anna, place["tester"], {"battery": "bad"})
    with tampering(Check) as checks:
        checks.update(at=timezone.now() - timedelta(hours=17))
    assert fits(anna, place["tester"], "live-voltage")[0]["fit"]
    assert page(anna, place["tester"])["tester"]["checked_at"] is None


def test_a_check_repeated_is_one_and_nonsense_is_named(anna, place):
    one = uuid4()
    for _ in range(2):
        assert check(anna, place["tester"], {"battery": "good"}, one).status_code == 200
    assert Check.objects.count() == 1
    assert check(anna, place["tester"], {"battery": "bad"}, one).status_code == 409
    assert check(anna, place["tester"], {}).status_code == 422
    assert check(anna, place["tester"], {"battery": "fine"}).json()["problems"][0]["path"] == "battery"
    assert check(anna, place["tester"], {"lead_ohm": "0,1x"}).json()["problems"][0]["path"] == "lead_ohm"
    detector = str(uuid4())
    anna.put(f"/testers/{detector}", {"label": "D1", "kind": "non-contact"})
    assert check(anna, detector, {"lead_ohm": 0.2}).json()["problems"][0]["path"] == "lead_ohm"


def held(person, place, **changes):
    body = {
        "leads": place["leads"],
        "practice": "north-america",
        "purpose": "prove-dead",
        "place": "installation",
        "system": "120/240",
        **changes,
    }
    return person.post(f"/testers/{place['tester']}/holding", body)


def test_what_is_held_is_the_lowest_of_its_parts(anna, place):
    assert held(anna, place).json()["effective"] == {"category": "III", "voltage": 600}
    assert held(anna, place).json()["needs"] == {"category": "III", "voltage": 240}
    bare = held(anna, place, tip_covers=False).json()
    assert (bare["fit"], bare["effective"]["category"]) == (False, "II")
    adapter = str(uuid4())
    anna.put(f"/parts/{adapter}", {"role": "adapter", "label": "Croc clips", "category": "II", "rated_v": 300})
    chained = held(anna, place, adapters=[adapter]).json()
    assert [(link["name"], link["weakest"]) for link in chained["chain"]] == [
        ("M2", False), ("Leads A", False), ("Croc clips", True),
    ]  # fmt: skip
    assert held(anna, place, purpose="dig").json()["problems"][0]["path"] == "purpose"
    assert held(anna, place, practice="martian").json()["problems"][0]["path"] == "practice"
    assert held(anna, place, adapters=[place["leads"]]).status_code == 404


def test_a_part_keeps_its_role(anna, place):
    answer = anna.put(f"/parts/{place['leads']}", {"role": "adapter", "label": "x"})
    assert answer.json()["problems"][0]["path"] == "role"
    assert anna.put(f"/parts/{uuid4()}", {"role": "hat", "label": "x"}).status_code == 422


def test_a_reading_keeps_the_tester_as_it_was(anna, place):
    def record(pair):
        entry = {"quantity": "voltage", "mode": "ac", "from": pair[0], "to": pair[1], "value": 120.0, "unit": "V"}
        path = f"/points/{place['point']}/readings/{uuid4()}"
        return anna.put(path, {"entry": entry, "tester": place["tester"]}).json()["interpretation"]["not_counted"]

    assert record(("L", "N")) == []
    body = {"label": "M2", "kind": "multimeter", "category": "II", "rated_v": 600, "usual_leads": place["leads"]}
    anna.put(f"/testers/{place['tester']}", body)
    not_counted = record(("L", "PE"))
    assert len(not_counted) == 1
    assert "category II" in not_counted[0]["why"]
    survey = anna.get(f"/sites/{place['site']}/survey").json()
    assert [i["id"] for i in survey["instruments"]] == [place["tester"], f"{place['tester']}/2"]
    assert anna.put(f"/sites/{place['site']}/survey", {"survey": survey}).status_code == 200
    assert len(anna.get("/testers").json()) == 1


def test_the_bench_says_before_a_reading_that_a_tester_would_clear_nothing(anna, place):
    def unfit():
        return anna.get(f"/points/{place['point']}/bench").json()["unfit"][place["tester"]]

    assert "voltage" not in unfit()
    assert "does not screen" in unfit()["presence"]
    check(anna, place["tester"], {"battery": "bad"})
    assert "battery is low" in unfit()["voltage"]
