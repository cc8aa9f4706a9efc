"""The tables of the trade over HTTP, the same to everyone signed in."""

from django.http import HttpRequest
from ninja import Router

from evenprobe.formats.reference import Reference, reference

router = Router(tags=["reference"])


@router.get("/reference", response=Reference)
def tables(request: HttpRequest) -> Reference:  # noqa: ARG001
    """What the forms and pictures show of practices, testers, functions, places and sizes."""
    return reference()
