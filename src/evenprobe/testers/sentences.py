"""Every sentence on whether a tester is fit: what is wrong with it for a task, and what is worth a look."""

from evenprobe.sentences import Sentences
from evenprobe.testers.purposes import Purpose

WRONG_KIND = Sentences(
    {
        Purpose.PROVE_DEAD: "{kind} does not prove dead in this practice; use {kinds}",
        Purpose.LIVE_VOLTAGE: "{kind} does not measure volts; use {kinds}",
        Purpose.LAMPS: "{kind} has no three lamps; use {kinds}",
        Purpose.SCREEN: "{kind} does not screen; use {kinds}",
        Purpose.CONTINUITY: "{kind} does not measure ohms; use {kinds}",
        Purpose.INSULATION: "{kind} puts no test voltage on the insulation; use {kinds}",
        Purpose.RESIDUAL_CURRENT: "{kind} injects no residual current; use {kinds}",
        Purpose.CURRENT: "{kind} does not measure current; use {kinds}",
    }
)
PROBLEMS = Sentences(
    {
        "category-unknown": "the tester's category is not recorded, so none can be relied on",
        "category-too-low": ("what is held is category {whole} because of the {weakest}; {place}: category {least}"),
        "tip-covers-off": "tip covers are off, so the leads are category II; put them on",
        "voltage-unknown": "no rated voltage is recorded for the tester; rely on none",
        "voltage-too-low": "rated {volts:g} V because of the {weakest}; {needed} V can be reached here",
        "below-house-rule": "this crew uses nothing under {rule} on building wiring",
        "function-missing": "it has no {function} function",
        "battery-low": "the battery is low; change it, then prove the tester again",
        "battery-unknown": "a detector without a light that is always on is silent when flat; do its self-check",
        "damaged": "damaged: {parts}; take out of use",
        "self-check-failed": "it failed its self-check; take it out of use",
        "calibration-overdue": "calibration was due on {due:%Y-%m-%d}",
        "fuse-blown": "the fuse of the ampere jack is blown: it would read 0 A whatever flows",
        "test-current-unknown": "its test current is not recorded, so a missing trip says nothing",
        "test-current-too-low": "its {test:g} mA can never be sure to trip a {device:g} mA device",
        "test-voltage-missing": "{wanted:g} V DC is wanted; it has {has}",
        "leads-resistive": "the leads alone read {ohm:g} Ω; clean or replace them",
    }
)
WARNINGS = Sentences(
    {
        "battery-unknown": "the battery was not checked today",
        "leads-not-recorded": "the leads are not recorded; they may be rated lower than the tester",
        "tip-covers-not-recorded": "not recorded whether the tip covers are on",
        "tip-covers-off": "tip covers are off: good for what is plugged in, not for the installation",
        "leads-resistive": "the leads alone read {ohm:g} Ω; null them, and clean them soon",
        "below-house-rule": "a good house rule for building work: nothing under {rule}",
        "device-not-named": "the device is not recorded; its rated current decides",
    }
)
ATTENTION = Sentences(
    {
        "tip-covers-off": "tip covers are off: category II until they are on",
        "rating-not-recorded": "its category and voltage are not recorded",
    }
)
"""What is worth knowing of a tester wherever it is used."""

FUNCTION_NAMES = {"voltage-ac": "AC volts"}
"""What a function of the register is called where its id is not that."""
