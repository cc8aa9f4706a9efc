"""The circuit file: a run, a chain or a board on which something is hunted, and what was seen so far."""

from collections.abc import Mapping
from typing import Any

from evenprobe.entries import FormatError
from evenprobe.formats.circuits.board import MapFile
from evenprobe.formats.circuits.chain import ChainFile
from evenprobe.formats.circuits.guided import GuidedFile, ProtectiveOutletFile, TingleFile, TrippedFile
from evenprobe.formats.circuits.run import OpenFile, PoorJointFile, ShortFile

CircuitFile = (
    ShortFile | OpenFile | PoorJointFile | ChainFile | MapFile | TrippedFile | ProtectiveOutletFile | TingleFile
)

_BY_HUNT: dict[str, type[CircuitFile]] = {
    "short": ShortFile,
    "open": OpenFile,
    "poor-joint": PoorJointFile,
    "chain": ChainFile,
    "map": MapFile,
    "tripped-device": TrippedFile,
    "protective-outlet": ProtectiveOutletFile,
    "tingle": TingleFile,
}


def circuit_file(content: Any) -> type[CircuitFile]:
    """The model of a circuit file, by what it hunts.

    Parameters
    ----------
    content
        Of the file.

    Returns
    -------
    type
        The model that reads it.

    Raises
    ------
    FormatError
        Where it does not say what is hunted.

    Examples
    --------
    >>> circuit_file({"hunt": "map"}).__name__
    'MapFile'
    """
    if not isinstance(content, Mapping):
        raise FormatError([("", "a circuit file is one object")])
    hunt = content.get("hunt")
    if not isinstance(hunt, str) or hunt not in _BY_HUNT:
        said = "is missing" if hunt is None else f"{hunt!r} is nothing that is hunted"
        raise FormatError([("hunt", f"{said}; use one of {', '.join(_BY_HUNT)}")])
    return _BY_HUNT[hunt]


__all__ = [
    "ChainFile",
    "CircuitFile",
    "GuidedFile",
    "MapFile",
    "OpenFile",
    "PoorJointFile",
    "ProtectiveOutletFile",
    "ShortFile",
    "circuit_file",
]
