"""A tingle: what is on the metalwork, what holds it there, and with what it goes. It is never nothing."""

from evenprobe.hunting.guided.figures import gone_with_it, loaded_down, to_reference
from evenprobe.hunting.guided.step import Asked, Ending, Guide, Outcome, Step

_VOLTS = (Asked("volts", "Metalwork to reference", "V"),)
_STEPS = (
    Step(
        "keep-off",
        "Keep off, and keep others off",
        ("Rope it off or switch it off. Nobody touches it to feel whether it is still there.",),
        (Outcome("off", "Everybody keeps off", "to-reference"),),
    ),
    Step(
        "to-reference",
        "Metalwork to an independent {earth}",
        ("High impedance, dry hands, one hand: the metalwork against a rod or bare ground away from it.",),
        (
            Outcome("volts", "Volts", "low-impedance"),
            Outcome("nothing", "Nothing now", "not-now"),
        ),
        asks=_VOLTS,
        judge=to_reference,
    ),
    Step(
        "not-now",
        "Switch on what was on when it was felt",
        ("Appliances, pumps, the lamps of that hour; wet as it was wet. Then measure again.",),
        (
            Outcome("again", "Measure again", "to-reference"),
            Outcome("elsewhere", "Other metalwork tingles too", "neutral-lost"),
        ),
    ),
    Step(
        "low-impedance",
        "Metalwork to the same {earth}, low impedance",
        ("A two-pole tester or a low-impedance input, on the same two places.",),
        (
            Outcome("collapses", "It collapses", "unplug"),
            Outcome("holds", "It holds", "switch-off"),
        ),
        asks=_VOLTS,
        judge=loaded_down,
    ),
    Step(
        "switch-off",
        "It can kill: switch the supply of it off, and lock it",
        ("The whole {board} where it is not clear which. Measure again before anybody goes near.",),
        (
            Outcome("gone", "Off and locked: it is gone", "circuits"),
            Outcome("still", "It is there with everything off", "neutral-lost"),
        ),
    ),
    Step(
        "unplug",
        "Unplug one appliance after another",
        ("High impedance again after each. Where it goes, there it is.",),
        (
            Outcome("gone", "Gone with it", "appliance-filter"),
            Outcome("all", "All unplugged, still there", "circuits", of_all=True),
        ),
        asks=_VOLTS,
        judge=gone_with_it,
        each="appliance",
    ),
    Step(
        "circuits",
        "Switch circuits off one after another",
        ("All on as when it was felt, nobody near; one off at a time. Where it goes, there it is.",),
        (
            Outcome("gone", "Gone with it", "circuit"),
            Outcome("all", "All off, still there", "neutral-lost", of_all=True),
        ),
        asks=_VOLTS,
        judge=gone_with_it,
        each="circuit",
    ),
)
_EARTH_PATH = "Then its {earth} path: continuity from the metalwork to the {board}, and the point at the Bench."
_ENDINGS = (
    Ending(
        "appliance-filter",
        "An appliance's filter, and an open {earth}",
        ("Hazard: without an {earth} the next fault is deadly. Unplugged until it is mended.", _EARTH_PATH),
    ),
    Ending(
        "circuit",
        "A leak or a live {earth} on this circuit",
        ("Danger: it stays off and locked until it is mended. Prove dead.", _EARTH_PATH),
    ),
    Ending(
        "neutral-lost",
        "Not of this installation's loads: the supply's neutral, or a neighbour's leak",
        (
            "Danger: main switch off, keep everybody off all metalwork.",
            "Check other metal parts. Call the supplier now.",
        ),
    ),
)
TINGLE = Guide("tingle", _STEPS, _ENDINGS)
