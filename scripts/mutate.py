"""Change single lines of the program, one at a time, and list the changes that no test notices.

    python scripts/mutate.py [--count 60] [--seed 1] [--only src/lamsik/web …] [--ran FILE]

Half of the changes are in the core, half in documents, formats, store, views, templates and modules. Each is
made in a copy, and tests are run on it until one fails. Of a line of Python it is known which tests run it
(the suite without its walks is run once with every line watched; `--ran` keeps what was seen): these are
asked, the quickest first. Of anything else, and of what runs as it is imported: first the recorded documents,
the bound names and the recorded pages, then those that have the bench's name, then all of its layer. What
lives is printed with its line: it wants a test.
"""

import argparse
import json
import os
import random
import re
import shutil
import subprocess
import sys
import tempfile
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from xml.etree import ElementTree

ROOT = Path(__file__).parent.parent
SOURCES = "src/lamsik"
LAYERS = {
    "core": ("tests/core", "tests/documents"),
    "documents": ("tests/documents", "tests/web"),
    "formats": ("tests/formats", "tests/web"),
    "store": ("tests/store", "tests/web"),
    "devices": ("tests/devices", "tests/web"),
    "cli": ("tests/cli",),
    "web": ("tests/web", "tests/browser"),
}
"""Layer, and the tests that are asked about it, in this order."""
RECORD = "tests/core/test_recorded.py"
"""What is asked about the core before all else: it is quick, and sees most."""
FIRST = {
    ".py": "tests/web/test_recorded.py",
    ".html": "tests/web/test_bound.py tests/web/test_pages.py",
    ".js": "tests/web/test_bound.py",
}
ALONE = ("-n", "0")
"""In one process; what the workers share is there as with them."""
PYTHON = (
    (r" < ", " >= "),
    (r" <= ", " > "),
    (r" > ", " <= "),
    (r" >= ", " < "),
    (r" == ", " != "),
    (r" \+ ", " - "),
    (r" - ", " + "),
    (r" \* ", " / "),
    (r" and ", " or "),
    (r" or ", " and "),
    (r"\bif not ", "if "),
    (r"\bTrue\b", "False"),
    (r"\bFalse\b", "True"),
    (r"(?<![\w.])(?!0\.0\b)(\d+\.\d+)(?![\w.])", r"(\1 * 1.3)"),
    (r"\bmin\(", "max("),
    (r"\bmax\(", "min("),
    (r"\[0\]", "[-1]"),
    (r"\bsorted\(", "list("),
    (r"\bany\(", "all("),
    (r"\ball\(", "any("),
)
TEMPLATE = (
    (r"{% if ", "{% if not "),
    (r"{{ (?!sealed)[^}]+ }}", ""),
    (r'data-(\w+)="', r'data-x\1="'),
    (r" \| measure\('[^)]*\)", ""),
)
SCRIPT = (
    (r"===", "!=="),
    (r" && ", " || "),
    (r" \+ ", " - "),
    (r"\btrue\b", "false"),
    (r" < ", " >= "),
    (r"\.preventDefault\(\)", ".valueOf()"),
)
# A comparison is turned round and not moved by its bound: between figures that nothing can tell.
WAYS = {".py": PYTHON, ".html": TEMPLATE, ".js": SCRIPT}


@dataclass(frozen=True)
class Mutation:
    """A line of a file and what it becomes."""

    path: Path
    number: int
    old: str
    new: str


def mutations(files: list[Path], count: int, dice: random.Random) -> list[Mutation]:
    """So many single-line changes, each in a line and a way drawn by lot."""
    found: list[Mutation] = []
    while len(found) < count:
        path = dice.choice(files)
        lines = (ROOT / path).read_text(encoding="utf-8").splitlines()
        number = dice.randrange(len(lines))
        old = lines[number]
        if (
            not old.strip()
            or old.strip().startswith(("#", "//", '"""', "import ", "from ", "class ", "@"))
            or _in_a_docstring(lines, number)
        ):
            continue
        ways = [(pattern, put) for pattern, put in WAYS[path.suffix] if re.search(pattern, old)]
        if ways:
            pattern, put = dice.choice(ways)
            found.append(Mutation(path, number, old, re.sub(pattern, put, old, count=1)))
    return found


def _in_a_docstring(lines: list[str], number: int) -> bool:
    return sum(line.count('"""') for line in lines[:number]) % 2 == 1


