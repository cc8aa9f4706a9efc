"""Today: what runs and what went wrong first, and nothing that is settled."""

from uuid import uuid4

from tests.server.conftest import proof_body
from tests.server.test_proofs import OFF, prove_dead, send


def another(person, place, name, **changes):
    ids = {**place, "proof": str(uuid4())}
    assert person.put(f"/proofs/{ids['proof']}", proof_body(place, name=name, **changes)).status_code == 200
    return ids


def names(person):
    return [(p["name"], p["state"]) for p in person.get("/today").json()["proofs"]]


def test_running_proofs_come_first_then_what_went_wrong_and_closed_ones_are_gone(anna, place):
    begun, void, running, closed = (another(anna, place, name) for name in ("begun", "void", "running", "closed"))
    send(anna, begun, OFF)
    prove_dead(anna, void)
    send(anna, void, {"type": "unlocked", "source": "s1"})
    prove_dead(anna, running)
    send(anna, closed, {"type": "closed"})
    assert names(anna) == [("running", "proved-dead"), ("void", "void"), ("begun", "proving")]
    assert [p["name"] for p in anna.get("/proofs").json()][-1] == "closed"


def test_a_running_proof_says_until_when_and_a_void_one_why(anna, place):
    running, void = another(anna, place, "running"), another(anna, place, "void")
    prove_dead(anna, running)
    prove_dead(anna, void)
    send(anna, void, {"type": "handed-over", "note": "Ben"})
    first, second = anna.get("/today").json()["proofs"]
    assert first["expires_at"] > first["now"]
    assert second["expires_at"] is None
    assert "another person took over" in second["said"]


def test_points_stand_worst_first_and_untested_ones_wait_for_nobody(anna, place):
    def point(name):
        ids = {**place, "point": str(uuid4())}
        body = {"circuit": place["circuit"], "name": name, "kind": "outlet", "terminals": ["L", "N", "PE"]}
        anna.put(f"/points/{ids['point']}", body)
        return ids

    def read(ids, value, pair):
        entry = {"quantity": "voltage", "mode": "ac", "from": pair[0], "to": pair[1], "value": value}
        return anna.put(f"/points/{ids['point']}/readings/{uuid4()}", {"entry": entry})

    fine, live = point("fine so far"), point("live")
    read(fine, 120.0, ("L", "N"))
    read(live, 118.0, ("PE", "REF"))
    point("untested")
    assert [(p["name"], p["verdict"]) for p in anna.get("/today").json()["points"]] == [
        ("live", "danger"), ("fine so far", "unconfirmed"),
    ]  # fmt: skip


def test_kit_that_needs_a_hand_is_listed_until_it_is_put_right(anna, place):
    assert anna.get("/today").json()["kit"] == []
    body = {"label": "M2", "kind": "multimeter", "category": "III", "rated_v": 600, "usual_leads": place["leads"]}
    anna.put(f"/testers/{place['tester']}", {**body, "calibration_due": "2026-01-31"})
    (line,) = anna.get("/today").json()["kit"]
    assert line["attention"] == ["calibration was due on 2026-01-31"]
    anna.put(f"/testers/{place['tester']}", {**body, "calibration_due": "2036-01-31"})
    assert anna.get("/today").json()["kit"] == []
