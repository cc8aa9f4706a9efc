"""The demo crew's hunts, each with what is really true there, for whoever looks: a test, or the stand-in on the run."""

from dataclasses import dataclass, field
from typing import Any

from evenprobe.formats.circuits import ChainFile, CircuitFile, GuidedFile, MapFile, OpenFile, ShortFile
from evenprobe.hunting.hidden import HiddenBoard, HiddenChain, HiddenOpen, HiddenShort
from evenprobe.hunting.run import BOARD, Place
from evenprobe.wiring.conductors import conductor_named

OBSERVATORY, MILL, COTTAGE = "Larkspur Hill Observatory", "Fennwick Weaving Shed", "Fennwick Mill Cottage"
_LOFT_OUTLETS = (
    "Landing lamp", "Landing outlet", "North room lamp", "North room outlet", "South room lamp", "South room outlet",
    "Bathroom lamp", "Shaver outlet", "Loft lamp", "Loft outlet", "Stairs lamp", "Porch lamp",
)  # fmt: skip
_LOFT_WAYS = (5, 2, 5, 2, 7, 3, 1, 1, 8, 4, 5, 6)
_LOOM_CHAIN = {
    "supply_v": 230.0,
    "elements": [
        {"id": "Control fuse", "kind": "fuse"},
        {"id": "Stop button"},
        {"id": "Beater guard limit"},
        {"id": "Overload contact"},
        {"id": "Coil K1", "kind": "coil", "rated_v": 230.0},
    ],
}


@dataclass(frozen=True)
class DemoHunt:
    """`on`: site, board, and the circuit but of a map. `truth`: a point of the run, or the cable to it; an element.

    `feeds`: the way of each outlet. `answers`: by step what is seen there, in order; points by their names.
    `done`: how many looks the crew took already.
    """

    key: str
    on: tuple[str, ...]
    happened: str
    kind: str
    truth: str = ""
    in_the_cable: bool = False
    feeds: dict[str, str] = field(default_factory=dict)
    answers: dict[str, tuple[dict[str, Any], ...]] = field(default_factory=dict)
    asked: dict[str, Any] = field(default_factory=dict)
    told: dict[str, str] = field(default_factory=dict)
    done: int = 0


HUNTS = (
    DemoHunt(
        "dew-heaters",
        (OBSERVATORY, "Warm room board W", "Dew-heater bench"),
        "trips-at-once",
        "short",
        "Heater box 5",
        in_the_cable=True,
        told={"done_last": "A shelf was hung behind the bench."},
        done=2,
    ),
    DemoHunt(
        "workshop",
        (OBSERVATORY, "Warm room board W", "Workshop outlets"),
        "dead",
        "open",
        "Outlet 4, grinder",
        told={"also_dead": "Nothing else."},
        done=1,
    ),
    DemoHunt(
        "pier-pads",
        (OBSERVATORY, "Warm room board W", "Pier pad outlets"),
        "dead",
        "protective-outlet",
        answers={
            "upstream": ({"outcome": "tripped"},),
            "measure": ({"outcome": "feed"},),
            "press-reset": ({"outcome": "holds"},),
            "press-test": ({"outcome": "out"},),
            "downstream": (
                {"outcome": "dead", "name": "Pier north"},
                {"outcome": "dead", "name": "Pier south"},
                {"outcome": "all"},
            ),
            "label": ({"outcome": "labelled", "name": "Warm room door"},),
        },
        done=2,
    ),
    DemoHunt(
        "loom-chain",
        (MILL, "Mill board", "Loom motor"),
        "no-pull-in",
        "chain",
        "Beater guard limit",
        asked={"chain": _LOOM_CHAIN},
        done=1,
    ),
    DemoHunt(
        "night-light",
        (MILL, "Inverter cupboard", "Night light"),
        "tingle",
        "tingle",
        answers={
            "keep-off": ({"outcome": "off"},),
            "to-reference": ({"figures": {"volts": 96.0}},),
            "low-impedance": ({"figures": {"volts": 3.5}},),
            "unplug": (
                {"name": "Clock", "figures": {"volts": 95.0}},
                {"name": "Lamp charger", "figures": {"volts": 0.9}},
            ),
        },
        done=2,
    ),
    DemoHunt(
        "loft-board",
        (COTTAGE, "Cottage loft board"),
        "unlabelled",
        "map",
        asked={"ways": [f"Way {n}" for n in range(1, 9)], "outlets": list(_LOFT_OUTLETS)},
        feeds={outlet: f"Way {way}" for outlet, way in zip(_LOFT_OUTLETS, _LOFT_WAYS, strict=True)},
        done=len(_LOFT_OUTLETS) + 4,
    ),
)


