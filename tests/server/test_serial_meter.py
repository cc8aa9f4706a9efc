"""A meter on a serial port: a pseudo-terminal whose other end answers as a meter does, well or badly."""

import os
import pty
import select
import termios
import threading
import tty
from contextlib import contextmanager

import pytest

from meters import line
from meters.line import LONGEST_ANSWER
from meters.wire import Setup, live

VOLTS = Setup("volts", "p", "L1", "N")
SOUND = {"*IDN?": "bench meter", "FUNC?": '"VOLT:AC"', "READ?": "+1.1980E+02"}
TRIES = 5


@contextmanager
def on_a_port(answers, after=None):
    """`after`: what is sent besides, whenever a word came in."""
    ours, theirs = pty.openpty()
    tty.setraw(ours)
    tty.setraw(theirs)
    heard, over = [], threading.Event()

    def talk():
        with os.fdopen(ours, "rb", buffering=0, closefd=False) as port:
            try:
                while not over.is_set():
                    if not select.select([ours], [], [], 0.02)[0]:
                        continue
                    word = port.readline().decode().strip()
                    heard.append(word)
                    answer = answers.get(word)
                    os.write(
                        ours, (f"{answer}\n".encode() if answer is not None else b"") + (after(word) if after else b"")
                    )
            except OSError:
                pass  # the other end was closed

    talking = threading.Thread(target=talk, daemon=True)
    talking.start()
    try:
        yield f"ASRL{os.ttyname(theirs)}::INSTR", heard
    finally:
        over.set()
        talking.join()  # or it would hear what is said on the next port, which may have the same number
        os.close(theirs)
        os.close(ours)


def test_a_meter_on_a_serial_port_is_read_like_any_other():
    with on_a_port({**SOUND, "CALC:AVER:MIN?": "+1.1950E+02", "CALC:AVER:MAX?": "+1.2010E+02"}) as (address, heard):
        found = live(address, VOLTS)
        assert found.state == "live"
        assert (found.lowest.value, found.shown.value, found.highest.value) == (119.5, 119.8, 120.1)
        assert "INP:IMP HIGH" in heard
        live(address, VOLTS)
        assert heard.count("*IDN?") == 1, "it is asked who it is once, not at every reading"


@pytest.mark.parametrize(
    ("answers", "state"),
    [
        ({**SOUND, "READ?": "9.9E+37"}, "over-range"),
        ({**SOUND, "READ?": "low battery"}, "garbage"),
        ({**SOUND, "READ?": "9" * LONGEST_ANSWER}, "garbage"),
        ({**SOUND, "FUNC?": '"RES"'}, "wrong-function"),
        ({**SOUND, "READ?": None}, "no-answer"),
        ({}, "no-answer"),
    ],
    ids=["over-range", "no number", "no end", "turned elsewhere", "silent", "not a meter"],
)
def test_what_goes_wrong_on_a_serial_port_is_said_as_on_any_line(answers, state, monkeypatch):
    monkeypatch.setattr(line, "ANSWER_WITHIN_S", 0.3)
    with on_a_port(answers) as (address, _):
        found = live(address, VOLTS)
        assert found.state == state
        assert (found.shown is None) is (state != "over-range")


def test_what_was_still_under_way_is_not_taken_for_the_answer():
    """A meter that sends a reading on its own account, between question and question."""
    with on_a_port(SOUND, after=lambda word: b"+9.9000E+01\n" if word == "FUNC?" else b"") as (address, _):
        assert live(address, VOLTS).shown.value == pytest.approx(119.8)


def test_a_port_that_goes_away_is_a_lost_link_and_is_opened_again():
    with on_a_port(SOUND) as (address, _):
        assert live(address, VOLTS).state == "live"
    assert live(address, VOLTS).state in ("lost", "no-answer")
    with on_a_port(SOUND) as (again, heard):
        found = [live(again, VOLTS).state]
        while found[-1] == "no-answer" and len(found) < TRIES:
            found.append(live(again, VOLTS).state)
        assert found[-1] == "live", "a busy machine may take longer than the second a meter has"
        assert heard[0] == "*IDN?"


def test_an_adapter_pulled_out_is_a_lost_link_too(monkeypatch):
    """What the terminal then says is no OSError."""
    with on_a_port(SOUND) as (address, _):
        assert live(address, VOLTS).state == "live"

        def gone(_port):
            raise termios.error(5, "Input/output error")

        monkeypatch.setattr("serial.Serial.reset_input_buffer", gone)
        assert live(address, VOLTS).state == "lost"
