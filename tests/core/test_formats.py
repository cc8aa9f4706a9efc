"""The open files and the command line: a contract."""

import json
import subprocess
import sys

import pytest

from evenprobe.cli import main
from evenprobe.formats import FormatError, SurveyFile, parse, parse_json


def survey(*readings, instruments=(), **point):
    return {
        "format": "even-probe/survey",
        "version": 1,
        "practice": "british",
        "supply": {"system": "230", "earthing": "TT"},
        "instruments": list(instruments),
        "points": [{"id": "p1", "kind": "outlet", "terminals": ["L", "N", "PE"], **point, "readings": list(readings)}],
    }


def reading(**changes):
    entry = {"id": "r1", "quantity": "voltage", "mode": "ac", "from": "L", "to": "N", "value": 231.0, "unit": "V"}
    return {k: v for k, v in {**entry, **changes}.items() if v is not None}


def problems(data):
    with pytest.raises(FormatError) as caught:
        parse(SurveyFile, data)
    return str(caught.value)


@pytest.mark.parametrize(
    ("entry", "path", "text"),
    [
        (reading(unitt="V"), "points[0].readings[0].unitt", "unknown key"),
        (reading(reference="outlet"), "points[0].readings[0].reference", "no probe is on REF"),
        (reading(reference_at="hall"), "points[0].readings[0].reference_at", "no probe is on REF"),
        (
            reading(quantity="resistance", mode=None, unit="ohm", to="REF", reference="bar"),
            "points[0].readings[0].reference",
            "is of a voltage",
        ),
        (reading(ms=24.0), "points[0].readings[0].ms", "how long a trip took"),
        (reading(to="REF", reference="moon"), "points[0].readings[0].reference", "must be 'rod', 'bar'"),
        (reading(value="12O"), "points[0].readings[0].value", "must be a number, not '12O'"),
        (reading(value=None), "points[0].readings[0].value", "is missing"),
        (reading(value=True), "points[0].readings[0].value", "must be a number"),
        (reading(unit="ohm"), "points[0].readings[0].unit", "no unit of voltage"),
        (reading(value=-3.0), "points[0].readings[0].value", "cannot be negative"),
        (reading(value=10.0, unit="kV"), "points[0].readings[0].value", "more than this tester shows"),
        (reading(to="L"), "points[0].readings[0].to", "both probes are on L"),
        (reading(to="N9"), "points[0].readings[0].to", "'N9' is no terminal"),
        (reading(to=None), "points[0].readings[0].to", "both points"),
        (reading(instrument="m9"), "points[0].readings[0].instrument", "not among the instruments"),
        (reading(over_range=True, value=None), "points[0].readings[0].over_range", "at_least"),
        (reading(value=None, at_least=120, below=50), "points[0].readings[0].below", "above at_least"),
        (reading(load_here_a=-2), "points[0].readings[0].load_here_a", "more than 0"),
        (reading(quantity="presence", value=3.0), "points[0].readings[0].value", "true or false"),
        (reading(quantity="lamps", value={"L-X": True}), "points[0].readings[0].value", "unknown lamp"),
        (reading(load_between=["L", "PE"]), "points[0].readings[0].load_between", "between two of L, N"),
        (
            reading(quantity="insulation", mode=None, unit="Mohm", nothing_else_on=True),
            "points[0].readings[0].nothing_else_on",
            "live circuit or of ohms",
        ),
        (reading(quantity="trip", value=True, to="N"), "points[0].readings[0].to", "from a line to earth"),
        (
            reading(quantity="resistance", mode=None, unit="ohm", to="REF", far_ends="joined"),
            "points[0].readings[0].far_ends",
            "between two contacts",
        ),
        (reading(far_ends="joined"), "points[0].readings[0].far_ends", "ohms between two contacts"),
        (reading(quantity="lamps", **{"from": "BOARD-L"}), "points[0].readings[0].from", "not for lamps"),
        (reading(at="yesterday"), "points[0].readings[0].at", "time with its offset"),
    ],
)
def test_bad_input_is_named_with_its_path(entry, path, text):
    said = problems(survey(entry))
    assert path in said
    assert text in said


def test_the_rating_of_the_named_tester_is_what_counts():
    meter = {"id": "m", "kind": "multimeter", "rated_v": 600}
    assert "600 V" in problems(survey(reading(value=700.0, instrument="m"), instruments=[meter]))


def test_a_repeated_id_is_one_reading_when_alike_and_refused_when_not():
    twice = parse(SurveyFile, survey(reading(), reading()))
    assert len(twice.readings(twice.points[0])) == 1
    assert "stands twice with different content" in problems(survey(reading(), reading(value=229.0)))


def test_units_are_converted_on_entry():
    checked = parse(SurveyFile, survey(reading(value=100, unit="mV")))
    assert checked.readings(checked.points[0])[0].value == pytest.approx(0.1)


def test_corrected_and_withdrawn_readings_stay_in_the_file_and_do_not_count():
    data = survey(reading(id="a"), reading(id="b", supersedes="a"), reading(id="c", withdrawn=True))
    checked = parse(SurveyFile, data)
    assert [r.id for r in checked.readings(checked.points[0])] == ["b"]


