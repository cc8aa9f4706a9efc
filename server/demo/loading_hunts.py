"""Load the demo crew's hunts: begun, and looked at as far as the crew came."""

from datetime import timedelta
from typing import Any

from django.utils import timezone

from crews.models import Crew
from demo.crew import demo_id
from demo.hunts import HUNTS, DemoHunt, Electrician
from hunts.logs import content_of, file_of, stands
from hunts.models import Hunt, HuntEvent
from hunts.services import Begun, begin, hunt_of, keep

_BEGUN_BEFORE = timedelta(minutes=50)
_A_LOOK = timedelta(minutes=2)


def load_hunts(crew: Crew, user: Any) -> None:
    """Run again, it changes nothing: a hunt that is there is left as it is."""
    for demo in HUNTS:
        hunt_id = demo_id("hunt", demo.key)
        if Hunt.objects.filter(id=hunt_id).exists():
            continue
        begin(crew, user, hunt_id, begun(demo))
        start = timezone.now() - _BEGUN_BEFORE
        for number in range(demo.done):
            entry = electrician(hunt_of(crew, hunt_id), demo).look()
            if entry is not None:
                at = start + number * _A_LOOK
                keep(crew, user, hunt_id, demo_id("look", demo.key, str(number)), HuntEvent.Kind.SEEN, entry, at)


def begun(demo: DemoHunt) -> Begun:
    place = demo_id(*demo.on)
    on_board = demo.kind == "map"
    circuit, board = (None, place) if on_board else (place, None)
    return Begun(circuit, board, demo.happened, demo.kind, demo.told, demo.asked)


def electrician(hunt: Hunt, demo: DemoHunt) -> Electrician:
    """At the hunt as it stands now."""
    file = file_of(content_of(hunt, stands(hunt.events.all())))
    return Electrician(demo, file, {name: key for key, name in hunt.names.items()})
