"""What is in a hand at a time: one tester asked about, or all of them at once, it is the same."""

from datetime import timedelta
from uuid import uuid4

import pytest
from django.utils import timezone

from base.problems import NotFoundHere
from crews.models import Crew
from kit.hands import Hands, check_in_force, in_hand
from kit.models import Check, Tester
from kit.services import put_tester

HOUR = timedelta(hours=1)


@pytest.fixture
def checked(anna, place):
    """Two testers, one of them checked at several times of two days, good and bad."""
    anna.put(f"/testers/{uuid4()}", {"label": "T1", "kind": "two-pole", "category": "IV", "rated_v": 600})
    tester, now = Tester.objects.get(id=place["tester"]), timezone.now()
    for ago, battery in ((40, "good"), (20, "bad"), (6, "good"), (2, "bad"), (1, "good")):
        Check.objects.create(tester=tester, entry={"battery": battery}, at=now - ago * HOUR)
    return Crew.objects.get(), now


@pytest.mark.parametrize("ago", [0.5, 1.5, 3, 7, 15, 21, 30])
def test_looked_up_together_is_looked_up_alone(checked, ago):
    crew, now = checked
    at = now - ago * HOUR
    hands = Hands(crew, at)
    for tester in Tester.objects.all():
        assert hands.holding(tester, at) == in_hand(tester, at)
        assert hands.check_in_force(tester, at) == check_in_force(tester, at)


def test_a_time_before_those_looked_up_is_looked_up_by_itself(checked):
    crew, now = checked
    hands = Hands(crew, now)
    tester = Tester.objects.get(entry__kind="multimeter")
    assert hands.holding(tester, now - 3 * HOUR) == in_hand(tester, now - 3 * HOUR)
    assert hands.holding(tester, now - 3 * HOUR).battery != hands.holding(tester, now - 1.5 * HOUR).battery


def test_a_tester_out_of_the_register_is_found_and_is_fit_for_nothing(checked):
    crew, now = checked
    tester = Tester.objects.get(entry__kind="two-pole")
    put_tester(crew, tester.id, tester.entry, retired=True)
    hands = Hands(crew, now)
    assert tester.id not in {t.id for t in hands.testers}
    held = hands.holding(hands.tester(tester.id), now)
    assert "taken out of the register" in held.known_issue
    with pytest.raises(NotFoundHere):
        hands.tester(uuid4())


def test_one_that_cannot_be_read_is_left_lying(checked):
    crew, now = checked
    Tester.objects.filter(entry__kind="two-pole").update(entry={"kind": "abacus"})
    assert [str(tester) for tester, _ in Hands(crew, now).all_at(now)] == ["M2"]


def test_another_crew_s_testers_are_in_nobody_s_hands(checked, stranger):
    _, now = checked
    theirs = Crew.objects.get(name="theirs")
    assert Hands(theirs, now).testers == []
    with pytest.raises(NotFoundHere):
        Hands(theirs, now).tester(Tester.objects.first().id)
