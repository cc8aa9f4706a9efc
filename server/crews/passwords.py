"""Passwords: what is too weak, and that whoever changes one's account knows the one that is good now."""

from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.http import HttpRequest

from base.problems import Refused
from crews.signing_in import password_is_right


def refuse_weak(password: str, person: User, key: str = "password") -> None:
    """Raises Refused for one others would guess (NIST SP 800-63B, 5.1.1.2: length, and none of the common)."""
    try:
        validate_password(password, person)
    except ValidationError as error:
        raise Refused((key, " ".join(error.messages))) from None


def refuse_wrong(request: HttpRequest, person: User, password: str, key: str) -> None:
    """Raises Refused with 403 unless it is the person's own now, slowed as signing in is."""
    if not password_is_right(request, person, password):
        raise Refused((key, "this is not your password"), status=403)
