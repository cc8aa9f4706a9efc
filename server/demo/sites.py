"""The demo scenario's two sites, and the mill's cottage for its ring, as data. Readings are made by the model.

Every point carries a hidden condition, the seed its readings are drawn with, and what was measured there.
"""

from dataclasses import dataclass
from typing import Any


@dataclass(frozen=True)
class DemoPoint:
    """`measured`: what was put where, see `load_demo`; `slip`: index of a reading first typed wrongly.

    `tester`: what it was measured with, where its setup does not say otherwise.
    """

    name: str
    length_m: float | None
    condition: str
    seed: int = 1
    measured: tuple[str, ...] = ()
    kind: str = "outlet"
    terminals: tuple[str, ...] = ("L", "N", "PE")
    slip: int | None = None
    room: str = ""
    tester: str = "m2"


@dataclass(frozen=True)
class DemoCircuit:
    name: str
    rating_a: float
    conductor: str
    points: tuple[DemoPoint, ...]
    residual_ma: float | None = None
    curve: str = ""


@dataclass(frozen=True)
class DemoBoard:
    name: str
    circuits: tuple[DemoCircuit, ...]


@dataclass(frozen=True)
class DemoSupply:
    name: str
    system: str
    earthing: str
    boards: tuple[DemoBoard, ...]


@dataclass(frozen=True)
class DemoSite:
    name: str
    practice: str
    supplies: tuple[DemoSupply, ...]


THREE = ("L-N", "L-PE", "N-PE")
CHAIN = (
    *THREE, "PE-REF", "N-PE ohm", "L-PE ohm", "N-PE here 10", "L-N here 10", "L-PE here 10",
    "N-PE elsewhere 10", "L-N elsewhere 10", "L-PE elsewhere 10",
)  # fmt: skip
WHOLE = (
    *THREE, "PE-REF", "L-PE low", "L-N alone", "L-N here 10 alone",
    "L-BOARD-L ohm", "N-BOARD-N ohm", "PE-BOARD-PE lifted", "N-PE lifted",
)  # fmt: skip

_SIX = ("L1-N", "L2-N", "L1-L2", "L1-PE", "L2-PE", "N-PE")
_TEN = ("L1-N", "L2-N", "L3-N", "L1-L2", "L2-L3", "L1-L3", "L1-PE", "L2-PE", "L3-PE", "N-PE")
TWO_LINES, THREE_LINES = ("L1", "L2", "N", "PE"), ("L1", "L2", "L3", "N", "PE")

_MILL_CIRCUITS = (
    ("Weaving hall lamps", 10, "1.5 mm2", 31),
    ("Spinning room sockets", 16, "2.5 mm2", 22),
    ("Yarn store lamps", 10, "1.5 mm2", 27),
    ("Office sockets", 16, "2.5 mm2", 14),
    ("Boiler room", 16, "2.5 mm2", 9),
    ("Loading dock sockets", 16, "2.5 mm2", 36),
    ("Museum cases", 10, "1.5 mm2", 18),
    ("Mending bench", 16, "2.5 mm2", 16),
    ("Yard lamps", 10, "1.5 mm2", 48),
    ("Compressor outlet", 16, "4 mm2", 24),
)
ROUND = ("Larkspur Hill Observatory", "Kitchenette")
"""The room somebody is going round."""
_RING_OUTLETS = (("door", 6), ("sink", 10), ("window", 14), ("larder", 19), ("range", 24), ("hall", 29))

