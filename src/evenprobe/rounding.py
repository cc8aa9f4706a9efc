"""Numbers rounded for reading: volts to 0.1, the rest to so many figures."""


def figures(value: float, digits: int = 3) -> float:
    return float(f"{value:.{digits}g}")


def rounded(value: float, unit: str) -> float:
    return round(value, 1) if unit == "V" else figures(value)
