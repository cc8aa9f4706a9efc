"""The map of the house is true: what it names is there."""

import re
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]
PAGES = ("docs/architecture.md", "CONTRIBUTING.md", "README.md", "docs/library.md")
HOUSES = ("", "src/evenprobe", "server", "web/src", "web/src/api", "web/src/reading", "docs", "tests")
NAMED = re.compile(r"`([\w./<>-]+\.(?:py|tsx?|md|json|toml)|[\w<>-]+(?:/[\w<>-]+)*/)`")
LINKED = re.compile(r"\]\((?!http|#)([^)#]+)")


def where_is():
    page = (ROOT / "docs/architecture.md").read_text()
    return page[page.index("## Where is") : page.index("## The core")]


def there(path):
    """Under one of the houses; a name in angle brackets stands for any."""
    pattern = re.sub(r"<[^>]+>", "*", path.rstrip("/"))
    return any(next((ROOT / house).glob(pattern), None) for house in HOUSES)


def test_every_place_the_map_names_is_there():
    named = NAMED.findall(where_is())
    assert len(named) > 20
    assert [path for path in named if not there(path)] == []


@pytest.mark.parametrize("page", PAGES)
def test_every_link_leads_somewhere(page):
    links = LINKED.findall((ROOT / page).read_text())
    assert [link for link in links if not (ROOT / page).parent.joinpath(link).exists()] == []


def test_every_module_says_what_it_is_about():
    silent = [
        str(path.relative_to(ROOT))
        for house in ("src/evenprobe", "server", "bench", "tests")
        for path in sorted((ROOT / house).rglob("*.py"))
        if "migrations" not in path.parts and path.read_text().strip() and not path.read_text().startswith(('"""', "'"))
    ]
    assert silent == []


def test_no_file_of_ours_is_longer_than_one_reads_in_one_go():
    """350 lines, but for what is generated."""
    long = {
        str(path.relative_to(ROOT)): count
        for house, kinds in (("src/evenprobe", "*.py"), ("server", "*.py"), ("tests", "*.py"), ("web/src", "*.ts*"))
        for path in (ROOT / house).rglob(kinds)
        if "migrations" not in path.parts and path.name != "schema.d.ts"
        if (count := len(path.read_text().splitlines())) > 350
    }
    assert not long


def test_no_file_of_the_core_looks_like_a_test():
    assert [p.name for p in (ROOT / "src").rglob("test_*.py")] == []
