"""Systems, limits and conductors against the published figures."""

import pytest

from evenprobe.limits import Override, limit_for
from evenprobe.practices import NORTH_AMERICA, PRACTICES
from evenprobe.supplies import SYSTEMS, Earthing
from evenprobe.wiring import CircuitFacts, PointFacts, PointKind, Terminal, conductor_named
from evenprobe.wiring.points import METALWORK


@pytest.mark.parametrize(
    ("system", "lines", "volts"),
    [("120/240", "L1-L2", 240), ("208Y/120", "L1-L2", 208), ("230/400", "L2-L3", 398), ("480Y/277", "L1-L3", 480)],
)
def test_line_to_line_voltages_follow_from_the_phasors(system, lines, volts):
    a, b = lines.split("-")
    assert abs(SYSTEMS[system].phasor(a) - SYSTEMS[system].phasor(b)) == pytest.approx(volts, rel=0.006)


def test_the_high_leg_stands_at_root_three_over_two_of_line_to_line():
    high_leg = SYSTEMS["240-high-leg"]
    assert abs(high_leg.phasor("L2")) == pytest.approx(207.8, abs=0.1)
    assert abs(high_leg.phasor("L2") - high_leg.phasor("L1")) == pytest.approx(240, abs=0.1)


@pytest.mark.parametrize(
    ("practice", "system", "low", "high"),
    [("north-america", "120", 108, 126), ("continental", "230", 207, 253), ("british", "230", 216.2, 253)],
)
def test_voltage_bands(practice, system, low, high):
    limit = limit_for("voltage.band", PRACTICES[practice], SYSTEMS[system])
    assert (limit.band.low, limit.band.high) == (low, high)
    assert limit.source


def test_an_override_shows_its_reason_and_where_it_departs_from():
    own = Override("voltage.band", 110, 125, "site rule 4")
    limit = limit_for("voltage.band", NORTH_AMERICA, SYSTEMS["120"], [own])
    assert limit.band.low == 110
    assert "site rule 4" in limit.source
    assert "ANSI" in limit.source


def test_every_practice_has_words_letters_and_colours_for_the_same_terminals():
    for practice in PRACTICES.values():
        assert set(practice.letters) == set(practice.conductor_colours)
        assert {"L", "N", "PE", "REF", "outlet", "board"} <= set(practice.words)
        assert practice.systems


@pytest.mark.parametrize(
    ("text", "milliohm"), [("12 AWG", 5.211), ("2,5 mm²", 7.41), ("1 mm2", 18.10), ("1/0awg", 0.3224)]
)
def test_conductor_sizes_as_the_trade_writes_them(text, milliohm):
    assert conductor_named(text).ohms(1000) == pytest.approx(milliohm)


def test_copper_warms_as_published():
    assert conductor_named("2.5 mm2").ohms(100, 70) == pytest.approx(0.741 * 1.1965)


def test_an_unknown_size_is_refused_with_those_there_are():
    with pytest.raises(ValueError, match="13 AWG.*14 AWG"):
        conductor_named("13 AWG")


SUPPLIES = [
    pytest.param(practice, system, id=f"{practice} {system.id}")
    for practice in PRACTICES.values()
    for system in practice.systems
]


@pytest.mark.parametrize(("practice", "system"), SUPPLIES)
def test_every_choice_of_contacts_makes_a_point_that_can_be_interpreted(practice, system):
    for contacts in practice.contacts_on(system):
        terminals = tuple(Terminal(name) for name in contacts.terminals)
        point = PointFacts(practice, system, Earthing.TN_S, PointKind.OUTLET, terminals, CircuitFacts())
        assert not point.no_lines, contacts.name
        assert set(METALWORK) & set(terminals), "whatever has metal to touch has an earth"


@pytest.mark.parametrize(("practice", "system"), SUPPLIES)
def test_choices_of_contacts_are_told_apart_and_never_have_more_lines_than_the_supply(practice, system):
    choices = practice.contacts_on(system)
    assert len({c.name for c in choices}) == len({c.terminals for c in choices}) == len(choices)
    lines = [sum(t.startswith("L") for t in c.terminals) for c in choices]
    assert max(lines) == max(1, len(system.lines))
    assert lines[0] == 1, "the usual one first"
    for contacts in choices:
        assert contacts.name[0].isupper()
        assert (practice.words["N"] in contacts.name.lower()) is ("N" in contacts.terminals)
