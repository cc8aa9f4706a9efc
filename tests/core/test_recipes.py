"""The recipes of CONTRIBUTING: each adds one thing from this file alone, and all that there is takes it."""

import sys
from dataclasses import replace
from datetime import date
from typing import Literal

import numpy as np
import pytest

import evenprobe
from evenprobe.conditions import CONDITIONS, Condition, Severity, conditions_for
from evenprobe.conditions.variants import OPEN
from evenprobe.deadtests.completing import whole_test
from evenprobe.deadtests.fit import why_unfit
from evenprobe.deadtests.judgement import Outcome, held_against
from evenprobe.deadtests.kinds import DEAD_TESTS, DeadTest, Figure, OneTest
from evenprobe.deadtests.kinds.row import no_lines
from evenprobe.deadtests.lines import lines_of
from evenprobe.deadtests.sheet import Line, SheetCircuit, SheetPoint, Step
from evenprobe.formats import FormatError, SurveyFile, dead_tests_file, parse
from evenprobe.formats.answers import InterpretationOut
from evenprobe.formats.reference import reference
from evenprobe.interpretation import forget_ensembles, interpret
from evenprobe.limits import Band, Limit, limit_for
from evenprobe.plugging.wiring import topic_of
from evenprobe.practices import BRITISH, PRACTICES
from evenprobe.practices.practice import CALLED, Sourced, letters
from evenprobe.quantities import QUANTITIES, VOLTAGE, Evidence, Kept, Measurement, Reading
from evenprobe.quantities.probes import BetweenProbes
from evenprobe.quantities.quantity import Quantity
from evenprobe.quantities.written import Function, Written
from evenprobe.sentences import Sentences
from evenprobe.simulation import HiddenPoint, TesterErrors
from evenprobe.supplies import SYSTEMS
from evenprobe.testers import KINDS, Ability, Instrument, Kind, Purpose
from evenprobe.testers.daily_check import items_for
from evenprobe.testers.fitness import Held
from evenprobe.testers.kinds import MULTIMETER
from evenprobe.testers.ratings import Place
from evenprobe.testers.tasks import Task
from evenprobe.wiring import Terminal
from tests.core.installations import outlet

METER = Instrument("m", MULTIMETER, proved=True)
BODY_OHM = 2000.0
CURRENT_TASK = Task(Purpose.CURRENT, Place.INSTALLATION, SYSTEMS["230"], BRITISH)


class TouchCurrent(BetweenProbes):
    """What would flow through a body of 2 kΩ, IEC 60990: the voltage between two points behind that impedance."""

    id = "touch-current"
    rank = 20
    title = "Touch current"
    unit = "A"
    purpose = Purpose.LIVE_VOLTAGE
    with_source = True
    written = Written(ends="two", units=("mA", "A"))
    functions = (Function(id="touch", name="Touch current"),)

    def across(self, measurement, point):
        return 1 / BODY_OHM

    def per_volt(self, measurement, pair, solved, point):
        return 1 / BODY_OHM

    def counts_for(self, reading, point):
        return (Evidence(reading, reading.value, reading.value, 1e-5, 0.02, f"{reading.measurement.instrument.id} mA"),)

    def setups(self, point, tester):
        yield from (Measurement(self, t, Terminal.REF, tester) for t in point.terminals if t is not Terminal.REF)

    def seconds(self, measurement):
        return 1.0

    def read(self, name, measurement, hidden, errors):
        shown = self.shown(measurement, hidden.solved(self.mode(measurement)), hidden.point)
        return Reading(name, measurement, value=float(shown[0]))


LEAKAGE_CLAMP = Kind(
    id="leakage-clamp",
    name="leakage clamp",
    says="What a circuit leaks, round all its live conductors.",
    blind_to=("voltage",),
    purposes=frozenset({Purpose.CURRENT}),
    functions=("amps",),
    contact=True,
    amps=Ability(1.0, 5, 0.00001, 60),
    clamps=True,
    leads=False,
)


