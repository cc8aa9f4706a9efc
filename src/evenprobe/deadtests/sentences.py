"""Every sentence of dead tests: what a test comes to, what is outstanding before energising, what is warned of."""

from evenprobe.sentences import Sentences

JUDGED = Sentences(
    {
        # Of any test in ohms or megohms.
        "below-the-null": "Less than the leads alone: null them again, tips together, and repeat. It does not count.",
        "leads-not-nulled": "The leads were not nulled, so they are in the reading.",
        "leads-resistive": "The leads read {ohm:g} Ω: clean or replace them and repeat.",
        "conductor-at-20": "Conductor taken as 20 °C: no temperature was given.",
        "taken-as-20": "Taken as 20 °C: no temperature was given.",
        # Continuity.
        "continuity.open": "Open: the tester shows over-range. Look for a broken or loose joint.",
        "continuity.pass": "Joined, as the run should be: {expected:.3g} Ω expected.",
        "continuity.note": "Joined. Without length and size nobody can say whether it should read less.",
        "continuity.borderline": "The limit lies inside the tester's error. A low-ohm tester of finer error decides.",
        "continuity.fail": "Higher than the run can explain: a poor joint, or a longer run than recorded.",
        # Separation.
        "separation.apart": "Not joined. The insulation test comes next: ohms say nothing of insulation.",
        "separation.high": (
            "High, and not over-range. An insulation test decides; damp, a filter or a long way round reads like this."
        ),
        "separation.short": "Joined: no load takes so much. A short.",
        "separation.short-at": "Joined: no load takes so much. A short, about {distance} along the run.",
        "separation.load": ("Reads like a load of {power}: look for one still connected, then for a short."),
        "separation.leak": (
            "A leak, too high in ohms for a load and silent on a beeper: damp, carbonised insulation, a filter."
        ),
        # A fuse, a switch, a breaker.
        "contact.not-latching": "The {what} does not latch. With the outgoing conductor off: replace it.",
        "contact.not-opening": "The {what} does not open: it reads joined when it is off. Replace it.",
        "contact.closed-not-measured": "The {what} opens; how it reads closed was not measured.",
        "contact.blown": "Over-range when closed: the {what} is blown.",
        "contact.not-closing": "Over-range when closed: the {what} does not close, or will not latch.",
        "contact.pass": "The {what} closes well.",
        "contact.note": "The {what} closes, and not as well as it should: {good:g} Ω is good. Look again.",
        "contact.borderline": "The limit lies inside the tester's error.",
        "contact.fail": "The {what} has worn or burnt contacts. Replace it.",
        "contact.opening-not-tried": "Whether it opens was not tried.",
        # A ring circuit.
        "ring.broken": "No ring: the ends of the {conductors} are not joined.",
        "ring.ends-differ": "Line and neutral ends differ: a poor joint in one of them, or two circuits mixed.",
        "ring.poor-joint": "{outlet}: one pair reads high and the other does not, a poor {joint} joint.",
        "ring.spurs": "Higher by their own length, so fed by a spur: {outlets}.",
        "ring.no-outlet": "No outlet read yet with the ends cross-joined.",
        "ring.pass": "A ring: every outlet reads a quarter of both ends, as it should.",
        # Insulation.
        "insulation.pass": "At least {least:g} MΩ, as it must be.",
        "insulation.beyond": "The tester's range ends below the limit, so it shows no pass: use a higher range.",
        "insulation.borderline": "The limit lies inside the tester's error.",
        "insulation.fail": "Below {least:g} MΩ. Look for a load still connected, then for damp; split to find it.",
        "insulation.loads": (
            "Loads were connected, so this is their reading. Disconnect them and repeat; it does not count."
        ),
        "insulation.no-test-voltage": "The test voltage is not known: {why}. It does not count.",
        "insulation.wrong-test-voltage": "Tested at {volts:g} V. {why}. It does not count.",
        "insulation.alarm": "It is below the limit even so: treat it as failing until it is repeated.",
        "insulation.watch": "Below {watch:g} MΩ: keep an eye on it.",
        "insulation.warm": "Below the limit as measured, above it at 20 °C: it was warm. Repeat when it is cool.",
        "insulation.falling": "Only {trend:.0%} of last time: it is falling. Find why before it fails.",
        # Its ratios over time.
        "absorption.falling": "60 s over 30 s is {ratio:.2f}: it falls while it is tested, wet or faulty.",
        "absorption.good": "60 s over 30 s is {ratio:.2f}: good.",
        "absorption.questionable": "60 s over 30 s is {ratio:.2f}: questionable, good is {good:g}.",
        "polarisation.good": "10 min over 1 min is {ratio:.2f}: good.",
        "polarisation.wet": "10 min over 1 min is {ratio:.2f}: wet or faulty.",
        "polarisation.low": "10 min over 1 min is {ratio:.2f}: too low, at least {good:.1f}.",
        "polarisation.not-judged": "Polarisation is not judged above {most:g} MΩ after one minute.",
        "ratios.discharge": "Discharge for at least {times} times as long as the test took.",
        # Circuits together.
        "together.nothing-known": "Not one was measured alone: nobody can say what they should read together.",
        "together.predicted": "All together they should read about {mohm:.2g} MΩ at 20 °C.",
        "together.split-unknown": "Read lower, split {first} off first: it was never measured alone.",
        "together.split-leakiest": "Read lower, split {first} off first: it is {share:.0f} % of the leakage.",
        "together.pass": "All of them together pass, so each of them does.",
        "together.low": "Together they read lower than any one alone: split before condemning.",
        "together.first-unknown": "Take {first} off first, it was never measured alone.",
        "together.first-leakiest": "Take {first} off first, it leaks most.",
        "together.fallen": "They read less than half of what their last values give: one has fallen since.",
        # A capacitor.
        "capacitor.over-range": "Over-range: shorted, or the range is too small. Try a larger range.",
        "capacitor.pass": "Within its tolerance.",
        "capacitor.borderline": "Its tolerance lies inside the tester's error.",
        "capacitor.fail": "Out of its tolerance: replace it.",
        # A battery.
        "battery.state": "{state}.",
        "battery.minus": (
            "The minus sign: leads or battery are the other way round. Find out which before it is connected."
        ),
        # A string of panels.
        "panels.pass": "They add up: {expected:g} V is printed.",
        "panels.borderline": "At the edge of what {expected:g} V printed may be in this heat or cold: repeat it.",
        "panels.fail": "They do not add up to the {expected:g} V printed.",
        "panels.missing": "About {count} of them missing from the sum; one the other way round counts twice.",
        "panels.minus": "The minus sign: string or leads are the other way round. Nothing may be connected to it so.",
        # A temperature sensor.
        "sensor.pass": "Within its tolerance.",
        "sensor.borderline": "At the edge of its tolerance.",
        "sensor.fail": "Out of its tolerance: replace it, or its lead.",
        "sensor.one-temperature": "One temperature says nothing of another: take a second.",
        # A coil.
        "coil.open": "Over-range: the winding is open. Replace the coil.",
        "coil.volts-next": "Not open. Measure the volts across it while it should pull in.",
        "coil.too-much": "It pulls in; the voltage is more than the coil is made for and it will run hot.",
        "coil.pull-in.pass": "Enough to pull in.",
        "coil.pull-in.borderline": "At the edge of pulling in.",
        "coil.pull-in.fail": (
            "Too little to pull in: follow the control circuit back, something before the coil takes the rest."
        ),
        "coil.drop-out.pass": "Little enough to drop out.",
        "coil.drop-out.borderline": "At the edge of dropping out.",
        "coil.drop-out.fail": "Enough to hold it in when it should drop out: look for a leak or a second feed.",
        # A heating element, a filament.
        "element.broken": "Over-range: the {what} is broken.",
        "element.shorted": "Far too low: turns or leads are joined. Do not connect it.",
        "element.pass": "About what it should be.",
        "element.note": "Not what its rating gives: check the rating plate and the range.",
        # A residual-current device.
        "trip.below": (
            "{test:g} mA is below what the device must trip at, {least:g} mA: whether it tripped or not "
            "proves nothing. Use a tester that drives {least:g} mA or more."
        ),
        "trip.missing": (
            "It did not trip. The device is faulty, or the test current had no way back to the source: "
            "measure the {earth} before you blame the device. No protection either way."
        ),
        "trip.not-timed": "It tripped; how fast was not measured.",
        "trip.pass": "Tripped in time.",
        "trip.borderline": "The limit lies inside the tester's error: repeat.",
        "trip.slow": "Too slow: replace the device.",
        "trip.fast": "Too fast for a delayed device.",
        "trip.too-sensitive": (
            "It tripped where it must not: too sensitive, or something leaks already. Unplug and repeat."
        ),
        "trip.too-little": "No trip at {test:g} mA proves nothing either way: the device need not notice so little.",
        "trip.stayed-in": "It stayed in, as it must at this current.",
        # A load on its device.
        "load.pass": "{share:.0f} % of the rating, within the {allowed:g} % allowed{for_long}.",
        "load.borderline": "{share:.0f} % of the rating, at the {allowed:g} % allowed{for_long}.",
        "load.fail": "{share:.0f} % of the rating, above the {allowed:g} % allowed{for_long}.",
        "load.start-no-curve": "Starts at {times:.1f} times the rating; which curve the device has is not known.",
        "load.start-under": (
            "Starts at {times:.1f} times the rating, stays under what may trip it ({low:g} to {high:g})."
        ),
        "load.start-may": "Starts at {times:.1f} times the rating, may trip it ({low:g} to {high:g}).",
        "load.start-will": "Starts at {times:.1f} times the rating, will trip it ({low:g} to {high:g}).",
        # The supply's frequency.
        "frequency.pass": "In the band.",
        "frequency.borderline": "At the edge of the band.",
        "frequency.fail": "Out of the band.",
    }
)
"""What a test comes to, by its kind and its result, or by what made it where that says more."""

