"""What the testers of a case show, at any moment and as often as one looks: the same physics that answers outside."""

from dataclasses import dataclass, replace
from itertools import combinations
from math import inf
from threading import Lock
from zlib import crc32

import numpy as np

from evenprobe.hunting.hidden import Side
from evenprobe.practising.case import Case
from evenprobe.practising.hunted import Hunted
from evenprobe.quantities import RESISTANCE, VOLTAGE, Measurement, Quantity, Reading
from evenprobe.quantities.resistance import ohms_displayed
from evenprobe.quantities.voltage import volts_displayed
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
_IN_ORDER = [Terminal.L, Terminal.N, Terminal.PE]


@dataclass(frozen=True)
class AlongAHunt:
    """Where two probes are along what is hunted: at a box or a joint, of a box that is taken apart on one side."""

    at: str
    ends: tuple[Terminal, Terminal]
    side: Side = "onward"
    ohms: bool = False

    @property
    def pair(self) -> str:
        """As a circuit file has it."""
        return "-".join(end for end in _IN_ORDER if end in self.ends)


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
        self._along = case.hunted
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
        volts = 0.0 if tester.proved is False else self.hidden.point.system.nominal_volts
        return volts_displayed("shown", measurement, volts, self._errors)

    def along(self, probes: AlongAHunt, tester: Instrument, *, device: Device) -> Reading:
        """What is shown along what is hunted. Raises ValueError for what cannot be measured there."""
        hunted = self._hunted
        measurement = Measurement(RESISTANCE if probes.ohms else VOLTAGE, *probes.ends, tester, device=device)
        if probes.ohms:
            joined = None if tester.proved is False else hunted.ohm(probes.at, probes.side, probes.pair)
            return ohms_displayed("shown", measurement, inf if joined is None else joined, self._errors)
        is_dark = device == "open" or tester.proved is False
        volts = 0.0 if is_dark else hunted.volts(probes.at, probes.pair)
        return volts_displayed("shown", measurement, volts, self._errors)

    def blows_along(self, probes: AlongAHunt, *, device: Device) -> bool:
        """Whether it would end the tester."""
        return probes.ohms and device == "closed" and self._hunted.volts(probes.at, probes.pair) > _BLOWS_FROM_V

    @property
    def _hunted(self) -> Hunted:
        if self._along is None:
            raise ValueError("nothing is hunted in this case")
        return self._along

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