def survey(**reading):
    return {
        "format": "even-probe/survey",
        "version": 1,
        "practice": "british",
        "supply": {"system": "230", "earthing": "TN-S"},
        "instruments": [{"id": "m", "kind": "multimeter", "proved": True}],
        "points": [{"id": "p", "kind": "outlet", "terminals": ["L", "N", "PE"], "readings": [reading]}],
    }


VOLTS = {"quantity": "voltage", "from": "L", "to": "N", "value": 231.0, "instrument": "m"}
TOUCH = {"quantity": "touch-current", "from": "PE", "to": "REF", "value": 0.0, "unit": "mA", "instrument": "m"}


def test_a_quantity_is_one_module():
    with pytest.raises(FormatError, match="must be 'voltage'.* or 'loop', not \"touch-current\""):
        parse(SurveyFile, survey(**TOUCH))
    with QUANTITIES.with_row(TouchCurrent()) as touch:
        file = parse(SurveyFile, survey(**TOUCH))
        readings = file.readings(file.points[0])
        assert readings[0].measurement.quantity is touch
        answer = interpret(file.facts(file.points[0]), readings, file.kit())
        fallen = {o.condition.id: o for o in answer.conditions if not o.standing}
        assert "earth-from-neutral-swapped" in fallen, "metalwork at line voltage would drive 0.1 A"
        assert fallen["earth-from-neutral-swapped"].reasons[0].text.endswith(" A")
        offered = interpret(outlet(), readings, file.kit()).next_tests
        assert touch in {test.measurement.quantity for test in offered}
        assert InterpretationOut.of(answer).conditions


def test_a_quantity_refuses_what_its_entry_does_not_have():
    with QUANTITIES.with_row(TouchCurrent()):
        for wrong, why in (({"unit": "V"}, "no unit of touch-current"), ({"to": None}, "without both points")):
            with pytest.raises(FormatError, match=why):
                parse(SurveyFile, survey(**TOUCH | wrong))


@pytest.mark.parametrize("quantity", QUANTITIES.values(), ids=str)
def test_no_quantity_is_incomplete(quantity):
    for name in Quantity.__annotations__:
        assert hasattr(quantity, name), f"{quantity.id} has no {name}"
    assert not quantity.__class__.__abstractmethods__
    assert sys.modules[type(quantity).__module__].__doc__, "its module says on which physics or standard it rests"
    assert [q.rank for q in QUANTITIES.values()].count(quantity.rank) == 1
    if quantity.written.seen == "number":
        assert quantity.written.units, "a number is written in a unit"
    assert {f.id for f in quantity.functions}.isdisjoint(
        f.id for q in QUANTITIES.values() if q is not quantity for f in q.functions
    )


def test_a_kind_of_tester_is_one_row():
    with KINDS.with_row(LEAKAGE_CLAMP):
        file = survey(quantity="current", value=0.4, unit="mA", instrument="c", **{"from": "BOARD-PE"})
        file["instruments"].append({"id": "c", "kind": "leakage-clamp", "proved": True})
        read = parse(SurveyFile, file)
        (reading,) = read.readings(read.points[0])
        weighed = reading.measurement.quantity.weigh(reading, read.facts(read.points[0]))
        assert isinstance(weighed[0], Evidence)
        assert weighed[0].tolerance < 0.06, "its own error counts"
        assert "leakage-clamp" in str(SurveyFile.model_json_schema())
        assert {item.id for item in items_for(LEAKAGE_CLAMP)} == {"battery", "display", "self_check"}
        volts = survey(quantity="voltage", value=230.0, instrument="c", **{"from": "L", "to": "N"})
        volts["instruments"] = file["instruments"]
        read = parse(SurveyFile, volts)
        (reading,) = read.readings(read.points[0])
        assert isinstance(reading.measurement.quantity.weigh(reading, outlet())[0], Kept)
        assert reading.unfit.startswith("a leakage clamp does not measure volts")
    assert "leakage-clamp" not in KINDS


