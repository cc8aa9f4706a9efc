"""How far along the run a known load elsewhere has to be, so that what it takes off a reading can be told at all.

Ohm's law: the conductors between the board and the load carry it, and lose its amperes times their ohms. A load next to
the board loses nothing, wherever the point is; one beyond where the run comes here loses no more than one here.
"""

from math import ceil

from evenprobe.quantities.measurement import Measurement
from evenprobe.quantities.probes import load_between
from evenprobe.wiring import PointFacts

_USUAL_M = 30.0
"""Length of a run that nobody recorded."""


def least_metres(measurement: Measurement, point: PointFacts) -> float | None:
    """Metres along the run from which on a known load elsewhere tells something; None where it never does here.

    Parameters
    ----------
    measurement : Measurement
        With a known load elsewhere.
    point : PointFacts
        Where it is taken.

    Returns
    -------
    float or None
        Whole metres.
    """
    carrying = len(set(load_between(measurement, point)) & measurement.ends)
    if measurement.from_ is None or measurement.to is None or not carrying:
        return None
    constant, share = measurement.quantity.apart(measurement, point)
    told = constant + share * point.volts_between(measurement.from_, measurement.to)
    circuit = point.circuit
    ohm_per_m = circuit.conductor.ohm_per_m if circuit.conductor else point.practice.final_ohm_per_m[0]
    metres = ceil(told / ((measurement.load_elsewhere_a or 0.0) * ohm_per_m * carrying))
    return metres if metres <= (circuit.length_m or _USUAL_M) else None
