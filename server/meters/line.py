"""A line to a meter, over a TCP socket or a serial port: a command out, one short line of text back, in good time.

Whoever is at the other end is not trusted: no answer is waited for longer, or read further, than the bounds here.
"""

import re
import socket
import termios
import time
from contextlib import suppress
from dataclasses import dataclass
from typing import Protocol

import serial

_CONNECT_WITHIN_S = 1.0
ANSWER_WITHIN_S = 1.0
LONGEST_ANSWER = 256
"""Bytes of an answer, its end of line with them."""
END = b"\n"
_ADDRESS = re.compile(r"TCPIP\d*::(?P<host>[\w.-]+)::(?P<port>\d{1,5})::SOCKET|ASRL(?P<device>[\w/.-]+)::INSTR")
_HIGHEST_PORT = 65535


class NoAnswer(Exception):
    """Nothing came back in time."""


class TooLong(Exception):
    """More came back than an answer may have."""


@dataclass(frozen=True)
class Address:
    """Of a TCP socket, or of a serial port's device."""

    host: str = ""
    port: int = 0
    device: str = ""

    @property
    def name(self) -> str:
        """As the setting METER_LINKS lists it."""
        return self.device or f"{self.host.lower()}:{self.port}"


def address_of(resource: str) -> Address:
    """What a VISA resource name means (VPP-4.3). Raises ValueError with what is wrong with it."""
    found = _ADDRESS.fullmatch(resource)
    if found is None:
        raise ValueError("use TCPIP::host::port::SOCKET, or ASRL/dev/ttyUSB0::INSTR for a serial port")
    if found["device"]:
        return Address(device=found["device"])
    port = int(found["port"])
    if not 1 <= port <= _HIGHEST_PORT:
        raise ValueError(f"there is no port {port}; use one from 1 to {_HIGHEST_PORT}")
    return Address(found["host"], port)


class Line(Protocol):
    def send(self, command: str) -> None: ...

    def ask(self, question: str, within_s: float = ANSWER_WITHIN_S) -> str:
        """The answer without its end of line. Raises NoAnswer, TooLong, OSError or UnicodeDecodeError."""
        ...

    def close(self) -> None: ...


def opened(address: Address) -> Line:
    """Raises OSError where there is nothing."""
    return _Serial(address.device) if address.device else _Socket(address.host, address.port)


class _Socket:
    def __init__(self, host: str, port: int) -> None:
        self._socket = socket.create_connection((host, port), timeout=_CONNECT_WITHIN_S)
        self._heard = b""

    def send(self, command: str) -> None:
        self._socket.settimeout(ANSWER_WITHIN_S)
        self._socket.sendall(f"{command}\n".encode("ascii"))

    def ask(self, question: str, within_s: float = ANSWER_WITHIN_S) -> str:
        self._heard = b""
        self.send(question)
        until = time.monotonic() + within_s
        while END not in self._heard:
            if len(self._heard) >= LONGEST_ANSWER:
                raise TooLong
            left = until - time.monotonic()
            if left <= 0:
                raise NoAnswer
            self._socket.settimeout(left)
            try:
                more = self._socket.recv(LONGEST_ANSWER - len(self._heard))
            except TimeoutError:
                raise NoAnswer from None
            if not more:
                raise ConnectionResetError("the other end hung up")
            self._heard += more
        answer, _, self._heard = self._heard.partition(END)
        return answer.decode("ascii").strip()

    def close(self) -> None:
        with suppress(OSError):
            self._socket.close()


class _Serial:
    def __init__(self, device: str) -> None:
        self._port = serial.Serial(device, timeout=ANSWER_WITHIN_S, write_timeout=ANSWER_WITHIN_S)

    def send(self, command: str) -> None:
        self._port.write(f"{command}\n".encode("ascii"))

    def ask(self, question: str, within_s: float = ANSWER_WITHIN_S) -> str:
        try:
            self._port.reset_input_buffer()
        except termios.error as gone:  # an adapter pulled out, which is no OSError to the terminal
            raise ConnectionResetError("the port went away") from gone
        self.send(question)
        self._port.timeout = within_s
        answer: bytes = self._port.read_until(END, LONGEST_ANSWER)
        if not answer.endswith(END):
            raise TooLong if len(answer) >= LONGEST_ANSWER else NoAnswer
        return answer.decode("ascii").strip()

    def close(self) -> None:
        with suppress(OSError):
            self._port.close()