@pytest.mark.parametrize("kind", KINDS.values(), ids=str)
def test_no_kind_of_tester_is_incomplete(kind):
    assert kind.name
    assert kind.says.endswith(".")
    assert kind.blind_to, "nothing sees everything"
    assert set(kind.functions) <= {f.id for q in QUANTITIES.values() for f in q.functions}
    able = {"volts": Purpose.LIVE_VOLTAGE, "ohms": Purpose.CONTINUITY, "amps": Purpose.CURRENT}
    for shows, purpose in able.items():
        assert (getattr(kind, shows) is not None) == (purpose in kind.purposes)
    assert not kind.may_prove_dead or (kind.contact and kind.volts)


TWO_OPEN = Condition(
    id="open-line-and-neutral",
    severity=Severity.DEFECT,
    prior=0.001,
    title="{line} and {neutral} open along the run",
    symptom="dead outlet, and no voltage anywhere in its box",
    cause="a cable cut through, or both conductors off at the last working point",
    remedy="isolate, prove dead, find where the cable ends",
    joints={"line": OPEN, "neutral": OPEN},
)


@pytest.fixture
def two_open():
    """A condition more, and no ensemble that was drawn without it."""
    forget_ensembles()
    with CONDITIONS.with_row(TWO_OPEN):
        yield TWO_OPEN
    forget_ensembles()


def test_a_condition_is_one_row(two_open):
    point = outlet()
    assert two_open in conditions_for(point)
    nothing = [
        Reading(str(t), Measurement(VOLTAGE, t, Terminal.REF, METER, "low-z"), value=0.0) for t in point.terminals
    ]
    stands = {o.condition.id for o in interpret(point, nothing).conditions if o.standing}
    assert {"open-line-and-neutral", "no-supply"} <= stands
    live = [Reading("r", Measurement(VOLTAGE, Terminal.L, Terminal.N, METER), value=119.8)]
    answer = interpret(point, live)
    assert "open-line-and-neutral" in {o.condition.id for o in answer.conditions if not o.standing}
    assert topic_of(two_open) == "supply", "plugging in knows what to say of it"
    hidden = HiddenPoint(point, two_open, np.random.default_rng(1))
    read = hidden.read(
        "r", Measurement(VOLTAGE, Terminal.L, Terminal.N, METER, "low-z"), TesterErrors(np.random.default_rng(1))
    )
    assert read.value < 20, "the network knows what it would show"


@pytest.mark.parametrize("condition", CONDITIONS.values(), ids=str)
def test_no_condition_is_incomplete(condition):
    for text in (condition.title, condition.symptom, condition.cause, condition.remedy):
        for practice in PRACTICES.values():
            assert "{" not in practice.in_words(text)
    assert 0 < condition.prior <= 1
    assert set(condition.systems) <= set(SYSTEMS)
    assert set(condition.priors) <= set(SYSTEMS)


ANTIPODES = replace(
    BRITISH,
    id="antipodes",
    rank=4,
    name="Antipodes",
    words={**BRITISH.words, "L": "active", "line": "active"},
    letters=letters("A", "E"),
    supplies=("230", "230/400"),
    ring_circuits=False,
    drop=Sourced(0.05, "AS/NZS 3000"),
)


def test_a_practice_is_one_module():
    with pytest.raises(FormatError, match="must be 'north-america'"):
        parse(SurveyFile, {**survey(**VOLTS), "practice": "antipodes"})
    with PRACTICES.with_row(ANTIPODES):
        file = parse(SurveyFile, {**survey(**VOLTS), "practice": "antipodes"})
        answer = interpret(file.facts(file.points[0]), file.readings(file.points[0]), file.kit())
        titles = {c.title for c in InterpretationOut.of(answer).conditions}
        assert "Active open along the run" in titles
        assert limit_for("voltage.drop", ANTIPODES, SYSTEMS["230"]).source == "AS/NZS 3000"
        shown = next(p for p in reference().practices if p.id == "antipodes")
        assert shown.letters["L1"] == "A1"
        assert [s.id for s in shown.systems] == ["230", "230/400"]


