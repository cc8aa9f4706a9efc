"""What is open at a site stays listed, whoever left it so; and a plan knows how long things took before."""

from datetime import UTC, datetime, timedelta
from uuid import uuid4

import pytest

from crews.models import Crew
from proofs.models import Proof, ProofEvent
from readings.models import Reading
from tests.server.conftest import proof_body
from tests.server.on_sheets import fill, put
from tests.server.requests import entry, record
from tests.server.test_proofs import prove_dead
from tests.server.test_visits import body, told


@pytest.fixture
def visit(anna, bench_kit):
    """A visit under way to a circuit with a proof and a sheet just begun."""
    assert anna.put(f"/visits/{bench_kit['visit']}", body(bench_kit)).status_code == 200
    told(anna, bench_kit, "begun")
    return bench_kit


def open_now(person, visit):
    shown = person.get(f"/visits/{visit['visit']}").json()
    return {one["place"]: one["text"] for one in shown["still_open"]}


def test_loads_and_the_neutral_are_open_until_the_circuit_is_energised(anna, visit):
    assert "sheet" not in open_now(anna, visit)
    put(anna, visit, {"type": "loads", "loads": "disconnected", "neutral": "lifted"})
    assert open_now(anna, visit)["sheet"] == "Workshop: loads are out and the neutral is off at the board"
    put(anna, visit, {"type": "loads", "loads": "connected", "neutral": "lifted"})
    assert open_now(anna, visit)["sheet"] == "Workshop: the neutral is off at the board"
    put(anna, visit, {"type": "energised", "reason": "tried once with the owner present"})
    assert "sheet" not in open_now(anna, visit)


def test_a_proof_is_open_with_its_locks_until_it_is_closed(anna, visit):
    assert "proof" not in open_now(anna, visit), "nothing was switched off yet"
    prove_dead(anna, visit)
    assert open_now(anna, visit)["proof"] == "Workshop outlets: isolation is proved dead; locks on: K-07"
    for event in ({"type": "unlocked", "source": "s1"}, {"type": "closed"}):
        assert anna.put(f"/proofs/{visit['proof']}/events/{uuid4()}", {"entry": event}).status_code == 200
    assert "proof" not in open_now(anna, visit)


def test_boxes_that_were_looked_into_are_open_until_the_hunt_is_closed(anna, visit):
    def seen(**what):
        path = f"/hunts/{visit['hunt']}/events/{uuid4()}"
        assert anna.put(path, {"kind": "seen", "entry": what}).status_code == 200

    seen(at="board", onward=True)
    assert "hunt" not in open_now(anna, visit)
    seen(at=visit["point"], feed=False, onward=True)
    assert open_now(anna, visit)["hunt"] == "Workshop: 1 box was looked into on a hunt that is not closed"


def test_a_device_that_tripped_is_open_until_it_is_reset(anna, visit):
    def happened(kind, **more):
        path = f"/rounds/{visit['round']}/events/{uuid4()}"
        assert anna.put(path, {"point": visit["point"], "kind": kind, **more}).status_code == 200

    happened("pressed")
    happened("watched", tripped=True)
    assert open_now(anna, visit)["round"] == "Workshop: the device tripped at Outlet 1 and is not reset"
    happened("reset")
    assert "round" not in open_now(anna, visit)


def test_another_crew_s_open_things_are_not_listed(anna, stranger, visit):
    prove_dead(anna, visit)
    assert stranger.get("/visits").json() == []
    assert stranger.get("/today").json()["visits"] == []


def minutes(person, place, work):
    """Of a work of a plan that has not begun, and since when they are known."""
    name = str(uuid4())
    shown = person.put(f"/visits/{name}", body(place)).json()
    step = next(step for step in shown["plan"] if step["work"] == work)
    return step["minutes"], step["since"]


def test_isolating_takes_as_long_as_it_took_before(anna, place):
    assert minutes(anna, place, "isolate")[1] is None
    anna.put(f"/proofs/{place['proof']}", proof_body(place))
    began = datetime(2026, 5, 4, 9, 0, tzinfo=UTC)
    proof = Proof.objects.get()
    for number, kind in ((0, "off"), (23, "stated")):
        at = began + timedelta(minutes=number)
        ProofEvent.objects.create(proof=proof, type=kind, entry={"source": "s1"} if number == 0 else {}, at=at)
    assert minutes(anna, place, "isolate") == (23.0, "2026-05-04")


def test_live_tests_take_as_long_as_the_day_on_which_every_point_had_its_quick_set(anna, place):
    began = datetime(2026, 5, 4, 9, 0, tzinfo=UTC)
    pairs = (("L", "N"), ("L", "PE"), ("N", "PE"))
    rows = [
        Reading(point_id=place["point"], entry=entry(1.0, pair), taken_at=began + timedelta(minutes=4 * number))
        for number, pair in enumerate(pairs)
    ]
    Reading.objects.bulk_create(rows[:2])
    assert minutes(anna, place, "live-tests")[1] is None, "two readings are no quick set"
    Reading.objects.bulk_create(rows[2:])
    assert minutes(anna, place, "live-tests") == (8.0, "2026-05-04")


def test_a_sheet_half_done_says_nothing_of_how_long_one_takes(anna, bench_kit):
    prove_dead(anna, bench_kit)
    put(anna, bench_kit, {"type": "loads", "loads": "disconnected", "neutral": "lifted"})
    assert minutes(anna, bench_kit, "dead-tests")[1] is None
    fill(anna, bench_kit)
    assert minutes(anna, bench_kit, "dead-tests")[1] is not None


def test_a_circuit_taken_out_of_use_leaves_the_plan_and_comes_back(anna, place):
    assert anna.put(f"/visits/{place['visit']}", body(place)).status_code == 200
    retired = f"/places/circuit/{place['circuit']}/retired"
    anna.put(retired, {"retired": True})
    shown = anna.get(f"/visits/{place['visit']}").json()
    assert (shown["steps"], shown["next"], shown["plan"]) == (0, None, [])
    anna.put(retired, {"retired": False})
    assert anna.get(f"/visits/{place['visit']}").json()["steps"] == 3


def test_everybody_who_recorded_on_a_visit_is_among_its_people(anna, client_class, visit):
    from tests.server.conftest import member

    second = member(client_class(), Crew.objects.get(name="ours").name)
    record(second, visit, entry(119.8))
    assert len(anna.get(f"/visits/{visit['visit']}").json()["people"]) == 2
