"""A meter on the wire: the stand-in, what is made of its answers, and every way a link can fail."""

import socket
import socketserver
import threading
import time
from contextlib import contextmanager, suppress
from uuid import uuid4

import numpy as np
import pytest
from bench.serving import serving

from evenprobe.conditions import CONDITIONS
from evenprobe.simulation import HiddenPoint
from meters import line, wire
from meters.line import LONGEST_ANSWER, address_of
from meters.models import Link
from meters.scpi import Garbage, shown_of, written
from meters.serving import StandInServer
from meters.standin import IDENTITY, StandIn
from meters.wire import Setup, live
from tests.core.installations import several

RANGE = several("L1 L2 N PE")
UNKNOWN = Setup("volts", "elsewhere", "L1", "N")
ON_ONE_LEG = Setup("volts", "p", "L1", "L2")


def stand_in(condition="same-leg"):
    def hidden(point):
        return {"p": lambda: HiddenPoint(RANGE, CONDITIONS[condition], np.random.default_rng(5))}[point]()

    return StandIn(hidden)


@contextmanager
def answering(answers, otherwise="0"):
    """A meter that answers what it is told to, and nothing where that is None."""

    class Talk(socketserver.StreamRequestHandler):
        def handle(self):
            while line := self.rfile.readline():
                word = line.decode().strip()
                said = answers.get(word, otherwise)
                if word.endswith("?") and said is not None:
                    self.wfile.write(f"{said}\n".encode())

    server = socketserver.ThreadingTCPServer(("127.0.0.1", 0), Talk)
    server.daemon_threads, server.block_on_close = True, False
    with serving(server) as address:
        yield address


SOUND = {"*IDN?": "Some meter", "FUNC?": '"VOLT:AC"', "CALC:AVER:MIN?": "+1.1E+02", "CALC:AVER:MAX?": "+1.3E+02"}


def at(meter, measuring, reference):
    meter.answer("ROUT:POIN p")
    meter.answer(f"ROUT:PROB {measuring},{reference}")
    return shown_of(meter.answer("READ?"))


def test_the_stand_in_measures_the_hidden_condition():
    meter = stand_in()
    assert meter.answer("*IDN?") == IDENTITY
    assert at(meter, "L1", "N").value == pytest.approx(118, abs=12)
    assert at(meter, "L2", "N").value == pytest.approx(118, abs=12)
    assert at(meter, "L1", "L2").value < 2
    assert at(stand_in("correct"), "L1", "L2").value == pytest.approx(236, abs=24)


def test_it_keeps_its_lowest_and_highest_until_the_probes_move():
    meter = stand_in()
    values = {at(meter, "L1", "N").value for _ in range(6)}
    assert len(values) > 1
    assert shown_of(meter.answer("CALC:AVER:MIN?")).value == pytest.approx(min(values))
    assert shown_of(meter.answer("CALC:AVER:MAX?")).value == pytest.approx(max(values))
    meter.answer("ROUT:PROB N,PE")
    with pytest.raises(Garbage):
        shown_of(meter.answer("CALC:AVER:MIN?"))


def test_a_dc_range_shows_next_to_nothing_on_a_live_conductor_and_ohms_need_the_device_open():
    meter = stand_in()
    meter.answer("CONF:VOLT:DC")
    assert abs(at(meter, "L1", "N").value) < 0.1
    meter.answer("CONF:RES")
    assert meter.answer("FUNC?") == '"RES"'
    with pytest.raises(Garbage):
        at(meter, "L1", "N")
    meter.answer("ROUT:DEV OPEN")
    assert at(meter, "N", "PE").value < 2


def test_low_impedance_collapses_what_a_floating_conductor_shows():
    meter = stand_in("open-earth")
    high = at(meter, "PE", "N").value
    meter.answer("INP:IMP LOW")
    assert meter.answer("INP:IMP?") == "LOW"
    assert at(meter, "PE", "N").value < max(1.0, high)


@pytest.mark.parametrize("command", ["NONSENSE", "CONF:TEMP", "ROUT:PROB", "ROUT:LOAD HERE,many", "INP:IMP SOME", ""])
def test_what_it_does_not_know_is_an_error_and_changes_nothing(command):
    meter = stand_in()
    assert meter.answer(command) is None
    assert meter.answer("SYST:ERR?").startswith("-")
    assert meter.answer("SYST:ERR?").startswith("0")
    assert meter.answer("FUNC?") == '"VOLT:AC"'


def test_numbers_over_range_and_not_numbers_are_told_apart():
    assert shown_of("+1.198000E+02").value == pytest.approx(119.8)
    assert shown_of("9.9E+37").over_range
    for garbage in ("9.91E+37", "nan", "inf", "OL", "", "12,4"):
        with pytest.raises(Garbage):
            shown_of(garbage)
    assert shown_of(written(shown_of("1.5"))).value == 1.5


