"""A hunt's events as the circuit file they come to; what is made of it is the core's."""

from collections.abc import Iterable
from typing import Any

from evenprobe.formats import CircuitFile, circuit_file, parse
from evenprobe.hunting.findings import HuntState
from evenprobe.hunting.intake import HAPPENED, HUNTED, MARKS
from evenprobe.hunting.run import BOARD
from hunts.models import Hunt, HuntEvent

MENDED, CLOSED = "mended", "closed"
"""How far people say a hunt is, beside what was found."""


def stands(events: Iterable[HuntEvent]) -> list[HuntEvent]:
    """What was not taken back."""
    events = list(events)
    back = {e.entry["event"] for e in events if e.kind == HuntEvent.Kind.TAKEN_BACK}
    return [e for e in events if e.kind != HuntEvent.Kind.TAKEN_BACK and str(e.id) not in back]


def state_of(hunt: Hunt, standing: Iterable[HuntEvent], found: HuntState) -> str:
    """How far it is: what was found, and what people told after what was seen last; what is seen then opens it again.

    What has to stay open does so, whatever somebody says, until a reading explains it.
    """
    standing = list(standing)
    seen = [number for number, event in enumerate(standing) if event.kind == HuntEvent.Kind.SEEN]
    since = {event.kind for event in standing[max(seen, default=-1) + 1 :]}
    happened = HAPPENED.get(hunt.happened)
    stays = happened is not None and happened.stays_open and found is not HuntState.FOUND
    if HuntEvent.Kind.CLOSED in since and not stays:
        return CLOSED
    return MENDED if HuntEvent.Kind.MENDED in since else str(found)


def content_of(hunt: Hunt, standing: Iterable[HuntEvent]) -> dict[str, Any]:
    """The circuit file of it."""
    standing = list(standing)
    seen = [e.entry for e in standing if e.kind == HuntEvent.Kind.SEEN]
    return {
        "format": "even-probe/circuit",
        "version": 1,
        "practice": hunt.site.practice,
        "hunt": hunt.kind,
        **hunt.layout,
        **(_on_the_run(hunt, standing, seen) if HUNTED[hunt.kind].along == "run" else {}),
        "seen": seen,
    }


def _on_the_run(hunt: Hunt, standing: Iterable[HuntEvent], seen: list[dict[str, Any]]) -> dict[str, Any]:
    marks = {e.entry["point"]: e.entry for e in standing if e.kind == HuntEvent.Kind.MARKED}
    return {
        "points": [_marked(point, marks.get(point["id"])) for point in hunt.layout["points"]],
        "standing_at": seen[-1].get("at", BOARD) if seen else BOARD,
    }


def _marked(point: dict[str, Any], entry: dict[str, Any] | None) -> dict[str, Any]:
    """`entry`: what makes the box or the cable to it suspect; the last that was said of the point."""
    if entry is None:
        return point
    found = {**point, "hidden": entry.get("hidden", point.get("hidden", False))}
    for key, said in (("suspicion", "box"), ("stretch_suspicion", "cable")):
        if said in entry:
            found[key] = MARKS[entry[said]].factor
    return found


def file_of(content: dict[str, Any]) -> CircuitFile:
    """Raises FormatError for what cannot be."""
    return parse(circuit_file(content), content)
