"""Every sentence on plugging in: what the outlet has of what is needed, and what is still to be measured."""

from evenprobe.interpretation import Verdict
from evenprobe.plugging.check import Result
from evenprobe.sentences import Sentences
from evenprobe.wiring import PointFacts

CAUTION = "Local codes, the maker's instructions and whoever runs this supply come first."

ANSWERS = Sentences({"has-it": "It has what is needed.", "of-a-check": "{title}: {said}"})

TITLES = {
    "contacts": "Contacts",
    "current": "Current",
    "frequency": "Frequency",
    "trip": "Trip",
    "wiring": "Wiring",
    "order": "Polarity",
    "earth": "Bond and {earth}",
    "supply": "Supply and joints",
    "metalwork": "Metalwork",
    "direct": "Direct voltage",
}
"""What each check is called; of a voltage, by its contacts."""


def title_of(check: str, point: PointFacts) -> str:
    """What a check is called, in the words of the point's practice."""
    return point.practice.in_words(TITLES[check])


CONTACTS = Sentences(
    {
        Result.YES: "The outlet has every contact it needs.",
        Result.NO: "It needs more than the outlet has: {missing}.",
        "lines": "{needed} {line} contacts where there are {present}",
        "neutral": "a neutral contact",
        "earth": "a contact for the {earth}",
    }
)
CURRENT = Sentences(
    {
        "no-rating": "It draws {amperes:g} A. Read the rating off the device and record it with the circuit.",
        "share": "{amperes:g} A is {share:.0f} % of the {rating:g} A device, {allowed:g} % allowed.",
    }
)
FREQUENCY = Sentences(
    {
        "measured": "{measured:g} Hz; it needs {needed:g} Hz.",
        "another": "This supply has {supplied:g} Hz; it needs {needed:g} Hz.",
        "standalone": "A source of its own may run at any frequency: measure it.",
        "as-supplied": "{needed:g} Hz, as this supply has.",
    }
)
TRIP = Sentences(
    {
        "tripped": "The {rcd} tripped.",
        "did-not-trip": "The {rcd} did not trip: it is faulty, or the {earth} leads nowhere.",
        "none-recorded": "No {rcd} is recorded here. Use a portable one of your own in between.",
        "not-tested": "The {rated:g} mA device was not tested: press a tester that drives {least:g} mA or more.",
    }
)
VOLTAGE = Sentences(
    {
        "shown-too-high": "A tester showed {shown:g} V; it needs {allowed}.",
        "not-measured": "Not measured; it needs {allowed}.",
        Result.YES: "{shown}, within {allowed}.",
        Result.NOTE: "{shown}, outside {allowed} and tolerable: see that its maker allows it.",
        Result.NO: "{shown}; it needs {allowed}.",
        Result.OPEN: "{shown}, too near the edge of {allowed} for this tester: take one that shows it more exactly.",
    }
)
"""Of a pair of contacts, by what it comes to."""

WIRING = Sentences(
    {
        Verdict.UNTESTED: "Nothing is measured yet.",
        Verdict.CONTRADICTORY: "The readings make no sense together: take them again.",
        "order": "Every wire is where it belongs.",
        "earth": "Metalwork is joined to {earth}.",
        "supply": "Nothing is lost or poor on the way.",
        "could-still-be": "Could still be: {names}.",
        "could-still-be-more": "Could still be: {names}, and {more} more.",
        "not-excluded": "Not excluded with what is here: {names}. Feel plug and cord under load: warm is too much.",
        "not-excluded-more": "Not excluded with what is here: {names}, and {more} more. Feel plug and cord under load: "
        "warm is too much.",
        "is": "{names}.",
        "is-more": "{names}, and {more} more.",
    }
)
"""Of the wiring: by topic where nothing is wrong with it."""
