"""Conductor sizes and their resistance at 20 °C.

mm²: IEC 60228, copper class 1 and 2. AWG: diameters of ASTM B258 with annealed copper (IEC 60028).
Aluminium of the same size: by the ratio of the two metals' resistivities.
"""

import re
from dataclasses import dataclass
from typing import Literal

Material = Literal["copper", "aluminium"]

_TEMPERATURE_COEFFICIENT: dict[Material, float] = {"copper": 0.00393, "aluminium": 0.00403}
"""Per kelvin from 20 °C (IEC 60028, IEC 60889)."""
_OVER_COPPER: dict[Material, float] = {"copper": 1.0, "aluminium": 28.264 / 17.241}
"""Resistivity over that of annealed copper: 28.264 nΩ·m (IEC 60889) and 17.241 nΩ·m (IEC 60028)."""


@dataclass(frozen=True)
class Conductor:
    """`ohm_per_m` of copper at 20 °C."""

    name: str
    ohm_per_m: float

    def ohms(self, length_m: float, temperature_c: float = 20.0, material: Material = "copper") -> float:
        """Resistance of one conductor of that length, in ohms."""
        return (
            self.ohm_per_m
            * _OVER_COPPER[material]
            * length_m
            * (1 + _TEMPERATURE_COEFFICIENT[material] * (temperature_c - 20))
        )


_MILLIOHMS_PER_METRE = {
    "1.0 mm2": 18.10, "1.5 mm2": 12.10, "2.5 mm2": 7.41, "4 mm2": 4.61, "6 mm2": 3.08, "10 mm2": 1.83,
    "16 mm2": 1.15, "25 mm2": 0.727, "35 mm2": 0.524, "50 mm2": 0.387,
    "14 AWG": 8.282, "12 AWG": 5.211, "10 AWG": 3.277, "8 AWG": 2.061, "6 AWG": 1.296, "4 AWG": 0.8152,
    "2 AWG": 0.5127, "1/0 AWG": 0.3224,
}  # fmt: skip

CONDUCTORS: dict[str, Conductor] = {n: Conductor(n, r / 1000) for n, r in _MILLIOHMS_PER_METRE.items()}


def conductor_named(text: str) -> Conductor:
    """The conductor of a size written as in the trade.

    Parameters
    ----------
    text : str
        As `12 AWG`, `2.5 mm2` or `2,5 mm²`.

    Returns
    -------
    Conductor
        With its resistance, ohms a metre.

    Raises
    ------
    ValueError
        Naming the sizes there are.

    Examples
    --------
    >>> conductor_named("2,5 mm²").name
    '2.5 mm2'
    """
    plain = re.sub(r"\s+", "", text).replace(",", ".").replace("²", "2").lower()
    for name, conductor in CONDUCTORS.items():
        size, unit = name.lower().split()
        if plain in {size + unit, size.removesuffix(".0") + unit}:
            return conductor
    raise ValueError(f"unknown conductor {text!r}; use one of {', '.join(CONDUCTORS)}")
