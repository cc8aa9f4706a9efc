"""The network against what is known of networks."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from evenprobe.network import EARTH, Load, Mesh, NetworkError

ohm = st.floats(1e-3, 1e9)
LADDER = {"source": ("A", EARTH), "across": ("A", "B"), "bridge": ("B", "C"), "foot": ("C", EARTH), "up": ("A", "C")}


def solved(ohms, emf=10.0):
    y = {name: np.array([1 / r], dtype=complex) for name, r in zip(LADDER, ohms, strict=True)}
    return Mesh(LADDER).solve(y, {"source": np.array([emf])}, ["A", "B", "C", EARTH])


def test_a_divider_divides():
    mesh = Mesh({"source": ("A", EARTH), "top": ("A", "B"), "foot": ("B", EARTH)})
    y = {"source": np.array([0.1]), "top": np.array([1 / 20]), "foot": np.array([1 / 30])}
    answer = mesh.solve(y, {"source": np.array([120.0])}, ["B", EARTH])
    assert answer.open_volts(("B", EARTH))[0] == pytest.approx(60)
    assert answer.impedance(("B", EARTH))[0] == pytest.approx(15)


def test_a_balanced_bridge_shows_nothing_across_it():
    arms = {"p": ("A", "B"), "q": ("B", EARTH), "r": ("A", "C"), "s": ("C", EARTH), "source": ("A", EARTH)}
    y = {name: np.array([1 / r]) for name, r in {"p": 10, "q": 20, "r": 100, "s": 200, "source": 1}.items()}
    assert Mesh(arms).solve(y, {"source": np.array([5.0])}, ["B", "C"]).open_volts(("B", "C"))[0] == pytest.approx(0)


@given(st.lists(ohm, min_size=5, max_size=5), st.floats(0.1, 10))
def test_scaling_the_source_scales_every_voltage(ohms, factor):
    small, large = solved(ohms), solved(ohms, 10 * factor)
    assert large.volts == pytest.approx(small.volts * factor, rel=1e-9)


@given(st.lists(ohm, min_size=5, max_size=5))
def test_impedances_are_reciprocal_and_swapping_probes_keeps_the_magnitude(ohms):
    answer = solved(ohms)
    assert answer.ohms[0, 2] == pytest.approx(answer.ohms[2, 0], rel=1e-9)
    assert abs(answer.open_volts(("A", "C"))) == pytest.approx(abs(answer.open_volts(("C", "A"))))


@given(st.lists(ohm, min_size=5, max_size=5), st.floats(1e-6, 10))
def test_a_load_is_the_same_as_a_branch_and_never_raises_its_own_voltage(ohms, siemens):
    before = solved(ohms)
    load = [Load(("B", EARTH), np.array([siemens]))]
    y = {name: np.array([1 / r], dtype=complex) for name, r in zip(LADDER, ohms, strict=True)}
    with_branch = Mesh({**LADDER, "load": ("B", EARTH)}).solve(
        {**y, "load": np.array([siemens])}, {"source": np.array([10.0])}, ["A", "B", "C", EARTH]
    )
    for pair in (("B", EARTH), ("A", "C")):
        assert before.open_volts(pair, load) == pytest.approx(with_branch.open_volts(pair), rel=1e-6, abs=1e-9)
    spread = max(ohms) * max(siemens, 1 / min(ohms))
    exactness = max(1e-6, 1e-15 * spread)  # each power of ten between the largest and the smallest costs a digit
    assert before.impedance(("B", EARTH), load) == pytest.approx(with_branch.impedance(("B", EARTH)), rel=exactness)
    assert abs(before.open_volts(("B", EARTH), load)) <= abs(before.open_volts(("B", EARTH))) + 1e-9


@settings(max_examples=25)
@given(st.floats(1e-3, 1e3))
def test_a_bolted_joint_beside_an_open_keeps_its_digits(r):
    """Two nodes floating together on 1 GΩ: what lies between them is still exact."""
    mesh = Mesh({"leak": ("A", EARTH), "joint": ("A", "B")})
    answer = mesh.solve({"leak": np.array([1e-9]), "joint": np.array([1 / r])}, {}, ["A", "B", EARTH])
    assert answer.impedance(("A", "B"))[0] == pytest.approx(r, abs=1e-6)


def test_slopes_are_what_a_small_change_of_each_branch_does():
    rng = np.random.default_rng(5)
    y = {name: rng.uniform(0.1, 2, 1) + 1j * rng.uniform(0.1, 2, 1) for name in LADDER}
    loads = [Load(("B", EARTH), np.array([0.7])), Load(("A", "C"), np.array([0.2]))]
    emf = {"source": np.array([10.0]), "bridge": np.array([3.0j])}
    ports = ["A", "B", "C", EARTH]
    exact = Mesh(LADDER).solve(y, emf, ports, with_slopes=True)
    for row, name in enumerate(LADDER):
        moved = Mesh(LADDER).solve({**y, name: y[name] + 1e-6}, emf, ports)
        for pair in (("A", "B"), ("B", EARTH)):
            volts = (moved.open_volts(pair, loads) - exact.open_volts(pair, loads)) / 1e-6
            ohms = (moved.impedance(pair, loads) - exact.impedance(pair, loads)) / 1e-6
            assert exact.volts_per_siemens(pair, loads)[row] == pytest.approx(volts, rel=1e-4, abs=1e-6)
            assert exact.ohms_per_siemens(pair, loads)[row] == pytest.approx(ohms, rel=1e-4, abs=1e-6)


def test_a_node_with_no_path_to_earth_is_named():
    with pytest.raises(NetworkError, match="node X has no path"):
        Mesh({"a": ("A", EARTH), "b": ("X", "Y")})


def test_agreement_with_nodal_analysis():
    """The elimination against the textbook inverse on a random complex network."""
    rng = np.random.default_rng(3)
    names = ["A", "B", "C", "D"]
    pairs = [(a, b) for i, a in enumerate([*names, EARTH]) for b in [*names, EARTH][i + 1 :]]
    y = {f"{a}{b}": rng.random(6) + 1j * rng.random(6) for a, b in pairs}
    answer = Mesh({f"{a}{b}": (a, b) for a, b in pairs}).solve(y, {f"A{EARTH}": 1 / y[f"A{EARTH}"]}, names)
    matrix = np.zeros((6, 4, 4), complex)
    for a, b in pairs:
        for end in (a, b):
            if end != EARTH:
                matrix[:, names.index(end), names.index(end)] += y[f"{a}{b}"]
        if b != EARTH:
            matrix[:, names.index(a), names.index(b)] -= y[f"{a}{b}"]
            matrix[:, names.index(b), names.index(a)] -= y[f"{a}{b}"]
    inverse = np.linalg.inv(matrix)
    assert answer.ohms.transpose(2, 0, 1) == pytest.approx(inverse)
    assert pytest.approx(inverse[:, :, 0]) == answer.volts.T
