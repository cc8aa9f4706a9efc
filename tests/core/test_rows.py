"""A row of a registry is whole, and its id stands for it alone."""

from dataclasses import MISSING, fields, replace

import pytest

from evenprobe.conditions import Condition, Severity
from evenprobe.quantities.quantity import Quantity
from evenprobe.testers import KINDS, Kind
from evenprobe.testers.fitness import Held, fitness
from evenprobe.testers.kinds import MULTIMETER
from tests.core.test_recipes import CURRENT_TASK, LEAKAGE_CLAMP


def test_a_row_that_lacks_something_cannot_be_made():
    needed = [f.name for f in fields(Kind) if f.default is MISSING and f.default_factory is MISSING]
    given = {name: getattr(MULTIMETER, name) for name in needed}
    for name in needed:
        with pytest.raises(TypeError, match=name):
            Kind(**{key: value for key, value in given.items() if key != name})
    with pytest.raises(TypeError, match="remedy"):
        Condition(**{"id": "x", "severity": Severity.OK, "prior": 1, "title": "x", "symptom": "x", "cause": "x"})
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
