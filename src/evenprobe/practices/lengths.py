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


METRE = LengthUnit("m", 1.0)
FOOT = LengthUnit("ft", 0.3048)
