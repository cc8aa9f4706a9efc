"""Links: the address at which a tester of the kit answers."""

from django.db import models

from kit.models import Tester


class Link(models.Model):
    """`address`: a VISA resource name, of a TCP socket or a serial port."""

    tester = models.OneToOneField(Tester, primary_key=True, on_delete=models.CASCADE, related_name="link")
    address = models.CharField(max_length=200)

    def __str__(self) -> str:
        return f"{self.tester} at {self.address}"
