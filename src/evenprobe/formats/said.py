"""A reading in words, for a report, a list or a table: between which points, what was seen, and how."""

from collections.abc import Callable
from math import isfinite
from typing import Any

from evenprobe.formats.answers.interpretation import CircumstanceOut, NextTestOut
from evenprobe.formats.reading import ReadingEntry
from evenprobe.practices import Practice
from evenprobe.quantities import QUANTITIES, Measurement, Quantity, Reading
from evenprobe.quantities.written import Function
from evenprobe.rounding import figures

_SIGNS = {"ohm": "Ω", "kohm": "kΩ", "Mohm": "MΩ"}
_AT_BOARD = "BOARD-"
Words = Callable[[Any, Quantity], str]


def reading_said(entry: ReadingEntry, practice: Practice) -> str:
    """Between which points a reading is, and what was seen.

    Parameters
    ----------
    entry : ReadingEntry
        As the survey format has it.
    practice : Practice
        Whose letters are on the contacts.

    Returns
    -------
    str
        A few words.

    Examples
    --------
    >>> from evenprobe.entries import parse
    >>> from evenprobe.practices import NORTH_AMERICA
    >>> volts = {"quantity": "voltage", "mode": "ac", "from": "L", "to": "PE", "value": 119.6}
    >>> reading_said(parse(ReadingEntry, volts), NORTH_AMERICA)
    'H to G 119.6 V'
    >>> alarm = {"quantity": "presence", "from": "CASE", "value": True}
    >>> reading_said(parse(ReadingEntry, alarm), NORTH_AMERICA)
    'Presence at C alarm'
    """
    return f"{where_said(entry.quantity, entry.from_, entry.to, practice)} {seen_said(entry)}"


def where_said(quantity: Quantity, from_: str | None, to: str | None, practice: Practice) -> str:
    """Between which contacts; what is of no contact by its own name. What is not in volts says what it is."""
    if from_ is None:
        return quantity.title
    what = "" if quantity.unit == "V" and to else f"{quantity.title} "
    if to is None:
        return f"{what}at {practice.between(from_, word='to')}"
    if from_.startswith(_AT_BOARD) and to.startswith(_AT_BOARD):
        from_ = from_.removeprefix(_AT_BOARD)
    return f"{what}{practice.between(from_, to, word='to')}"


def seen_said(entry: ReadingEntry) -> str:
    """What the display, the lamps or the detector showed, with its unit."""
    if entry.sweep is not None:
        return f"{len(entry.sweep)} places, {sum(s.alarm for s in entry.sweep)} sound"
    if isinstance(entry.value, dict):
        lit = [lamp for lamp, on in entry.value.items() if on]
        return f"lit {', '.join(lit)}" if lit else "all dark"
    if isinstance(entry.value, bool):
        return _picked(entry, entry.value)
    unit: str = entry.unit or next(iter(entry.quantity.written.units), "")
    sign = _SIGNS.get(unit, unit)
    if entry.over_range:
        return f"over range {sign}".strip()
    if entry.quantity.written.extremes:
        return _drawn(entry, sign)
    if entry.value is not None:
        return f"{_figure(entry.value, sign)} {sign}"
    if entry.below is None:
        return f"{entry.at_least:g} {sign} or more"
    return (
        f"under {entry.below:g} {sign}" if entry.at_least is None else f"{entry.at_least:g} to {entry.below:g} {sign}"
    )


def shown_said(reading: Reading, practice: Practice) -> str:
    """What the display, the lamps or the detector showed of a reading that is not written down as an entry.

    Examples
    --------
    >>> from evenprobe.practices import NORTH_AMERICA
    >>> from evenprobe.quantities import LAMPS, VOLTAGE
    >>> from evenprobe.wiring import Terminal
    >>> shown_said(Reading("r", Measurement(VOLTAGE, Terminal.L, Terminal.N), value=119.6), NORTH_AMERICA)
    '119.6 V'
    >>> shown_said(Reading("r", Measurement(LAMPS, None, None), lit={"L-N": True, "N-PE": False}), NORTH_AMERICA)
    'lit H-N'
    """
    quantity = reading.measurement.quantity
    for answer, yes, no in ((reading.alarm, "alarm", "silent"), (reading.tripped, "tripped", "stayed in")):
        if answer is not None:
            return yes if answer else no
    if reading.lit:
        lit = ["-".join(practice.letters[end] for end in lamp.split("-")) for lamp, on in reading.lit.items() if on]
        return f"lit {', '.join(lit)}" if lit else "all dark"
    sign = _SIGNS.get(quantity.unit, quantity.unit)
    if reading.over_range:
        return f"over range {sign}".strip()
    if reading.value is not None:
        if quantity.unit == "V":
            return f"{_figure(reading.value, sign)} {sign}"
        said = quantity.said(reading.value)
        return f"{said.removesuffix(quantity.unit)}{sign}" if quantity.unit else said
    least, below = reading.at_least, reading.below
    if below is None:
        return f"{least or 0:g} {sign} or more"
    return f"under {below:g} {sign}" if least is None else f"{least:g} to {below:g} {sign}"


def how_said(entry: ReadingEntry, practice: Practice) -> str:
    """The circumstances of a reading that are not as they are found."""
    said = [words(entry, entry.quantity) for words in _CIRCUMSTANCES]
    if entry.reference is not None:
        said += [practice.in_words(entry.reference.name), entry.reference_at or ""]
    return ", ".join(filter(None, said))