FOR_LONG = " for three hours and more"
"""Added where a continuous load is held against its own limit."""

SLIPS = Sentences(
    {
        "more": "About a thousand times more than expected: did you mean {value:g} {meant}, not {value:g} {written}?",
        "less": "About a thousand times less than expected: did you mean {value:g} {meant}, not {value:g} {written}?",
    }
)
"""What is asked before a number is believed."""

RANGES = Sentences(
    {
        "go-up": "A lone 1, OL or O.L means more than {range}; it is not a value. Go up a range.",
        "highest": "A lone 1, OL or O.L means more than {range}; it is not a value. It is the highest range there is.",
    }
)
"""What a manual meter's display says past its range."""

BEFORE_HARM = Sentences(
    {
        "not-proved-dead": (
            "Not proved dead. Ohms on a live circuit break the meter and may hurt you. Prove it dead first."
        ),
        "loads-in": "Loads are still in. {volts:g} V DC destroys electronics that stay connected.",
        "loads-not-said": (
            "Nobody said that the loads are out. {volts:g} V DC destroys electronics that stay connected."
        ),
    }
)
"""What is warned of before a test is made."""

OUTSTANDING = Sentences(
    {
        "not-looked": "Not looked at yet: {left} of {all}.",
        "seen": "Seen and not repaired: {what}.",
        "not-tested": "{line}: not tested.",
        "of-a-test": "{line}: {said}",
        "not-discharged": "Not discharged since the last insulation test.",
        "not-said": "{statement}: not said yet.",
        "lock-on": "Lock {lock}, put by {by}, is still on.",
        "lock-taken-by-another": "Lock {lock} was put by {by} and taken off by {taken_by}.",
    }
)
"""What is outstanding before a circuit is energised."""

IN_DOUBT = Sentences(
    {
        "not-proved-dead": "it was not proved dead when this was taken",
        "no-tester": "no tester was named, so it does not count",
    }
)
"""Why a test could not clear anything, whatever it shows."""
