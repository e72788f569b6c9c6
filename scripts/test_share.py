"""Print the share of test lines to code lines, counted one way (see docs/architecture.md)."""

from pathlib import Path

ROOT = Path(__file__).parent.parent


def lines(folder: Path, endings: tuple[str, ...]) -> int:
    """Lines of all files with these endings, vendor left out."""
    found = [
        p
        for p in folder.rglob("*")
        if p.suffix in endings and "vendor" not in p.parts and "__pycache__" not in p.parts
    ]
    return sum(len(p.read_text(encoding="utf-8").splitlines()) for p in found)


code = lines(ROOT / "src", (".py", ".js", ".css", ".html"))
tests = lines(ROOT / "tests", (".py", ".js"))
print(f"Tests: {tests} lines over {code} lines of code: {100 * tests / code:.1f} % (wanted: 25 to 33)")
