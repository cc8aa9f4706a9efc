"""The demo crew's kit: one overdue, one with its tip covers lost, a detector with no light."""

from dataclasses import dataclass


@dataclass(frozen=True)
class DemoPart:
    key: str
    role: str
    entry: dict[str, object]


@dataclass(frozen=True)
class DemoTester:
    """`checked`: what today's check found, where one was made."""

    key: str
    entry: dict[str, object]
    leads: str | None = None
    checked: dict[str, object] | None = None


PARTS = (
    DemoPart("leads-a", "leads", {"label": "Leads A", "category": "III", "rated_v": 1000, "tip_covers": True}),
    DemoPart(
        "leads-b",
        "leads",
        {"label": "Leads B, covers lost", "category": "III", "rated_v": 1000, "tip_covers": False},
    ),
    DemoPart("clips", "adapter", {"label": "Clip adapter", "category": "II", "rated_v": 300}),
    DemoPart("shutter", "adapter", {"label": "Shutter adapter", "category": "III", "rated_v": 600}),
)

TESTERS = (
    DemoTester(
        "m2",
        {
            "label": "Meter M2",
            "kind": "multimeter",
            "proved": True,
            "category": "III",
            "rated_v": 600,
            "functions": ["voltage-ac", "voltage-dc", "resistance", "continuity", "current-ac", "capacitance"],
            "input_ohm": 10e6,
            "accuracy_percent": 0.8,
            "accuracy_counts": 3,
            "resolution": 0.1,
            "calibration_due": "2027-04-30",
        },
        leads="leads-a",
        checked={"leads": "good", "tips": "good", "battery": "good", "display": "good", "lead_ohm": 0.2},
    ),
    DemoTester(
        "t1",
        {
            "label": "Two-pole T1",
            "kind": "two-pole",
            "proved": True,
            "category": "III",
            "rated_v": 690,
            "functions": ["voltage-ac", "voltage-dc"],
            "steps_v": [12, 50, 120, 230, 400, 690],
            "test_ma": 30,
            "calibration_due": "2027-02-28",
        },
        checked={"leads": "good", "battery": "good", "display": "good", "self_check": "good"},
    ),
    DemoTester(
        "d1",
        {
            "label": "Detector D1",
            "kind": "non-contact",
            "proved": True,
            "category": "IV",
            "rated_v": 1000,
            "always_on_light": False,
        },
    ),
    DemoTester(
        "m5",
        {
            "label": "Meter M5, dropped",
            "kind": "multimeter",
            "proved": False,
            "category": "II",
            "rated_v": 300,
            "damage": True,
        },
        leads="leads-b",
    ),
    DemoTester(
        "m6",
        {
            "label": "Meter M6",
            "kind": "multimeter",
            "proved": True,
            "category": "III",
            "rated_v": 600,
            "calibration_due": "2027-01-31",
        },
        leads="leads-a",
    ),
    DemoTester(
        "i1",
        {
            "label": "Insulation tester I1",
            "kind": "insulation-tester",
            "proved": True,
            "category": "III",
            "rated_v": 600,
            "functions": ["voltage-ac", "insulation", "continuity"],
            "test_v": [250, 500, 1000],
            "calibration_due": "2026-10-31",
        },
        leads="leads-a",
    ),
    DemoTester(
        "i3",
        {
            "label": "Insulation tester I3",
            "kind": "insulation-tester",
            "proved": True,
            "category": "III",
            "rated_v": 600,
            "functions": ["voltage-ac", "insulation", "continuity"],
            "test_v": [250, 500, 1000],
            "calibration_due": "2027-06-30",
        },
        leads="leads-a",
        checked={"leads": "good", "battery": "good", "display": "good"},
    ),
    DemoTester(
        "l4",
        {
            "label": "Low-ohm L4",
            "kind": "low-ohm",
            "proved": True,
            "category": "III",
            "rated_v": 600,
            "functions": ["resistance", "continuity"],
            "accuracy_percent": 2.0,
            "accuracy_counts": 2,
            "resolution": 0.01,
            "calibration_due": "2027-03-31",
        },
        leads="leads-a",
        checked={"leads": "good", "battery": "good", "display": "good", "lead_ohm": 0.12},
    ),
    DemoTester(
        "p6",
        {
            "label": "Plug tester P6",
            "kind": "digital-plug-tester",
            "category": "III",
            "rated_v": 300,
            "test_ma": 6,
        },
    ),
    DemoTester(
        "w1",
        {
            "label": "Wired meter W1",
            "kind": "multimeter",
            "category": "III",
            "rated_v": 1000,
            "battery": "ok",
            "proved": True,
            "calibration_due": "2027-06-30",
        },
        "leads-a",
    ),
    DemoTester(
        "c1",
        {
            "label": "Clamp C1",
            "kind": "clamp",
            "category": "III",
            "rated_v": 600,
            "functions": ["current-ac", "voltage-ac", "resistance", "frequency"],
            "battery": "ok",
            "proved": True,
            "calibration_due": "2027-03-31",
        },
        "leads-a",
    ),
    DemoTester("u1", {"label": "Proving unit U1", "kind": "proving-unit", "calibration_due": "2027-05-31"}),
)
ON_THE_WIRE = "w1"
"""The tester that the stand-in meter is."""
