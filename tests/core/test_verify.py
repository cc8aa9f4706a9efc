"""`evenprobe verify`: a signed file is found changed whichever byte is, and its verdicts are made again."""

import json
import random
from datetime import UTC, datetime

import pytest

import evenprobe
from evenprobe.cli import main
from evenprobe.signing import canonical, digest, link_after
from evenprobe.this_core import this_core

AT = datetime(2026, 11, 24, 10, 40, tzinfo=UTC).isoformat()
SURVEY = {
    "format": "even-probe/survey",
    "version": 1,
    "practice": "continental",
    "supply": {"system": "230/400", "earthing": "TN-S"},
    "instruments": [],
    "points": [
        {
            "id": "p1",
            "kind": "outlet",
            "terminals": ["L", "N", "PE"],
            "readings": [
                {
                    "id": f"r{i}",
                    "quantity": "voltage",
                    "mode": "ac",
                    "from": a,
                    "to": b,
                    "value": v,
                    "unit": "V",
                    "at": AT,
                }
                for i, (a, b, v) in enumerate((("L", "N", 231.0), ("L", "PE", 96.0), ("N", "PE", 134.0)))
            ],
        }
    ],
}
TESTS = {
    "format": "even-probe/tests",
    "version": 1,
    "practice": "continental",
    "tests": [{"id": "t1", "kind": "insulation", "system": "230/400", "test_v": 500, "measured_mohm": 0.4}],
}

ISOLATED = {
    "format": "even-probe/isolation",
    "version": 1,
    "practice": "continental",
    "at": AT,
    "supply": {"system": "230/400"},
    "terminals": ["L", "N", "PE"],
    "sources": [{"id": "s1", "label": "Mill board, dye room"}],
    "testers": [],
    "events": [
        {"at": AT, "type": "off", "source": "s1"},
        {"at": AT, "type": "locked", "source": "s1", "lock": "F-02"},
    ],
}


def signed_content(**changes):
    """As the server signs it, of readings whose verdict this core made."""
    answer = evenprobe.interpret(SURVEY).points[0]
    result = evenprobe.judge(TESTS).tests[0].result
    beside = {"insulation": answer.insulation, "protection": answer.protection}
    point = {
        "id": "p1",
        "name": "Socket by the vats",
        "kind": "outlet",
        "terminals": ["L", "N", "PE"],
        "verdict": answer.verdict,
        "summary": answer.summary,
        **{name: {"state": one.state, "text": one.why} for name, one in beside.items()},
    }
    test = {"id": "t1", "title": "L to PE", "shown": "0.4 MΩ", "result": result, "text": "", "at": AT}
    proof = {"id": "i1", "name": "Dye room sockets", "state": evenprobe.isolate(ISOLATED).state}
    circuit = {
        "id": "c1",
        "name": "Dye room sockets",
        "board": "Mill board",
        "supply": "Mains",
        "schedule": "16 A",
        "verdict": answer.verdict,
        "points": [point],
        "dead_tests": [test],
        "proofs": [proof],
    }
    return {
        "signed_at": AT,
        "by": "Demo electrician",
        "typed_name": "Demo electrician",
        "crew": "Fennwick crew",
        "core": this_core(),
        "program": "0.1.0",
        "of": {"what": "circuit", "id": "c1", "name": "Dye room sockets"},
        "site": "Fennwick Weaving Shed",
        "practice": "continental",
        "circuits": [circuit],
        "evidence": {"survey": SURVEY, "tests": TESTS, "isolations": [ISOLATED]},
        **changes,
    }


def saved(content, before=("one earlier", "another")):
    chain = []
    for earlier in before:
        chain.append(link_after(chain[-1] if chain else None, digest(earlier)))
    chain.append(link_after(chain[-1] if chain else None, digest(content)))
    links = [vars(link) for link in chain]
    return canonical({"format": "even-probe/sign-off", "version": 1, "chain": links, "content": content})


def saved_record(content):
    """A record with one sign-off in it, as the server saves it."""
    link = vars(link_after(None, digest(content)))
    row = {**link, "content": canonical(content).decode(), "name": "Dye room sockets"}
    record = {
        "format": "even-probe/record",
        "version": 1,
        "of": {"what": "site", "id": "s1"},
        "chains": [[link]],
        "rows": {"sign_offs": [row], "sites": [{"id": "s1", "name": "Fennwick Weaving Shed"}]},
    }
    return canonical({**record, "sha256": digest(record)})


