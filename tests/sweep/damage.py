"""Rows of the corpus damaged with the truth known, and what is asked of them (a part of `make mutate`).

Names, places and clauses that no word list of the code holds are put into rows that are proved, and numbers are left
out of them. An answer is right when each stitch goes where it went, in the smallest and the largest size.
"""

import random
import re
import sys
from collections import Counter
from collections.abc import Iterator, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from time import perf_counter

from rillstep.core.assumptions import Asked, ask
from rillstep.core.fabric import trace_row
from rillstep.core.findings import apply_edits
from rillstep.core.proof import Proof, prove_as_read
from rillstep.core.tree import Again, Row
from tests.core.free_numbers import shipped

NAMES = ("kebble", "droon", "vasp", "immer", "solk", "tibb", "warble", "quenn")
TOLD = ("one of ours, see the film", "worked slowly and pulled high", "our usual one")
STITCHES = ("sc", "hdc", "dc", "tr", "htr")
# What is written in the place of a place: "{0}" is its number.
PLACES = (
    ("in each st around", ("upon every one of them, full circle", "into each and every stitch of the circle",
                           "through all of the tops of the round")),
    ("in each st across", ("upon every one of them, from side to side", "into all stitches of the row beneath",
                           "over the whole width, top by top")),
    ("in each ch across", ("into every single link", "upon each link of the beginning chain")),
    (r"in (?:each of )?next (\d+) sts", ("into the following run of {0} stitches", "upon the {0} tops ahead",
                                         "on the {0} stitches thereafter")),
    ("in next st", ("upon the one that follows", "into the very next top", "in the following one")),
    ("in first st", ("upon the one at the start", "into the opening one")),
    ("in last st", ("upon the one at the end", "into the final top")),
    ("in same st", ("into the same spot once more", "upon the top just worked")),
)  # fmt: skip
HARMLESS = (
    "which feels slow", "with music on", "ideally by daylight", "it looks odd for now", "pet the cat meanwhile",
    "sipping something warm", "smile", "as seen in the picture", "the stripes begin to show", "with fresh hands",
    "as my aunt did", "it will lie flat later", "a lovely rhythm", "you may hum", "with patience",
)  # fmt: skip
# A row, and the same row told in other words that change the work.
CHANGING = (
    (r"2 (sc|hdc|dc) in each st around", ("{0} in each st around, always in pairs", "{0} in each st around, each twice over",
                                          "{0} in each st around, making twins")),
    (r"(sc|hdc|dc)2tog, \1 in each st to last 2 sts, \1{{1}}2tog", ("{0} in each st across, shrinking a stitch at both edges",)),
    (r"2 (sc|hdc|dc) in first st, \1 in each st to last st, 2 \1 in last st",
     ("{0} in each st across, swelling a stitch at both edges",)),
    (r"(sc|hdc|dc) in BLO of each st around|BLO (sc|hdc|dc) in each st around",
     ("{0} in each st around, hooking the rear strand alone", "{0} in each st around, sparing the near strand")),
    (r"(sc|hdc|dc) in FLO of each st around|FLO (sc|hdc|dc) in each st around",
     ("{0} in each st around, hooking the near strand alone", "{0} in each st around, sparing the rear strand")),
    (r"[\[*] ?(sc|hdc|dc) in next \d+ sts, 2 \1 in next st\]? ?(?:;? ?rep from \* )?around",
     ("{0} in each st around, widening at regular points", "{0} in each st around, spreading the usual extra ones")),
)  # fmt: skip
LEFT_OUT = (
    (r"\b(next|first|last) \d+(?: ?\([\d,; ]+\))? sts\b", r"\1 sts"), (r"\b(sk|skip) \d+(?: ?\([\d,; ]+\))? sts\b", r"\1 sts"),
    (r"([\])]) \d+(?: ?\([\d,; ]+\))? times", r"\1 times"), (r"\bto last \d+ sts\b", "to last sts"),
)  # fmt: skip
WANTED = {"name": 60, "listed": 50, "place": 60, "harmless": 40, "changing": 50, "number": 40}
LABEL = re.compile(r"^\s*(?:rnds?|rows?|rounds?|r)\b[^:]{0,40}:", re.IGNORECASE)


@dataclass(frozen=True)
class Case:
    """A text in which one row is damaged, with the text that it was. line: the damaged one, from 1; added: lines that
    were put before it."""

    kind: str
    name: str
    text: str
    true: str
    line: int
    added: int = 0


def cases(texts: dict[str, str], seed: int) -> list[Case]:
    """Damaged texts of each kind, at most two of a text for each kind."""
    draw = random.Random(seed)
    found: list[Case] = []
    many: Counter[tuple[str, str]] = Counter()
    rows = [(name, line) for name, text in sorted(texts.items()) for line in _proved(text)]
    draw.shuffle(rows)
    for name, line in rows:
        for kind in draw.sample(sorted(WANTED), len(WANTED)):
            if many[kind, name] < 2 and sum(one.kind == kind for one in found) < WANTED[kind]:
                case = _damaged(kind, name, texts[name], line, draw)
                if case is not None:
                    many[kind, name] += 1
                    found.append(case)
                    break
    return found


def _proved(text: str) -> list[int]:
    proof = prove_as_read(text)
    if len(text) > 6_000 or any(line.mark != "proved" for line in proof.lines):
        return []
    rows = text.split("\n")
    return [line.line for line in proof.lines if any(line.stated) and line.last_line == line.line and LABEL.match(rows[line.line - 1])]  # fmt: skip


