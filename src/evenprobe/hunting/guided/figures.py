"""What the figures of a guided hunt come to, each on its physics.

Ohms between conductors of a dead circuit with every load out: a load is U²/R, and no load lies to earth. A residual-
current device trips from half its rated current on (IEC 61008-1), and what leaks adds up. A floating metal part shows
volts to earth through some megohm that a low impedance pulls down (IEC 61010-1 calls the difference a stray voltage).
"""

from evenprobe.hunting.guided.sentences import SAID
from evenprobe.hunting.guided.step import OVER, Facts, Figures, Judged
from evenprobe.hunting.intake import Conductor
from evenprobe.hunting.resistance import SILENT_OHM
from evenprobe.limits.dead_tests import SEPARATE_OHMS
from evenprobe.limits.protective_devices import THERMAL, THERMAL_MINUTES, residual_span_ma
from evenprobe.limits.voltages import WET_TOUCH_VOLTS
from evenprobe.rounding import ohms_said

_JOINED_OHM = 2.0
"""Up to here no load of a final circuit explains the ohms between line and neutral."""
_LEAST_LOAD_W = 10.0
_COLLAPSES_SHARE = 0.2
"""Of what a high impedance showed, what a low one may leave of a stray voltage."""
_NOTHING_V = 5.0
"""Up to here there is nothing to feel."""
_GONE_SHARE = 0.1
_USUAL_RESIDUAL_MA = 30.0
_STRICTEST = "thermal-magnetic"
"""Of whose curve nothing is on record: it is to carry its rating."""
_ENDS: dict[str, tuple[Conductor, Conductor]] = {"L-PE": ("L", "PE"), "N-PE": ("N", "PE"), "L-N": ("L", "N")}


def at_terminals(ohms: Figures, facts: Facts) -> Judged:
    """Of the circuit without loads: joined, leaking, a load still in, or clear."""
    pair, least = min(ohms.items(), key=lambda item: (item[1], item[0]))
    to_earth = {name: ohm for name, ohm in ohms.items() if name.endswith("-PE")}
    earthed, to_earth_ohm = min(to_earth.items(), key=lambda item: item[1], default=("", OVER))
    if least <= _JOINED_OHM:
        return Judged("joined", SAID.say("joined", pair=pair, ohm=ohms_said(least)), _ENDS[pair])
    if to_earth_ohm < SILENT_OHM:
        return Judged("joined", SAID.say("joined", pair=earthed, ohm=ohms_said(to_earth_ohm)), _ENDS[earthed])
    if to_earth_ohm < SEPARATE_OHMS:
        return Judged("leaks", SAID.say("leaks", pair=earthed, ohm=ohms_said(to_earth_ohm)), _ENDS[earthed])
    across = ohms.get("L-N", OVER)
    if across < _ohm_of(_LEAST_LOAD_W, facts):
        return Judged(
            "load-in", SAID.say("load-in", ohm=ohms_said(across), watts=facts.volts**2 / across, volts=facts.volts)
        )
    return Judged("clear", SAID.say("clear"))


def _ohm_of(watts: float, facts: Facts) -> float:
    return facts.volts**2 / watts


def at_the_plug(ohms: Figures, facts: Facts) -> Judged:
    """Of one appliance, at its plug: joined to earth, shorted, or the load it is."""
    for pair in ("L-PE", "N-PE"):
        if ohms.get(pair, OVER) < SEPARATE_OHMS:
            return Judged("appliance", SAID.say("appliance-earth", pair=pair, ohm=ohms_said(ohms[pair])))
    across = ohms.get("L-N", OVER)
    if across < _JOINED_OHM / 4:
        return Judged("appliance", SAID.say("appliance-short", ohm=ohms_said(across)))
    if across < _ohm_of(_LEAST_LOAD_W, facts):
        amperes = facts.volts / across
        together = amperes + sum(facts.volts / each["L-N"] for each in (facts.earlier or {}).values())
        watts = facts.volts * amperes
        return Judged(None, SAID.say("appliance-load", watts=watts, amperes=amperes, together=together))
    return Judged(None, SAID.say("appliance-clear"))


def against_the_curve(clamped: Figures, facts: Facts) -> Judged:
    """What flowed until it tripped, against what its curve has it carry for an hour, and trip at within one."""
    amperes, minutes = clamped["amperes"], clamped["minutes"]
    if facts.rating_a is None:
        return Judged("no-rating", SAID.say("no-rating", amperes=amperes))
    multiple = amperes / facts.rating_a
    thermal = THERMAL[facts.curve or _STRICTEST]
    about = {"amperes": amperes, "minutes": minutes, "share": 100 * multiple, "rating": facts.rating_a}
    if multiple > thermal.carries:
        key = "overload-sure" if multiple >= thermal.trips else "overload"
        return Judged("over", SAID.say(key, **about))
    carries = thermal.carries * facts.rating_a
    if minutes < THERMAL_MINUTES:
        return Judged("under", SAID.say("too-early", **about, carries=carries))
    return Judged("under", SAID.say("of-the-rating", **about))


def leaks_adding_up(leak: Figures, facts: Facts) -> Judged:
    """One appliance's share of what the device trips at, and of all so far together."""
    stays_in, trips = residual_span_ma(facts.residual_ma or _USUAL_RESIDUAL_MA)
    own = leak["leak_ma"]
    together = own + sum(each["leak_ma"] for each in (facts.earlier or {}).values())
    about = {"own": own, "share": 100 * own / trips, "together": together, "trips": trips, "stays": stays_in}
    if together > stays_in:
        return Judged("add-up", SAID.say("leaks-enough", **about))
    return Judged(None, SAID.say("leaks-so-far", **about))


def to_reference(volts: Figures, _facts: Facts) -> Judged:
    """Of metalwork against an independent earth, with a high impedance."""
    shown = volts["volts"]
    if shown <= _NOTHING_V:
        return Judged("nothing", SAID.say("nothing-now", volts=shown))
    return Judged("volts", SAID.say("volts", volts=shown, limit=WET_TOUCH_VOLTS))


def loaded_down(volts: Figures, facts: Facts) -> Judged:
    """The same with a low impedance: a stray voltage collapses, what has something behind it holds."""
    before, now = (facts.first or {})["to-reference"]["volts"], volts["volts"]
    outcome = "collapses" if now <= _COLLAPSES_SHARE * before else "holds"
    return Judged(outcome, SAID.say(outcome, before=before, now=now))


def gone_with_it(volts: Figures, facts: Facts) -> Judged:
    """What is left once one thing is unplugged or off: where it goes, there it is."""
    before, now = (facts.first or {})["to-reference"]["volts"], volts["volts"]
    gone = now <= max(_GONE_SHARE * before, _NOTHING_V / 2)
    return Judged("gone" if gone else None, SAID.say("gone" if gone else "still", before=before, now=now))
