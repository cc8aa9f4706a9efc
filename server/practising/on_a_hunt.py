"""A hunt in a case: where the probes are along it, and what was told of it, by the case's own names of its places."""

from collections.abc import Mapping
from typing import Any

from base.problems import Refused
from evenprobe.entries import parse
from evenprobe.formats import CaseFile
from evenprobe.formats.circuits import circuit_file
from evenprobe.hunting.hidden import Side
from evenprobe.hunting.run import BOARD
from evenprobe.practising import AlongAHunt, Told
from evenprobe.practising.hunted import Hunted
from evenprobe.wiring import Terminal
from hunts.logs import stands
from hunts.models import HuntEvent
from hunts.services import hunt_of
from practising.models import Practised
from practising.sandbox import hunt_id, place_id

_CONDUCTORS = {str(end): end for end in (Terminal.L, Terminal.N, Terminal.PE)}
_FUNCTIONS = ("volts", "ohms")
_SIDES: dict[str, Side] = {"feed": "feed", "onward": "onward"}


def is_on_a_hunt(told: Mapping[str, Any]) -> bool:
    return "hunt" in told


def _hunted_in(file: CaseFile) -> Hunted:
    """Raises Refused where nothing is hunted."""
    if file.hunted is None:
        raise Refused(("entry", "nothing is hunted in this case"))
    return file.hunted


def place_of(practised: Practised, file: CaseFile, told: Mapping[str, Any]) -> str:
    """A place by the case's own name. Raises Refused for what is none."""
    hunted, at = _hunted_in(file), str(told.get("at"))
    name = _names(practised, hunted).get(at, at)
    if name not in hunted.places:
        raise Refused(("entry.at", f"{at!r} is no place of this hunt"))
    return name


def probes_of(practised: Practised, file: CaseFile, told: Mapping[str, Any], opened: frozenset[str]) -> AlongAHunt:
    """Where the probes are. Raises Refused for what cannot be reached.

    `opened`: boxes that are.
    """
    at = place_of(practised, file, told)
    function, side = told.get("function"), _SIDES.get(str(told.get("side") or "onward"))
    if function not in _FUNCTIONS:
        raise Refused(("entry.function", f"must be one of {', '.join(_FUNCTIONS)}"))
    if side is None:
        raise Refused(("entry.side", f"must be one of {', '.join(_SIDES)}"))
    ends = [_CONDUCTORS.get(str(told.get(key))) for key in ("from", "to")]
    if ends[0] is None or ends[1] is None or ends[0] == ends[1]:
        raise Refused(("entry.from", f"put the probes on two of {', '.join(_CONDUCTORS)}"))
    ohms = function == "ohms"
    if ohms and at != BOARD and at not in opened:
        raise Refused(("entry.at", "open the box first"))
    return AlongAHunt(at, (ends[0], ends[1]), side, ohms)


def told_of(practised: Practised, file: CaseFile, testers: Mapping[str, str]) -> list[Told]:
    """What was told of the hunt and stands, in seconds since the case was opened. `testers`: by their ids there."""
    hunted = _hunted_in(file)
    names = _names(practised, hunted)
    hunt = hunt_of(practised.sandbox, hunt_id(practised.pk))
    events = [event for event in stands(hunt.events.all()) if event.kind == HuntEvent.Kind.SEEN]
    content = {**(file.circuit or {}), "seen": [_by_name(event.entry, names) for event in events]}
    looks = parse(circuit_file(content), content).looks  # type: ignore[union-attr]
    return [
        Told(look, (event.at - practised.begun_at).total_seconds(), testers.get(str(event.tester_id), ""))
        for look, event in zip(looks, events, strict=True)
    ]


def _names(practised: Practised, hunted: Hunted) -> dict[str, str]:
    """The case's name of each place, by its id in the sandbox."""
    return {str(place_id(practised.pk, name)): name for name in hunted.places}


def _by_name(entry: Mapping[str, Any], names: Mapping[str, str]) -> dict[str, Any]:
    found: dict[str, Any] = {
        key: names.get(told, told) if isinstance(told, str) else told for key, told in entry.items()
    }
    if isinstance(found.get("onward"), dict):
        found["onward"] = {names.get(key, key): shows for key, shows in found["onward"].items()}
    return found
