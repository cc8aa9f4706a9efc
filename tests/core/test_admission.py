"""What is admitted to a proof of isolation, rule by rule: alarms from anybody, silence from hardly anybody."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest

from evenprobe.formats import IsolationFile, parse
from evenprobe.isolation.admission import Admission, Submitted
from evenprobe.isolation.bracketing import Bracketing, Taken
from evenprobe.isolation.log import Event, EventType
from evenprobe.isolation.sentences import MISSING, PROBLEMS, RULES, STEPS
from evenprobe.sentences import Sentences
from evenprobe.wiring import Terminal

AT = datetime(2026, 11, 24, 10, 0, tzinfo=UTC)
WINDOW = timedelta(minutes=15)


def log_of(*testers, **changes):
    content = {
        "format": "even-probe/isolation", "version": 1, "practice": "continental", "at": AT.isoformat(),
        "supply": {"system": "230"}, "terminals": ["L", "N", "PE"], "sources": [{"id": "s1", "label": "way 1"}],
        "testers": list(testers), **changes,
    }  # fmt: skip
    return parse(IsolationFile, content).log()


TWO_POLE = {"id": "t1", "kind": "two-pole", "category": "IV", "rated_v": 600, "label": "T1", "steps_v": [12, 50, 230]}
TWO_POLE |= {"self_check": True, "battery": "ok", "damage": False}


def reading(**changes):
    usual = {"at": AT, "tester": "t1", "from_": Terminal.L, "to": Terminal.N, "below": 12.0}
    return Event(type=EventType.TESTED, **{**usual, **changes})


def submitted(log, event, *, proved=True, isolated=True, modes=("ac",), others=()):
    rounds = {name: Bracketing(held, WINDOW) for name, held in log.testers.items()}
    if proved:
        proof = Event(at=AT - timedelta(minutes=5), type=EventType.PROVED, tester="t1", volts=230.0, mode=event.mode)
        rounds["t1"].prove(Taken(0, proof))
    for name in others:
        rounds[name].prove(Taken(1, replace(event, tester=name, type=EventType.PROVED)))
    return Submitted(event, modes, isolated, None, rounds)


def why_not(log, event, **how):
    found = Admission(log).why_not(submitted(log, event, **how))
    return None if found is None else found.code


def test_silence_of_a_fit_tester_just_proved_counts():
    assert why_not(log_of(TWO_POLE), reading()) is None


@pytest.mark.parametrize(
    ("event", "how", "code"),
    [
        (reading(below=230.0), {}, "step-too-high"),
        (reading(), {"isolated": False}, "tested-before-isolation"),
        (reading(), {"proved": False}, "not-proved-before"),
        (reading(at=AT + timedelta(hours=1)), {}, "proof-stale"),
    ],
)
def test_each_rule_keeps_a_silence_out(event, how, code):
    assert why_not(log_of(TWO_POLE), event, **how) == code


def test_the_first_rule_that_keeps_it_out_is_the_one_that_is_told():
    assert why_not(log_of(TWO_POLE), reading(below=230.0), isolated=False, proved=False) == "step-too-high"


def test_a_tester_that_is_not_fit_is_told_first_of_all():
    broken = {**TWO_POLE, "damage": True}
    assert why_not(log_of(broken), reading(below=230.0), isolated=False) == "tester-unfit"
    refusal = Admission(log_of(broken)).unfit(reading())
    assert "damaged" in refusal.reasons
    assert "T1 cannot confirm safe here" in str(refusal.said)


def test_another_tester_that_was_proved_does_not_stand_in():
    other = {**TWO_POLE, "id": "t2", "label": "T2"}
    found = Admission(log_of(TWO_POLE, other)).why_not(
        submitted(log_of(TWO_POLE, other), reading(), proved=False, others=("t2",))
    )
    assert found.code == "tester-changed"
    assert "T2 was proved" in str(found.said)


@pytest.mark.parametrize(
    ("against", "mode", "volts", "holds"),
    [
        ("proving-unit", "ac", 51.0, True),
        ("proving-unit", "ac", 49.0, False),
        ("known-live", "ac", 230.0, True),
        ("known-live", "ac", 90.0, False),
        ("known-live", "dc", 12.0, True),
        ("known-live", "dc", 9.0, False),
    ],
)
def test_a_proof_has_to_show_what_its_source_should(against, mode, volts, holds):
    proof = Event(at=AT, type=EventType.PROVED, tester="t1", volts=volts, against=against, mode=mode)
    found = Admission(log_of(TWO_POLE)).too_low(proof)
    assert (found is None) is holds
    if found is not None:
        assert f"it showed {volts:g} V" in str(found.said)


@pytest.mark.parametrize("table", [PROBLEMS, MISSING, STEPS, RULES])
def test_a_sentence_ends_without_a_stop_for_it_may_stand_in_another(table):
    for words in table.words.values():
        assert words == words.strip()
        assert not words.endswith(".")


def test_a_sentence_that_is_not_in_the_table_cannot_be_said():
    table = Sentences({"open": "{door} is open"})
    with pytest.raises(KeyError, match="shut"):
        table.say("shut")
    with pytest.raises(KeyError, match="door"):
        str(table.say("open"))
    assert table.say("open", door="W") == table.say("open", door="W") != table.say("open", door="K")
