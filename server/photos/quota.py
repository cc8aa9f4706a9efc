"""How much room a crew's pictures may take on the server's disk."""

from django.conf import settings
from django.db.models import Sum
from django.db.models.functions import Length

from base.problems import Refused
from crews.models import Crew
from photos.models import Photo

_MB = 1024 * 1024
_TOO_MUCH = 413
"""Not 507, at which a device waits with everything: what it recorded after the picture is not to wait for it."""


def refuse_beyond_quota(crew: Crew, more_bytes: int) -> None:
    """Raises Refused where so many bytes more are more than the crew may keep; they can be sent again when there is."""
    kept: int = Photo.objects.filter(crew=crew).aggregate(bytes=Sum(Length("image")))["bytes"] or 0
    if kept + more_bytes > settings.PHOTOS_MB_PER_CREW * _MB:
        text = (
            f"There is no room: your crew's pictures fill the {settings.PHOTOS_MB_PER_CREW} MB this server keeps for "
            "them. Nothing is lost: send it again when whoever runs the server has given more."
        )
        raise Refused(("", text), status=_TOO_MUCH)
