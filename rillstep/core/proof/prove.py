"""The proof of a pattern: read, work, measure, check, in that order, in every size."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

from rillstep.core.craft import Terms
from rillstep.core.fabric import Counts, SizeWork, work_pattern
from rillstep.core.findings import Finding, apply_edits, sort_findings
from rillstep.core.measures import BagMeasures, SizeShape, bag_measures
from rillstep.core.memory import remember
from rillstep.core.proof.checks.bars import bars
from rillstep.core.proof.checks.copied_rows import copied_rows
from rillstep.core.proof.checks.counted_alike import chains_count_alike, counted_by_one_way, spaces_count_alike
from rillstep.core.proof.checks.differences import (
    beside_motifs,
    by_manner,
    counted_alike,
    missing_numbers,
    of_foundation,
    totals,
)
from rillstep.core.proof.checks.drift import drift
from rillstep.core.proof.checks.facing_sides import sides_in_turn, turned_once
from rillstep.core.proof.checks.habits import (
    OUT_OF_STEP,
    closings,
    joins,
    kept_words,
    kinds_left_out,
    odd_numbers,
    odd_ranges,
    starting_chains,
    twists,
)
from rillstep.core.proof.checks.kit import kit
from rillstep.core.proof.checks.layouts import layouts
from rillstep.core.proof.checks.motifs import motifs, spaces_alike
from rillstep.core.proof.checks.named_places import (
    joined_stitches,
    named_chains,
    named_rows,
    named_spaces,
    stitches_below,
)
from rillstep.core.proof.checks.numbering import numbering
from rillstep.core.proof.checks.pieces import seams, strap_centred, straps_alike
from rillstep.core.proof.checks.shape import flatness, handles
from rillstep.core.proof.checks.statements import statements
from rillstep.core.proof.checks.symmetry import sides_alike
from rillstep.core.proof.checks.yarns import yarns
from rillstep.core.proof.merging import caused, merged
from rillstep.core.proof.named_repairs import keeping_names
from rillstep.core.proof.ordinals import with_endings
from rillstep.core.proof.subject import Subject, WorkedLine
from rillstep.core.settling import read
from rillstep.core.tree import Again, Pattern, Row, Setup, lines_of
from rillstep.core.wordlists import word_list

# Checks of one line by itself, which are remembered with it; and checks of the whole.
LINE_CHECKS = (
    handles,
    odd_numbers,
    kinds_left_out,
    spaces_alike,
    twists,
    counted_alike,
    of_foundation,
    by_manner,
    beside_motifs,
    missing_numbers,
    kept_words,
    closings,
    copied_rows,
)
CHECKS = (
    numbering, totals, statements, flatness, starting_chains, joins, sides_alike, motifs, seams, straps_alike,
    strap_centred, layouts, yarns, drift, kit, bars, sides_in_turn, turned_once, odd_ranges,
    named_chains, joined_stitches, named_spaces, stitches_below, named_rows, counted_by_one_way, chains_count_alike,
    spaces_count_alike,
)  # fmt: skip


Mark = Literal["proved", "assumed", "unchecked", "wrong", "not understood", "vouched"]

# Warnings that say of a line that something in it is not looked at: it is worked, and not proved.
UNCHECKED = frozenset(
    word_list(
        "total-not-checked kind-not-known place-not-checked edge-not-checked edge-not-counted "
        "rows-not-counted chains-not-counted chain-number-missing number-missing words-not-worked "
        "round-turned closing-differs define-not-understood manner-not-worked kind-not-counted"
    )
)
# Errors that say of words that they are not understood; all others refute what was understood.
UNREAD = frozenset(
    word_list(
        "not-understood terms-mixed row-empty line-too-long text-too-long section-misplaced "
        "number-not-worked-out name-not-defined"
    )
)


@dataclass(frozen=True)
class LineProof:
    """A line with its proved totals per size: None where it does not hold, or is not known.

    mark: "proved", every word worked and every number true; "unchecked", worked, with something in it that is not
    looked at, which a
    warning names, or with nothing known to work it on; "wrong", refuted; "not understood", in part or as a whole;
    "vouched", not worked, with the designer's word for it; "assumed", proved if some words mean what is assumed.

    depends: an earlier line that is wrong; this one was judged from the total stated there.
    phrases: those of the text's own on which the line rests; its words hold for the meanings that the text gives them.
    last_line: where it ends, when it goes over several lines of the text.
    """

    line: int
    section: int
    label: str
    sts: tuple[int | None, ...]
    spaces: tuple[int | None, ...]
    stated: tuple[int | None, ...]
    mark: Mark
    depends: int | None = None
    last_line: int = 0
    phrases: tuple[str, ...] = ()

    @property
    def proved(self) -> bool:
        return self.mark == "proved"


@dataclass(frozen=True)
class Proof:
    """A pattern that has been worked. `ok` when there is no error (warnings may remain)."""

    pattern: Pattern
    works: tuple[SizeWork, ...]
    lines: tuple[LineProof, ...]
    findings: tuple[Finding, ...]
    bag: BagMeasures | None = field(default=None, compare=False, repr=False)

    @property
    def shapes(self) -> tuple[SizeShape, ...] | None:
        """The bag round by round, in each size; None where there is no gauge."""
        return self.bag.profiles if self.bag is not None else None

    @property
    def ok(self) -> bool:
        return not any(finding.severity == "error" for finding in self.findings)


def prove_text(
    text: str, allowance_mm: float = 0.0, terms: Terms | None = None, assumed: tuple[str, ...] = ()
) -> Proof:
    """Read and prove a text. Never raises: whatever is wrong is a finding.

    terms: what it is written in, where that is known better than the text says. assumed: lines of the head that the
    text does not have.
    """
    proof = prove_as_read(text, allowance_mm, terms, assumed)

    def again(other: str) -> tuple[Finding, ...]:
        return prove_as_read(other, allowance_mm, terms, assumed).findings

    named = keeping_names(text, with_endings(text, proof.findings), len(proof.pattern.sizes), again)
    found = tuple(one for finding in named if (one := _harmless(text, proof.findings, finding, again)) is not None)
    return proof if found == proof.findings else replace(proof, findings=found)


def _harmless(
    text: str, every: Sequence[Finding], finding: Finding, again: Callable[[str], tuple[Finding, ...]]
) -> Finding | None:
    """A warning without those of its repairs that leave more errors than there are. None for a number out of step whose
    repair does: then other lines tell that it is meant."""
    if finding.severity == "error" or not finding.repairs:
        return finding
    errors = sum(one.severity == "error" for one in every)
    kept = tuple(
        repair
        for repair in finding.repairs
        if sum(one.severity == "error" for one in again(apply_edits(text, repair.edits))) <= errors
    )
    return None if finding.code == OUT_OF_STEP and not kept else replace(finding, repairs=kept)


def prove_as_read(
    text: str, allowance_mm: float = 0.0, terms: Terms | None = None, assumed: tuple[str, ...] = ()
) -> Proof:
    """The same proof, with repairs that may write plain numbers over names: for those who look at no repair, as each
    repair that keeps a name is a proof of its own. assumed: lines of the head that the text does not have."""
    read_ = read(text, terms, assumed)
    return prove(read_.pattern, read_.findings, allowance_mm)


def prove(pattern: Pattern, read: tuple[Finding, ...] = (), allowance_mm: float = 0.0) -> Proof:
    """Prove a tree that was read from text (lines are told apart by their place); `read` are the findings of its
    reading."""
    works = tuple(work_pattern(pattern, size) for size in range(len(pattern.sizes)))
    bag = bag_measures(pattern, works, allowance_mm)
    subject = Subject(pattern, works, bag)
    found = [finding for check in CHECKS for finding in check(subject)]
    found += [finding for line in subject.lines for finding in _found_in(line)]
    findings = sort_findings([*read, *merged(caused(found, read), pattern)])
    return Proof(pattern, works, _line_proofs(subject, findings), findings, bag)


def _line_proofs(subject: Subject, findings: tuple[Finding, ...]) -> tuple[LineProof, ...]:
    codes: dict[int, set[str]] = {}
    for finding in findings:
        if finding.severity == "error" or finding.code in UNCHECKED:
            codes.setdefault(finding.span.line, set()).add(finding.code)
    unread = tuple(special.name for special in subject.pattern.specials if special.unread)
    proofs: list[LineProof] = []
    for line in subject.lines:
        proof = _unjudged(line, unread)
        if proof is None:
            continue
        assert isinstance(line.line, Row | Again)
        found = {code for at in lines_of(line.line) for code in codes.get(at, ())} if codes else set()
        refuted = found - UNCHECKED
        if found and proof.mark != "not understood" and (refuted or proof.mark != "vouched"):
            mark: Mark = "unchecked" if not refuted else "not understood" if refuted <= UNREAD else "wrong"
            proof = replace(proof, mark=mark)
        if isinstance(line.line, Again) and proof.mark == "proved" and _copies_unproved(line, proofs):
            proof = replace(proof, mark="unchecked")
        proofs.append(_with_phrases(proof, line, subject.pattern.taught))
    return tuple(proofs)


def _copies_unproved(line: WorkedLine, proofs: list[LineProof]) -> bool:
    """Does a line work rows again of which one is not proved?"""
    copied = {turn.source.span.line for work in line.done for turn in work.turns}
    return any(proof.line in copied and proof.mark != "proved" for proof in proofs)


def _with_phrases(proof: LineProof, line: WorkedLine, taught: tuple[tuple[int, str], ...]) -> LineProof:
    """A line with the phrases that it rests on; rows worked again rest on those of the rows that are repeated."""
    if not taught:
        return proof
    assert isinstance(line.line, Row | Again)
    rests = {*lines_of(line.line), *(step.span.line for work in line.done for step in work.steps)}
    return replace(proof, phrases=tuple(dict.fromkeys(phrase for at, phrase in taught if at in rests)))


@remember(8192)
def _found_in(line: WorkedLine) -> tuple[Finding, ...]:
    return tuple(finding for check in LINE_CHECKS for finding in check(line))


@remember(8192)
def _unjudged(line: WorkedLine, unread: tuple[str, ...]) -> LineProof | None:
    """A line with its totals, before the findings are looked at; nothing for one that has none."""
    row, works = line.line, line.works
    if isinstance(row, Setup):
        return None
    counts = [w.rounds[-1] if w is not None and w.rounds and w.trouble is None else None for w in works]
    main = next((t for t in row.totals if t.what == "sts"), None)
    return LineProof(
        row.span.line,
        line.section,
        f"{row.kind} {row.first.values[row.sizes[0]]}",
        tuple(c.sts if c is not None else None for c in counts),
        tuple(c.spaces_of(None) if c is not None else None for c in counts),
        tuple(main.count.at(size) if main is not None and size in row.sizes else None for size in range(len(works))),
        _read_mark(row) or ("proved" if _is_known(line, counts, unread) else "unchecked"),
        min((w.depends for w in line.done if w.depends is not None), default=None),
        max(row.span.line, row.last_line),
    )


def _read_mark(row: Row | Again) -> Mark | None:
    """The mark that a row has by its words alone."""
    return "vouched" if row.vouched else "not understood" if row.broken else None


def _is_known(line: WorkedLine, counts: list[Counts | None], unread: tuple[str, ...]) -> bool:
    """Is all that a line makes known: in every size, from its own steps, and from no stitch that is not understood?"""
    if any(
        work.trouble is None and not work.rounds and work.line.rounds(work.size) > 0
        for work in line.done
        if not isinstance(work.line, Setup)
    ):
        return False
    steps = tuple(step for work in line.done[:1] for step in work.steps)
    return any(c is not None for c in counts) and not (unread and any(name in str(steps) for name in unread))


__all__ = ["CHECKS", "LineProof", "Mark", "Proof", "prove", "prove_text"]
