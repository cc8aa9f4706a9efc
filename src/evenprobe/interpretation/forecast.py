"""What each pair would show under one condition: the model forwards over the samples."""

from dataclasses import dataclass

import numpy as np

from evenprobe.installation.modes import AS_FOUND
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.quantities import VOLTAGE, Measurement
from evenprobe.quantities.lamps import LAMP_DARK_SHARE, LAMP_LIT_SHARE, LAMPS, lamp_of, lamps_on
from evenprobe.testers import TYPED
from evenprobe.wiring import Terminal, contact_pairs

LOW_PERCENTILE, HIGH_PERCENTILE = 2, 98


@dataclass(frozen=True)
class PairForecast:
    """Volts, 2nd to 98th percentile, at the two inputs of a multimeter."""

    from_: Terminal
    to: Terminal
    high_z: tuple[float, float]
    low_z: tuple[float, float]


@dataclass(frozen=True)
class Forecast:
    """`lamps`: True certainly lit, False certainly dark, None either."""

    condition: str
    pairs: tuple[PairForecast, ...]
    lamps: dict[str, bool | None]


def forecast(ensemble: Ensemble, condition_id: str) -> Forecast:
    """What each pair of contacts would show under one condition.

    Parameters
    ----------
    ensemble : Ensemble
        Of the point.
    condition_id : str
        As `earth-open`.

    Returns
    -------
    Forecast
        Volts at a high and at a low impedance, and which lamps would be lit.

    Raises
    ------
    KeyError
        Where the condition cannot be true at the point.

    Examples
    --------
    >>> from evenprobe.practices import BRITISH
    >>> from evenprobe.supplies import SYSTEMS, Earthing
    >>> from evenprobe.wiring import PointFacts, PointKind, Terminal
    >>> contacts = (Terminal.L, Terminal.N, Terminal.PE)
    >>> outlet = PointFacts(BRITISH, SYSTEMS["230"], Earthing.TN_S, PointKind.OUTLET, contacts)
    >>> from evenprobe.interpretation import ensemble_for
    >>> forecast(ensemble_for(outlet), "correct").lamps["L-N"]
    True
    """
    rows = {c.id: block for c, block in ensemble.blocks}[condition_id]
    terminals = ensemble.point.terminals
    pairs = [*contact_pairs(terminals), *((t, Terminal.REF) for t in terminals if t is not Terminal.REF)]

    def span(a: Terminal, b: Terminal, low_z: bool) -> tuple[float, float]:
        measurement = Measurement(VOLTAGE, a, b, TYPED, "low-z" if low_z else "high-z")
        low, high = np.percentile(ensemble.predicted(measurement)[rows], [LOW_PERCENTILE, HIGH_PERCENTILE])
        return float(low), float(high)

    nominal = ensemble.point.system.nominal_volts
    lamps: dict[str, bool | None] = {}
    solved = ensemble.solved(AS_FOUND)
    for lamp in lamps_on(ensemble.point):
        low, high = np.percentile(
            LAMPS.shown(lamp_of(lamp), solved, ensemble.point)[rows] / nominal, [LOW_PERCENTILE, HIGH_PERCENTILE]
        )
        lamps[lamp] = True if low >= LAMP_LIT_SHARE else False if high <= LAMP_DARK_SHARE else None
    return Forecast(
        condition_id,
        tuple(PairForecast(a, b, span(a, b, False), span(a, b, True)) for a, b in pairs),
        lamps,
    )
