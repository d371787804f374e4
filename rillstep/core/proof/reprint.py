"""Proof of print: text for readers is read back by the same parser and worked again."""

from collections.abc import Callable
from dataclasses import dataclass, replace

from rillstep.core.craft import Terms
from rillstep.core.findings import Finding, Span
from rillstep.core.notation import parse
from rillstep.core.notation.counted import as_noted
from rillstep.core.printing import one_size, write
from rillstep.core.printing.abbreviations import abbreviations_used
from rillstep.core.printing.folding import folded
from rillstep.core.printing.handed import left_handed
from rillstep.core.printing.in_terms import in_terms
from rillstep.core.printing.wrapping import wrapped
from rillstep.core.proof.advice import Hand, advice
from rillstep.core.proof.as_written import differing_lines, unproved_lines, with_source_lines
from rillstep.core.proof.prove import Proof, prove
from rillstep.core.tree import Again, Pattern, Row


@dataclass(frozen=True)
class Reprint:
    """A text for readers with the proof of exactly that text. Only an `ok` one may be shown as proved.

    sources: for each line of the text that holds a line of the pattern, in which line that stands in the source.
    written: the lines of the text that stand there as they were written, since they are not proved.
    """

    text: str
    proof: Proof
    problems: tuple[Finding, ...]
    sources: tuple[tuple[int, int], ...] = ()
    written: tuple[int, ...] = ()

    @property
    def ok(self) -> bool:
        return not self.problems and not self.written and self.proof.ok

    def source_of(self, line: int) -> int:
        """The line of the source for a line of the text; the same one where it is not known."""
        return dict(self.sources).get(line, line)


def reprint(
    pattern: Pattern,
    terms: Terms,
    size: int | None = None,
    allowance_mm: float = 0.0,
    hand: Hand = "right",
    fold: bool = True,
    source: str | None = None,
) -> Reprint:
    """Write a pattern (one size of it, if given) for a hand, read it back, and work it again.

    fold: equal rounds one after another become one line. source: the text that the pattern was read from; with it, a
    line that is not proved stands as it was written.
    """
    wanted = pattern if size is None else one_size(pattern, size)
    wanted = folded(wanted) if fold else wanted
    wanted = in_terms(left_handed(wanted) if hand == "left" else wanted, terms)
    return _printed(wanted, lambda made: write(made, terms), allowance_mm, source)


def reader_text(
    pattern: Pattern,
    terms: Terms,
    size: int | None = None,
    allowance_mm: float = 0.0,
    hand: Hand = "right",
    source: str | None = None,
) -> Reprint:
    """The pattern as a text that stands alone: with its notes and abbreviations, and with long lines broken; `source`
    as for `reprint`."""
    wanted = folded(pattern if size is None else one_size(pattern, size))
    wanted = in_terms(left_handed(wanted) if hand == "left" else wanted, terms)
    short = "; ".join(f"{name} {meaning}" for name, meaning in abbreviations_used(wanted, terms))
    said = {text for _, text in wanted.extra}
    notes = [("Note", note) for note in (*advice(wanted, terms, hand), f"Abbreviations: {short}.") if note not in said]
    wanted = as_noted(replace(wanted, extra=(*wanted.extra, *notes)), terms)
    return _printed(wanted, lambda made: wrapped(write(made, terms)), allowance_mm, source)


def _printed(wanted: Pattern, written: Callable[[Pattern], str], allowance_mm: float, source: str | None) -> Reprint:
    made = _read_back(wanted, written(wanted), allowance_mm)
    vouched = any(isinstance(line, Row | Again) and line.vouched for _, line in wanted.lines())
    if source is None or (made.ok and not vouched):
        return made
    base = prove(wanted, (), allowance_mm)
    kept = unproved_lines(base)
    for _ in range(MOST_TRIES):
        shown = with_source_lines(wanted, source, kept)
        text = written(shown)
        parsed = parse(text)
        more = differing_lines(parsed.pattern, shown) - kept
        if not more:
            break
        kept |= more
    pairs = [
        (here.span.line, there.span.line)
        for (_, here), (_, there) in zip(parsed.pattern.lines(), shown.lines(), strict=False)
    ]
    marked = {line.line: line for line in base.lines}
    lines = tuple(replace(marked[there], line=here, last_line=here) for here, there in pairs if there in marked)
    problems = tuple(finding for finding in parsed.findings if finding.severity == "error")
    if parsed.pattern != shown:
        message = "Something in the head of the print does not read back as what was meant: look it through."
        problems = (*problems, Finding("print-differs", "error", Span(1, 1, 2), message))
    proof = replace(base, pattern=parsed.pattern, lines=lines)
    return Reprint(text, proof, problems, tuple(pairs), tuple(here for here, there in pairs if there in kept))


# A print whose lines still differ after so many tries is shown as it is, with what is wrong.
MOST_TRIES = 4


def _read_back(wanted: Pattern, text: str, allowance_mm: float) -> Reprint:
    parsed = parse(text)
    # What is only warned of is so in the source as well, where the designer has been told.
    problems = [finding for finding in parsed.findings if finding.severity == "error"]
    if parsed.pattern != wanted:
        message = "What was printed does not read back as what was meant; it is not exported."
        problems.append(Finding("print-differs", "error", Span(1, 1, 2), message))
    again = prove(parsed.pattern, parsed.findings, allowance_mm)
    pairs = zip(parsed.pattern.lines(), wanted.lines(), strict=False)
    sources = tuple((here.span.line, there.span.line) for (_, here), (_, there) in pairs if there.span.line)
    return Reprint(text, again, tuple(problems), sources)
