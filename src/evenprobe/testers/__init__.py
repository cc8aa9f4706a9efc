"""Testers: their kinds and errors, what one shows between two points, and what a reading of one may count for."""

from evenprobe.testers.evidence import Alarm, Direct, Evidence, Kept, at_odds, confining, in_order
from evenprobe.testers.instruments import KINDS, TYPED, Instrument, InstrumentKind
from evenprobe.testers.measurement import Device, Input, Measurement, Quantity, Reading
from evenprobe.testers.showing import (
    follows_source,
    lamp_slopes,
    lamp_volts,
    lamps_on,
    phasor,
    port_of,
    potential,
    shown,
    slopes,
)
from evenprobe.testers.weighing import weigh

__all__ = [
    "KINDS",
    "TYPED",
    "Alarm",
    "Device",
    "Direct",
    "Evidence",
    "Input",
    "Instrument",
    "InstrumentKind",
    "Kept",
    "Measurement",
    "Quantity",
    "Reading",
    "at_odds",
    "confining",
    "follows_source",
    "in_order",
    "lamp_slopes",
    "lamp_volts",
    "lamps_on",
    "phasor",
    "port_of",
    "potential",
    "shown",
    "slopes",
    "weigh",
]
