"""What each branch's admittance is, of every sample under its condition: the installation in siemens."""

from collections.abc import Iterable, Sequence
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.conditions import Condition
from evenprobe.conditions.variants import OPEN, Variant
from evenprobe.installation.modes import Mode, only_between
from evenprobe.installation.sensitivities import Blocks
from evenprobe.supplies import Earthing
from evenprobe.wiring.points import Layout, PointFacts
from evenprobe.wiring.topology import FOREIGN, between, clamp, pairs_of, topology_of
from evenprobe.wiring.unknowns import (
    Range,
    Values,
    amperes,
    assumed_rating_a,
    board_pairs,
    circuit_load,
    load_left,
    most_load_a,
    ohm_of_a_run_too_long,
    source_range,
)

Array = NDArray[Any]
Rows = slice | NDArray[np.intp]
ByVariant = Sequence[tuple[Condition, Variant, Rows]]
Moved = Sequence[tuple[tuple[str, ...], Rows]]
"""Wires behind the contacts, and the rows where it is so."""

_OPEN_SIEMENS = 1e-9
_CLOSED_SIEMENS = 1e3
_BOLTED_SIEMENS = 1e3
_LEAST_DROP_VOLTS = 0.5
"""Lost on the way to a point even where the supply is at the foot of its band."""
_JOINED_OHM = Range(0.001, 0.5, "log")
"""From two screws on one bar to a clamp that barely holds."""
_FOREIGN_A = Range(0.0, 20.0, "square", absent=0.2)
"""What another circuit draws through this one's neutral."""
_BORROWED_SHARE = Range(0.2, 5.0, "log")
"""How long another circuit's neutral is, as a share of this run."""
CLAMPED_SIEMENS = 1e3
"""Of the stretch of conductor inside a clamp; amperes through it are its volts times this."""


def variant_of(share: Array, variants: int) -> NDArray[np.intp]:
    """Which of a condition's variants each sample is, by its `variant`."""
    return np.minimum((share * variants).astype(np.intp), variants - 1)


def rows_by_variant(layout: Layout, values: Values, blocks: Blocks) -> Iterable[tuple[Condition, Variant, Rows]]:
    """The rows of each condition that are one variant of it."""
    for condition, rows in blocks:
        variants = condition.variants_at(layout)
        if len(variants) == 1:
            yield condition, variants[0], rows
            continue
        which = variant_of(values["variant"][rows], len(variants))
        for number, variant in enumerate(variants):
            own = rows.start + np.flatnonzero(which == number)
            if len(own):
                yield condition, variant, own


