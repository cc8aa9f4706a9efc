"""What a device kept until there was a line: at its own time by the server's clock, whatever its own clock says."""

from datetime import datetime, timedelta
from uuid import uuid4

import pytest
from django.db.models import F
from django.utils import timezone

from photos.models import Photo
from proofs.models import ProofEvent
from readings.models import Reading
from rounds.models import RoundEvent
from sheets.models import SheetEntry
from tests.server.conftest import PICTURE
from tests.server.on_sheets import OUT, REASON, lines, put
from tests.server.test_proofs import prove_dead, send, state
from tests.server.test_rounds import begin, event, outlets, volts
from tests.tampering import tampering

__all__ = ["outlets"]
WAITED = timedelta(minutes=12)


def told(at_key="at", waited=WAITED, clock_off=timedelta(hours=1)):
    sent = timezone.now() + clock_off
    return {at_key: (sent - waited).isoformat(), "sent_at": sent.isoformat()}


def ago(at: datetime) -> float:
    return (timezone.now() - at).total_seconds() / 60


def test_a_reading_is_as_old_as_the_device_kept_it(anna, place):
    body = {"entry": volts("L", "N", 119.8), **told("taken_at")}
    assert anna.put(f"/points/{place['point']}/readings/{uuid4()}", body).status_code == 200
    assert ago(Reading.objects.get().taken_at) == pytest.approx(12, abs=0.2)


def test_an_event_of_a_round_and_the_reading_it_makes_are(anna, place, outlets):
    begin(anna, place, circuit=place["circuit"])
    answer = event(anna, place, outlets[0], "watched", tripped=True, **told())
    assert answer.status_code == 200, answer.content
    assert ago(RoundEvent.objects.get().at) == pytest.approx(12, abs=0.2)
    assert ago(Reading.objects.get().taken_at) == pytest.approx(12, abs=0.2)


def test_events_of_a_round_are_in_order_of_time(anna, place, outlets):
    begin(anna, place, circuit=place["circuit"])
    event(anna, place, outlets[0], "reset")
    found = event(anna, place, outlets[0], "pressed", **told()).json()
    assert found["press"] is None, "it was reset since"


def test_a_picture_is(anna, bench_kit):
    photo = uuid4()
    assert anna.put(f"/photos/{photo}", {"image": PICTURE, **told()}).status_code == 200
    assert ago(Photo.objects.get(id=photo).taken_at) == pytest.approx(12, abs=0.2)


@pytest.mark.parametrize(("minutes", "counts"), [(12, True), (5, False)])
def test_a_dead_test_is_judged_by_the_proof_that_ran_when_it_was_made(anna, bench_kit, minutes, counts):
    """Proved dead 40 minutes ago, so void for ten."""
    place = bench_kit
    prove_dead(anna, place)
    with tampering(ProofEvent) as events:
        events.update(at=F("at") - timedelta(minutes=40), recorded_at=F("recorded_at") - timedelta(minutes=40))
    line = next(line for line in lines(anna, place).values() if line["step"] == "separation")
    entry = {"type": "tested", "line": line["id"], "test": {"over_range": True}}
    put(anna, place, OUT, **told(waited=timedelta(minutes=13)))
    answer = put(anna, place, entry, tester=place["low_ohm"], **told(waited=timedelta(minutes=minutes)))
    assert answer.status_code == 200, answer.content
    taken = lines(anna, place)[line["id"]]["taken"]
    assert (taken["doubt"] == "") is counts, taken["doubt"]
    assert anna.get(f"/proofs/{place['proof']}").json()["state"]["state"] == "void"


def test_nothing_is_energised_but_now(anna, bench_kit):
    place = bench_kit
    answer = put(anna, place, {"type": "energised", "reason": REASON}, **told())
    assert answer.status_code == 200, answer.content
    assert ago(SheetEntry.objects.get().at) == pytest.approx(0, abs=0.2)


def test_who_was_here_told_after_it_ran_out_does_not_bring_it_back(anna, proof):
    prove_dead(anna, proof)
    with tampering(ProofEvent) as events:
        events.update(at=F("at") - timedelta(minutes=40), recorded_at=F("recorded_at") - timedelta(minutes=40))
    answer = send(anna, proof, {"type": "returned"}, **told(waited=timedelta(minutes=20)))
    assert state(answer) == "void"
    assert answer.json()["events"][-1]["type"] == "returned"
    log = anna.get(f"/proofs/{proof['proof']}/log").json()
    assert [key for event in log["events"] for key in event if key == "told_at"] == ["told_at"]
