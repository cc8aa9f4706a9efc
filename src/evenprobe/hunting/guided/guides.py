"""Every guided hunt by its id; a module each says what it is."""

from evenprobe.hunting.guided.protective_outlet import PROTECTIVE_OUTLET
from evenprobe.hunting.guided.step import Guide
from evenprobe.hunting.guided.tingle import TINGLE
from evenprobe.hunting.guided.tripped import TRIPPED
from evenprobe.registry import Registry

GUIDES: Registry[Guide] = Registry("guide")

for _guide in (TRIPPED, PROTECTIVE_OUTLET, TINGLE):
    GUIDES.add(_guide)