@pytest.mark.parametrize("practice", PRACTICES.values(), ids=str)
def test_no_practice_is_incomplete(practice):
    terminals = {*Terminal}
    assert set(practice.letters) == terminals
    assert set(practice.conductor_colours) == terminals
    assert set(practice.words) == {"L", "N", "PE", "CASE", "REF", *CALLED.values()}
    assert practice.systems, "it has supplies"
    assert set(practice.supplies) <= set(SYSTEMS)
    assert set(practice.dead_kinds) <= {k.id for k in KINDS.values() if k.may_prove_dead}
    for terminals_of, face in practice.outlets.items():
        assert set(face.contacts) == set(terminals_of.split())
    for limit in ("voltage.band", "voltage.drop", "leg.match"):
        assert all(limit_for(limit, practice, system).source for system in practice.systems)


ELECTRODE_SAYS = Sentences({"reads": "{ohm:g} Ω"})
ELECTRODE_LIMIT = Limit("electrode.resistance", "ohm", Band(0, 200), "BS 7671 table 41.5, note 2: stable up to 200 Ω")


class ElectrodeTest(OneTest):
    kind: Literal["electrode"]
    measured_ohm: float

    def outcome(self, practice):
        shown = self.accuracy.shows(self.measured_ohm)
        said = ELECTRODE_SAYS.say("reads", ohm=shown.value)
        return Outcome(held_against(ELECTRODE_LIMIT, shown.interval), [said], ELECTRODE_LIMIT, held=shown)


def electrode_lines(circuit):
    yield Line("electrode", Step.CONTINUITY, "electrode", f"{circuit.letter(Terminal.PE)} electrode", {})


ELECTRODE = DeadTest(
    id="electrode",
    rank=30,
    title="Earth electrode",
    entry=ElectrodeTest,
    lines=electrode_lines,
    fields=(Figure(key="measured_ohm", label="It reads", unit="ohm", said="{:g} Ω"),),
)


def tests_of(*tests):
    return {"format": "even-probe/tests", "version": 1, "practice": "british", "tests": list(tests)}


def test_a_kind_of_dead_test_is_one_object():
    file = tests_of({"id": "t", "kind": "electrode", "measured_ohm": 240.0})
    with pytest.raises(FormatError, match="tests.0..kind: must be 'continuity'"):
        parse(dead_tests_file(), file)
    with DEAD_TESTS.with_row(ELECTRODE):
        (answer,) = evenprobe.judge(file).tests
        assert (answer.result, answer.limit.value) == ("fail", 200)
        circuit = SheetCircuit(BRITISH, SYSTEMS["230"], (SheetPoint("p", "p", (Terminal.L, Terminal.N, Terminal.PE)),))
        line = next(line for line in lines_of(circuit) if line.kind == "electrode")
        assert whole_test(line, {"measured_ohm": 30.0}) == {"kind": "electrode", "measured_ohm": 30.0}
        assert ELECTRODE.shown({"measured_ohm": 30.0}) == "30 Ω"
        form = next(kind for kind in reference().dead_tests if kind.id == "electrode")
        assert [field.key for field in form.fields] == ["measured_ohm"]
        held = Held("m", MULTIMETER, battery="ok")
        assert why_unfit(BRITISH, SYSTEMS["230"], {"kind": "electrode"}, held, date(2026, 11, 28)) == ""


@pytest.mark.parametrize("kind", DEAD_TESTS.values(), ids=str)
def test_no_kind_of_dead_test_is_incomplete(kind):
    assert kind.title
    assert kind.fields, "a form is drawn from its fields"
    assert kind.entry.model_fields["kind"].annotation.__args__ == (kind.id,)
    assert kind.entry.outcome is not OneTest.outcome
    in_entry = {*kind.entry.model_fields} | {"from"}
    for field in kind.fields:
        keys = (field.key, getattr(field, "over_range", ""), getattr(field, "at_least", ""))
        assert {key for key in keys if key} <= in_entry
    assert (kind.lines is no_lines) == (kind.step is None)
