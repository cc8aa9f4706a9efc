"""What is drawn beside a sheet: a ring outlet by outlet, insulation visit by visit. Places are the core's."""

from typing import Any

from evenprobe.deadtests.history import history
from evenprobe.deadtests.rings import RingOutlet, ring_bars
from evenprobe.rounding import figures
from sheets.records import SheetView


def ring_out(view: SheetView) -> list[dict[str, Any]]:
    entry = view.tests.get("ring")
    if entry is None:
        return []
    names = {str(p.id): p.name for p in view.sheet.circuit.points.all()}
    given = entry.entry["test"].get("points", [])
    outlets = [RingOutlet(p["id"], p.get("r1_rn"), p.get("r1_r2")) for p in given]
    ohms = {(p["id"], pair): p.get(pair) for p in given for pair in ("r1_rn", "r1_r2")}
    return [
        {
            "outlet": names.get(bar.outlet, bar.outlet),
            "pair": bar.pair,
            "ohms": ohms[bar.outlet, bar.pair],
            "up": bar.up,
            "expected": bar.expected,
            "limit": bar.limit,
            "spur": bar.spur,
            "poor_joint": bar.poor_joint,
        }
        for bar in ring_bars(view.taken["ring"].outcome, outlets)
    ]


def history_out(view: SheetView) -> list[dict[str, Any]]:
    """Insulation across visits, a picture for each pair of which there is more than none."""
    found = []
    for pair, own in view.visits_by_pair().items():
        drawn = history([v.visit for v in own], view.circuit.rule)
        found.append(
            {
                "pair": pair,
                "title": view.between(pair),
                "marks": [
                    {
                        "sheet": v.sheet.id,
                        "at": m.visit.at,
                        "mohm_20c": figures(m.visit.mohm_20c),
                        "across": m.across,
                        "up": m.up,
                        "halved": m.halved,
                    }
                    for v, m in zip(own, drawn.marks, strict=True)
                ],
                "limit_mohm": drawn.limit_mohm,
                "limit_up": drawn.limit_up,
                "ticks": [{"mohm": mohm, "up": up} for mohm, up in drawn.ticks],
                "halved": drawn.halved,
            }
        )
    return found