@dataclass(frozen=True)
class Electrician:
    """Looks where the program says, and writes down what is really there."""

    demo: DemoHunt
    file: CircuitFile
    ids: dict[str, str]
    """Of points and ways, by their names."""

    def look(self) -> dict[str, Any] | None:
        """What is seen at what comes next, as a circuit file has it; None where nothing comes next."""
        match self.file:
            case ShortFile():
                return self._short(self.file)
            case OpenFile():
                return self._open(self.file)
            case ChainFile():
                return self._chain(self.file)
            case MapFile():
                return self._tap(self.file)
            case GuidedFile():
                return self._step(self.file)
        return None

    @property
    def truth(self) -> Place:
        return Place(self.ids[self.demo.truth], stretch=self.demo.in_the_cable)

    def short(self, file: ShortFile) -> HiddenShort:
        return HiddenShort(file.run, self.truth, conductor_named(file.conductor).ohm_per_m if file.conductor else 0.0)

    def open(self, file: OpenFile) -> HiddenOpen:
        return HiddenOpen(file.run, self.truth, file.practice.systems[0].nominal_volts)

    def chain(self, file: ChainFile) -> HiddenChain:
        return HiddenChain([element.id for element in file.elements], self.demo.truth, file.supply_v)

    def ohm(self, at: str, side: str) -> float | None:
        """Between the two that are joined, on a side of an opened box. Raises ValueError where no short is hunted."""
        if not isinstance(self.file, ShortFile):
            raise ValueError("ohms are of a short")
        return self.short(self.file).ohm(at, "feed" if side == "feed" else "onward")

    def volts(self, at: str, ends: str) -> float:
        """At a face of the run, or of a joint against the return. Raises ValueError where nothing is live."""
        match self.file:
            case OpenFile():
                return self.open(self.file).volts_between(at, ends)
            case ChainFile():
                return self.chain(self.file).volts_after(at)
        raise ValueError("nothing is live here")

    def _short(self, file: ShortFile) -> dict[str, Any] | None:
        following = file.hunted().next
        if following is None:
            return None
        split = self.short(file).split(following.at)
        feed = {} if following.at == BOARD else {"feed": split.feed}
        return {"at": following.at, **feed, "onward": split.onward}

    def _open(self, file: OpenFile) -> dict[str, Any] | None:
        following = file.hunted().next
        if following is None:
            return None
        hidden = self.open(file)
        if following.task == "open":
            return {"at": following.at, "here": hidden.looked(following.at).here}
        return {"at": following.at, "live": hidden.is_live(following.at)}

    def _chain(self, file: ChainFile) -> dict[str, Any] | None:
        after = file.hunted().next_after
        return None if after is None else {"after": after, "volts": self.chain(file).volts_after(after)}

    def _tap(self, file: MapFile) -> dict[str, Any] | None:
        found = file.hunted()
        if found.next_outlet is None or found.next_round is None:
            return None
        live = HiddenBoard(self.demo.feeds).is_live(found.next_outlet, found.rounds[found.next_round - 1])
        return {"outlet": found.next_outlet, "round": found.next_round, "live": live}

    def _step(self, file: GuidedFile) -> dict[str, Any] | None:
        at = file.hunted().at
        if at is None:
            return None
        before = sum(each.step == at.id for each in file.seen)
        seen = self.demo.answers[at.id][before]
        named = {"name": self.ids.get(seen["name"], seen["name"])} if "name" in seen else {}
        return {"step": at.id, **seen, **named}