def _damaged(kind: str, name: str, text: str, line: int, draw: random.Random) -> Case | None:
    rows = text.split("\n")
    label = LABEL.match(rows[line - 1])
    assert label is not None
    head, body = label[0], rows[line - 1][label.end() :]
    if kind in ("name", "listed"):
        here = [one for one in STITCHES if re.search(rf"(?<![\w-]){one}(?![\w-])", body)]
        if not here or "Define" in text:
            return None
        word = draw.choice(NAMES)
        changed = re.sub(rf"(?<![\w-]){draw.choice(here)}s?(?![\w-])", word, text, flags=re.IGNORECASE)
        added = ["Abbreviations:", "ch: chain", f"{word}: {draw.choice(TOLD)}"] if kind == "listed" else []
        return Case(kind, name, "\n".join([*added, changed]), text, line, len(added))
    body_ = _body(kind, body, draw)
    if body_ is None or body_ == body:
        return None
    rows[line - 1] = head + body_
    return Case(kind, name, "\n".join(rows), text, line)


def _body(kind: str, body: str, draw: random.Random) -> str | None:
    if kind == "harmless":
        at = next(
            (i for i, letter in enumerate(body) if letter == "," and "(" not in body[:i] and "*" not in body[:i]), -1
        )
        return None if at < 6 else f"{body[:at]}, {draw.choice(HARMLESS)}{body[at:]}"
    if kind == "number":
        ways = [(pattern, new) for pattern, new in LEFT_OUT if re.search(pattern, body)]
        return re.sub(*draw.choice(ways), body, count=1) if ways else None  # type: ignore[call-overload,no-any-return]
    found = [
        (match, ways)
        for pattern, ways in (PLACES if kind == "place" else CHANGING)
        if (match := re.search(pattern, body))
    ]
    if not found:
        return None
    match, ways = draw.choice(found)
    groups = [group for group in match.groups() if group]
    return body[: match.start()] + draw.choice(ways).format(*groups, "") + body[match.end() :]


def judged(case: Case) -> tuple[str, float, int]:
    """What came of a case, the seconds that it took, and how many questions its text was asked."""
    began = perf_counter()
    asked = ask(case.text)
    took = perf_counter() - began
    line = case.line + case.added
    truth = _work(prove_as_read(case.true), case.line)
    mark = next((one.mark for one in asked.proof.lines if one.line == line), "gone")
    ways = list(_ways(case, asked, line))
    right = next((at for at, proof in enumerate(ways) if _work(proof, line) == truth), None)
    many = sum(bool(one.offers) for one in asked.questions) + sum(bool(one.answers) for one in asked.numbers)
    if not ways:
        silent = mark == "proved"
        told = _work(asked.proof, line) == truth
        return ("silent, right" if told else "SILENT, WRONG") if silent else "nothing offered", took, many
    return ("wrong first" if right is None else "right first" if right == 0 else "first three" if right < 3 else "later"), took, many  # fmt: skip


def _ways(case: Case, asked: Asked, line: int) -> Iterator[Proof]:
    """The text with each answer to what is asked of a line, and the first to all else."""
    for one in asked.questions:
        if line in one.lines:
            others = tuple(head for head in asked.heads if head not in {way.meaning.head for way in one.offers})
            for way in one.offers:
                yield prove_as_read(case.text, terms=asked.proof.pattern.terms, assumed=(*others, way.meaning.head))
            return
    for number in asked.numbers:
        if number.line == line:
            for answer in number.answers:
                yield prove_as_read(apply_edits(case.text, (answer.edit,)), assumed=asked.heads)


def _work(proof: Proof, line: int) -> Sequence[object]:
    """Where the stitches of a line go, without their names, in the smallest and the largest size; and its counts."""
    found: list[object] = [(one.sts, one.spaces) for one in proof.lines if one.line == line]
    for work in proof.works[:: max(1, len(proof.works) - 1)]:
        for one in work.lines:
            if isinstance(one.line, Row | Again) and one.line.span.line == line:
                for turn in one.turns[:2]:
                    made = trace_row(turn.source, one.size, turn.edge, turn.around).made
                    found.append(tuple((s.place.kind, s.place.length, s.into, s.loop) for s in made))
    return found


def main(seed: int) -> None:
    """Prints what is asked of damaged rows, by their kind."""
    drawn = cases(shipped(), seed)
    with ProcessPoolExecutor(2) as pool:
        results = list(pool.map(judged, drawn))
    outcomes = (
        "right first",
        "first three",
        "later",
        "wrong first",
        "nothing offered",
        "silent, right",
        "SILENT, WRONG",
    )
    print(f"{len(drawn)} damaged rows: {', '.join(outcomes)}")
    for kind in [*WANTED, "all"]:
        counted = Counter(result[0] for case, result in zip(drawn, results, strict=True) if kind in (case.kind, "all"))
        print(f"  {kind:<9}", "  ".join(f"{counted[one]:>4}" for one in outcomes))
    seconds = sorted(took / max(1, many) for _, took, many in results)
    print(f"seconds a question: {seconds[len(seconds) // 2]:.2f} in the middle, {seconds[-1]:.2f} at most")
    for case, result in zip(drawn, results, strict=True):
        if result[0] in ("SILENT, WRONG", "wrong first"):
            print(f"  {result[0]}: {case.name}: {case.text.split(chr(10))[case.line + case.added - 1].strip()[:150]}")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 1)