SITES = (
    DemoSite(
        "Larkspur Hill Observatory",
        "north-america",
        (
            DemoSupply(
                "Split-phase service",
                "120/240",
                "TN-C-S",
                (
                    DemoBoard(
                        "Warm room board W",
                        (
                            DemoCircuit(
                                "Workshop outlets",
                                20,
                                "12 AWG",
                                (
                                    DemoPoint("Outlet 1, by the door", 9, "correct", 16, WHOLE),
                                    DemoPoint("Outlet 2, drill press", 14, "correct", 1, CHAIN, slip=1),
                                    DemoPoint("Outlet 3, by the lathe", 18, "earth-from-neutral-swapped", 2, THREE),
                                    DemoPoint(
                                        "Outlet 4, grinder",
                                        23,
                                        "high-resistance-neutral",
                                        6,
                                        (*THREE, "L-PE low", "L-N here 10", "L-PE here 10", "N-PE here 10"),
                                    ),
                                    DemoPoint("Outlet 5, end of run", 27, "open-neutral", 1),
                                ),
                            ),
                            DemoCircuit(
                                "Visitor kitchenette",
                                20,
                                "12 AWG",
                                (
                                    DemoPoint("Counter left", 11, "line-neutral-swapped", 3, THREE, room="Kitchenette"),
                                    DemoPoint(
                                        "Counter right",
                                        13,
                                        "correct",
                                        5,
                                        ("L-N low", "L-PE stray", "N-PE"),
                                        room="Kitchenette",
                                    ),
                                ),
                            ),
                            DemoCircuit(
                                "Kitchenette range",
                                40,
                                "8 AWG",
                                (
                                    DemoPoint(
                                        "Range outlet",
                                        12,
                                        "same-leg",
                                        8,
                                        ("L1-N", "L2-N"),
                                        terminals=TWO_LINES,
                                        room="Kitchenette",
                                    ),
                                ),
                            ),
                            DemoCircuit(
                                "Pier pad outlets",
                                20,
                                "10 AWG",
                                (
                                    DemoPoint("Pier north", 34, "live-casing", 2, (*THREE, "PE alarm", "PE-REF")),
                                    DemoPoint("Pier south", 41, "open-earth", 3, (*THREE, "L-PE low", "N-PE low")),
                                ),
                                residual_ma=6,
                            ),
                            DemoCircuit(
                                "Dew-heater bench",
                                15,
                                "14 AWG",
                                (
                                    DemoPoint("Bench strip", 16, "correct", 9, (*THREE, "PE false-alarm")),
                                    *(
                                        DemoPoint(f"Heater box {number}", 16 + 4.5 * number, "correct", kind="junction")
                                        for number in range(1, 8)
                                    ),
                                ),
                            ),
                            DemoCircuit(
                                "Dome drive",
                                30,
                                "10 AWG",
                                (DemoPoint("Dome drive outlet", 22, "correct", 3, _SIX, terminals=TWO_LINES),),
                            ),
                        ),
                    ),
                ),
            ),
            DemoSupply(
                "Outage generator",
                "standalone-120",
                "TN-S",
                (
                    DemoBoard(
                        "Generator panel",
                        (
                            DemoCircuit(
                                "Generator outlets",
                                20,
                                "12 AWG",
                                (DemoPoint("Generator outlet", 3, "correct", 2, THREE, "standalone-source"),),
                            ),
                        ),
                    ),
                ),
            ),
        ),
    ),
    DemoSite(
        "Fennwick Weaving Shed",
        "continental",
        (
            DemoSupply(
                "Mains",
                "230/400",
                "TN-S",
                (
                    DemoBoard(
                        "Mill board",
                        (
                            DemoCircuit(
                                "Loom hall sockets",
                                16,
                                "2.5 mm2",
                                (
                                    DemoPoint("Socket 1, window", 12, "correct", 3, (*CHAIN, "trip 30")),
                                    DemoPoint("Socket 2, museum loom", 19, "open-neutral", 2, THREE),
                                    DemoPoint("Socket 3, yarn store", 26, "high-resistance-earth", 4, THREE),
                                ),
                                residual_ma=30,
                            ),
                            DemoCircuit(
                                "Loom motor",
                                32,
                                "6 mm2",
                                (
                                    DemoPoint(
                                        "Loom outlet",
                                        18,
                                        "correct",
                                        2,
                                        (*_TEN, "L1 draws 14.2 118"),
                                        terminals=THREE_LINES,
                                    ),
                                    DemoPoint("Loom terminal box", 24, "phase-missing", 3, (), "fixed", THREE_LINES),
                                ),
                                curve="C",
                            ),
                            DemoCircuit(
                                "Dye room sockets",
                                16,
                                "2.5 mm2",
                                (
                                    DemoPoint("Socket by the vats", 21, "supply-low", 5, THREE),
                                    DemoPoint("Socket by the door", 17, "correct", 1, THREE, tester="m6"),
                                ),
                            ),
                            *(
                                DemoCircuit(name, rating, size, (DemoPoint(f"{name}, last point", metres, "correct"),))
                                for name, rating, size, metres in _MILL_CIRCUITS
                            ),
                        ),
                    ),
                ),
            ),
            DemoSupply(
                "Night light inverter",
                "standalone-230",
                "TN-S",
                (
                    DemoBoard(
                        "Inverter cupboard",
                        (
                            DemoCircuit(
                                "Night light",
                                10,
                                "1.5 mm2",
                                (DemoPoint("Night light socket", 6, "source-not-bonded", 2, (*THREE, "L-PE low")),),
                            ),
                        ),
                    ),
                ),
            ),
        ),
    ),
    DemoSite(
        "Fennwick Mill Cottage",
        "british",
        (
            DemoSupply(
                "Cottage service",
                "230",
                "TN-C-S",
                (
                    DemoBoard(
                        "Cottage consumer unit",
                        (
                            DemoCircuit(
                                "Kitchen ring",
                                32,
                                "2.5 mm2",
                                tuple(
                                    DemoPoint(f"Outlet {number}, {place}", metres, "correct")
                                    for number, (place, metres) in enumerate(_RING_OUTLETS, 1)
                                ),
                            ),
                        ),
                    ),
                    DemoBoard("Cottage loft board", ()),
                ),
            ),
        ),
    ),
)

EQUIPMENT: tuple[dict[str, Any], ...] = (
    {"label": "Visitors' van", "lines": 1, "amperes": 13, "volts_to_neutral": 120, "continuous": True},
    {"label": "Kitchenette range", "lines": 2, "amperes": 32, "volts_to_neutral": 120, "volts_between_lines": 240},
    {"label": "Museum loom", "lines": 3, "amperes": 20, "volts_between_lines": 400, "hertz": 50},
)
"""What the crew plugs in, by what its plate says."""
