"""A dead outlet behind a protective outlet: found upstream and reset, or traced, opened, marked and put back right.

LINE takes the feed, LOAD feeds onward. Swapped, it does not latch or protects nothing.
"""

from evenprobe.hunting.findings import HuntState
from evenprobe.hunting.guided.step import Ending, Guide, Outcome, Step

_STEPS = (
    Step(
        "upstream",
        "What else is dead? Look for a tripped {rcd}",
        (
            "Ask what else went dead.",
            "Look upstream for a tripped {outlet}: other rooms, the garage, outdoors, behind things.",
        ),
        (
            Outcome("tripped", "A tripped one is found", "measure"),
            Outcome("in", "One is found, and it is not tripped", "measure"),
            Outcome("none", "None is found", "trace"),
        ),
    ),
    Step(
        "measure",
        "Measure before pressing",
        ("At its face and at the dead {outlet}: {L} to {N}, {L} to {PE}, {N} to {PE}.",),
        (
            Outcome("feed", "Volts are right at the feed", "press-reset"),
            Outcome("no-feed", "No volts at the feed", "no-feed"),
            Outcome("odd", "Volts where none should be", "bench"),
        ),
    ),
    Step(
        "trace",
        "Trace the cable from the dead {outlet}",
        (
            "A tone sender goes on a dead conductor only: prove it dead first.",
            "Follow the tone to the box before it. Take the sender off before power returns.",
        ),
        (
            Outcome("found", "Traced to a box; the sender is off", "photograph"),
            Outcome("lost", "The tone ends in the cable", "no-feed"),
        ),
        dead=True,
    ),
    Step(
        "press-reset",
        "Press reset, once",
        ("Nothing plugged in downstream.",),
        (
            Outcome("holds", "It holds", "press-test"),
            Outcome("trips", "It trips again", "load-side"),
            Outcome("no-latch", "It does not latch", "photograph"),
        ),
    ),
    Step(
        "photograph",
        "Photograph and mark both pairs",
        (
            "Off, locked, proved dead. Photograph the box before anything comes off.",
            "Mark the pair on LINE and the pair on LOAD, then take them off and cap them.",
        ),
        (Outcome("marked", "Photographed, marked, capped", "which-feeds"),),
        dead=True,
        picture="the box as it was",
    ),
    Step(
        "which-feeds",
        "Energise, and measure which pair is the feed",
        ("Caps on, hands off, power on. Measure each pair with a contact tester.", "Then off again, and locked."),
        (
            Outcome("line-pair", "The pair that was on LINE feeds", "dead-again"),
            Outcome("load-pair", "The pair that was on LOAD feeds: they were swapped", "dead-again"),
            Outcome("both", "Both pairs are live", "two-feeds"),
            Outcome("neither", "Neither is live", "no-feed"),
        ),
    ),
    Step(
        "dead-again",
        "Prove dead again",
        ("A proof ends when power comes on: every source off and locked, prove, test, prove.",),
        (Outcome("dead", "Off, locked and proved dead", "refit"),),
    ),
    Step(
        "refit",
        "Put it back: {earth} first",
        ("{earth} first. The feed on LINE, the onward pair on LOAD.", "Close the box. Power on."),
        (Outcome("closed", "Closed and energised", "reset-new"),),
        dead=True,
    ),
    Step(
        "reset-new",
        "Reset it",
        ("New ones ship tripped.",),
        (
            Outcome("holds", "It holds", "press-test"),
            Outcome("trips", "It trips at once", "load-side"),
            Outcome("no-latch", "It does not latch", "replace"),
        ),
    ),
    Step(
        "press-test",
        "Press test",
        ("It must go out, and everything behind it.",),
        (
            Outcome("out", "It trips", "downstream"),
            Outcome("stays", "It stays in", "replace"),
        ),
    ),
    Step(
        "downstream",
        "Go round: which points are dead now?",
        ("While it is tripped: every point of the circuit, and others nearby. What is dead is behind it.",),
        (
            Outcome("dead", "Dead", "downstream"),
            Outcome("live", "Live", "downstream"),
            Outcome("all", "All gone round", "label", of_all=True),
        ),
        each="point",
    ),
    Step(
        "label",
        "Label what it protects",
        ("Reset it. The list belongs on the {board}'s schedule and on each point.",),
        (Outcome("labelled", "Labelled, and reset", "protects"),),
        names="The {rcd} {outlet} is",
    ),
)
_ENDINGS = (
    Ending(
        "protects",
        "It works, and what it protects is on record",
        ("A trip test with a tester shows that it is fast enough: its own button does not.",),
    ),
    Ending("no-feed", "The feed is open before it", ("Halve it with presence.",), hunt="open"),
    Ending("load-side", "A fault behind it", ("Loads out, LOAD pair off, and halve what is behind it.",), hunt="short"),
    Ending("two-feeds", "Both pairs are fed", ("Isolate both feeds. Find the second before anything is joined.",)),
    Ending(
        "bench",
        "Its wiring is not right",
        ("Measure it at the Bench: it says what else it can be.",),
        HuntState.CLEAR,
    ),
    Ending("replace", "The {rcd} is worn", ("Off and proved dead: replace it, feed on LINE.", "Press test again.")),
)
PROTECTIVE_OUTLET = Guide("protective-outlet", _STEPS, _ENDINGS)
