"""Every sentence on what a reading counts for: why one is kept and does not count, and what a walk comes to."""

from evenprobe.sentences import Sentences

KEPT = Sentences(
    {
        # Of any quantity.
        "does-not-measure": "a {kind} does not measure {what}",
        "not-proved": "this tester was not proved, so it cannot confirm safe",
        "unfit": "{why}, so it may raise an alarm and cannot confirm safe",
        # Voltage.
        "board-device-open": "at the board with the device open says nothing of the supply, nor of the run",
        "direct-is-blind": "a DC range shows 0 on a live AC conductor, so it says nothing about AC",
        # A reference earth.
        "reference.alone": "this reference may be the one at fault ({wrong}) and no other has agreed with it yet",
        "reference.differs": "another reference shows something else, so one of the two is at fault; take a third",
        # Resistance and insulation.
        "supply-measured-too": "with the device closed the supply is measured too; open it and repeat",
        "no-test-voltage": "a {kind} puts no test voltage on the insulation",
        "board-measured-too": "with the device closed the whole board is measured too; open it and repeat",
        # Current.
        "fields-cancel": (
            "round two conductors at once their fields cancel: it shows what leaks. Split the line and clamp one"
        ),
        "not-at-the-board": "it says what flows there; how wires lie it says only where a conductor leaves the board",
        "only-the-start": "what it rose to says what started, not how the wires lie",
        "nothing-flows": "with the device open, or on DC, nothing is meant to flow",
        # Trip.
        "held.never-tripped": "nobody has seen this {rcd} trip yet, so that it stays in cannot confirm safe",
        "held.no-load": "no load is said to have been on here, so a device that stayed in says nothing",
        "held.tripped": "it may have had too much: try again with nothing else on, within its rating",
        "held.no-device": "no {rcd} is recorded for this circuit, so none could have tripped",
        "trip.current-unknown": "the tester's current is not known, so a trip or no trip says nothing",
        "trip.by-something-else": "{test:g} mA is less than any device may trip at: something else tripped it",
        "trip.not-proved": "this tester was not proved, so a missing trip cannot confirm safe",
        "trip.no-device": "no {rcd} is recorded for this circuit, so no trip proves nothing",
        "trip.need-not": "{test:g} mA need not trip a device that must trip at {must:g} mA",
        # Presence and lamps.
        "nowhere": "no terminal is named",
        "silence": "silence cannot confirm safe; of a proved detector it only orders what is possible",
        "silence-not-proved": "silence cannot confirm safe, least of all of a detector that was not proved",
        "silence-unfit": "silence cannot confirm safe, least of all here: {why}",
        "dark": "a dark lamp cannot confirm safe",
        # Sequence and frequency.
        "no-sequence": "only three lines have a sequence",
        "decides-nothing": "frequency is not used to decide between conditions yet",
    }
)
"""Why a reading is kept and counts for nothing."""

NOT_PROVED = "this tester was not proved"

BEYOND_TESTER = Sentences(
    {"volts": "{value:g} V is more than this tester shows ({top:g} V): check the number and the unit"}
)
"""A number that a tester could not have shown."""

DIRECT = Sentences(
    {
        "feeds": "something that is not the supply feeds it, as solar, a battery, a rectifier or a charged capacitor",
        "treat-as-live": "{shows}: {feeds}. Treat as live",
    }
)
"""Of direct voltage where the supply is alternating."""

WARNINGS = Sentences(
    {
        "may-trip": "from line to {earth} it draws {draws:.0f} mA and may trip the {rated:g} mA device: warn first",
        "without-a-rod": "No rod at hand: {outlet}s of two other circuits will do, if they agree.",
        "along-the-run": "The load at least {metres} along the run from the {board}, between it and here.",
        "loop-may-trip": "It may trip the {rcd}: use the setting that does not, or warn first.",
    }
)
"""What to say before a measurement is made: what to warn of, and what it depends on."""

WALK = Sentences(
    {
        "metalwork": (
            "Metalwork sounds, first at {place}: treat it as live, and measure it to an independent "
            "{earth} with a contact tester."
        ),
        "silent": "Silence cannot confirm safe: treat it as live and test it with a contact tester.",
        "all-the-way": "It sounds all the way: treat it as live all along.",
        "comes-and-goes": (
            "It comes and goes, first between {places}: metal, depth or a neighbour. Go again slowly, closer and on "
            "one side; treat all of it as live."
        ),
        "ends": (
            "The alarm ends between {places}. A broken line conductor stops there, or the cable goes behind metal or "
            "into a shield. Look there first; beyond it nothing is proved dead."
        ),
        "begins": (
            "The alarm begins between {places}: another cable or a second feed comes in there. Treat all of it as live."
        ),
    }
)
"""What a walk along a cable or along metal comes to."""
