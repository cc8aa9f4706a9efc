"""The recipes of CONTRIBUTING: each adds one thing from this file alone, and all that there is takes it."""

from dataclasses import MISSING, fields, replace

import pytest

from evenprobe.formats import FormatError, SurveyFile, interpretation_answer, parse
from evenprobe.interpretation import interpret
from evenprobe.practices import BRITISH
from evenprobe.quantities import QUANTITIES, Evidence, Kept, Measurement, Reading
from evenprobe.quantities.measurement import Quantity
from evenprobe.quantities.probes import BetweenProbes
from evenprobe.quantities.written import Function, Written
from evenprobe.supplies import SYSTEMS
from evenprobe.testers import KINDS, Ability, Kind, Purpose
from evenprobe.testers.daily_check import items_for
from evenprobe.testers.fitness import Held, fitness
from evenprobe.testers.kinds import MULTIMETER
from evenprobe.testers.ratings import Place
from evenprobe.testers.tasks import Task
from evenprobe.wiring import Terminal
from tests.core.installations import outlet

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


TOUCH = {"quantity": "touch-current", "from": "PE", "to": "REF", "value": 0.0, "unit": "mA", "instrument": "m"}


def test_a_quantity_is_one_module():
    with pytest.raises(FormatError, match="must be 'voltage'.* or 'sequence', not \"touch-current\""):
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
        assert interpretation_answer([("p", answer)])["points"][0]["conditions"]


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
    assert quantity.__doc__ or type(quantity).__module__
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


def test_a_row_that_lacks_something_cannot_be_made():
    needed = [f.name for f in fields(Kind) if f.default is MISSING and f.default_factory is MISSING]
    given = {name: getattr(MULTIMETER, name) for name in needed}
    for name in needed:
        with pytest.raises(TypeError, match=name):
            Kind(**{key: value for key, value in given.items() if key != name})
    with pytest.raises(TypeError, match="abstract"):
        type("Nothing", (Quantity,), {"id": "nothing"})()


def test_an_id_stands_for_one_row_only():
    with pytest.raises(ValueError, match="already"):
        KINDS.add(replace(MULTIMETER, name="another"))
    with pytest.raises(KeyError, match="use one of multimeter"):
        KINDS["rubber-duck"]


def test_what_is_held_of_a_new_kind_is_fit_or_not_by_its_row():
    held = Held("c", LEAKAGE_CLAMP, battery="ok")
    assert "wrong-kind" in {f.code for f in fitness(CURRENT_TASK, held).problems}
    with KINDS.with_row(LEAKAGE_CLAMP):
        assert [f.code for f in fitness(CURRENT_TASK, held).problems if not f.unknown] == []
