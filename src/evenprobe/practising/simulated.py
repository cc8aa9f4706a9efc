"""What the testers of a case show, at any moment and as often as one looks: the same physics that answers outside."""

from dataclasses import replace
from itertools import combinations
from threading import Lock
from zlib import crc32

import numpy as np

from evenprobe.practising.case import Case
from evenprobe.quantities import RESISTANCE, VOLTAGE, Measurement, Quantity, Reading
from evenprobe.quantities.indication import displayed, stepped
from evenprobe.quantities.voltage import DRIFT
from evenprobe.simulation import TesterErrors
from evenprobe.testers import Instrument
from evenprobe.wiring import Terminal
from evenprobe.wiring.circumstances import Device

_BLOWS_FROM_V = 50.0
"""Volts across a tester on ohms or on its insulation range that blow its fuse: the conventional limit of touch voltage
for alternating current (IEC 60364-4-41, 411.5.3)."""
_LEADS_OHM = 0.18
"""Of two leads with their tips together, as they usually are."""
_TO_A_HUNDREDTH = 2


class SteadyErrors(TesterErrors):
    """How far off each tester is, in whatever order it is asked: a gain of its own for every quantity."""

    def __init__(self, seed: int) -> None:
        super().__init__(np.random.default_rng([seed, 1]))
        self._seed = seed

    def gain(self, tester: Instrument, quantity: Quantity) -> float:
        """From -1 to 1 of the percent that it is allowed."""
        own = np.random.default_rng([self._seed, crc32(f"{tester.id} {quantity.id}".encode())])
        return float(own.uniform(-1, 1))


class Simulated:
    """A case that somebody measures at. Several may look at once."""

    def __init__(self, case: Case) -> None:
        self.hidden, _ = case.begun()
        self.other_feed = case.other_feed
        self._errors = SteadyErrors(case.seed)
        self._one_at_a_time = Lock()

    def shows(self, measurement: Measurement, *, device: Device, at: float) -> Reading:
        """What is shown with the circuit's device as it really is, whatever whoever measures says of it.

        `at`: seconds since the case was opened. Raises ValueError for what is no part of the point.
        """
        with self._one_at_a_time:
            return self.hidden.read("shown", replace(measurement, device=device), self._errors, at=at)

    def on_a_known_source(self, tester: Instrument) -> Reading:
        """What a tester shows on a proving unit, or on what is known to be live: nothing, where it is not what it was.

        Raises ValueError for one that shows no volts.
        """
        measurement = Measurement(VOLTAGE, None, None, tester)
        ability = tester.volts()
        if ability is None:
            raise ValueError(f"a {tester.kind} shows no volts")
        volts = 0.0 if tester.proved is False else self.hidden.point.system.nominal_volts
        if tester.kind.stepped:
            return stepped("shown", measurement, volts, self._errors)
        return Reading("shown", measurement, value=displayed(volts, measurement, ability, DRIFT, self._errors))

    def through_leads(self, reading: Reading) -> Reading:
        """The same as the display has it whose leads nobody took off."""
        if reading.value is None or reading.measurement.quantity is not RESISTANCE:
            return reading
        return replace(reading, value=round(reading.value + _LEADS_OHM, _TO_A_HUNDREDTH))

    def tips_together(self, tester: Instrument) -> Reading:
        """What the leads alone show. Raises ValueError for a tester that shows no ohms."""
        if tester.ohms() is None:
            raise ValueError(f"a {tester.kind} shows no ohms")
        return Reading("shown", Measurement(RESISTANCE, None, None, tester), value=_LEADS_OHM)

    def apart(self, measurement: Measurement) -> tuple[float, float]:
        """(constant, share) by which two readings of it must differ to be told apart."""
        return measurement.quantity.apart(measurement, self.hidden.point)

    def blows(self, measurement: Measurement, *, device: Device, at: float) -> bool:
        """Whether it would end the tester: a source of its own put across what is live."""
        if not measurement.quantity.dead or None in (measurement.from_, measurement.to):
            return False
        volts = Measurement(VOLTAGE, measurement.from_, measurement.to)
        return (self.shows(volts, device=device, at=at).value or 0.0) > _BLOWS_FROM_V

    def is_live(self, *, device: Device, at: float) -> bool:
        """Whether a hand on any two of the contacts would feel it."""
        contacts = self.hidden.point.terminals
        pairs = combinations(dict.fromkeys([*contacts, Terminal.REF]), 2)
        shown = (self.shows(Measurement(VOLTAGE, *pair), device=device, at=at) for pair in pairs)
        return any((reading.value or 0.0) > _BLOWS_FROM_V for reading in shown)