def test_over_the_wire_a_doubled_leg_shows_nothing_between_its_lines():
    with serving(StandInServer(("127.0.0.1", 0), stand_in)) as address:
        assert live(address, Setup("volts", "p", "L1", "N")).shown.value > 100
        between = live(address, ON_ONE_LEG)
        assert between.state == "live"
        assert between.shown.value < 2
        assert live(address, UNKNOWN).state == "garbage"
        assert live(address, ON_ONE_LEG).state == "live", "it goes on after garbage"


def test_a_link_that_is_lost_is_said_and_taken_up_again():
    server = StandInServer(("127.0.0.1", 0), stand_in)
    port = server.server_address[1]
    with serving(server) as address:
        assert live(address, ON_ONE_LEG).state == "live"
        server.hang_up()
    assert live(address, ON_ONE_LEG).state == "lost"
    with serving(StandInServer(("127.0.0.1", port), stand_in)):
        assert live(address, ON_ONE_LEG).state == "live"


@pytest.mark.parametrize(
    ("answers", "state"),
    [
        ({**SOUND, "READ?": "+1.2E+02"}, "live"),
        ({**SOUND, "READ?": "9.9E+37"}, "over-range"),
        ({**SOUND, "READ?": "boot v1.2"}, "garbage"),
        ({**SOUND, "READ?": None}, "no-answer"),
        ({**SOUND, "FUNC?": '"VOLT:DC"'}, "wrong-function"),
        ({**SOUND, "READ?": "+1.2E+02", "CALC:AVER:MIN?": None}, "live"),
    ],
)
def test_every_state_of_a_link_is_its_own(answers, state, monkeypatch):
    monkeypatch.setattr(line, "ANSWER_WITHIN_S", 0.25)
    with answering(answers) as address:
        found = live(address, Setup("volts", "p", "L1", "N"))
        assert found.state == state
        assert bool(found.problem) == (state not in ("live", "over-range"))


@contextmanager
def saying(*chunks, every_s=0.0):
    """Whatever is asked, this comes back, without end."""

    class Talk(socketserver.BaseRequestHandler):
        def handle(self):
            with suppress(OSError):
                while self.request.recv(4096):
                    for chunk in chunks:
                        self.request.sendall(chunk)
                        time.sleep(every_s)

    server = socketserver.ThreadingTCPServer(("127.0.0.1", 0), Talk)
    server.daemon_threads, server.block_on_close = True, False
    with serving(server) as address:
        yield address


@pytest.mark.parametrize(
    ("chunks", "every_s", "state"),
    [
        ([b"9" * 4096] * 64, 0.0, "garbage"),
        ([b"9"] * 400, 0.01, "no-answer"),
        ([bytes(range(128, 256)), b"\n"], 0.0, "garbage"),
        ([b"SSH-2.0-something\r\n"], 0.0, "wrong-function"),
    ],
    ids=["an endless line", "a dripping line", "no text", "another service"],
)
def test_whoever_is_at_the_other_end_is_neither_waited_for_nor_read_on_nor_quoted(chunks, every_s, state):
    with saying(*chunks, every_s=every_s) as address:
        before = time.monotonic()
        found = live(address, Setup("volts", "p", "L1", "N"))
        assert time.monotonic() - before < 2.5
    assert found.state == state
    assert "something" not in found.problem
    assert found.problem.isprintable()
    assert len(found.problem) < 120


def test_an_answer_has_so_many_bytes_and_no_more():
    for length, state in ((LONGEST_ANSWER - 1, "garbage"), (LONGEST_ANSWER, "garbage")):
        with answering({**SOUND, "READ?": "x" * length}) as address:
            found = live(address, Setup("volts", "p", "L1", "N"))
            assert found.state == state
            assert ("no line of text" in found.problem) is (length >= LONGEST_ANSWER)


def test_while_a_meter_is_asked_others_are_told_that_it_is_busy_and_nobody_waits():
    with answering({**SOUND, "READ?": None}) as slow, answering({**SOUND, "READ?": "+1.2E+02"}) as sound:
        asked = threading.Thread(target=live, args=(slow, Setup("volts", "p", "L1", "N")))
        asked.start()
        time.sleep(0.4)
        assert live(slow, Setup("volts", "p", "L1", "N")).state == "busy"
        assert live(sound, Setup("volts", "p", "L1", "N")).state == "live"
        assert asked.is_alive(), "nobody waited for the slow one"
        asked.join()


