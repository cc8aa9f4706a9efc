"""Words of closed lists, as answers have them: text, of which a client is told what it can be."""

from typing import Annotated

from evenprobe.conditions import Severity
from evenprobe.deadtests.kinds import DEAD_TESTS
from evenprobe.entries.documented import Among
from evenprobe.interpretation import Verdict
from evenprobe.interpretation.findings import State
from evenprobe.interpretation.next_measurement import Obstacle
from evenprobe.practices import PRACTICES
from evenprobe.quantities import QUANTITIES
from evenprobe.supplies import SYSTEMS, Earthing
from evenprobe.testers import KINDS
from evenprobe.testers.purposes import Purpose
from evenprobe.testers.ratings import Category, Place
from evenprobe.wiring import PointKind
from evenprobe.wiring.references import REFERENCES

QuantityWord = Annotated[str, Among(QUANTITIES)]
KindWord = Annotated[str, Among(KINDS)]
PracticeWord = Annotated[str, Among(PRACTICES)]
SystemWord = Annotated[str, Among(SYSTEMS)]
EarthingWord = Annotated[str, Among(Earthing)]
PointKindWord = Annotated[str, Among(PointKind)]
PlaceWord = Annotated[str, Among(Place)]
PurposeWord = Annotated[str, Among(Purpose)]
CategoryWord = Annotated[str, Among(tuple(category.name for category in Category))]
ReferenceWord = Annotated[str, Among(REFERENCES)]
DeadTestWord = Annotated[str, Among(DEAD_TESTS)]
VerdictWord = Annotated[str, Among(Verdict)]
StateWord = Annotated[str, Among(State)]
ObstacleWord = Annotated[str, Among(Obstacle)]
SeverityWord = Annotated[str, Among(tuple(severity.label for severity in Severity))]