Ran = dict[str, dict[str, list[str]]]
"""By file and line, the tests that run it, the quickest first."""
WATCHED = (
    "tests/core tests/formats tests/devices",
    "tests/web tests/store tests/documents tests/words",
)
"""What is run side by side to see which test runs which line."""


def watch(copy: Path) -> Ran:
    """Run the suite without its walks, watched line by line."""
    rules = copy / "watch.ini"
    rules.write_text(
        "[run]\nsource = src/lamsik\ndynamic_context = test_function\nparallel = true\n", encoding="utf-8"
    )
    runs = [
        subprocess.Popen(
            [
                *(
                    sys.executable,
                    "-m",
                    "coverage",
                    "run",
                    f"--rcfile={rules}",
                    "-m",
                    "pytest",
                    *ALONE,
                ),
                *(f"--junitxml=took{n}.xml", *tests.split()),
            ],
            cwd=copy,
            env=_environment(copy),
            stdout=subprocess.DEVNULL,
        )
        for n, tests in enumerate(WATCHED)
    ]
    if any([run.wait() for run in runs]):
        raise SystemExit("a test fails as it stands: nothing can be said of changes")
    took = _took(copy)
    known: dict[tuple[str, str], list[str]] = defaultdict(list)
    for test in took:
        module = next((word for word in test.split(".") if word.startswith("test_")), "")
        known[module, test.split(".")[-1]].append(test)
    subprocess.run(
        [sys.executable, "-m", "coverage", "combine", f"--rcfile={rules}", "--quiet"], cwd=copy, check=True
    )
    words = ["coverage", "json", f"--rcfile={rules}", "--show-contexts", "--quiet", "-o", "ran.json"]
    subprocess.run([sys.executable, "-m", *words], cwd=copy, check=True)
    seen = json.loads((copy / "ran.json").read_text(encoding="utf-8"))
    return {
        path: {
            line: sorted({test for name in names for test in _tests_of(name, known)}, key=took.__getitem__)
            for line, names in found["contexts"].items()
        }
        for path, found in seen["files"].items()
    }


def _tests_of(name: str, known: dict[tuple[str, str], list[str]]) -> list[str]:
    """The tests that are watched under a name: one in a folder that is no package has no folder in it, one
    that is tried with many figures has its wrapper's.
    """
    words = name.split(".")
    module = next((word for word in words if word.startswith("test_")), "")
    found = known.get((module, words[-1]), [])
    return [test for test in found if test.endswith(f".{name}") or test == name] or found


def _took(copy: Path) -> dict[str, float]:
    """How long each test took [s], all its cases together, by its dotted name."""
    found: dict[str, float] = defaultdict(float)
    for report in sorted(copy.glob("took*.xml")):
        for case in ElementTree.parse(report).iter("testcase"):
            found[f"{case.get('classname')}.{(case.get('name') or '').split('[')[0]}"] += float(
                case.get("time") or 0.0
            )
    return found


def _nodes(tests: list[str], copy: Path) -> list[str]:
    """What pytest calls the tests of these dotted names."""
    nodes = []
    for test in tests:
        words = test.split(".")
        ends = next((n for n, word in enumerate(words) if word.startswith("test_")), 0)
        path = f"{'/'.join(words[: ends + 1])}.py"
        if (copy / path).exists():
            nodes.append("::".join((path, *words[ends + 1 :])))
    return nodes


def _asked(mutation: Mutation, copy: Path, ran: Ran) -> Iterator[str]:
    """Tests to run on the change, a lot at a time, until one fails."""
    path = mutation.path
    known = _nodes(ran.get(str(path), {}).get(str(mutation.number + 1), []), copy)
    if path.parts[2] == "core":
        yield RECORD
        known.sort(key=lambda test: not test.startswith("tests/core"))
    if known:
        yield " ".join(known[:40])
        if len(known) > 40:
            yield FIRST[path.suffix]
            yield from (" ".join(known[n : n + 400]) for n in range(40, len(known), 400))
        if LAYERS.get(path.parts[2], ())[-1:] == ("tests/browser",):
            yield "tests/browser"
        return
    yield FIRST[path.suffix]
    yield from _near(path, copy)
    yield from LAYERS.get(path.parts[2], ("tests/web",))


def is_noticed(mutation: Mutation, copy: Path, ran: Ran) -> bool:
    """Whether a test fails on the change."""
    target = copy / mutation.path
    kept = target.read_text(encoding="utf-8")
    lines = kept.splitlines(keepends=True)
    lines[mutation.number] = mutation.new + "\n"
    target.write_text("".join(lines), encoding="utf-8")
    try:
        return any(_fails(copy, tests) for tests in _asked(mutation, copy, ran))
    finally:
        target.write_text(kept, encoding="utf-8")


