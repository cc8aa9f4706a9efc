"""What a hunt says: why a place comes next, what contradicts, and what to think of besides."""

from evenprobe.sentences import Sentences

WHY = Sentences(
    {
        "board-first": "Where the run begins comes first: without a joint there, there is nothing to hunt.",
        "parts": "Fewest minutes still to come. What it will show: {shares}.",
        "end-first": "The end that the most lies before: dead there, it is on the way to it.",
        "open-suspect": "Likeliest for its minutes. Isolate and prove dead before a hand goes in.",
        "load-first": "A known load at the far end, and volts there: without a drop there is no joint to hunt.",
        "joint-halves": "It parts what is left: measure between each joint and the return.",
    }
)
"""Why the next place."""

CONTRADICTIONS = Sentences(
    {
        "both-sides": (
            "At {at} it shows on the feed side and onward at once: two faults, or the pairs were not taken apart."
        ),
        "twice": "{at} was seen twice, and otherwise the second time.",
        "apart": "What showed at {one} and what showed at {other} cannot both be of one fault.",
        "live-beyond-dead": "{other} is live beyond {one}, which is dead: test {one} again at its screws.",
        "less-than-cable": (
            "Between {one} and {other} less is lost than the cable alone takes: was the load on, and at the far end?"
        ),
        "volts-back": "There are volts after {other} and none after {one}, nearer to the feed.",
        "round-twice": "{outlet} was live and dead in round {round}.",
    }
)
"""What cannot both be."""

ADVICE = Sentences(
    {
        "silent": (
            "More than 5 kΩ, where a beeper is silent: carbon or damp. Halve in the same way with an insulation tester."
        ),
        "no-conductor": "The conductor's size is not on record: the ohms say nothing of the distance.",
        "load-in": (
            "{ohm:.2g} Ω is no joint along this run; it would be a load of {watts:.0f} W at {volts:g} V. "
            "What is still in?"
        ),
        "dead-at-board": "It is dead where the run begins: look at the device and at what feeds it, not along the run.",
        "feed-low": "{volts:g} V before the first element, of {supply:g} V: look at what feeds the chain.",
        "coil-low": (
            "The coil gets {share:.0f} % of what it is rated for and pulls in from {least:g} %: the supply is low."
        ),
        "coil-or-return": (
            "All of it reaches the coil: it is the coil, or its return. Isolate, prove dead, and measure its ohms."
        ),
        "open-as-it-should": "{element} is open, as it should be now: operate it while measuring.",
        "operate": "Operate {element} while measuring: if it closes then, it waits for something and is not broken.",
        "bad-contact": "{element} lets some of it through: a bad contact, or a second one in series.",
        "another-joint": "There is a second one: between {one} and {other} more is lost than the cable explains.",
    }
)
"""What has to be thought of besides."""

JOINTS = Sentences(
    {
        "joint": (
            "{conductor} has {least:.2g} to {most:.2g} Ω more than a sound run: {watts:.0f} W of heat at {amperes:g} A."
        ),
    }
)
"""What a poor joint was measured to be."""

ODD = Sentences(
    {
        "never": "Dead in every round: no way of this board feeds it.",
        "off-ways": "Dead in every round: one of those that stay off, {ways}, or none.",
        "on-ways": "Live in every round: one of those that stay on, {ways}.",
        "parity": "This pattern is of odd parity: one tap was a slip. Go through its rounds again.",
        "no-way": "This pattern is no way's: more than one tap was a slip, or something else feeds it.",
        "two-ways": "Live where no single way is: fed by two, {ways}; or one tap was a slip.",
    }
)
"""Why an outlet is none of a single way."""
