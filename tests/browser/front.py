"""A front between browser and server that can be killed and come back at the same address, as a server does."""

import socket
import threading
from contextlib import suppress
from urllib.parse import urlsplit


class Front:
    """`url`: where it is, whether or not it serves."""

    def __init__(self, live_server):
        self._server = urlsplit(live_server.url)
        self._open = []
        self._listening = socket.create_server(("localhost", 0))
        self._port = self._listening.getsockname()[1]
        self.url = f"http://localhost:{self._port}"

    def __enter__(self):
        threading.Thread(target=self._accept, args=(self._listening,), daemon=True).start()
        return self

    def __exit__(self, *_):
        self.kill()

    def kill(self):
        """Nothing listens any more, and whatever was under way is cut."""
        for end in (self._listening, *self._open):
            with suppress(OSError):
                end.shutdown(socket.SHUT_RDWR)
            end.close()
        self._open.clear()

    def serve(self):
        self._listening = socket.create_server(("localhost", self._port))
        threading.Thread(target=self._accept, args=(self._listening,), daemon=True).start()

    def _accept(self, listening):
        with suppress(OSError):
            while True:
                browser, _ = listening.accept()
                server = socket.create_connection((self._server.hostname, self._server.port))
                self._open += [browser, server]
                for one, other in ((browser, server), (server, browser)):
                    threading.Thread(target=self._carry, args=(one, other), daemon=True).start()

    @staticmethod
    def _carry(one, other):
        with suppress(OSError):
            while part := one.recv(65536):
                other.sendall(part)
            other.shutdown(socket.SHUT_WR)
