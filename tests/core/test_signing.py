"""A chain of hashes finds whatever was changed, left out, doubled or put in another order."""

from dataclasses import replace

from hypothesis import given
from hypothesis import strategies as st

from evenprobe.signing import broken_links, canonical, digest, link_after

CONTENTS = st.lists(st.dictionaries(st.text(max_size=4), st.integers()), min_size=1, max_size=6)


def chained(contents):
    chain = []
    for content in contents:
        chain.append(link_after(chain[-1] if chain else None, digest(content)))
    return chain


@given(CONTENTS)
def test_a_chain_as_it_was_made_holds(contents):
    assert list(broken_links(chained(contents))) == []


@given(CONTENTS, st.data())
def test_no_link_can_be_left_out_but_from_the_end(contents, data):
    chain = chained(contents)
    gone = data.draw(st.integers(0, len(chain) - 1))
    left = chain[:gone] + chain[gone + 1 :]
    broken = list(broken_links(left))
    assert bool(broken) == (gone < len(chain) - 1)
    if broken:
        assert (broken[0].why, broken[0].at) == ("missing", gone)


@given(CONTENTS, st.data())
def test_another_content_in_a_link_is_found_there(contents, data):
    chain = chained(contents)
    at = data.draw(st.integers(0, len(chain) - 1))
    chain[at] = replace(chain[at], content_sha256=digest("something else"))
    assert [(b.at, b.why) for b in broken_links(chain)] == [(at, "altered")]


def test_two_links_that_changed_places_are_found():
    chain = chained([{"a": 1}, {"b": 2}, {"c": 3}])
    assert [b.why for b in broken_links([chain[1], chain[0], chain[2]])][:1] == ["missing"]


@given(st.dictionaries(st.text(), st.integers() | st.text() | st.booleans(), max_size=5))
def test_the_order_of_keys_changes_no_byte(content):
    turned = dict(reversed(content.items()))
    assert canonical(content) == canonical(turned)
