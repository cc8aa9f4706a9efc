"""The stand-in meter on a TCP port: a line in, and where one is due a line out, for each that connects."""

import socketserver
from collections.abc import Callable
from contextlib import suppress
from socket import SHUT_RDWR, socket

from meters.standin import StandIn

_LONGEST_LINE = 512


class _Conversation(socketserver.StreamRequestHandler):
    def handle(self) -> None:
        server = self.server
        assert isinstance(server, StandInServer)
        meter = server.make()
        server.talking.add(self.connection)
        while line := self.rfile.readline(_LONGEST_LINE):
            answer = meter.answer(line.decode("ascii", "replace"))
            if answer is not None:
                self.wfile.write(f"{answer}\n".encode("ascii"))


class StandInServer(socketserver.ThreadingTCPServer):
    """Each connection holds a meter of its own, made by `make`."""

    allow_reuse_address = True
    daemon_threads = True
    block_on_close = False

    def __init__(self, address: tuple[str, int], make: Callable[[], StandIn]) -> None:
        super().__init__(address, _Conversation)
        self.make = make
        self.talking: set[socket] = set()

    def hang_up(self) -> None:
        """Stop serving and cut everyone off, as a meter does that is switched off."""
        self.shutdown()
        self.server_close()
        for connection in self.talking:
            with suppress(OSError):
                connection.shutdown(SHUT_RDWR)
