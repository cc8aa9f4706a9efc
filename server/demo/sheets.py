"""The demo crew's dead tests: visits to the mill, a heater taken for a short, a sheet half done, a ring with a spur."""

from dataclasses import dataclass

MILL = ("Fennwick Weaving Shed", "Mill board")


@dataclass(frozen=True)
class DemoVisit:
    """A round of insulation tests at the mill board. `mohm`: L-PE, N-PE and L-N as measured, by circuit."""

    days_ago: int
    temperature_c: float
    mohm: dict[str, tuple[float, float, float]]


VISITS = (
    DemoVisit(362, 14, {"Dye room sockets": (272, 320, 640)}),
    DemoVisit(178, 18, {"Dye room sockets": (74, 110, 540)}),
    DemoVisit(
        1,
        12,
        {
            "Loom hall sockets": (340, 360, 510),
            "Dye room sockets": (7.4, 26, 490),
            "Weaving hall lamps": (210, 190, 260),
            "Spinning room sockets": (480, 455, 530),
            "Yarn store lamps": (150, 170, 180),
            "Office sockets": (620, 600, 700),
            "Boiler room": (96, 88, 130),
            "Loading dock sockets": (58, 64, 120),
            "Museum cases": (830, 790, 850),
            "Mending bench": (540, 500, 610),
            "Yard lamps": (31, 36, 90),
            "Compressor outlet": (260, 240, 300),
        },
    ),
)
PAIRS = ("L-PE", "N-PE", "L-N")


@dataclass(frozen=True)
class DemoSheet:
    """`on`: site, board, circuit. `put`: minutes after the start, tester, and the entry, its line named by its end.

    `with_proof`: the proof of isolation it goes with, made anew with it.
    """

    on: tuple[str, str, str]
    temperature_c: float | None
    put: tuple[tuple[float, str, dict[str, object]], ...]
    ring: bool = False
    with_proof: str = ""
    days_ago: float = 0.0


def tested(line: str, **test: object) -> dict[str, object]:
    return {"type": "tested", "line": line, "test": test}


LOOKED = tuple(
    (0.2 * i, "", {"type": "looked", "item": item, "good": True})
    for i, item in enumerate(("bare-ends", "clamp", "screws", "sleeves", "burnt", "brittle", "colours", "extra"))
)
LOADS_OUT: dict[str, object] = {"type": "loads", "loads": "disconnected", "neutral": "lifted"}
NULLED: dict[str, object] = {"type": "leads", "null_ohm": 0.12}

SHEETS = (
    DemoSheet(
        (*MILL, "Loom hall sockets"),
        17,
        (
            *LOOKED,
            (2.0, "", LOADS_OUT),
            (2.4, "l4", NULLED),
            (2.8, "l4", tested("joined PE Socket 1, window", measured_ohm=0.22)),
            (3.1, "l4", tested("joined PE Socket 2, museum loom", measured_ohm=0.27)),
            (3.4, "l4", tested("joined PE Socket 3, yarn store", measured_ohm=4.63)),
            (3.7, "l4", tested("joined L Socket 3, yarn store", measured_ohm=0.32)),
        ),
        with_proof="Loom motor",
    ),
    DemoSheet(
        ("Larkspur Hill Observatory", "Warm room board W", "Dew-heater bench"),
        9,
        (
            (0.0, "l4", NULLED),
            (0.6, "l4", tested("apart L-N", measured_ohm=29.0)),
            (1.2, "l4", tested("apart L-PE", over_range=True)),
        ),
        days_ago=1.3,
    ),
    DemoSheet(
        ("Fennwick Mill Cottage", "Cottage consumer unit", "Kitchen ring"),
        16,
        (
            (0.0, "l4", NULLED),
            (
                1.0,
                "l4",
                tested(
                    "ring",
                    r1=0.46,
                    rn=0.47,
                    r2=0.77,
                    points=[
                        {"id": "Outlet 1, door", "r1_rn": 0.23, "r1_r2": 0.3},
                        {"id": "Outlet 2, sink", "r1_rn": 0.24, "r1_r2": 0.31},
                        {"id": "Outlet 3, window", "r1_rn": 0.23, "r1_r2": 0.31},
                        {"id": "Outlet 4, larder", "r1_rn": 0.39, "r1_r2": 0.52},
                        {"id": "Outlet 5, range", "r1_rn": 0.24, "r1_r2": 0.31},
                        {"id": "Outlet 6, hall", "r1_rn": 0.23, "r1_r2": 0.3},
                    ],
                ),
            ),
        ),
        ring=True,
        days_ago=2.2,
    ),
)