def test_only_so_many_meters_are_waited_for_at_a_time(monkeypatch):
    monkeypatch.setattr(wire, "_TALKING", threading.BoundedSemaphore(1))
    with answering({**SOUND, "READ?": None}) as slow, answering({**SOUND, "READ?": "+1.2E+02"}) as sound:
        asked = threading.Thread(target=live, args=(slow, Setup("volts", "p", "L1", "N")))
        asked.start()
        time.sleep(0.4)
        assert live(sound, Setup("volts", "p", "L1", "N")).state == "busy"
        asked.join()
        assert live(sound, Setup("volts", "p", "L1", "N")).state == "live"


def test_what_went_wrong_leaves_no_socket_open(monkeypatch):
    opened, made = [], socket.create_connection

    def remembered(*args, **kwargs):
        opened.append(made(*args, **kwargs))
        return opened[-1]

    monkeypatch.setattr(socket, "create_connection", remembered)
    for answers in ({**SOUND, "READ?": "boot"}, {**SOUND, "READ?": None}, {**SOUND, "*IDN?": None}):
        with answering(answers) as address:
            live(address, Setup("volts", "p", "L1", "N"))
    assert len(opened) == 3
    assert all(one.fileno() == -1 for one in opened)


@pytest.mark.parametrize(
    "address",
    [
        "TCPIP::127.0.0.1::99999::SOCKET", "TCPIP::127.0.0.1::0::SOCKET", "TCPIP::10.0.0.1::5025::SOCKET",
        "TCPIP::127.0.0.1::22::SOCKET", "TCPIP::localhost::5025::SOCKET", "ASRL/dev/sda::INSTR", "USB0::1::INSTR",
    ],
)  # fmt: skip
def test_the_server_reaches_only_the_meters_that_are_allowed(anna, place, settings, address):
    settings.METER_LINKS = ["127.0.0.1:5025", "/dev/ttyUSB0"]
    answer = anna.put(f"/testers/{place['tester']}/link", {"address": address})
    assert answer.status_code == 422, answer.content
    assert answer.json()["problems"][0]["path"] == "address"
    Link.objects.create(tester_id=place["tester"], address=address)
    live_now = anna.post(
        f"/points/{place['point']}/live/{place['tester']}", {"function": "volts", "from": "L", "to": "N"}
    )
    assert live_now.status_code == 422
    for allowed in ("TCPIP::127.0.0.1::5025::SOCKET", "ASRL/dev/ttyUSB0::INSTR"):
        assert anna.put(f"/testers/{place['tester']}/link", {"address": allowed}).status_code == 200


def test_a_serial_port_that_is_not_there_is_a_lost_link():
    assert live("ASRL/dev/no-such-port::INSTR", Setup("volts", "p", "L1", "N")).state == "lost"
    with pytest.raises(ValueError, match="65535"):
        address_of("TCPIP::h::70000::SOCKET")


def test_a_known_load_between_two_contacts_is_measured_between_them():
    between = {}
    for ends in (("L1", "N"), ("L2", "N")):
        with serving(StandInServer(("127.0.0.1", 0), lambda: stand_in("correct"))) as address:
            setup = Setup("volts", "p", "L1", "N", load_here_a=35.0, load_between=ends)
            between[ends] = live(address, setup).shown.value
    assert between["L1", "N"] < between["L2", "N"] - 1
    meter = stand_in()
    for wrong in ("HERE,10,L1", "HERE,10,L1,X", "HERE,,L1,N"):
        meter.answer(f"ROUT:LOAD {wrong}")
        assert meter.answer("SYST:ERR?").startswith("-"), wrong


def test_a_meter_is_linked_read_and_taken_off_the_wire(anna, place, settings):
    link = f"/testers/{place['tester']}/link"
    refused = anna.put(link, {"address": "http://127.0.0.1/"})
    assert refused.status_code == 422
    assert refused.json()["problems"][0]["path"] == "address"
    path = f"/points/{place['point']}/live/{place['tester']}"
    body = {"function": "volts", "from": "L", "to": "N"}
    assert anna.post(path, body).status_code == 404
    with answering({**SOUND, "READ?": "+1.198E+02"}) as address:
        settings.METER_LINKS = [address_of(address).name]
        assert anna.put(link, {"address": address}).json()["links"][0]["address"] == address
        shown = anna.post(path, body).json()
        assert shown["entry"] == {"value": 119.8, "unit": "V", "source": "captured"}
        assert (shown["lowest"], shown["highest"]) == (110, 130)
        assert anna.post(path, {**body, "to": "L9"}).json()["problems"][0]["path"] == "to"
    entry = {"quantity": "voltage", "mode": "ac", "from": "L", "to": "N", **shown["entry"]}
    bench = anna.put(f"/points/{place['point']}/readings/{uuid4()}", {"entry": entry, "tester": place["tester"]})
    assert bench.json()["readings"][0]["entry"]["source"] == "captured"
    assert anna.put(link, {"address": ""}).json() == {"links": []}
