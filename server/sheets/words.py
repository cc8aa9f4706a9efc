"""What was put down on a sheet, in a line of words."""

from evenprobe.deadtests.energising import STATEMENTS
from evenprobe.deadtests.kinds import DEAD_TESTS
from evenprobe.deadtests.sheet import LOOK_FOR
from evenprobe.limits.dead_tests import LEADS_GOOD_OHMS, LEADS_USABLE_OHMS
from sheets.models import SheetEntry
from sheets.records import SheetView


def in_words(view: SheetView, entry: SheetEntry) -> str:
    content = entry.entry
    if content is None:
        return "Taken back"
    match content["type"]:
        case "looked":
            title = next(item.title for item in LOOK_FOR if item.id == content["item"])
            return f"{title}: {'good' if content['good'] else 'not good'}"
        case "loads":
            neutral = "neutral disconnected at the board" if content["neutral"] == "lifted" else "neutral connected"
            return f"Loads {'out' if content['loads'] == 'disconnected' else 'in'}, {neutral}"
        case "leads":
            return f"Leads nulled: {content['null_ohm']:g} Ω"
        case "tested":
            return f"{view.title_of(entry)}: {DEAD_TESTS[content['test']['kind']].shown(content['test'])}"
        case "left":
            return f"{view.line_title(content['line'])} left: {content['reason']}"
        case "believed":
            return "Asked about, and it stands as it was read"
        case "discharged":
            return "Discharged"
        case "said":
            return STATEMENTS[content["what"]]
        case _:
            reason = content.get("reason")
            return f"Energised though something was outstanding: {reason}" if reason else "Energised"


def null_says(ohms: float | None) -> str:
    """What to make of the leads."""
    if ohms is None:
        return ""
    if ohms > LEADS_USABLE_OHMS:
        return f"Above {LEADS_USABLE_OHMS:g} Ω: clean or replace the leads."
    return "Good." if ohms <= LEADS_GOOD_OHMS else f"Usable; up to {LEADS_GOOD_OHMS:g} Ω is good."