def next_said(test: NextTestOut, practice: Practice) -> str:
    """A reading that is to be taken, with its circumstances."""
    quantity = QUANTITIES[test.quantity]
    said = [words(test.circumstance, quantity) for words in _CIRCUMSTANCES]
    return ", ".join(filter(None, (where_said(quantity, test.from_, test.to, practice), *said)))


def measured_said(measurement: Measurement, practice: Practice) -> str:
    """What is measured, with its circumstances."""
    from_, to = (end and str(end) for end in (measurement.from_, measurement.to))
    about = CircumstanceOut.of(measurement)
    said = [words(about, measurement.quantity) for words in _CIRCUMSTANCES]
    return ", ".join(filter(None, (where_said(measurement.quantity, from_, to, practice), *said)))


def limit_said(low: float, high: float | None, unit: str) -> str:
    """A limit's figures with their unit.

    Examples
    --------
    >>> limit_said(108.0, 126.0, "V"), limit_said(1.0, None, "Mohm"), limit_said(0.0, 300.0, "ms")
    ('108 to 126 V', 'at least 1 MΩ', 'at most 300 ms')
    """
    sign = _SIGNS.get(unit, unit)
    most = "" if high is None or not isfinite(high) else f"{figures(high):g} {sign}"
    least = f"{figures(low):g}" if isfinite(low) and low != 0 else ""
    if least:
        return f"{least} to {most}" if most else f"at least {least} {sign}"
    return f"at most {most}" if most else "more than the range"


def circuit_said(
    practice: Practice,
    rating_a: float | None,
    curve: str,
    residual_ma: float | None,
    conductor: str,
    length_m: float | None,
) -> str:
    """A circuit's line on the schedule: its device, its conductor, how far it goes.

    Examples
    --------
    >>> from evenprobe.practices import NORTH_AMERICA
    >>> circuit_said(NORTH_AMERICA, 20.0, "", 5.0, "12 AWG", 18.0)
    '20 A breaker · GFCI 5 mA · 12 AWG · 59 ft (18 m)'
    """
    device, residual = practice.named["device"], practice.named["rcd"]
    metres = "" if length_m is None else practice.length_unit.said(length_m)
    parts = (
        "" if rating_a is None else f"{rating_a:g} A {device}{f', curve {curve}' if curve else ''}",
        "" if residual_ma is None else f"{residual} {residual_ma:g} mA",
        conductor.replace("mm2", "mm²"),
        metres,
    )
    return " · ".join(filter(None, parts))


def _picked(entry: ReadingEntry, value: bool) -> str:
    answers = dict(_function(entry).answers)
    return answers.get(value, "yes" if value else "no")


def _function(entry: ReadingEntry) -> Function:
    """Of those that take the quantity the one that fixes most of what the entry says."""
    said = {"mode": "ac", **entry.model_dump(mode="json", by_alias=True, exclude_none=True)}
    fits = [f for f in entry.quantity.functions if all(said.get(key) == value for key, value in f.fixes)]
    return max(fits, key=lambda f: (bool(f.answers), len(f.fixes)))


def _figure(value: float, sign: str) -> str:
    """At least one decimal for volts, as the display has it."""
    return f"{value:.1f}" if sign == "V" and float(value).is_integer() else f"{value:.12g}"


def _drawn(entry: ReadingEntry, sign: str) -> str:
    now = "" if entry.value is None else f"{entry.value:.12g} {sign}"
    if entry.max is None and entry.min is None:
        return now
    span = " to ".join(f"{one:.12g}" for one in (entry.min, entry.max) if one is not None)
    return ", ".join(filter(None, (now, f"{'up to ' if entry.min is None else ''}{span} {sign}")))


def _figured(key: str, words: str) -> Words:
    def said(about: Any, _: Quantity) -> str:
        given = getattr(about, key, None)
        return "" if given is None else words.format(figures(given))

    return said


def _is(key: str, value: object, words: str) -> Words:
    return lambda about, _: words if getattr(about, key, None) == value else ""


def _load_between(about: Any, _: Quantity) -> str:
    return f"between {' and '.join(about.load_between)}" if about.load_between else ""


def _nothing_else(about: Any, quantity: Quantity) -> str:
    if not about.nothing_else_on:
        return ""
    return "everything unplugged" if quantity.dead else "nothing else on"


_CIRCUMSTANCES: tuple[Words, ...] = (
    _figured("load_here_a", "{:g} A load here"),
    _figured("load_elsewhere_a", "{:g} A load elsewhere"),
    _load_between,
    _nothing_else,
    _figured("turns", "{:g} turns through the clamp"),
    _is("continuous", True, "three hours and more"),
    _figured("ms", "after {:g} ms"),
    _figured("test_ma", "{:g} mA"),
    _figured("test_v", "tested at {:g} V"),
    _is("device", "open", "device open"),
    _is("neutral", "lifted", "neutral disconnected at the board"),
    _is("far_ends", "joined", "joined at the board"),
    _is("loads", "disconnected", "loads out"),
    _is("input", "low-z", "low impedance"),
    _is("mode", "dc", "DC"),
)
"""Each says its own of a reading, or of the circumstances of one to be taken, or nothing."""
