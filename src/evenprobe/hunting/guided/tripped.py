"""A tripped device: what it sees, from the device outwards to the appliances, without a reset to find out."""

from evenprobe.hunting.findings import HuntState
from evenprobe.hunting.guided.figures import against_the_curve, at_terminals, at_the_plug, leaks_adding_up
from evenprobe.hunting.guided.step import Asked, Ending, Guide, Outcome, Step

_OHMS = (
    Asked("L-PE", "{L} to {PE}", "Ω", may_be_over=True),
    Asked("N-PE", "{N} to {PE}", "Ω", may_be_over=True),
    Asked("L-N", "{L} to {N}", "Ω", may_be_over=True),
)
_STEPS = (
    Step(
        "off",
        "Off and proved dead",
        (
            "Do not reset it. Switch it off and lock it.",
            "Prove the circuit dead at the device's outgoing terminals.",
        ),
        (Outcome("dead", "Off, locked and proved dead", "device"),),
    ),
    Step(
        "device",
        "Test the device itself",
        (
            "Take its outgoing conductors off and cap them.",
            "Line side dead as well, or leave it and have someone test it: does it latch by hand?",
            "Continuity through each pole: joined when closed, open when open.",
        ),
        (
            Outcome("good", "It latches; joined closed, open when open", "loads"),
            Outcome("no-latch", "It does not latch, or is not joined when closed", "device-worn"),
            Outcome("welded", "A pole stays joined when open", "device-welded"),
        ),
        dead=True,
    ),
    Step(
        "loads",
        "Every load out",
        (
            "Unplug everything on the circuit; look behind furniture, outdoors and above ceilings.",
            "Disconnect what is hard-wired. Lamps out, switches on.",
        ),
        (Outcome("out", "Every load is out", "terminals"),),
    ),
    Step(
        "terminals",
        "Measure at the device's outgoing terminals",
        (
            "On the outgoing conductors, the neutral off its bar as well.",
            "Ohms between all three. A steady few ohms to tens of ohms is a load that is still in.",
        ),
        (
            Outcome("joined", "Joined", "halve"),
            Outcome("leaks", "Leaks to earth", "halve-leak"),
            Outcome("load-in", "A load is still in", "loads"),
            Outcome("clear", "Clear", "appliances"),
        ),
        dead=True,
        asks=_OHMS,
        judge=at_terminals,
    ),
    Step(
        "appliances",
        "Measure each appliance at its plug",
        ("Unplugged, its switch on. Ohms between its pins.",),
        (
            Outcome("appliance", "This appliance", "appliance"),
            Outcome("all", "All measured, none at fault", "attempt", of_all=True),
        ),
        asks=_OHMS,
        judge=at_the_plug,
        each="appliance",
    ),
    Step(
        "attempt",
        "Energise once, with nothing plugged in",
        (
            "Conductors back on, covers on, everybody warned; clear to energise first.",
            "One attempt. Stand aside of the {board}.",
        ),
        (
            Outcome("holds", "It holds", "loads-back"),
            Outcome("trips", "It trips with nothing plugged in", "borrowed"),
        ),
    ),
    Step(
        "borrowed",
        "Is its neutral used by another circuit?",
        (
            "Off and proved dead again, other circuits too whose neutral may be shared.",
            "Its neutral off the bar: measure it against the neutrals of the other circuits, each off the bar as well.",
        ),
        (
            Outcome("joined", "Joined to another circuit's neutral", "borrowed-neutral"),
            Outcome("apart", "Joined to none", "device-worn"),
        ),
        dead=True,
    ),
    Step(
        "loads-back",
        "Plug in one after another",
        ("Wait a minute after each. A heater or a motor may need longer.",),
        (
            Outcome("holds", "It holds with this one", "loads-back"),
            Outcome("trips", "It trips as this one is plugged in", "appliance"),
            Outcome("any", "It trips with any one, whatever it is", "neutral-earth", of_all=True),
            Outcome("later", "It trips after a while", "amperes", of_all=True),
            Outcome("all", "It holds with everything in", "not-found", of_all=True),
        ),
        each="appliance",
    ),
    Step(
        "amperes",
        "Clamp the line conductor",
        ("With everything on as when it tripped: amperes, and for how many minutes until it tripped.",),
        (
            Outcome("over", "More than the device is rated for", "overload"),
            Outcome("under", "Less than the device is rated for", "leaks"),
            Outcome("no-rating", "The rating is not on record", "leaks"),
        ),
        asks=(Asked("amperes", "Line current", "A"), Asked("minutes", "Until it tripped", "min")),
        judge=against_the_curve,
    ),
    Step(
        "leaks",
        "Clamp what leaks, appliance by appliance",
        (
            "A leakage clamp round all live conductors of one appliance at a time, or its insulation.",
            "Leaks add up: each is a share of what the device trips at.",
        ),
        (
            Outcome("add-up", "Together they are enough", "leakage"),
            Outcome("all", "All clamped, not enough together", "device-worn", of_all=True),
        ),
        asks=(Asked("leak_ma", "Leakage", "mA"),),
        judge=leaks_adding_up,
        each="appliance",
    ),
)
_AFTER = (
    "Isolated and proved dead: mend it.",
    "Dead tests again, from the device on. Close every box. Energise once.",
)
_ENDINGS = (
    Ending(
        "device-worn",
        "The device itself",
        ("Isolate upstream and prove dead. Replace it with one of the same kind and rating.", _AFTER[1]),
    ),
    Ending(
        "device-welded",
        "The device does not open: treat the circuit as live",
        ("Isolate upstream and lock. Prove dead. Replace the device before anything else.", _AFTER[1]),
    ),
    Ending("halve", "Joined along the run", ("Halve it: open the box that parts what is left.",), hunt="short"),
    Ending(
        "halve-leak",
        "Damp or carbon along the run",
        ("Halve it in the same way, with an insulation tester.",),
        hunt="short",
    ),
    Ending("appliance", "An appliance", ("Take it out of use and label it. The circuit is not at fault.",)),
    Ending(
        "borrowed-neutral",
        "A neutral borrowed from another circuit",
        ("Treat both circuits as one until it is mended: isolate both.", *_AFTER),
    ),
    Ending(
        "neutral-earth",
        "Neutral and {earth} joined beyond the device",
        ("Halve it between neutral and {earth}.",),
        hunt="short",
        between=("N", "PE"),
    ),
    Ending("overload", "An overload", ("Move loads to other circuits. A larger device does not mend it.",)),
    Ending(
        "leakage",
        "Leakage that adds up",
        ("Spread the appliances over several {rcd}s; mend what leaks most.",),
    ),
    Ending(
        "not-found",
        "It holds: nothing was found",
        ("Write down what was on when it tripped. If it trips again, begin with the clamp.",),
        HuntState.CLEAR,
    ),
)
TRIPPED = Guide("tripped-device", _STEPS, _ENDINGS)
