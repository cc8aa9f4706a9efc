"""Every sentence on loads: the poor joint of a loop, what is lost at full load, a current held against its device."""

from evenprobe.loads.loop import Loop, Span
from evenprobe.practices import Practice
from evenprobe.sentences import Sentence, Sentences

LOOPS = Sentences(
    {
        "poor-part": (
            "The poor joint is in the {conductor}: {ohm} where a sound one here has {most:.2f} Ω at the most."
        ),
        "measure-to-earth": (
            "More than a sound run here has. Measure {to_earth} as found and under the same load: that shows which "
            "conductor has the poor joint."
        ),
        "both-alike": (
            "More than a sound run here has, and neither conductor alone stands out: look at the joints of both."
        ),
        "sound": "No more than a sound run here has.",
        "no-rating": "The device's rating is not recorded, so the drop at full load is not known.",
        "drop": (
            "At the device's {rating:g} A it loses {low:.1f} to {high:.1f} V, the supply's own share with it; "
            "{allowed:g} V allowed along the branch."
        ),
    }
)
DRAWS = Sentences(
    {
        "fields-cancel": (
            "Round two conductors at once their fields cancel: this is what leaks, not what flows. Clamp one."
        ),
        "not-a-line": "Not a {line} conductor: its current is not held against the device.",
        "no-rating": "The device's rating is not recorded, so there is nothing to hold it against.",
    }
)


def of_a_loop(loop: Loop, rating_a: float | None, practice: Practice) -> str:
    """What a loop comes to, in the practice's words."""
    return " ".join(str(sentence) for sentence in (*_joint(loop, practice), _drop(loop, rating_a)))


def _joint(loop: Loop, practice: Practice) -> list[Sentence]:
    words, letters = practice.words, practice.letters
    poor = [part for part in loop.parts if part.poor]
    if poor:
        conductors = [(words.get(part.terminal, letters[part.terminal]), part) for part in poor]
        return [
            LOOPS.say("poor-part", conductor=conductor, ohm=_ohms(part.ohm), most=part.expected[1])
            for conductor, part in conductors
        ]
    if loop.poor and len(loop.parts) < len(loop.pair):
        to_earth = " and ".join(f"{letters[end]} to {letters['PE']}" for end in loop.pair)
        return [LOOPS.say("measure-to-earth", to_earth=to_earth)]
    return [LOOPS.say("both-alike" if loop.poor else "sound")]


def _drop(loop: Loop, rating_a: float | None) -> Sentence:
    if loop.drop is None or rating_a is None:
        return LOOPS.say("no-rating")
    low, high = loop.drop
    return LOOPS.say("drop", rating=rating_a, low=low, high=high, allowed=loop.limit.band.high)


def _ohms(span: Span) -> str:
    return f"{span[0]:.2f} to {span[1]:.2f} Ω"
