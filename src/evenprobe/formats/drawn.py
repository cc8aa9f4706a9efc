"""Cases without end: one drawn by step and seed, the same for whoever says the same two numbers.

What is hidden is drawn by how usual it is. It is solved when few enough are left, or as few as what is at hand can
tell, so that none has to be played first.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from evenprobe.entries import FormatError, parse
from evenprobe.formats.case import AT_MOST, MINUTES, CaseFile
from evenprobe.formats.complaints import NO_COMPLAINT, complaints_of
from evenprobe.formats.drawn_hunt import hunt_drawn

HIGHEST_SEED = 2**31
_EVENED = 0.25
"""Priors to this power: what is rare outside is worth meeting here."""
_PLAIN = frozenset({"correct", "no-supply", "open-line", "open-neutral", "open-earth", "line-neutral-swapped"})
"""What three voltages tell, for the first step."""


@dataclass(frozen=True)
class _Place:
    """Where it is: of a practice and a supply, with contacts and a circuit."""

    practice: str
    system: str
    earthing: str
    terminals: tuple[str, ...]
    rating_a: float
    conductor: str
    label: str

    def installation(self, length_m: int, instruments: Sequence[Mapping[str, Any]]) -> dict[str, Any]:
        """Its survey without readings."""
        return {
            "format": "even-probe/survey",
            "version": 1,
            "practice": self.practice,
            "supply": {"system": self.system, "earthing": self.earthing},
            "instruments": list(instruments),
            "points": [
                {
                    "id": "point",
                    "kind": "outlet",
                    "label": self.label,
                    "terminals": list(self.terminals),
                    "circuit": {"rating_a": self.rating_a, "conductor": self.conductor, "length_m": length_m},
                }
            ],
        }


_ONE, _TWO, _THREE = ("L", "N", "PE"), ("L1", "L2", "N", "PE"), ("L1", "L2", "L3", "N", "PE")
ONE_LINE = (
    _Place("north-america", "120", "TN-C-S", _ONE, 20, "12 AWG", "workshop outlet"),
    _Place("continental", "230", "TN-S", _ONE, 16, "2.5 mm2", "dye room socket"),
    _Place("british", "230", "TN-C-S", _ONE, 20, "2.5 mm2", "hall kitchen socket"),
)
_SEVERAL_LINES = (
    _Place("north-america", "120/240", "TN-C-S", _TWO, 30, "10 AWG", "warm room heater outlet"),
    _Place("continental", "230/400", "TN-S", _THREE, 32, "6 mm2", "loom outlet"),
)
_PLACES: dict[int, tuple[_Place, ...]] = {
    1: ONE_LINE, 2: ONE_LINE, 3: _SEVERAL_LINES, 4: (*ONE_LINE, *_SEVERAL_LINES),
}  # fmt: skip

_RATED = {"category": "III", "rated_v": 600}
_METER = {"id": "meter", "kind": "multimeter", "proved": True, **_RATED}
_KITS: dict[int, tuple[dict[str, Any], ...]] = {
    1: (_METER,),
    2: ({"id": "plug tester", "kind": "lamp-tester", "proved": True, **_RATED}, _METER),
    3: (_METER, {"id": "low-ohm", "kind": "low-ohm", "proved": True, **_RATED}),
    4: ({"id": "old meter", "kind": "multimeter", "proved": False}, _METER),
}

_TO_HUNT_WITH = (_METER, {"id": "two-pole", "kind": "two-pole", "proved": True, **_RATED, "battery": "ok"})
_HUNTS_FROM, _HUNTS_SHARE = 3, 0.35
"""From which step on so many of them are hunts."""


def drawn(step: int, seed: int) -> CaseFile:
    """A case drawn.

    Parameters
    ----------
    step : int
        How hard, from 1 to 4.
    seed : int
        Which of them.

    Returns
    -------
    CaseFile
        The same for the same step and seed.

    Raises
    ------
    FormatError
        For a step or a seed that there is not.

    Examples
    --------
    >>> case = drawn(1, 7)
    >>> case.step, case == drawn(1, 7)
    (1, True)
    """
    if step not in _PLACES:
        raise FormatError([("step", f"must be one of {', '.join(map(str, _PLACES))}")])
    if not 0 <= seed <= HIGHEST_SEED:
        raise FormatError([("seed", f"must be from 0 to {HIGHEST_SEED}")])
    rng = np.random.default_rng([step, seed])
    place = _PLACES[step][int(rng.integers(len(_PLACES[step])))]
    data: dict[str, Any] = {
        "format": "even-probe/case",
        "version": 1,
        "title": f"Drawn {step}/{seed}",
        "step": step,
        "complaint": NO_COMPLAINT,
        "installation": place.installation(int(rng.integers(8, 40)), _KITS[step]),
        "hidden": {"condition": "correct", "seed": int(rng.integers(2**31))},
        "solved": {"at_most": AT_MOST},
        "minutes": MINUTES[step],
    }
    if step >= _HUNTS_FROM and rng.random() < _HUNTS_SHARE:
        where = ONE_LINE[int(rng.integers(len(ONE_LINE)))]
        installation = where.installation(int(rng.integers(5, 15)), _TO_HUNT_WITH)
        return parse(CaseFile, {**data, "installation": installation, **hunt_drawn(rng, installation)})
    possible = [c for c in parse(CaseFile, data).conditions() if step > 1 or c.id in _PLAIN]
    weights = np.array([c.prior for c in possible]) ** _EVENED
    truth = possible[int(rng.choice(len(possible), p=weights / weights.sum()))]
    data["hidden"]["condition"] = truth.id
    heard = complaints_of(truth)
    data["complaint"] = heard[int(rng.integers(len(heard)))]
    return parse(CaseFile, data)