def _near(path: Path, copy: Path) -> list[str]:
    """Folders and files of tests that have a name of the path in theirs, of the layer and of the web; the
    browser's last.
    """
    names = {part.removesuffix(path.suffix) for part in path.parts[3:]} - {
        "templates",
        "static",
        "js",
        "css",
        "shared",
        "__init__",
    }
    layer = path.parts[2]
    folders = [
        f"tests/core/{name}" for name in names if layer == "core" and (copy / "tests/core" / name).is_dir()
    ]
    files = [
        str(file.relative_to(copy))
        for place in (layer, "web")
        for file in sorted((copy / "tests" / place).rglob("test_*.py"))
        if any(name in file.stem or name.rstrip("s") in file.stem for name in names)
    ]
    walks = [
        str(file.relative_to(copy))
        for file in sorted((copy / "tests/browser").glob("test_*.py"))
        if any(name in file.stem for name in names)
    ]
    first = [" ".join(dict.fromkeys(files))] if files else []
    return [
        *folders,
        *first,
        *([" ".join(walks)] if walks and "tests/browser" in LAYERS.get(layer, ()) else []),
    ]


def _environment(copy: Path) -> dict[str, str]:
    return {"PATH": os.environ["PATH"], "PYTHONPATH": str(copy / "src")}


def _fails(copy: Path, tests: str) -> bool:
    few = tests.count("::") == len(tests.split())
    words = [sys.executable, "-m", "pytest", *tests.split(), "-x", "-q", "-p", "no:cacheprovider"]
    words += ALONE if few else ["-n", "2"]
    try:
        done = subprocess.run(
            words,
            cwd=copy,
            env=_environment(copy),
            capture_output=True,
            timeout=900,
            check=False,
        )
    except subprocess.TimeoutExpired:  # it never ends: that is noticed
        return True
    if done.returncode == 4:  # pytest's own: what it was asked to run is not there
        raise SystemExit(f"{done.stderr.decode()[:400]}\nwhat was seen is of another state: watch anew")
    return done.returncode not in (0, 5)


def main() -> None:
    """Make them, and print those that live."""
    asked = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    asked.add_argument("--count", type=int, default=60)
    asked.add_argument("--seed", type=int, default=1)
    asked.add_argument("--only", nargs="*", default=[])
    asked.add_argument(
        "--no-browser",
        action="store_true",
        help="leave the slow walks out: what lives may yet be seen by them",
    )
    asked.add_argument("--ran", type=Path, help="what was seen of which test runs which line: read or kept")
    given = asked.parse_args()
    if given.no_browser:
        LAYERS["web"] = ("tests/web",)
    dice = random.Random(given.seed)
    files = [
        path.relative_to(ROOT)
        for path in sorted((ROOT / SOURCES).rglob("*"))
        if path.suffix in WAYS and "vendor" not in path.parts and "versions" not in path.parts
    ]
    if given.only:
        drawn = mutations(
            [path for path in files if str(path).startswith(tuple(given.only))], given.count, dice
        )
    else:
        core = [path for path in files if path.parts[2] == "core"]
        rest = [path for path in files if path.parts[2] in ("documents", "formats", "store", "web")]
        drawn = mutations(core, given.count // 2, dice) + mutations(
            rest, given.count - given.count // 2, dice
        )
    noticed = 0
    with tempfile.TemporaryDirectory() as folder:
        copy = Path(folder) / "copy"
        shutil.copytree(
            ROOT, copy, ignore=shutil.ignore_patterns(".venv", ".git", "instance*", "__pycache__")
        )
        ran = json.loads(given.ran.read_text()) if given.ran and given.ran.exists() else watch(copy)
        if given.ran:
            given.ran.write_text(json.dumps(ran), encoding="utf-8")
        for at, mutation in enumerate(drawn, 1):
            seen = is_noticed(mutation, copy, ran)
            noticed += seen
            print(
                f"{at:3} {'noticed' if seen else 'LIVES  '} {mutation.path}:{mutation.number + 1}\n     "
                f" {mutation.old.strip()}\n      {mutation.new.strip()}",
                flush=True,
            )
    print(f"{noticed} of {len(drawn)} noticed")


if __name__ == "__main__":
    main()
