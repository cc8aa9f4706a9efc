"""Serve phones in the house over HTTPS: the address as a QR code, and how to trust it."""

import os
import socket
import sys
from pathlib import Path
from typing import Any

import segno
from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser

from base.lan import TRUSTED, address_here, certificate

_SAID = """
  Even Probe is at {url}

  The first time on a phone:
  1. Open the address. The browser warns, because this server signs for itself: go on this once.
  2. Open {url}/{trusted} and install it as a certificate authority.
     Android: Settings, Security, Encryption and credentials, Install a certificate, CA certificate.
     iPhone: Settings, Profile downloaded, Install; then General, About, Certificate Trust Settings, and switch it on.
  3. Open the address again, and add it to the home screen: from then on it opens without a line too.
  Remove the certificate from a phone that no longer works with this server.
"""


class Command(BaseCommand):
    help = "Serves phones in the house over HTTPS, with a certificate made on the spot."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--port", type=int, default=8443)
        parser.add_argument("--address", default="", help="this machine's address in the house, if it is not found")

    def handle(self, *_args: Any, port: int, address: str, **_options: Any) -> None:
        found = address or address_here()
        if not found:
            raise CommandError("this machine has no address in any network: connect it, or give --address")
        names = [found, socket.gethostname(), f"{socket.gethostname()}.local", "localhost", "127.0.0.1"]
        made = certificate(Path(settings.DATA_DIR) / "lan", names)
        url = f"https://{found}:{port}"
        segno.make(url).terminal(sys.stdout, compact=True)
        self.stdout.write(_SAID.format(url=url, trusted=TRUSTED))
        self.stdout.flush()
        os.environ |= {
            "ALLOWED_HOSTS": ",".join(names),
            "CSRF_TRUSTED_ORIGINS": ",".join(f"https://{name}:{port}" for name in names),
            "HSTS_SECONDS": "0",
        }
        gunicorn = ["gunicorn", "--chdir", str(settings.ROOT / "server"), "--no-control-socket", "--workers", "1"]
        https = [
            "--threads",
            "8",
            "--bind",
            f"0.0.0.0:{port}",
            "--certfile",
            str(made.chain),
            "--keyfile",
            str(made.key),
        ]
        os.execv(str(Path(sys.executable).parent / "gunicorn"), [*gunicorn, *https, "project.wsgi"])
