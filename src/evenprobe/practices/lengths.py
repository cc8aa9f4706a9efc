"""Lengths as a practice writes them. The foot is 0.3048 m exactly (NIST SP 811, B.8)."""

from dataclasses import dataclass
from typing import Literal


@dataclass(frozen=True)
class LengthUnit:
    """`metres`: of one."""

    sign: Literal["m", "ft"]
    metres: float

    def said(self, metres: float) -> str:
        """A length in words, with metres beside what is not metres.

        Parameters
        ----------
        metres : float

        Returns
        -------
        str

        Examples
        --------
        >>> FOOT.said(18.0), METRE.said(18.0)
        ('59 ft (18 m)', '18 m')
        """
        if self is METRE:
            return f"{metres:g} m"
        return f"{metres / self.metres:.0f} {self.sign} ({metres:g} m)"

    def between(self, one: float, other: float) -> str:
        """Two places in words, as they stand after `between`.

        Parameters
        ----------
        one, other : float
            Metres.

        Returns
        -------
        str

        Examples
        --------
        >>> FOOT.between(4.0, 6.0), METRE.between(4.0, 6.0)
        ('13 and 20 ft (4 and 6 m)', '4 and 6 m')
        """
        in_metres = f"{one:g} and {other:g} m"
        if self is METRE:
            return in_metres
        return f"{one / self.metres:.0f} and {other / self.metres:.0f} {self.sign} ({in_metres})"


METRE = LengthUnit("m", 1.0)
FOOT = LengthUnit("ft", 0.3048)
