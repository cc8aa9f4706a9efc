"""A test as somebody types it, made whole: with what the sheet, the leads and the tester's register already know."""

from collections.abc import Mapping
from typing import Any

from evenprobe.deadtests.kinds import DEAD_TESTS, Figure
from evenprobe.deadtests.sheet import Line
from evenprobe.entries import FormatError
from evenprobe.entries.units import to_si
from evenprobe.testers import Instrument

_IN_OHMS = ("ohm", "kohm", "Mohm")
"""What a display may show ohms in."""


def whole_test(
    line: Line | None,
    typed: Mapping[str, Any],
    *,
    null_ohm: float | None = None,
    loads: Mapping[str, Any] | None = None,
    tester: Instrument | None = None,
) -> dict[str, Any]:
    """An entry of the tests file.

    Parameters
    ----------
    line
        The line of the sheet it is of, with its preset; None for a part checked alone.
    typed
        What was typed. It comes before what is known, and None takes a known thing out.
    null_ohm
        What the leads were nulled at.
    loads
        What was said of the loads and of the neutral.
    tester
        What it was made with.

    Raises
    ------
    FormatError
        Where a unit is none of the test's, or a number is larger than any reading.
    """
    known: dict[str, Any] = {"kind": line.kind, **line.preset} if line else {}
    kind = DEAD_TESTS.get(str(typed.get("kind", known.get("kind"))))
    sheet = {"null_ohm": null_ohm, **(loads or {})}
    if kind is not None:
        known |= {key: sheet[key] for key in ("null_ohm", "neutral", "loads") if key in kind.known and key in sheet}
        if "accuracy" in kind.known:
            known |= _accuracy(tester)
    given = {key: value for key, value in {**known, **typed}.items() if value is not None}
    return in_own_unit(given) if "unit" in given else given


def in_own_unit(test: Mapping[str, Any]) -> dict[str, Any]:
    """What was typed in another unit, in the test's own: a display changes its unit by itself."""
    unit, kind = test["unit"], DEAD_TESTS.get(str(test.get("kind")))
    own = {key: value for key, value in test.items() if key != "unit"}
    figure = next((f for f in kind.fields if isinstance(f, Figure) and f.unit == _IN_OHMS[0]), None) if kind else None
    if figure is None:
        raise FormatError([("unit", "is not asked for here")])
    if unit not in _IN_OHMS:
        raise FormatError([("unit", f"must be one of {', '.join(_IN_OHMS)}")])
    value = own.get(figure.key)
    if not isinstance(value, int | float):
        return own
    try:
        return {**own, figure.key: to_si(value, unit)}
    except OverflowError:
        raise FormatError([(figure.key, "is larger than any reading")]) from None


def _accuracy(tester: Instrument | None) -> dict[str, Any]:
    ability = tester.ohms() if tester else None
    if ability is None:
        return {}
    return {
        "accuracy_percent": ability.percent,
        "accuracy_counts": ability.counts,
        "resolution": ability.resolution,
    }
