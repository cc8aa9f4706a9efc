"""A supply as every file writes it: the system, and how it is earthed."""

from evenprobe.entries import Strict, SystemId
from evenprobe.supplies import Earthing


class SupplyEntry(Strict):
    system: SystemId
    earthing: Earthing = Earthing.TN_C_S
