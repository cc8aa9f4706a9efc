"""The map of the house is true: what it names is there."""

import ast
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


def python_of(*houses):
    found = (path for house in houses for path in sorted((ROOT / house).rglob("*.py")))
    return {path: path.read_text() for path in found if "migrations" not in path.parts}


def public_names(source):
    """Constants and functions of a module that anybody may use. A decorated function is told to somebody else."""
    for node in ast.parse(source).body:
        if isinstance(node, ast.FunctionDef) and not node.decorator_list:
            yield node.name
        elif isinstance(node, ast.Assign | ast.AnnAssign):
            targets = node.targets if isinstance(node, ast.Assign) else [node.target]
            yield from (t.id for t in targets if isinstance(t, ast.Name) and re.fullmatch("[A-Z][A-Z0-9_]*", t.id))


def test_what_only_its_own_module_uses_is_private():
    """A name without an underscore is used elsewhere; a row is used by its registry, words by whoever says them."""
    sources = python_of("src/evenprobe", "server", "tests", "bench", "docs")
    known_in = {path: set(re.findall(r"\w+", text)) for path, text in sources.items()}
    told_elsewhere = ("settings.py", "sentences.py", "conf.py", "take.py", "__init__.py")
    lonely = [
        f"{path.relative_to(ROOT)}: {name}"
        for path, text in python_of("src/evenprobe", "server").items()
        if path.name not in told_elsewhere
        for name in public_names(text)
        if not name.startswith("_")
        and not any(name in known for other, known in known_in.items() if other != path)
        and len(re.findall(rf"\b{name}\b", text)) > 1
    ]
    assert lonely == []
