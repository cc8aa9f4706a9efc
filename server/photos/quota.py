"""How much room a crew's pictures may take on the server's disk."""

from django.conf import settings
from django.db.models import Sum
from django.db.models.functions import Length

from base.problems import Refused
from crews.models import Crew
from photos.models import Photo

_MB = 1024 * 1024
_FULL = 507


def refuse_beyond_quota(crew: Crew, more_bytes: int) -> None:
    """Raises Refused where so many bytes more are more than the crew may keep; they can be sent again later."""
    kept: int = Photo.objects.filter(crew=crew).aggregate(bytes=Sum(Length("image")))["bytes"] or 0
    if kept + more_bytes > settings.PHOTOS_MB_PER_CREW * _MB:
        text = (
            f"is more than the {settings.PHOTOS_MB_PER_CREW} MB of pictures this server keeps for a crew: it stays "
            "on your device until whoever runs the server gives more room"
        )
        raise Refused(("image", text), status=_FULL)
