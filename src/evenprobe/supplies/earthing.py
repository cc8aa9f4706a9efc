"""How a source and the exposed metalwork are joined to the mass of earth (IEC 60364-1, 312.2)."""

from enum import StrEnum


class Earthing(StrEnum):
    """Second letter group: how metalwork is earthed. First: how the source is."""

    TN_S = "TN-S"
    """Neutral earthed at the source; a protective conductor of its own runs back to it."""
    TN_C_S = "TN-C-S"
    """Neutral and earth are one conductor up to the origin and are joined there, once."""
    TT = "TT"
    """Neutral earthed at the source; metalwork has its own electrode, tens of ohms."""
    IT = "IT"
    """Nothing joined. Never assumed: a record must say it."""
