"""What a loop comes to, in one or two sentences."""

from evenprobe.loads.loop import Loop, Span
from evenprobe.practices import Practice


def says(loop: Loop, rating_a: float | None, practice: Practice) -> str:
    return f"{_joint(loop, practice)} {_drop(loop, rating_a)}".strip()


def _joint(loop: Loop, practice: Practice) -> str:
    words, letters = practice.words, practice.letters
    poor = [part for part in loop.parts if part.poor]
    if poor:
        return " ".join(
            f"The poor joint is in the {words.get(part.terminal, letters[part.terminal])}: {_ohms(part.ohm)} where a "
            f"sound one here has {part.expected[1]:.2f} Ω at the most."
            for part in poor
        )
    if loop.poor and len(loop.parts) < len(loop.pair):
        to_earth = " and ".join(f"{letters[end]} to {letters['PE']}" for end in loop.pair)
        return (
            f"More than a sound run here has. Measure {to_earth} as found and under the same load: that tells in which "
            "conductor the poor joint is."
        )
    if loop.poor:
        return "More than a sound run here has, and neither conductor alone stands out: look at the joints of both."
    return "No more than a sound run here has."


def _drop(loop: Loop, rating_a: float | None) -> str:
    if loop.drop is None:
        return "The device's rating is not recorded, so the drop at full load is not known."
    low, high = loop.drop
    return (
        f"At the device's {rating_a:g} A it loses {low:.1f} to {high:.1f} V, the supply's own share with it; "
        f"{loop.limit.band.high:g} V allowed along the branch."
    )


def _ohms(span: Span) -> str:
    return f"{span[0]:.2f} to {span[1]:.2f} Ω"
