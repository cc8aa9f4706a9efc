"""What is it plugged into: readings of an outlet nobody knows, and the supplies they can be all right on."""

import json

import pytest

from evenprobe.cli import main
from evenprobe.interpretation import what_supply
from evenprobe.quantities import FREQUENCY, Measurement, Reading
from evenprobe.supplies import Earthing
from tests.core.installations import outlet, several, volts


def fitting(point, *readings):
    return [(g.system.id, g.earthing) for g in what_supply(point, readings) if g.fits]


def hertz(value):
    return Reading("hertz", Measurement(FREQUENCY, None, None), value=value)


def test_277_volts_is_a_leg_of_its_star_and_of_nothing_else():
    guesses = what_supply(outlet(), (volts("L-N", 277.5), volts("L-PE", 277.6), volts("N-PE", 0.2)))
    assert {g.system.id for g in guesses if g.fits} == {"480Y/277"}
    assert sum(g.likelihood for g in guesses) == pytest.approx(1)
    refused = next(g for g in guesses if g.system.id == "120")
    assert refused.reason is not None
    assert refused.reason.would_show[1] < refused.reason.seen


def test_208_between_two_lines_is_a_star_before_it_is_a_split_phase():
    readings = (volts("L1-N", 120.3), volts("L2-N", 120.1), volts("L1-L2", 208.2))
    ranked = fitting(several("L1 L2 N PE"), *readings)
    assert ranked[0][0] == "208Y/120"
    assert ("120/240", Earthing.TN_C_S) in ranked, "as a note"
    likelihood = {g.system.id: g.likelihood for g in what_supply(several("L1 L2 N PE"), readings)}
    assert likelihood["240-high-leg"] < 0.1 * likelihood["208Y/120"], "only with much on meanwhile"


def test_half_the_voltage_on_either_side_of_the_earth_is_a_source_without_a_bond():
    ranked = fitting(outlet(), volts("L-N", 120.0), volts("L-PE", 63.0), volts("N-PE", 57.0))
    assert ranked[0] == ("standalone-120", Earthing.IT)
    assert {earthing for _, earthing in ranked} == {Earthing.IT}


def test_the_frequency_tells_apart_what_the_volts_do_not():
    at_50 = what_supply(outlet(), (volts("L-N", 231.0), volts("L-PE", 231.1), volts("N-PE", 0.2), hertz(50.0)))
    assert at_50[0].system.frequency_hz == 50
    assert {g.system.id for g in at_50 if g.fits} >= {"230", "230/400", "standalone-230"}


def test_nothing_measured_fits_nothing():
    assert what_supply(outlet(), ()) == ()


def test_at_the_shell_the_likeliest_comes_first(tmp_path, capsys):
    readings = [
        {"id": a + b, "quantity": "voltage", "mode": "ac", "from": a, "to": b, "value": v, "unit": "V"}
        for a, b, v in (("L", "N", 231.2), ("L", "PE", 231.0), ("N", "PE", 0.3))
    ]
    survey = {
        "format": "even-probe/survey",
        "version": 1,
        "practice": "continental",
        "supply": {"system": "230"},
        "points": [{"id": "p", "kind": "outlet", "terminals": ["L", "N", "PE"], "readings": readings}],
    }
    file = tmp_path / "survey.json"
    file.write_text(json.dumps(survey))
    assert main(["identify", str(file)]) == 0
    supplies = json.loads(capsys.readouterr().out)["points"][0]["supplies"]
    assert supplies[0]["fits"]
    assert supplies[0]["title"].startswith("230")
    assert supplies[-1]["reasons"][0]["text"]
