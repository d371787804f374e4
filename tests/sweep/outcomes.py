"""The referee of outcomes: what comes of each text, whatever the reader is made of inside.

Five parts for each text: the counts of each line in each size, its mark, the findings, the repairs that they offer
(as the line that each would leave), and the print. `tests/outcomes.txt` holds a digest of each part; a change of the
reader that changes none of them reads as before. What differs is listed by

    python -m tests.sweep.outcomes --against REVISION

which works the same texts by the code of that revision. `--write` pins what comes now, once each difference was
looked at.
"""

import argparse
import json
import subprocess
import sys
import tempfile
from concurrent.futures import ProcessPoolExecutor
from difflib import unified_diff
from hashlib import blake2b
from pathlib import Path

from rillstep.core.findings import apply_edits
from rillstep.core.proof import Proof, prove_text, reader_text

TESTS = Path(__file__).parents[1]
PINNED = TESTS / "outcomes.txt"
PARTS = ("counts", "marks", "findings", "repairs", "print")

Outcome = dict[str, list[str]]


def texts() -> dict[str, Path]:
    """The corpus, the typed texts, and the patterns that may be run, by name."""
    folders = (TESTS / "corpus", TESTS / "typed", TESTS / "patterns" / "open", TESTS / "patterns" / "sealed")
    return {path.stem: path for folder in folders for path in sorted(folder.glob("*.txt"))}


def outcome(text: str) -> Outcome:
    """What comes of a text, part by part, as lines that can be compared and read."""
    proof = prove_text(text)
    return outcome_of(text, proof, reader_text(proof.pattern, proof.pattern.terms).text)


def outcome_of(text: str, proof: Proof, printed: str) -> Outcome:
    """The same, of a proof and a print that are there already."""
    rows = text.split("\n")
    repairs: list[str] = []
    for finding in proof.findings:
        for repair in finding.repairs:
            left = apply_edits(text, repair.edits).split("\n")
            changed = [line for line in left if line not in rows]
            repairs.append(f"{finding.span.line} {finding.code}: {repair.message} -> {changed}")
    return {
        "counts": [f"{line.line} {list(line.sts)} {list(line.spaces)} {list(line.stated)}" for line in proof.lines],
        "marks": [f"{line.line} {line.mark} {line.depends or ''}" for line in proof.lines],
        "findings": [f"{f.span.line} {f.severity} {f.code} {f.size} {f.message}" for f in proof.findings],
        "repairs": repairs,
        "print": printed.split("\n"),
    }


def digest(found: Outcome) -> str:
    """The parts as they are pinned: "counts 1a2b3c4d | marks ..."."""
    parts = (blake2b("\n".join(found[part]).encode(), digest_size=4).hexdigest() for part in PARTS)
    return " | ".join(f"{part} {made}" for part, made in zip(PARTS, parts, strict=True))


def pinned() -> dict[str, str]:
    """The digests of each text, by its name."""
    found: dict[str, str] = {}
    for line in PINNED.read_text().splitlines() if PINNED.exists() else ():
        name, _, parts = line.partition(" | ")
        found[name] = parts
    return found


def _of(path: Path) -> Outcome:
    return outcome(path.read_text())


def all_outcomes() -> dict[str, Outcome]:
    """The outcome of every text, by its name."""
    paths = texts()
    with ProcessPoolExecutor() as pool:
        return dict(zip(paths, pool.map(_of, paths.values(), chunksize=4), strict=True))


def _by_revision(revision: str) -> dict[str, Outcome]:
    """The outcomes of today's texts by the code of a revision, in a folder of its own."""
    with tempfile.TemporaryDirectory(prefix="rillstep-outcomes-") as folder:
        there, out = Path(folder) / "code", Path(folder) / "out.json"
        subprocess.run(["git", "worktree", "add", "--quiet", "--detach", there, revision], cwd=TESTS, check=True)
        try:
            # This file as it is now, with the core as it was then.
            (there / "tests/sweep/outcomes.py").write_text(Path(__file__).read_text())
            command = [sys.executable, "-m", "tests.sweep.outcomes", "--texts", TESTS, "--json", out]
            subprocess.run(command, cwd=there, check=True)
            found: dict[str, Outcome] = json.loads(out.read_text())
        finally:
            subprocess.run(["git", "worktree", "remove", "--force", there], cwd=TESTS, check=True)
    return found


def differences(before: dict[str, Outcome], now: dict[str, Outcome]) -> list[str]:
    """Each text and part that differs, with its lines."""
    told: list[str] = []
    for name, found in now.items():
        old = before.get(name, {})
        for part in PARTS:
            if found[part] != old.get(part):
                told.append(f"## {name}: {part}")
                told += list(unified_diff(old.get(part, []), found[part], lineterm="", n=0))[2:]
    return told


def main() -> None:
    global TESTS
    ask = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    ask.add_argument("--against", metavar="REVISION")
    ask.add_argument("--write", action="store_true")
    ask.add_argument("--json", type=Path)
    ask.add_argument("--texts", type=Path, default=TESTS)
    given = ask.parse_args()
    TESTS = given.texts
    found = all_outcomes()
    if given.json:
        given.json.write_text(json.dumps(found))
    elif given.write:
        PINNED.write_text("".join(f"{name} | {digest(one)}\n" for name, one in found.items()))
    elif given.against:
        told = differences(_by_revision(given.against), found)
        print("\n".join(told))
        print(f"{sum(line.startswith('## ') for line in told)} parts of {len(found)} texts differ")
    else:
        known = pinned()
        changed = [name for name, one in found.items() if known.get(name) != digest(one)]
        print(f"{len(changed)} of {len(found)} texts differ from what is pinned", *changed[:20])


if __name__ == "__main__":
    main()
