"""The tests file and `evenprobe judge`: a contract, strict at the edge."""

import json
from typing import get_args

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from evenprobe.cli import main
from evenprobe.deadtests.kinds.battery import Chemistry
from evenprobe.deadtests.kinds.insulation import InsulationKind
from evenprobe.formats import FormatError, dead_tests_file, parse
from evenprobe.formats.answers import TestsOut
from evenprobe.limits.components import BATTERIES
from evenprobe.limits.dead_tests import INSULATION_KINDS
from evenprobe.limits.protective_devices import INSTANTANEOUS, Curve
from tests.core.judging import file_of

CONTINUITY = {"id": "a", "kind": "continuity", "measured_ohm": 0.3}


def problems(*tests, **file):
    with pytest.raises(FormatError) as caught:
        parse(dead_tests_file(), {**file_of(*tests), **file})
    return str(caught.value)


@pytest.mark.parametrize(
    ("test", "path", "text"),
    [
        ({**CONTINUITY, "measured_ohms": 1}, "tests[0].measured_ohms", "unknown key"),
        ({**CONTINUITY, "measured_ohm": -0.2}, "tests[0].measured_ohm", "at least 0"),
        ({**CONTINUITY, "measured_ohm": "0.2"}, "tests[0].measured_ohm", "a number"),
        ({**CONTINUITY, "measured_ohm": True}, "tests[0].measured_ohm", "a number"),
        ({**CONTINUITY, "measured_ohm": 1e300}, "tests[0].measured_ohm", "at most"),
        ({**CONTINUITY, "over_range": True}, "tests[0].over_range", "beside measured_ohm"),
        ({"id": "a", "kind": "continuity"}, "tests[0].measured_ohm", "missing"),
        ({**CONTINUITY, "conductor": "3 mm2"}, "tests[0].conductor", "unknown conductor"),
        ({**CONTINUITY, "temperature_c": 900}, "tests[0].temperature_c", "at most 250"),
        ({**CONTINUITY, "kind": "continuty"}, "tests[0].kind", "'continuity'"),
        ({"id": "a"}, "tests[0].kind", "missing"),
        ({"id": "b", "kind": "separation", "over_range": True}, "tests[0].system", "missing"),
        ({"id": "b", "kind": "separation", "over_range": False, "system": "230"}, "tests[0].measured_ohm", "missing"),
        ({"id": "b", "kind": "insulation", "measured_mohm": 3, "test_v": 500}, "tests[0].system", "ordinary wiring"),
        ({"id": "b", "kind": "separation", "over_range": True, "system": "110"}, "tests[0].system", "unknown supply"),
        ({"id": "g", "kind": "residual-current", "type": "general", "rated_ma": 30, "test_ma": 30, "tripped": False,
          "ms": 20}, "tests[0].ms", "belongs to a trip"),
        ({"id": "h", "kind": "ring", "r1": 0.5, "rn": 0.5}, "tests[0].r2", "over_range"),
        ({"id": "h", "kind": "ring", "r1": 0.5, "rn": 0.5, "r2": 0.8, "points": [{"id": "x"}, {"id": "x"}]},
         "tests[0].points[1].id", "twice"),
        ({"id": "i", "kind": "load", "rating_a": 16}, "tests[0].running_a", "missing"),
        ({"id": "l", "kind": "temperature-sensor", "pairs": [[1]]}, "tests[0].pairs[0][1]", "missing"),
    ],
)  # fmt: skip
def test_a_slip_is_named_with_its_path(test, path, text):
    said = problems(test)
    assert path in said
    assert text in said


def test_the_same_id_twice_is_refused():
    assert "tests[1].id" in problems(CONTINUITY, CONTINUITY)


def test_every_problem_has_its_own_line():
    said = problems({**CONTINUITY, "measured_ohm": -1}, {"id": "b", "kind": "battery", "chemistry": "tin", "volts": 1})
    assert len(said.splitlines()) == 2
    assert "tests[1].chemistry" in said


def test_the_command_answers_and_refuses(tmp_path, capsys):
    good, bad = tmp_path / "good.json", tmp_path / "bad.json"
    good.write_text(json.dumps(file_of(CONTINUITY)))
    bad.write_text(json.dumps(file_of({**CONTINUITY, "measured_ohm": -1})))
    assert main(["judge", str(good)]) == 0
    answer = json.loads(capsys.readouterr().out)
    assert [t["id"] for t in answer["tests"]] == ["a"]
    assert set(answer["tests"][0]) == {"id", "result", "limit", "computed", "text"}
    assert main(["judge", str(bad)]) == 2
    said = capsys.readouterr()
    assert (said.out, said.err.count("\n")) == ("", 1)


def test_what_the_file_may_name_is_what_there_are_limits_for():
    assert set(get_args(Chemistry)) == set(BATTERIES)
    assert set(get_args(Curve)) == set(INSTANTANEOUS)
    assert set(get_args(InsulationKind)) == {*INSULATION_KINDS, "ordinary"}


number = st.sampled_from([0, 0.02, 0.3, 1, 26.5, 500, 48000, -1, 1e13, 1e300, None, "7", True])
word = st.sampled_from(["230", "1.5 mm2", "general", "S", "B", "fuse", "alkaline-1.5", [], [[20, 21]], [{"id": "x"}]])
NAMES = """
    measured_ohm null_ohm over_range system length_m conductor closed_ohm what open_over_range measured_mohm test_v
    r30_mohm r60_mohm r600_mohm type rated_ma test_ma tripped ms r1 rn r2 points rating_a running_a start_a curve
    printed_uf measured_uf chemistry volts pairs rated_v rated_w measured_v hz circuits temperature_c"""
KINDS = """continuity separation closed-contact insulation insulation-ratio parallel residual-current ring load
    capacitor battery panel-string temperature-sensor coil element frequency"""
keys = st.dictionaries(st.sampled_from(NAMES.split()), number | word, max_size=9)
kinds = st.sampled_from(KINDS.split())


def answered(data):
    """The answer as JSON, or None with its problems checked to have a path each."""
    try:
        outcomes = parse(dead_tests_file(), data).outcomes()
    except FormatError as error:
        paths = [path for path, _ in error.problems]
        return None if all(path.startswith("tests[") for path in paths) else paths
    return json.loads(json.dumps(TestsOut.of(outcomes).as_json(), allow_nan=False))


@settings(max_examples=400, deadline=None)
@given(st.lists(st.tuples(kinds, keys), min_size=1, max_size=3))
def test_whatever_a_file_holds_it_is_refused_by_path_or_answered(tests):
    data = file_of(*({"id": str(i), "kind": kind, **more} for i, (kind, more) in enumerate(tests)))
    answer = answered(data)
    if answer is not None:
        assert {t["result"] for t in answer["tests"]} <= {"pass", "fail", "borderline", "note", "invalid"}
