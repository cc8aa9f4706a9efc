"""What is hunted in a case: a circuit file without what was seen, and where in it the fault is."""

from collections.abc import Callable, Mapping
from typing import Any

from evenprobe.entries import FieldError, FormatError, parse
from evenprobe.formats.circuits import ChainFile, CircuitFile, OpenFile, ShortFile, circuit_file
from evenprobe.hunting.intake import Conductor
from evenprobe.hunting.run import Place, Run
from evenprobe.practising.hunted import Hunted, HuntedAlongARun, HuntedChain, HuntedOpen, HuntedShort

Where = tuple[str, bool, Conductor]
"""The box or element, whether it is in the cable to it, and the conductor."""


_A_LINE = Run([])


def hunted_along(content: Mapping[str, Any], at: str | None, in_the_cable: bool, conductor: Conductor) -> Hunted:
    """What is hunted along a circuit file, with where the fault is.

    Parameters
    ----------
    content : mapping
        Of the circuit file.
    at : str or None
        The box or the element that is at fault.
    in_the_cable : bool
        Whether it is the cable to that box.
    conductor : str
        That is open, where one is.

    Returns
    -------
    Hunted

    Raises
    ------
    FieldError
        By the keys of the case file.

    Examples
    --------
    >>> chain = {"format": "even-probe/circuit", "version": 1, "practice": "continental", "hunt": "chain",
    ...          "supply_v": 230.0, "elements": [{"id": "fuse", "kind": "fuse"}, {"id": "stop"}]}
    >>> hunted_along(chain, "stop", False, "L").truth
    'stop'
    """
    try:
        file = parse(circuit_file(content), dict(content))
    except FormatError as error:
        path, text = error.problems[0]
        raise FieldError(f"circuit.{path}" if path else "circuit", text) from None
    make = _MADE.get(type(file))
    if make is None:
        raise FieldError("circuit.hunt", "is not simulated; a short, an open and a chain are")
    if getattr(file, "seen", None):
        raise FieldError("circuit.seen", "a case begins with nothing seen")
    if not getattr(file, "run", _A_LINE).is_line:
        raise FieldError("circuit.points", "branch; a case is along one line")
    if at is None:
        raise FieldError("hidden.at", "is missing: which box or element is at fault")
    found = make(file, (at, in_the_cable, conductor))
    if isinstance(found, HuntedAlongARun) and len(found.suspects) < len(found.run.places):
        raise FieldError("circuit.points", "has a box that is called as the cable to another: `to ` and its name")
    if found.truth not in found.suspects:
        raise FieldError("hidden.at", f"{at!r} is none of the places in it")
    return found


def _short(file: Any, where: Where) -> Hunted:
    nominal = file.practice.systems[0].nominal_volts
    return HuntedShort(file.run, Place(where[0], where[1]), nominal, file.ohm_per_m, file.between or ("L", "PE"))


def _open(file: Any, where: Where) -> Hunted:
    nominal = file.practice.systems[0].nominal_volts
    return HuntedOpen(file.run, Place(where[0], where[1]), nominal, file.ohm_per_m, where[2], file.probe_minutes)


def _chain(file: Any, where: Where) -> Hunted:
    at, in_the_cable, _ = where
    if in_the_cable:
        raise FieldError("hidden.in_the_cable", "is of a run of boxes; a chain has elements")
    return HuntedChain(file.chain, at, file.supply_v)


_MADE: dict[type[CircuitFile], Callable[[Any, Where], Hunted]] = {
    ShortFile: _short,
    OpenFile: _open,
    ChainFile: _chain,
}
