"""What a simulated tester shows as an entry that could be recorded; and an entry before anything is shown."""

from typing import Any

from evenprobe.entries.units import FACTOR
from evenprobe.formats.kit import InstrumentEntry
from evenprobe.formats.survey import PointEntry, reading_at
from evenprobe.quantities import QUANTITIES, Measurement, Reading
from evenprobe.testers import TYPED

_NOTHING: dict[str, Any] = {"number": 0.0, "yes or no": False, "lamps": {"L-N": False}}
"""What stands for a value that is not seen yet."""


def unread(point: PointEntry, data: dict[str, Any], held: InstrumentEntry | None) -> Measurement:
    """What is being measured, before anything is shown.

    Parameters
    ----------
    point : PointEntry
        Where the probes are.
    data : dict
        A reading as the survey format has it, without what was seen.
    held : InstrumentEntry or None
        What is in the hand.

    Returns
    -------
    Measurement

    Raises
    ------
    FormatError
        With the reading's own keys as paths.

    Examples
    --------
    >>> from evenprobe.entries import parse
    >>> outlet = parse(PointEntry, {"id": "p1", "kind": "outlet", "terminals": ["L", "N", "PE"]})
    >>> str(unread(outlet, {"quantity": "voltage", "mode": "ac", "from": "L", "to": "N"}, None).to)
    'N'
    """
    quantity = str(data.get("quantity"))
    seen = QUANTITIES[quantity].written.seen if quantity in QUANTITIES else "number"
    checked = reading_at(point, {**data, "value": _NOTHING[seen]}, held)
    return checked.reading("shown", held.instrument() if held else TYPED).measurement


def as_entry(reading: Reading) -> dict[str, Any]:
    """What of a reading was seen, as the survey format writes it: numbers in SI units.

    Examples
    --------
    >>> from evenprobe.quantities import VOLTAGE
    >>> from evenprobe.wiring import Terminal
    >>> as_entry(Reading("r", Measurement(VOLTAGE, Terminal.L, Terminal.N), value=119.6))
    {'value': 119.6, 'unit': 'V'}
    """
    if reading.lit:
        return {"value": dict(reading.lit)}
    answer = next((a for a in (reading.alarm, reading.tripped) if a is not None), None)
    if answer is not None:
        return {"value": answer}
    quantity = reading.measurement.quantity
    if quantity.written.seen != "number":
        return {"value": bool(reading.value)}
    numbers = {"value": reading.value, "at_least": reading.at_least, "below": reading.below}
    found: dict[str, Any] = {name: number for name, number in numbers.items() if number is not None}
    if reading.over_range:
        found = {"over_range": True}
    return {**found, "unit": quantity.unit} if quantity.unit in quantity.written.units else found


def typed(reading: Reading) -> str:
    """What is typed of a display, in the unit its quantity is usually written in: more than it shows is >, beyond OL.

    >>> from evenprobe.quantities import INSULATION
    >>> from evenprobe.wiring import Terminal
    >>> typed(Reading("r", Measurement(INSULATION, Terminal.L, Terminal.PE), at_least=2e8))
    '>200'
    """
    unit = next(iter(reading.measurement.quantity.written.units), "")
    if unit not in FACTOR:
        return ""
    if reading.over_range:
        return "OL"
    if reading.value is not None:
        return f"{reading.value / FACTOR[unit]:.6g}"
    return "" if reading.at_least is None else f">{reading.at_least / FACTOR[unit]:.6g}"
