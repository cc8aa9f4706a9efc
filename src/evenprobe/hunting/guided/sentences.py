"""What a guided hunt says of the figures that chose its way."""

from evenprobe.sentences import Sentences

SAID = Sentences(
    {
        "joined": "{pair} {ohm} with every load out: joined.",
        "leaks": "{pair} {ohm}: more than a joint and less than an insulation has. Damp or carbon.",
        "load-in": "{ohm} between {line} and {neutral} is a load of {watts:.0f} W at {volts:g} V. What is still in?",
        "clear": "No joint between any two: the wiring without its loads is clear.",
        "appliance-earth": "{pair} {ohm} at its plug: this appliance leaks to {earth}.",
        "appliance-short": "{ohm} between {line} and {neutral} at its plug: shorted inside.",
        "appliance-load": "Clear to {earth}. As a heater it would be {watts:.0f} W, {amperes:.1f} A, with those before "
        "it {together:.1f} A; a motor or a transformer reads lower than the load it is.",
        "appliance-clear": "Clear to {earth}, and no load to be seen.",
        "no-rating": "{amperes:g} A; what the device is rated for is not on record.",
        "of-the-rating": "{amperes:g} A for {minutes:g} min is {share:.0f} % of the {rating:g} A it is rated for.",
        "overload": "{amperes:g} A is {share:.0f} % of the {rating:g} A it is rated for: it may trip within the hour, "
        "as it did after {minutes:g} min.",
        "overload-sure": "{amperes:g} A is {share:.0f} % of the {rating:g} A it is rated for: it has to trip within "
        "the hour, as it did after {minutes:g} min.",
        "too-early": "{amperes:g} A is {share:.0f} % of the {rating:g} A it is rated for; it carries {carries:g} A for "
        "an hour, and tripped after {minutes:g} min. It is not the current: something leaks, or the device is worn.",
        "leaks-enough": "{own:g} mA, {share:.0f} % of the {trips:g} mA it trips at; {together:g} mA together, and from "
        "{stays:g} mA on it may trip.",
        "leaks-so-far": "{own:g} mA, {share:.0f} % of the {trips:g} mA it trips at; {together:g} mA together.",
        "nothing-now": "{volts:g} V now. It was felt: what it needs may be off.",
        "volts": "{volts:g} V on metalwork. From {limit:g} V on it can hurt where it is wet.",
        "collapses": "{before:g} V fell to {now:g} V under a low impedance: stray, from filters and capacitance. Its "
        "{earth} is open.",
        "holds": "{before:g} V held at {now:g} V under a low impedance: something feeds it.",
        "gone": "{before:g} V fell to {now:g} V.",
        "still": "Still {now:g} V.",
        "tapped": "{outcome}.",
    }
)
"""By what the figures of a step come to."""

CONTRADICTIONS = Sentences(
    {
        "two-outcomes": "“{step}” was told twice, and otherwise the second time.",
        "not-there": "“{step}” was told where “{now}” was to come.",
    }
)
"""What cannot both be."""
