"""Every sentence an interpretation says: of the verdict, of a direct voltage, of the reading that decides."""

from evenprobe.interpretation.findings import Verdict
from evenprobe.sentences import Sentences

SUMMARIES = Sentences(
    {
        Verdict.UNTESTED: "Nothing measured counts yet. Treat as live.",
        Verdict.CONTRADICTORY: "No single condition explains all the readings. Treat as live.",
        "nearest": "Nearest: {name}, but then {ends} would show {expected}, not {seen}.",
        Verdict.CORRECT: "Everything dangerous in the wiring is ruled out, and nothing is wrong with it.",
        Verdict.SAFE: "No dangerous fault left; {worst} still could be.",
        Verdict.UNCONFIRMED: "Most likely: {likely}. Not excluded yet: {worst} ({symptom}).",
        "unconfirmed-likely-wrong": "Most likely: {worst} ({symptom}). It could still be right.",
        Verdict.DEFECT: "It is not right: {likeliest}.",
        Verdict.HAZARD: "One more fault and someone is hurt: {likeliest}.",
        Verdict.DANGER: "Someone can be hurt now: {worst}. Keep off, switch off, lock.",
        "hazard-not-excluded": "Most likely: {likely}. Not excluded yet: {worst} (hazard).",
        "danger-not-excluded": "Most likely: {likely}. Not excluded yet: {worst} (danger). Keep off, switch off, lock.",
        "metalwork-live": "Metalwork is at a dangerous voltage. Keep off, switch off, lock.",
        "alarm-unanswered": (
            "A tester says the metalwork is live. "
            "Keep off until a contact reading to an independent {earth} says otherwise."
        ),
        "at-once": "Treat as live. What still fits is not known yet.",
        "danger-at-once": "Someone can be hurt now. Keep off, switch off, lock. What still fits is not known yet.",
        "beside": "Not excluded outside this wiring: {names}.",
        "alarm-unexplained": "An alarm stays unexplained.",
        "insulation-fails": "Insulation is below its limit: one more fault and someone is hurt.",
        "insulation-borderline": "Insulation is at its limit, within the tester's error: repeat it.",
        "no-lines": "Not interpreted: {why}. The readings are kept. Treat as live.",
    }
)
"""What is said of a verdict: by the verdict, or by what made it where that says more."""

BESIDE = Sentences(
    {
        "insulation-not-tested": "No insulation test counts yet.",
        "protection-not-tested": "Nobody has tripped the {rcd} yet.",
        "protection-not-present": "No {rcd} is recorded here.",
        "protection-pass": "The {rcd} tripped.",
        "in-time-pass": "The {rcd} tripped after {ms:g} ms, in time (at most {most:.0f} ms).",
        "in-time-borderline": "The {rcd} tripped after {ms:g} ms, at its limit of {most:.0f} ms: repeat it.",
        "in-time-fail": "The {rcd} tripped after {ms:g} ms, too slowly (at most {most:.0f} ms).",
        "protection-fail": "The {rcd} did not trip: the device, or the {earth} on the way to it.",
    }
)
"""Of the two questions beside the wiring, by what they come to."""

DIRECT = Sentences(
    {
        "on-metal": "{shown} between {ends}. Keep off, switch off every source, lock. {feeds}.",
        "elsewhere": "{shown} between {ends}. Treat as live. {feeds}.",
    }
)
JUDGED = Sentences(
    {
        "pass": "within {low:g} to {high:g} {unit}",
        "fail": "outside {low:g} to {high:g} {unit}",
        "tolerable": "outside {low:g} to {high:g} {unit}; tolerable, {least:g} to {most:g} {unit}: note it",
        "borderline": "the limit lies inside the tester's error: repeat with a more accurate tester",
    }
)
"""What a single reading comes to against a limit."""

NEXT = Sentences(
    {
        "repeat": "Take it again now: what stands differs by whether the supply moved since, and this tells.",
        "screen": "Three seconds. An alarm finds a danger; silence proves nothing.",
        "rules-out": "If all is well it rules out {titles}.",
        "rules-out-more": "If all is well it rules out {titles} and {more} more.",
        "then-loaded": "Take the same under the load right after. {then}",
        "narrows": "Narrows down what is left.",
        "jumps": (
            "Repeat it while somebody moves cord and plug, then take the same at the {board}: what jumps there too is "
            "the supply's."
        ),
        "again": "Take it again: without it the others agree.",
        "again-for": "Take it again: for {title} it would show {expected}.",
        "enough": "Enough: nothing here can change the verdict any more. What would: {would}.",
        "would": "{what}, against {titles}",
        "reference": "an independent {earth}",
        "load": "a known load",
        "open": "the {board} opened",
        "switch-off": "the circuit switched off",
        "unplug": "everything unplugged",
        "not-from-this-kit": (
            "No test from this kit tells these apart: {titles}. Look for {cause}; or measure "
            "each conductor end to end, isolated and proved dead, with a low-ohm tester."
        ),
    }
)
"""Why a reading is worth taking, and what is to be done where none is."""
