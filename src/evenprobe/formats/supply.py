"""A supply as every file writes it: the system, and how it is earthed."""

from typing import Annotated

from pydantic import AfterValidator

from evenprobe.formats.fields import Strict
from evenprobe.supplies import SYSTEMS, Earthing


def _known(system: str) -> str:
    if system not in SYSTEMS:
        raise ValueError(f"unknown supply system {system!r}; use one of {', '.join(SYSTEMS)}")
    return system


SystemId = Annotated[str, AfterValidator(_known)]


class SupplyEntry(Strict):
    system: SystemId
    earthing: Earthing = Earthing.TN_C_S
