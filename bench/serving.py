"""The server as `make demo` runs it, in a place of its own, people signed in to it, and meters it can ask."""

import os
import signal
import socketserver
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Iterator, Mapping, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, field
from pathlib import Path
from types import MappingProxyType
from typing import Any

import requests

ROOT = Path(__file__).parents[1]
PASSWORD = "larkspur-demo"
_MANAGE = (sys.executable, str(ROOT / "server/manage.py"))
_STARTS_S = 30.0
_HOW_IT_RUNS = ("DJANGO_SETTINGS_MODULE", "DJANGO_ALLOW_ASYNC_UNSAFE", "PLAIN_HTTP", "DATABASE_URL", "SECRET_KEY")


def elsewhere(data: Path) -> dict[str, str]:
    """The environment of a machine whose record is in that folder: this one's, without what says how it runs here."""
    own = {name: value for name, value in os.environ.items() if name not in _HOW_IT_RUNS}
    return {**own, "EVENPROBE_DATA": str(data)}


@dataclass
class Server:
    """Gunicorn with one worker of eight threads. `before`: words before its command."""

    data: Path
    port: int
    before: Sequence[str] = ()
    more: dict[str, str] = field(default_factory=dict)
    _running: "subprocess.Popen[bytes] | None" = None

    @property
    def address(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    @property
    def environment(self) -> dict[str, str]:
        return {**elsewhere(self.data), "PLAIN_HTTP": "1", **self.more}

    @property
    def group(self) -> int:
        """The process group that all of it is in."""
        assert self._running is not None, "it is not running"
        return self._running.pid

    def manage(self, *words: str) -> str:
        """What the command said."""
        command = [*_MANAGE, *words]
        return subprocess.run(command, env=self.environment, check=True, stdout=subprocess.PIPE, text=True).stdout

    def start(self) -> None:
        serve = [
            *self.before, str(Path(sys.executable).parent / "gunicorn"), "--chdir", str(ROOT / "server"),
            "--no-control-socket", "--workers", "1", "--threads", "8", "--bind", f"127.0.0.1:{self.port}",
            "project.wsgi",
        ]  # fmt: skip
        with Path(self.data / "server.log").open("ab") as log:
            self._running = subprocess.Popen(serve, env=self.environment, stderr=log, start_new_session=True)
        self._wait()

    def kill(self) -> None:
        """All of it at once and without a word, as a machine that loses its power."""
        self._end(signal.SIGKILL)

    def stop(self) -> None:
        self._end(signal.SIGTERM)

    def _end(self, how: signal.Signals) -> None:
        if self._running is not None:
            os.killpg(self._running.pid, how)
            self._running.wait()
            self._running = None

    def _wait(self) -> None:
        until = time.monotonic() + _STARTS_S
        while time.monotonic() < until:
            try:
                if requests.get(f"{self.address}/healthz", timeout=1).ok:
                    return
            except requests.RequestException:
                time.sleep(0.1)
        raise RuntimeError(f"the server did not start; see {self.data / 'server.log'}")


@contextmanager
def empty_server(port: int, *before: str, **more: str) -> Iterator[Server]:
    """Its tables made and not yet started; in the end all of it is gone."""
    with tempfile.TemporaryDirectory(prefix="even-probe-") as folder:
        server = Server(Path(folder), port, before, more)
        server.manage("migrate", "-v0")
        try:
            yield server
        finally:
            server.stop()


@contextmanager
def demo_server(port: int, *before: str, **more: str) -> Iterator[Server]:
    """With the demo's record, and running."""
    with empty_server(port, *before, **more) as server:
        server.manage("load_demo")
        server.start()
        yield server


@contextmanager
def serving(server: socketserver.TCPServer) -> Iterator[str]:
    """A meter of this machine answers; its address as a VISA resource."""
    threading.Thread(target=server.serve_forever, daemon=True).start()
    try:
        yield f"TCPIP::127.0.0.1::{server.server_address[1]}::SOCKET"
    finally:
        server.shutdown()
        server.server_close()


class Person(requests.Session):
    """Somebody signed in, who sends what the page sends."""

    def __init__(self, server: Server, name: str = "demo", password: str = PASSWORD) -> None:
        super().__init__()
        self._server, self._name, self._password = server, name, password

    def sign_in(self) -> requests.Response:
        if "csrftoken" not in self.cookies:
            self.get(f"{self._server.address}/api/session")
        answer = self.send_to("post", "/session", {"username": self._name, "password": self._password})
        answer.raise_for_status()
        return answer

    def join(self, crew: str) -> None:
        """As the keeper of a new crew."""
        key = self._server.manage("new_crew", crew, "Anna Reed").split("#")[-1].strip()
        self.get(f"{self._server.address}/api/session")
        about = {"username": self._name, "name": "Anna Reed", "password": self._password}
        self.send_to("post", f"/links/{key}", about).raise_for_status()

    def send_to(
        self,
        method: str,
        path: str,
        body: Any = None,
        timeout: float = 60,
        headers: Mapping[str, str] = MappingProxyType({}),
    ) -> requests.Response:
        headers = {"X-CSRFToken": self.cookies.get("csrftoken") or "", "Referer": self._server.address, **headers}
        return self.request(method, f"{self._server.address}/api{path}", json=body, headers=headers, timeout=timeout)
