"""What each limit is called where it is listed beside others: on a report, in a table."""

from collections.abc import Mapping

_TITLES: Mapping[str, str] = {
    "voltage.band": "Voltage at the point of use",
    "voltage.drop": "Voltage lost under load",
    "touch.limit": "Touch voltage, AC",
    "touch.limit.dc": "Touch voltage, DC",
    "n-pe.unloaded": "{neutral} to {earth} without load",
    "leg.match": "Difference between two {line}s",
    "frequency.band": "Frequency",
    "continuity.bond": "Continuity of a conductor",
    "continuity.separate": "Separation of conductors",
    "continuity.closed-contact": "Closed contact",
    "insulation.least": "Insulation resistance",
    "insulation.watch": "Insulation resistance, worth a note below it",
    "insulation.absorption": "Absorption ratio",
    "insulation.polarisation": "Polarisation index",
    "leads.null": "Resistance of the leads",
    "residual-current.time": "Trip time of the {rcd}",
    "residual-current.no-trip": "{rcd} at half its rated current",
    "ring.outlet": "Ring, outlet by outlet",
    "load.rating": "Load against the {device}",
    "start-up current": "Start-up current against the {device}",
    "load.continuous": "Load of three hours and more",
    "capacitor.tolerance": "Capacitor against its print",
    "battery.at-rest": "Battery at rest",
    "coil.pull-in": "Coil, pull-in voltage",
    "coil.drop-out": "Coil, drop-out voltage",
    "element.resistance": "Heating element",
    "filament.resistance": "Filament",
    "panels.open-circuit": "Panels, open circuit",
    "sensor.difference": "Temperature sensor",
}


def title_of(limit: str) -> str:
    """What a limit is called, with the practice's words in braces; one without a title by its id in words.

    Examples
    --------
    >>> title_of("touch.limit"), title_of("of-a.crew")
    ('Touch voltage, AC', 'Of a crew')
    """
    return _TITLES.get(limit) or limit.replace(".", " ").replace("-", " ").capitalize()
