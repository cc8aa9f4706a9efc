"""A proof of isolation as it stands after the work, for what is tried in a browser."""

from crews.models import Crew
from demo.crew import demo_id
from evenprobe.isolation import QUESTIONS
from proofs.services import begin, record_event
from sheets.services import begin as begin_sheet

_PAIRS = (("L", "N"), ("L", "PE"), ("N", "PE"))


def proved_dead(person, *more):
    """Every step done at the outlet's circuit, and what happened since; a sheet is begun on it."""
    crew = Crew.objects.get()
    proof_id, meter = demo_id("t", "proof"), demo_id("t", "t1")
    source = [{"id": "s1", "label": "Warm room board W, 20 A", "kind": "device"}]
    data = {
        "name": "Workshop outlets", "what": "circuit", "terminals": ["L", "N", "PE"], "place": "installation",
        "wet": False, "sources": source, "asked": {str(q.kind): False for q in QUESTIONS},
    }  # fmt: skip
    begin(crew, person, proof_id, demo_id("t", "supply"), demo_id("t", "circuit"), data)
    unit = {"type": "proved", "against": "proving-unit", "shows_v": 239.0}
    tested = [{"type": "tested", "from": a, "to": b, "shows_v": 0.0} for a, b in _PAIRS]
    isolated = [{"type": "off", "source": "s1"}, {"type": "locked", "source": "s1", "lock": "K-07", "tag": True}]
    for number, entry in enumerate((*isolated, unit, *tested, unit, *more)):
        tester = meter if entry["type"] in ("proved", "tested") else None
        record_event(crew, person, proof_id, demo_id("t", f"event {number}"), entry, tester)
    begin_sheet(crew, person, demo_id("t", "sheet"), demo_id("t", "circuit"), None, "ordinary", False, 20.0)
    return proof_id
