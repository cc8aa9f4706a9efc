"""The kit file and the isolation log at their edges: what is refused, with what is said; and at the shell."""

import json

import pytest

import evenprobe
from evenprobe.cli import main
from evenprobe.formats import FormatError, IsolationFile, KitFile, SurveyFile, parse
from evenprobe.quantities import Alarm, Evidence, Kept, weigh

RATED = {"category": "III", "rated_v": 690}


def kit(**changes):
    task = {"purpose": "prove-dead", "place": "installation", "system": "230/400", "on": "2026-11-24"}
    data = {
        "format": "even-probe/kit",
        "version": 1,
        "practice": "british",
        "task": {**task, **changes.pop("task", {})},
        "tester": {"id": "t1", "kind": "two-pole", "battery": "ok", **RATED, **changes.pop("tester", {})},
    }
    return {**data, **changes}


def events(*parts):
    return [{"at": f"2026-11-24T10:{minute:02d}:00+00:00", **part} for minute, part in enumerate(parts)]


OFF, LOCKED = {"type": "off", "source": "s1"}, {"type": "locked", "source": "s1", "lock": "K-07", "tag": True}
PROVED = {"type": "proved", "tester": "t1", "against": "proving-unit", "shows_v": 239.0, "mode": "ac"}
TESTED = {"type": "tested", "tester": "t1", "from": "L", "to": "N", "shows_v": 0.0, "mode": "ac"}
PAIRS = [TESTED, {**TESTED, "to": "PE"}, {**TESTED, "from": "N", "to": "PE"}]


def log(*parts, **changes):
    return {
        "format": "even-probe/isolation",
        "version": 1,
        "practice": "continental",
        "at": "2026-11-24T10:20:00+00:00",
        "supply": {"system": "230"},
        "terminals": ["L", "N", "PE"],
        "sources": [{"id": "s1", "label": "mill board, way 4"}],
        "testers": [{"id": "t1", "kind": "two-pole", **RATED}],
        "events": events(*parts),
        **changes,
    }


def problems(model, data):
    with pytest.raises(FormatError) as caught:
        parse(model, data)
    return str(caught.value)


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"task": {"purpose": "guess"}}, "task.purpose: must be"),
        ({"task": {"place": "roof"}}, "task.place: must be"),
        ({"task": {"system": "110"}}, "task.system: unknown supply system '110'"),
        ({"task": {"on": "yesterday"}}, "task.on: "),
        ({"tester": {"kind": "spoon"}}, "tester.kind: must be"),
        ({"tester": {"category": "V"}}, "tester.category: must be"),
        ({"tester": {"rated_v": -600}}, "tester.rated_v: must be more than 0"),
        ({"tester": {"catgory": "III"}}, "tester.catgory: unknown key"),
        ({"leads": {"ohm": -1}}, "leads.ohm: must be at least 0"),
        ({"adapters": [{"rated_v": "300V"}]}, "adapters[0].rated_v: must be a number"),
    ],
)
def test_a_bad_kit_is_named_with_its_path(change, said):
    assert said in problems(KitFile, kit(**change))


@pytest.mark.parametrize(
    ("part", "said"),
    [
        ({"type": "of"}, "events[2].type: must be"),
        ({"type": "off"}, "events[2].source: is missing"),
        ({"type": "off", "source": "s9"}, "events[2].source: no source 's9'; use one of s1"),
        ({**PROVED, "tester": "t9"}, "events[2].tester: no tester 't9'"),
        ({"type": "proved", "tester": "t1"}, "events[2].shows_v: is missing"),
        ({**TESTED, "shows_v": "O.0"}, "events[2].shows_v: must be a number of volts, not 'O.0'"),
        ({**TESTED, "shows_v": -4.0}, "events[2].shows_v: an AC voltage cannot be negative"),
        ({**TESTED, "shows_v": 23000.0}, "events[2].shows_v: 23000 V is more than any tester here shows"),
        ({**TESTED, "shows_v": 230.0, "unit": "kV"}, "check the number and its unit"),
        ({**TESTED, "to": "L"}, "events[2].to: both probes are on L"),
        ({**TESTED, "to": "L2"}, "events[2].to: 'L2' is none of the terminals; use L, N, PE, REF"),
        ({**TESTED, "below": 12}, "events[2].shows_v: give a value or steps, not both"),
        ({"type": "screened", "tester": "t1"}, "events[2].alarm: is missing"),
        ({"type": "source-found", "source": "s2"}, "events[2].label: is missing"),
        ({"type": "source-found", "source": "s1", "label": "again"}, "events[2].source: 's1' is a source already"),
        ({"type": "left", "at": "10:40"}, "events[2].at: must be a time with its offset"),
        ({"type": "left", "at": "2026-11-24T10:30:00+00:00"}, "events[2].at: 2026-11-24T10:30:00+00:00 is later than"),
    ],
)
def test_a_bad_event_is_named_with_its_path(part, said):
    assert said in problems(IsolationFile, log(OFF, LOCKED, part))


