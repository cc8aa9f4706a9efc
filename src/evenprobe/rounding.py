"""Numbers rounded for reading: volts to 0.1, the rest to so many figures."""

_OHMS = ((1e6, "MΩ"), (1e3, "kΩ"))


def figures(value: float, digits: int = 3) -> float:
    return float(f"{value:.{digits}g}")


def ohms_said(ohm: float) -> str:
    """Ohms as people say them, to two figures.

    Examples
    --------
    >>> ohms_said(0.413), ohms_said(12.0), ohms_said(3000.0), ohms_said(260_000.0), ohms_said(1.2e6)
    ('0.41 Ω', '12 Ω', '3 kΩ', '260 kΩ', '1.2 MΩ')
    """
    shown = figures(ohm, 2)
    factor, unit = next(((f, u) for f, u in _OHMS if shown >= f), (1.0, "Ω"))
    return f"{shown / factor:g} {unit}"


def rounded(value: float, unit: str) -> float:
    return round(value, 1) if unit == "V" else figures(value)
