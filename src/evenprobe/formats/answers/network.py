"""Two-point equivalents of an explicit network, at full double precision."""

from evenprobe.formats.answers.answer import Answer


class EquivalentOut(Answer):
    """Open-circuit volts and the impedance behind them, each real and imaginary."""

    between: list[str]
    open_v: list[float]
    z_ohm: list[float]


class NetworkOut(Answer):
    """What `solve` answers."""

    ask: list[EquivalentOut]
