"""Serve the stand-in meter, which measures the demo installations."""

from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from demo.hidden import hidden_at, hidden_points
from meters.scpi import USUAL_PORT
from meters.serving import StandInServer
from meters.standin import StandIn


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--port", type=int, default=USUAL_PORT)

    def handle(self, *_args: Any, **options: Any) -> None:
        hidden = hidden_at(hidden_points())
        with StandInServer(("127.0.0.1", options["port"]), lambda: StandIn(hidden)) as server:
            self.stdout.write(
                f"stand-in meter at 127.0.0.1:{options['port']}, as TCPIP::127.0.0.1::{options['port']}::SOCKET"
            )
            server.serve_forever()