def test_events_out_of_order_name_the_two():
    backwards = log(OFF, LOCKED)
    backwards["events"].reverse()
    said = problems(IsolationFile, backwards)
    assert "events[1].at" in said
    assert "events[0].at" in said


@pytest.mark.parametrize(
    ("rules", "said"),
    [
        ({"proof_window_min": 20}, "rules.reason: is missing: looser than usual needs one (20 min"),
        ({"unattended_min": 60}, "rules.reason: is missing"),
        ({"dead_kinds": ["multimeter"]}, "rules.reason: is missing"),
        ({"dead_kinds": ["non-contact"], "reason": "x"}, "rules.dead_kinds[0]: a non-contact never proves dead"),
        ({"proof_window_min": 600, "reason": "x"}, "rules.proof_window_min: "),
        ({"proof_window_min": 0}, "rules.proof_window_min: must be more than 0"),
    ],
)
def test_rules_looser_than_the_handbook_need_a_written_reason(rules, said):
    assert said in problems(IsolationFile, log(rules=rules))


def test_tighter_rules_need_none():
    assert parse(IsolationFile, log(rules={"proof_window_min": 5, "least_rating": True})).rules.rules().window_min == 5


def test_sources_and_testers_stand_once():
    twice = [{"id": "s1", "label": "a"}, {"id": "s1", "label": "b"}]
    assert "sources[1].id: 's1' stands twice" in problems(IsolationFile, log(sources=twice))
    assert "sources" in problems(IsolationFile, log(sources=[]))


def test_the_answer_says_all_that_the_contract_asks_for():
    file = parse(IsolationFile, log(OFF, LOCKED, PROVED, *PAIRS, PROVED))
    answer = evenprobe.isolate(file).as_json()
    assert answer["state"] == "proved-dead"
    assert answer["proved_at"] == "2026-11-24T10:06:00+00:00"
    assert answer["expires_at"] == "2026-11-24T10:36:00+00:00"
    assert answer["missing"] == answer["problems"] == []
    assert answer["pairs"][0] | {"done": True} == answer["pairs"][0]
    assert [(p["from"], p["to"]) for p in answer["pairs"]] == [("L", "N"), ("L", "PE"), ("N", "PE")]


def run(tmp_path, capsys, command, data):
    file = tmp_path / "file.json"
    file.write_text(json.dumps(data))
    code = main([command, str(file)])
    captured = capsys.readouterr()
    return code, captured.out, captured.err


def test_fit_and_isolate_at_the_shell(tmp_path, capsys):
    code, out, _ = run(tmp_path, capsys, "fit", kit(leads={**RATED, "tip_covers": False}))
    assert code == 0
    assert json.loads(out)["effective"] == {"category": "II", "voltage": 690}
    part_way = log(OFF, LOCKED, PROVED, PAIRS[0], at="2026-11-24T10:05:00+00:00")
    code, out, _ = run(tmp_path, capsys, "isolate", part_way)
    assert (code, json.loads(out)["next"]["step"]) == (0, "test")
    code, out, err = run(tmp_path, capsys, "isolate", log({"type": "off"}))
    assert (code, out) == (2, "")
    assert "events[0].source" in err


def survey(tester, **reading):
    entry = {"id": "r1", "quantity": "voltage", "from": "PE", "to": "REF", "value": 0.2, "instrument": "m"}
    return parse(
        SurveyFile,
        {
            "format": "even-probe/survey",
            "version": 1,
            "practice": "british",
            "supply": {"system": "230"},
            "instruments": [{"id": "m", "kind": "multimeter", **tester}],
            "points": [
                {"id": "p", "kind": "outlet", "terminals": ["L", "N", "PE"], "readings": [{**entry, **reading}]}
            ],
        },
    )


def weighed(tester, **reading):
    file = survey(tester, **reading)
    (one,) = weigh(file.readings(file.points[0])[0], file.facts(file.points[0]))
    return one


@pytest.mark.parametrize(
    "tester",
    [
        {"category": "II", "rated_v": 300},
        {"category": "III", "rated_v": 150},
        {"battery": "low"},
        {"damage": True},
        {"known_issue": "sticks at 0"},
        {"leads": {"category": "III", "rated_v": 600, "tip_covers": False}},
        {"calibration_due": "2026-11-23"},
        {"functions": ["resistance"]},
    ],
)
def test_a_reading_of_an_unfit_tester_is_kept_and_clears_nothing(tester):
    at = "2026-11-24T10:00:00+00:00"
    assert isinstance(weighed({}, at=at), Evidence)
    assert isinstance(weighed({"category": "III", "rated_v": 600}, at=at), Evidence)
    kept = weighed(tester, at=at)
    assert isinstance(kept, Kept)
    assert "cannot confirm safe" in kept.why
    assert isinstance(weighed(tester, value=149.0, at=at), Alarm)
