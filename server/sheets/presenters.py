"""A sheet as the front end shows it: every judgement, bar and chart made by the core."""

from typing import Any

from django.utils import timezone

from crews.services import Author, name_of
from evenprobe.deadtests import Outcome
from evenprobe.deadtests.energising import MAY_BE_LEFT, SHORTEST_REASON, STATEMENTS, Taken, in_the_way, steps_done
from evenprobe.deadtests.kinds import DEAD_TESTS
from evenprobe.deadtests.result_bar import result_bar
from evenprobe.deadtests.sheet import LOOK_FOR, STEPS, Line, before_harm
from evenprobe.formats import InstrumentEntry
from evenprobe.formats.answers import OutcomeOut
from evenprobe.rounding import figures
from evenprobe.supplies import SYSTEMS
from evenprobe.testers.purposes import Purpose
from kit.hands import in_hands
from proofs.logs import state_of
from proofs.models import Proof
from sheets.completing import outcome_of, why_unfit
from sheets.models import Sheet, SheetEntry
from sheets.pictures import history_out, ring_out
from sheets.records import SheetView, locks_of
from sheets.words import in_words, null_says

WIRING_TITLES = {
    "ordinary": "Ordinary wiring",
    "surge-protected": "Surge protection or electronics that stay in",
    "selv": "Extra-low voltage",
    "equipment-250": "Equipment rated 250 V, acceptance",
    "equipment-600": "Equipment rated 600 V, acceptance",
}
SHOWN_FIGURES = 4


def sheet_out(sheet: Sheet, user: Author) -> dict[str, Any]:
    view = SheetView(sheet)
    record, circuit = view.record, view.circuit
    now = timezone.now()
    dead = view.dead(now)
    done = steps_done(record)
    return {
        "id": sheet.id,
        "site": {"id": view.site.id, "name": view.site.name},
        "circuit": {"id": sheet.circuit.id, "name": sheet.circuit.name},
        "board": sheet.circuit.board.name,
        "practice": view.practice,
        "system_title": SYSTEMS[view.system].title,
        "wiring": sheet.wiring,
        "wiring_why": circuit.rule.why,
        "test_v": circuit.rule.test_volts,
        "ring": sheet.ring,
        "temperature_c": sheet.temperature_c,
        "begun_at": sheet.begun_at,
        "by": sheet.by_name,
        "dead": dead,
        "proof": _proof_out(view.proof),
        "loads": view.loads["loads"] if view.loads else None,
        "neutral": view.loads["neutral"] if view.loads else None,
        "null_ohm": view.null_ohm,
        "null_says": null_says(view.null_ohm),
        "holds_s": _holds(view),
        "steps": [
            {
                "id": step,
                "title": words.title,
                "how": words.how,
                "done": done[step],
                "warnings": list(before_harm(step, dead=dead, loads_out=record.loads_out, rule=circuit.rule)),
            }
            for step, words in STEPS.items()
        ],
        "look": _look_out(view),
        "lines": [_line_out(view, line) for line in view.lines_with_history],
        "others": [_taken_out(e, view.taken_by(e)) for e in view.of("tested") if not e.entry.get("line")],
        "gate": _gate_out(view, user),
        "ring_bars": ring_out(view),
        "history": history_out(view),
        "testers": _testers_out(view),
        "points": [{"id": str(p.id), "title": p.name} for p in sheet.circuit.points.all()],
        "entries": [_entry_out(view, e) for e in view.entries],
    }


def _holds(view: SheetView) -> float | None:
    held = [taken.outcome.computed.get("holds_s") for taken in view.taken.values()]
    longest = max((seconds for seconds in held if seconds is not None), default=None)
    return None if longest is None else figures(longest, 2)


def judged_out(
    view: SheetView | None, test: dict[str, Any], held: InstrumentEntry | None, outcome: Outcome | None = None
) -> dict[str, Any]:
    """A test and what it comes to. Of a sheet: also why it could clear nothing now."""
    doubt = ""
    if view is not None:
        outcome = outcome_of(view.practice, test)
        now = timezone.now()
        as_kept = held.model_dump(mode="json", exclude_none=True, exclude={"id"}) if held else None
        unfit = why_unfit(view.practice, view.system, test, as_kept, now)
        doubt = Taken(outcome, view.dead(now), unfit, believed=True).in_doubt
    assert outcome is not None
    bar = result_bar(outcome)
    return {
        "test": test,
        "shown": DEAD_TESTS[test["kind"]].shown(test),
        "outcome": OutcomeOut.of(outcome),
        "bar": bar and {"passes": bar.passes, "at": bar.at, "reads": bar.reads, "expected": bar.expected},
        "doubt": doubt,
    }