def found(file):
    """What the command comes to: its exit code, and the problems where there is an answer."""
    try:
        answer = evenprobe.verify(file)
    except evenprobe.FormatError as error:
        return 2, [text for _, text in error.problems]
    return (0 if answer.sound else 3), [problem.text for problem in answer.problems]


def test_a_signed_file_is_sound_and_its_verdicts_come_out_again():
    answer = evenprobe.verify(saved(signed_content()))
    assert answer.sound
    assert [(one.number, one.judged, one.differ) for one in answer.sign_offs] == [(3, 5, [])]


@pytest.mark.parametrize("save", [saved, saved_record])
def test_each_of_a_thousand_edits_of_one_byte_is_found(monkeypatch, save):
    """What is judged again is left out, for it is the same for every edit that still can be read."""
    monkeypatch.setattr("evenprobe.verification.verify.judged_again", lambda _: [])
    file = save(signed_content())
    rng = random.Random(20261124)
    for _ in range(1000):
        at = rng.randrange(len(file))
        other = rng.choice([byte for byte in range(256) if byte != file[at]])
        code, problems = found(file[:at] + bytes([other]) + file[at + 1 :])
        assert code in (2, 3), f"byte {at}: {file[max(0, at - 20) : at + 20]!r} became {other}"
        assert problems


def test_a_space_between_keys_is_found_though_it_says_the_same():
    file = saved(signed_content())
    assert found(file.replace(b'{"', b'{ "', 1))[0] == 3


@pytest.mark.parametrize("gone", [0, 1])
def test_a_chain_with_a_link_missing_names_it(gone):
    data = json.loads(saved(signed_content()))
    del data["chain"][gone]
    code, problems = found(canonical(data))
    assert code == 3
    assert any("does not follow the one before it" in problem for problem in problems)


def test_a_verdict_made_up_is_found_even_where_every_hash_fits():
    """Whoever can reckon a hash can reckon another; the readings say otherwise all the same."""
    content = signed_content()
    content["circuits"][0]["points"][0]["verdict"] = "correct"
    code, problems = found(saved(content))
    assert code == 3
    assert any("signed as correct, and the same core makes" in problem for problem in problems)


def test_a_verdict_without_readings_is_found():
    content = signed_content()
    content["evidence"] = {}
    code, problems = found(saved(content))
    assert code == 3
    assert any("holds no readings that say so" in problem for problem in problems)


def test_what_another_core_said_is_told_and_no_fault_of_the_file():
    content = signed_content(core="0.0.9+0123456789abcdef")
    content["circuits"][0]["points"][0]["verdict"] = "unconfirmed"
    answer = evenprobe.verify(saved(content))
    assert answer.sound
    [one] = answer.sign_offs
    assert (one.core, one.same_core) == ("0.0.9+0123456789abcdef", False)
    assert [(d.signed, d.now) for d in one.differ] == [("unconfirmed", evenprobe.interpret(SURVEY).points[0].verdict)]


def test_the_command_says_by_its_exit_what_it_found(tmp_path, capsys):
    good, bad, strange = tmp_path / "good.json", tmp_path / "bad.json", tmp_path / "strange.json"
    file = saved(signed_content())
    good.write_bytes(file + b"\n")
    bad.write_bytes(file.replace(b"96.0", b"96.5"))
    strange.write_bytes(b"\xff\xfe not ours")
    assert [main(["verify", str(name)]) for name in (good, bad, strange)] == [0, 3, 2]
    assert "not UTF-8 text" in capsys.readouterr().err


def test_a_saved_record_is_held_against_its_hash_its_chains_and_what_was_signed():
    answer = evenprobe.verify(saved_record(signed_content()))
    assert answer.sound, answer.problems
    assert [(one.number, one.judged, one.differ) for one in answer.sign_offs] == [(1, 5, [])]
    lie = signed_content()
    lie["circuits"][0]["points"][0]["verdict"] = "correct"
    code, problems = found(saved_record(lie))
    assert code == 3
    assert any("signed as correct, and the same core makes" in problem for problem in problems)


def test_a_sign_off_in_no_chain_of_its_record_is_found():
    data = json.loads(saved_record(signed_content()))
    data["chains"] = []
    code, problems = found(canonical(data))
    assert code == 3
    assert any("in no chain of this file" in problem for problem in problems)
