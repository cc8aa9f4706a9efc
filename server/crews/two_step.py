"""Signing in in two steps, for whoever wants it: a code from an app on one's phone (RFC 6238), by django-otp.

Codes on paper, each good once, for the day the phone is gone.
"""

import base64
import secrets
from dataclasses import dataclass

import segno
from django.contrib.auth.models import User
from django.db import transaction
from django_otp.plugins.otp_static.models import StaticDevice
from django_otp.plugins.otp_totp.models import TOTPDevice

from base.problems import Refused

_NAME = "Even Probe"
_CODES, _DASH = 8, "-"


@dataclass(frozen=True)
class Beginning:
    """`secret`: to type where no camera reads `picture`, an SVG as an address that holds it."""

    secret: str
    picture: str


def has_two_step(user: User) -> bool:
    return bool(TOTPDevice.objects.filter(user=user, confirmed=True).exists())


@transaction.atomic
def code_is_right(user: User, code: str) -> bool:
    """From the app or, with a dash in it, from the paper. A code that was used is good no more."""
    told = "".join(code.split()).lower()
    model = StaticDevice if _DASH in told else TOTPDevice
    device = model.objects.select_for_update().filter(user=user, confirmed=True).first()
    return device is not None and bool(device.verify_token(told))


@transaction.atomic
def begin(user: User) -> Beginning:
    """A secret for the app. Nothing is asked for until a code made with it came back."""
    if has_two_step(user):
        raise Refused(("", "two steps are on already; turn them off first"), status=409)
    TOTPDevice.objects.filter(user=user).delete()
    device = TOTPDevice.objects.create(user=user, name=_NAME, confirmed=False)
    secret = base64.b32encode(device.bin_key).decode()
    address = f"otpauth://totp/{_NAME.replace(' ', '%20')}:{user.pk}?secret={secret}&issuer={_NAME.replace(' ', '%20')}"
    return Beginning(secret, segno.make(address, micro=False).svg_data_uri(scale=4, border=4, light="#fff"))


@transaction.atomic
def turn_on(user: User, code: str) -> list[str]:
    """With a code from the app; the codes for paper, shown this once."""
    device = TOTPDevice.objects.select_for_update().filter(user=user, confirmed=False).first()
    if device is None:
        raise Refused(("", "begin again: there is no secret waiting for a code"), status=409)
    if not device.verify_token("".join(code.split())):
        raise Refused(("code", "Wrong code: is the phone's clock right?"))
    device.confirmed = True
    device.save()
    StaticDevice.objects.filter(user=user).delete()
    paper = StaticDevice.objects.create(user=user, name=_NAME)
    codes = [f"{secrets.token_hex(3)}{_DASH}{secrets.token_hex(3)}" for _ in range(_CODES)]
    for one in codes:
        paper.token_set.create(token=one)
    return codes


@transaction.atomic
def turn_off(user: User) -> None:
    """The same again changes nothing."""
    for model in (TOTPDevice, StaticDevice):
        model.objects.filter(user=user).delete()
