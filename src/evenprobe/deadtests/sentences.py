"""Every sentence of the gate: what is outstanding before a circuit is energised."""

from evenprobe.sentences import Sentences

OUTSTANDING = Sentences(
    {
        "not-looked": "Not looked at yet: {left} of {all}.",
        "seen": "Seen and not mended: {what}.",
        "not-tested": "{line}: not tested.",
        "of-a-test": "{line}: {said}",
        "not-discharged": "Not discharged since the last insulation test.",
        "not-said": "{statement}: not said yet.",
        "lock-on": "Lock {lock}, put by {by}, is still on.",
        "lock-taken-by-another": "Lock {lock} was put by {by} and taken off by {taken_by}.",
    }
)
IN_DOUBT = Sentences({"not-proved-dead": "it was not proved dead when this was taken"})
"""Why a test could not clear anything, whatever it shows."""