@pytest.mark.parametrize("bad", ['{"value": NaN}', "{", '{"a": 1, "a": 2}', "[" * 100_000])
def test_what_is_not_json_is_refused(bad):
    with pytest.raises(FormatError):
        parse_json(bad)


def run(tmp_path, capsys, data, *arguments):
    file = tmp_path / "input.json"
    file.write_text(json.dumps(data))
    code = main([arguments[0], str(file), *arguments[1:]])
    captured = capsys.readouterr()
    return code, captured.out, captured.err


def test_interpret_answers_on_standard_output(tmp_path, capsys):
    code, out, _ = run(tmp_path, capsys, survey(reading()), "interpret")
    (point,) = json.loads(out)["points"]
    assert code == 0
    assert point["id"] == "p1"
    assert set(point) >= {"verdict", "summary", "conditions", "judgements", "retake", "next_tests"}


def test_an_input_error_is_exit_2_with_nothing_on_standard_output(tmp_path, capsys):
    code, out, err = run(tmp_path, capsys, survey(reading(unitt="V")), "interpret")
    assert (code, out) == (2, "")
    assert err == "points[0].readings[0].unitt: unknown key\n"


def test_predict_names_a_condition_that_cannot_be_true(tmp_path, capsys):
    assert "gremlin" in run(tmp_path, capsys, survey(), "predict", "--condition", "gremlin")[2]
    _, out, _ = run(tmp_path, capsys, survey(), "predict", "--condition", "open-neutral")
    assert json.loads(out)["condition"] == "open-neutral"


def network(**changes):
    branches = [
        {"between": ["A", "E"], "emf_v": 120, "phase_deg": 90, "ohm": 0.2},
        {"between": ["A", "B"], "ohm": 12.0},
        {"between": ["B", "E"], "farad": 2e-9},
    ]
    whole = {"format": "even-probe/network", "version": 1, "frequency_hz": 60, "earth": "E", "branches": branches}
    return {**whole, "ask": [["A", "B"], ["B", "E"]], **changes}


def test_solve_answers_in_phasors(tmp_path, capsys):
    _, out, _ = run(tmp_path, capsys, network(), "solve")
    across = json.loads(out)["ask"][1]
    assert across["open_v"] == pytest.approx([0, 120], abs=0.01)


@pytest.mark.parametrize(
    ("changes", "text"),
    [
        ({"frequency_hz": 0}, "B has no path"),
        ({"ask": [["A", "Z"]]}, "Z"),
        ({"earth": "ground"}, "ground"),
        ({"branches": [{"between": ["A", "E"], "ohm": 0}]}, "branches[0].ohm"),
    ],
)
def test_solve_names_what_is_wrong(tmp_path, capsys, changes, text):
    if changes.get("frequency_hz") == 0:
        changes = {**changes, "branches": [network()["branches"][0], network()["branches"][2]], "ask": [["A", "B"]]}
    code, _, err = run(tmp_path, capsys, network(**changes), "solve")
    assert code == 2
    assert text in err


def test_the_command_reads_standard_input():
    done = subprocess.run(
        [sys.executable, "-m", "evenprobe.cli", "solve", "-"],
        input=json.dumps(network()),
        capture_output=True,
        text=True,
        check=True,
    )
    assert json.loads(done.stdout)["ask"][0]["between"] == ["A", "B"]


def network_text(**change):
    branches = [{"between": ["A", "E"], "emf_v": 120, "ohm": 0.2}, {"between": ["A", "B"], "ohm": 12.0}]
    branches.append({"between": ["B", "E"], "farad": 2e-9})
    file = {"format": "even-probe/network", "version": 1, "frequency_hz": 60, "earth": "E", "branches": branches}
    return json.dumps({**file, "ask": [["A", "B"]], **change})


@pytest.mark.parametrize(
    ("text", "said"),
    [
        (network_text(frequency_hz=1e308), "frequency_hz: is a number beyond"),
        (network_text(frequency_hz=5e-324), "frequency_hz: is a number beyond"),
        (network_text().replace("12.0", "9" * 5000), "more digits than"),
        (network_text().replace("12.0", "9" * 400), "branches[1].ohm: must be a number"),
        (network_text().replace('"A", "B"', '"A", "\\ud800"'), "branches[1].between[1]: holds a character"),
        (network_text().replace("12.0", "[" * 100_000), "nested too deeply"),
    ],
)
def test_what_cannot_be_is_named_at_the_command_and_is_no_traceback(text, said, tmp_path, capsys):
    file = tmp_path / "network.json"
    file.write_text(text, encoding="utf-8")
    assert main(["solve", str(file)]) == 2
    assert said in capsys.readouterr().err


@pytest.mark.parametrize("at", ["0001-01-01T00:00:00+14:00", "1999-12-31T23:59:59Z", "9999-12-31T23:59:59-14:00"])
def test_a_time_nobody_can_have_lived_in_is_named(at):
    with pytest.raises(FormatError, match="between 2000 and 2099"):
        parse(SurveyFile, survey({"quantity": "voltage", "from": "L", "to": "N", "value": 120.0, "at": at}))