class Admittances:
    """Of a point's installation; called with values (B,) of its unknowns, the rows of each condition, and the mode."""

    def __init__(self, point: PointFacts) -> None:
        self.point = point
        self.layout = point.layout
        self.topology = topology_of(point.layout)
        self._omega = 2 * np.pi * point.system.frequency_hz
        phasors = {**dict(zip(self.layout.bars, self.layout.phasors, strict=True)), "neutral": 0j}
        nominal = point.system.nominal_volts
        self._volts = {frozenset((a, b)): nominal * abs(phasors[a] - phasors[b]) for a, b in pairs_of(phasors)}
        self._circuit_pairs = pairs_of(self.layout.live_wires)
        self._most_a = most_load_a(point)
        self._foot_volts = source_range(point).low

    def __call__(self, values: Values, blocks: Blocks, mode: Mode) -> dict[str, Array]:
        """Siemens (B,) of every branch of the mode's mesh."""
        rows = list(rows_by_variant(self.layout, values, blocks))
        return {
            **self._at_the_board(values, rows, mode),
            **self._earthing(values, rows, mode),
            **self._run(values, rows, mode),
            **self._across_the_run(values, rows, mode),
        }

    def _capacitor(self, farad: Array, mode: Mode) -> Array:
        return np.asarray(1e-12 + 0 * farad if mode.dc else 1j * self._omega * farad)

    def _at_the_board(self, v: Values, by_variant: ByVariant, mode: Mode) -> dict[str, Array]:
        behind = v["source_ohm"] if mode.dc else v["source_ohm"] * np.exp(1j * v["source_angle"])
        y: dict[str, Array] = {"electrode": 1 / v["electrode_ohm"]}
        for bar, branch in self.topology.sources.items():
            y[branch] = 1 / (behind * v.get(f"source_{bar}_match", 1.0))
            stray = v["source_stray_farad"] * v[f"source_stray_{bar}_share"]
            y[f"source_stray_{bar}"] = self._capacitor(stray, mode) + _OPEN_SIEMENS
        for a, b in board_pairs(self.layout):
            y[between("board", a, b)] = v[amperes("board", a, b)] / self._volts[frozenset((a, b))] + _OPEN_SIEMENS
        for _, variant, rows in by_variant:
            for bar, feed in zip(self.layout.bars, variant.feeds, strict=True):
                if feed is None:
                    y[self.topology.sources[bar]][rows] = _OPEN_SIEMENS
            if variant.tied is not None:
                y[between("board", *variant.tied)][rows] = _BOLTED_SIEMENS
        return y

    def _earthing(self, v: Values, by_variant: ByVariant, mode: Mode) -> dict[str, Array]:
        earthing = self.point.earthing
        open_ = np.full(len(v["length_m"]), _OPEN_SIEMENS)
        bond = 1 / v["bond_ohm"] if earthing is Earthing.TN_C_S else open_.copy()
        service = 1 / v["service_earth_ohm"] if earthing is Earthing.TN_S else open_.copy()
        neutral = 1 / v["service_neutral_ohm"]
        electrode = 1 / v["source_electrode_ohm"]
        for condition, variant, rows in by_variant:
            if not condition.bonded:
                bond[rows] = service[rows] = electrode[rows] = _OPEN_SIEMENS
            if "service" in variant.joints:
                joint = variant.joints["service"]
                neutral[rows] = _OPEN_SIEMENS if joint is OPEN else 1 / joint.at(v["joint_severity"][rows])
        stray = v["source_stray_farad"] * v["source_stray_neutral_share"]
        return {
            "bond": bond,
            "service_earth": service,
            "service_neutral": neutral,
            "source_electrode": electrode + self._capacitor(stray, mode),
        }

    def _run(self, v: Values, by_variant: ByVariant, mode: Mode) -> dict[str, Array]:
        """Each wire along the run, before the tap and after it, and at the device."""
        count = len(v["length_m"])
        line_ohm = v["ohm_per_m"] * v["length_m"] * v["warmth"]
        for condition, _, rows in by_variant:
            if condition.overloaded:
                line_ohm[rows] += ohm_of_a_run_too_long(self.point)
        opened = _OPEN_SIEMENS + self._capacitor(v["open_farad"], mode)
        y: dict[str, Array] = {}
        for wire in self.layout.wires:
            before_tap = v["earth_joint_place" if wire == "earth" else "joint_place"] < 0.5
            joint = np.zeros(count)
            is_open = np.zeros(count, dtype=bool)
            for _, variant, rows in by_variant:
                if wire in variant.joints:
                    joint_range = variant.joints[wire]
                    is_open[rows] = joint_range is OPEN
                    if joint_range is not OPEN:
                        joint[rows] = joint_range.at(v["joint_severity"][rows])
            ohm = line_ohm * (v["earth_size"] if wire == "earth" else v.get(f"{wire}_match", 1.0))
            if wire == "neutral":
                for condition, _, rows in by_variant:
                    if condition.borrows_neutral:
                        ohm[rows] *= _BORROWED_SHARE.at(v["joint_severity"][rows])
            ohm = ohm + v[f"{wire}_splice_ohm"]
            for segment, share, here in (("a", v["tap"], before_tap), ("b", 1 - v["tap"], ~before_tap)):
                whole = 1 / (ohm * share + 1e-3 + joint * here)
                y[f"{wire}_{segment}"] = np.where(is_open & here, opened, whole + 0 * opened)
            if mode.clamped:
                y[clamp(wire)] = np.full(count, CLAMPED_SIEMENS)
            y[f"stray_{wire}"] = self._capacitor(v[f"stray_{wire}_farad"], mode) + 1e-12
        for line in self.layout.lines:
            y |= self._at_the_device(v, by_variant, mode, line, y[f"{line}_a"])
        if mode.dc and self.layout.neutral:
            y["neutral_link"] = np.full(count, _OPEN_SIEMENS if mode.neutral_lifted else _CLOSED_SIEMENS)
            for condition, _, rows in by_variant:
                if condition.borrows_neutral:
                    y["neutral_link"][rows] = _CLOSED_SIEMENS
        return y

    def _at_the_device(
        self, v: Values, by_variant: ByVariant, mode: Mode, line: str, closed: Array
    ) -> dict[str, Array]:
        """The device's pole, a branch of its own when dead and else part of the run's first stretch."""
        ghost = v["ghost_farad"] * v.get(f"ghost_{line}_share", 1.0)
        at_device = _OPEN_SIEMENS + self._capacitor(ghost, mode)
        if mode.device_open:
            return {f"device_{line}" if mode.dc else f"{line}_a": at_device}
        for condition, _, rows in by_variant:
            if condition.open_at_device:
                closed[rows] = at_device[rows]
        return {}

    def _across_the_run(self, v: Values, by_variant: ByVariant, mode: Mode) -> dict[str, Array]:
        """Between the wires at the tap and at the contacts: cable, filters, loads, and what leaks."""
        near = v["length_m"] * (0.5 + v["tap"] / 2)
        far = v["length_m"] - near + v["beyond_m"]
        y: dict[str, Array] = {}
        for a, b in pairs_of(self.layout.wires):
            cable = v[f"{between('cable', a, b)}_farad_per_m"]
            y[between("tap", a, b)] = self._capacitor(cable * near, mode)
            y[between("end", a, b)] = self._capacitor(cable * far, mode)
        for wire in self.layout.live_wires:
            branch = between("end", wire, "earth")
            y[branch] = y[branch] + self._capacitor(v[f"filter_{wire}_farad"] * v["filters_fitted"], mode)
        moved = [
            (c, variant.contacts, rows) for c, variant, rows in by_variant if variant.contacts != self.layout.wires
        ]
        taps_moved = [(contacts, rows) for c, contacts, rows in moved if c.taps_too]
        ends_moved = [(contacts, rows) for _, contacts, rows in moved]
        sound = self._share_that_sound_wires_carry(v, by_variant)
        for place, elsewhere in (("tap", taps_moved), ("end", ends_moved)):
            for a, b in self._circuit_pairs:
                self._put_load(y, place, (a, b), sound * self._load_siemens(v, place, a, b, mode), elsewhere)
        for condition, variant, rows in by_variant:
            if condition.leak_ohm is not None:
                y[between("end", variant.leaking, "earth")][rows] += 1 / condition.leak_ohm.at(v["leak_severity"][rows])
            if variant.joined:
                y[between(variant.joined, "neutral", "earth")][rows] += 1 / _JOINED_OHM.at(v["leak_severity"][rows])
        if self.layout.neutral:
            y[FOREIGN] = self._foreign_siemens(v, by_variant, mode)
        return y

    def _foreign_siemens(self, v: Values, by_variant: ByVariant, mode: Mode) -> Array:
        """Of another circuit's load on this one's neutral."""
        found = np.full(len(v["length_m"]), _OPEN_SIEMENS, dtype=float if mode.dc else complex)
        for _, variant, rows in by_variant:
            if variant.foreign is not None:
                volts = self.point.system.nominal_volts * abs(variant.foreign)
                found[rows] += (
                    _FOREIGN_A.at(v["leak_severity"][rows]) / volts * (v["load_at_dc"][rows] if mode.dc else 1.0)
                )
        return found

    def most_along_the_run(self, v: Values, blocks: Blocks, pair: tuple[str, str], mode: Mode) -> Array:
        """Siemens (B,) of the most that can be on between two wires beside what is at the contacts."""
        by_variant = list(rows_by_variant(self.layout, v, blocks))
        alone = mode._replace(others=only_between(*pair))
        return self._share_that_sound_wires_carry(v, by_variant) * self._load_siemens(v, "tap", *pair, alone)

    def _left_a(self, v: Values, a: str, b: str) -> Array:
        """What the device lets through beside what is at the contacts."""
        return assumed_rating_a(self.point) * load_left(v, a, b, self._most_a) / self._most_a

    def _share_that_sound_wires_carry(self, v: Values, by_variant: ByVariant) -> Array:
        """Of the most that a device lets through: a circuit is sound only while its voltage stays in the band.

        Where there is a fault the load may be what it likes.
        """
        share = np.ones(len(v["length_m"]))
        run = 2 * v["ohm_per_m"] * v["length_m"] * v["warmth"]
        drop = self._most_a * (run + v["source_ohm"] + v["service_neutral_ohm"])
        of_allowed = drop / np.maximum(v["source_volts"] - self._foot_volts, _LEAST_DROP_VOLTS)
        for condition, _, rows in by_variant:
            if condition.severity.is_fine:
                share[rows] = 1 / np.hypot(1, of_allowed[rows])
        return share

    def _load_siemens(self, v: Values, place: str, a: str, b: str, mode: Mode) -> Array:
        """At DC a load is another resistance altogether: a cold filament, a rectifier, a winding."""
        load = circuit_load(v, place, a, b, self._most_a)
        if place == "tap" and mode.others:
            is_on = mode.others == only_between(a, b)
            load = self._left_a(v, a, b) * is_on
        if mode.unplugged:
            load = np.zeros_like(load)
        siemens = load / self._volts[frozenset((a, b))]
        return np.asarray(siemens * (v["load_at_dc"] if mode.dc else np.exp(-1j * v["load_angle"])))

    def _put_load(self, y: dict[str, Array], place: str, contacts: tuple[str, str], load: Array, moved: Moved) -> None:
        """Between the wires behind two contacts: their own, but in some rows others."""
        own = between(place, *contacts)
        if not moved:
            y[own] = y[own] + load
            return
        at_home = load.copy()
        for _, rows in moved:
            at_home[rows] = 0
        y[own] = y[own] + at_home
        positions = [self.layout.wires.index(contact) for contact in contacts]
        for behind, rows in moved:
            one, other = (behind[position] for position in positions)
            if one != other:
                y[between(place, one, other)][rows] += load[rows]