def _taken_out(entry: SheetEntry, taken: Taken) -> dict[str, Any]:
    return {
        **judged_out(None, entry.entry["test"], None, taken.outcome),
        "doubt": taken.in_doubt,
        "id": entry.id,
        "at": entry.at,
        "by": entry.by_name,
        "tester": entry.tester_id,
        "tester_label": str(entry.tester) if entry.tester else "",
        "believed": taken.believed,
    }


def _line_out(view: SheetView, line: Line) -> dict[str, Any]:
    entry = view.tests.get(line.id)
    made = [e for e in view.of("tested") if e.entry.get("line") == line.id]
    return {
        "id": line.id,
        "step": line.step,
        "kind": line.kind,
        "title": line.title,
        "why": line.why,
        "preset": dict(line.preset),
        "taken": _taken_out(entry, view.taken[line.id]) if entry else None,
        "earlier": max(0, len(made) - 1),
        "left": view.record.left.get(line.id, ""),
        "may_be_left": line.step in MAY_BE_LEFT,
    }


def _look_out(view: SheetView) -> list[dict[str, Any]]:
    seen = {e.entry["item"]: e for e in view.of("looked")}
    found = []
    for item in LOOK_FOR:
        entry = seen.get(item.id)
        content = entry.entry if entry else {}
        found.append(
            {
                "id": item.id,
                "title": item.title,
                "good": content.get("good"),
                "entry": entry.id if entry else None,
                "photo": content.get("photo"),
                "note": content.get("note", ""),
                "by": entry.by_name if entry else "",
            }
        )
    return found


def _gate_out(view: SheetView, user: Author) -> dict[str, Any]:
    said = {e.entry["what"]: e.by_name for e in view.of("said")}
    energised = view.of("energised")
    proof = view.proof
    return {
        "in_the_way": [{"code": w.code, "text": w.text, "line": w.line} for w in in_the_way(view.record)],
        "statements": [{"id": k, "title": t, "said_by": said.get(k, "")} for k, t in STATEMENTS.items()],
        "locks": [
            {
                "name": lock.name,
                "put_by": lock.put_by,
                "taken_by": lock.taken_by,
                "source": source,
                "own": lock.put_by == name_of(user),
            }
            for source, lock in (locks_of(proof) if proof else {}).items()
        ],
        "energised": {
            "at": energised[-1].at,
            "by": energised[-1].by_name,
            "reason": energised[-1].entry.get("reason", ""),
        }
        if energised
        else None,
        "shortest_reason": SHORTEST_REASON,
    }


_USES = {"ohms": Purpose.CONTINUITY, "insulation": Purpose.INSULATION}
"""What a tester is wanted for on a sheet."""


def _testers_out(view: SheetView) -> list[dict[str, Any]]:
    """The crew's testers that measure ohms or insulation, and why one would clear nothing here."""
    now = timezone.now()
    found = []
    for tester, entry in in_hands(view.site.crew, now):
        if not entry.kind.purposes & set(_USES.values()):
            continue
        held = entry.model_dump(mode="json", exclude_none=True, exclude={"id"})
        tests = {"ohms": {"kind": "continuity"}, "insulation": _usual_insulation(view)}
        found.append(
            {
                "id": tester.id,
                "label": entry.label or entry.kind.name,
                "best_for": [name for name, purpose in _USES.items() if purpose in entry.kind.best_for],
                "unfit": {name: why_unfit(view.practice, view.system, test, held, now) for name, test in tests.items()},
            }
        )
    return found


def _usual_insulation(view: SheetView) -> dict[str, Any]:
    return {"kind": "insulation", "test_v": view.circuit.rule.test_volts}


def _proof_out(proof: Proof | None) -> dict[str, Any] | None:
    if proof is None:
        return None
    now = timezone.now()
    found = state_of(proof, now)
    return {
        "id": proof.id,
        "name": proof.name,
        "state": found.state,
        "expires_at": found.expires_at,
        "now": now,
    }


def _entry_out(view: SheetView, entry: SheetEntry) -> dict[str, Any]:
    counts = entry.entry is not None and not hasattr(entry, "superseded_by")
    return {
        "id": entry.id,
        "at": entry.at,
        "by": entry.by_name,
        "says": in_words(view, entry),
        "status": "counts" if counts else "taken back",
    }
