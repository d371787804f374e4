"""What holds of every text of the corpus: properties that share one proof, and one reading of each print.

`make test` tries the quick ones on every text, and the long ones (`LONG`) on a share of the texts each; `make fuzz`
tries all of them on all. A new property is a function here and a row in one of the two tables.
"""

import random
import re
from collections.abc import Callable
from datetime import date
from html import unescape
from itertools import chain
from xml.etree import ElementTree

from rillstep.core.chart import chart_of, rows_for
from rillstep.core.fabric import work_row
from rillstep.core.fabric.working import trace_row
from rillstep.core.findings import apply_edits
from rillstep.core.memory import forget
from rillstep.core.notation import parse
from rillstep.core.printing.named_source import write_source
from rillstep.core.printing.unnaming import without_names
from rillstep.core.printing.wrapping import wrapped
from rillstep.core.printing.writer import write
from rillstep.core.proof import prove_text, reader_text
from rillstep.core.settling import read
from rillstep.core.tree import Again, Check, Row, lines_of
from rillstep.core.words.numbers import every_number, set_text
from rillstep.publish.booklet import booklet
from rillstep.publish.chart import svg_of
from rillstep.publish.markdown import markdown_of
from rillstep.publish.pdf import html_of
from rillstep.services.checking import design_of
from tests.core.referee import unrolled, walk
from tests.sweep.answers import answered
from tests.sweep.pinned import (
    its_body_is_what_was_looked_up_by_hand,
    its_marks_are_those_that_were_seen,
    its_outcomes_are_those_that_were_seen,
)
from tests.sweep.printed import kept_words, lost_numbers, plainly
from tests.sweep.sizes import sizes_come_and_go
from tests.sweep.texts import (
    SIZES_BY_SETS,
    TERMS,
    WIDTHS,
    CorpusText,
    answer,
    errors,
    slips,
    typed,
    walkable,
    with_names,
)

DEFINED = re.compile(r"^Number: (\w+) = (.+)$", re.MULTILINE)

# --- quick


def every_line_is_true(one: CorpusText) -> None:
    assert errors(one.proof) == []
    assert one.proof.lines
    assert all(line.mark in ("proved", "unchecked") for line in one.proof.lines)


def every_print_is_proved(one: CorpusText) -> None:
    for _, parsed in one.written.values():
        assert parsed.pattern == one.pattern
    for printed in one.prints.values():
        assert printed.ok, [f for f in (*printed.problems, *printed.proof.findings) if f.severity == "error"]


def each_hand_has_a_text_that_stands_alone(one: CorpusText) -> None:
    for made in one.readers.values():
        assert made.ok, (made.problems, made.proof.findings)
        assert "Note: Abbreviations: " in made.text
        assert max(len(line) for line in made.text.split("\n") if line.startswith(("Rnd", "Row", "    "))) <= 92 + 40


def a_reader_text_can_be_printed_once_more(one: CorpusText) -> None:
    again = reader_text(one.readers["last"].proof.pattern, one.pattern.terms)
    assert again.ok and again.text.count("Abbreviations:") == 1


def a_broken_line_reads_as_it_was(one: CorpusText) -> None:
    """In one width and in one of the terms for each text, which differ from text to text."""
    drawn = sum(map(ord, one.name))
    width, terms = WIDTHS[drawn % len(WIDTHS)], TERMS[drawn // len(WIDTHS) % len(TERMS)]
    for text, whole in (one.written[terms],):
        broken = parse(wrapped(text, width))
        assert broken.pattern == whole.pattern
        assert [(f.code, f.message) for f in broken.findings] == [(f.code, f.message) for f in whole.findings]
        assert all(f.severity == "warning" for f in whole.findings)


def the_sheet_holds_every_line(one: CorpusText) -> None:
    for terms in TERMS:
        made = booklet(design_of(one.text), one.prints[terms, None], terms, [])
        rows = [line for section in made.sections for line in section.lines if line.kind == "row"]
        assert rows and made.proved
        assert all(line.mark in ("proved", "unchecked") for line in rows)
        sources = {line.span.line for _, line in one.pattern.lines() if isinstance(line, Row | Again)}
        assert {line.line for line in rows} <= sources
        assert rows[0].line == min(sources)
        for line in rows:
            assert len(line.sts) == len(one.pattern.sizes)
            assert line.label.startswith(("Rnd", "Row")) and line.text.endswith(".")


def print_loses_nothing(one: CorpusText) -> None:
    kept = [plainly(words) for words in kept_words(one.pattern)]
    for size, made in (("all", one.readers["all"]), ("last", one.readers["last"])):
        printed = plainly(made.text)
        mine = kept if size == "all" else [plainly(words) for words in kept_words(made.proof.pattern)]
        assert [words for words in mine if words not in printed] == []
        if size == "all":
            assert lost_numbers(one.text, made.text) == []
        stated = sum(isinstance(line, Check) for _, line in made.proof.pattern.lines())
        assert stated <= sum(isinstance(line, Check) for _, line in one.pattern.lines())


def the_slow_walker_counts_the_same(one: CorpusText) -> None:
    for size, row, work in walkable(one.proof):
        slow, fast = walk(row, size, work.start, work.around), work_row(row, size, work.start, work.around)
        assert slow == unrolled(fast.edge), (one.name, row.span.line)


# --- long


def the_trace_is_the_work_itself(one: CorpusText) -> None:
    rows = 0
    for work in one.proof.works:
        for line in work.lines:
            for turn in line.turns[:2]:
                found = trace_row(turn.source, work.size, turn.edge, turn.around)
                assert found.work.counts == work_row(turn.source, work.size, turn.edge, turn.around).counts
                stitches = [s for s in found.made if s.place.kind == "st" and not s.closed]
                assert len(stitches) == found.work.counts.sts
                assert all(0 <= at < len(found.below) for stitch in found.made for at in stitch.into)
                assert all(0 <= stitch.step < len(found.steps) for stitch in found.made)
                rows += 1
    assert rows > 0


def every_row_can_be_drawn(one: CorpusText) -> None:
    work = one.proof.works[-1]
    drawn = 0
    for line in work.lines:
        if not line.turns or line.end.foundation:  # a row that only makes a chain has no stitches to draw
            continue
        rows, around = rows_for(work, line.line.span.line)
        made = chart_of(rows, around)
        root = ElementTree.fromstring(svg_of(made, "A <chart> & more", one.pattern.terms))
        assert root.tag.endswith("svg")
        assert made.labels[-1][0] == rows[-1].label  # the row asked for is always drawn
        drawn += 1
    assert drawn > 0


def names_for_all_sets_say_the_same(one: CorpusText) -> None:
    """With a name for every set of its rows, labels, totals and checks the text has the same tree, proof and print."""
    named, sets = with_names(one.text, one.pattern)
    if not sets or one.name in SIZES_BY_SETS:
        return
    proof = prove_text(named)
    assert proof.pattern == one.pattern
    assert [line.mark for line in proof.lines] == [line.mark for line in one.proof.lines]
    assert [(f.code, f.severity) for f in proof.findings] == [(f.code, f.severity) for f in one.proof.findings]
    assert reader_text(proof.pattern, one.pattern.terms).text == one.readers["all"].text
    if read(write(one.pattern, one.pattern.terms)).pattern.sections == one.pattern.sections:
        parsed = read(named)
        assert read(write_source(parsed)).pattern.sections == parsed.pattern.sections


def a_wrong_name_is_a_wrong_number(one: CorpusText) -> None:
    """A name that is one more in one size moves every number as its form says, and is found as the number itself is."""
    named, sets = with_names(one.text, one.pattern)
    if not sets or one.name in SIZES_BY_SETS:
        return
    whole = [every_number(line) for _, line in one.pattern.lines()]
    before = [every_number(line) for _, line in read(named).pattern.lines()]
    draw = random.Random(one.name)
    definitions = list(DEFINED.finditer(named))
    for written in draw.sample(definitions, min(4, len(definitions))):
        values = [int(value) for value in re.findall(r"\d+", written[2])]
        size = draw.randrange(len(values))
        values[size] += 1
        wrong = f"{named[: written.start(2)]}{set_text(tuple(values))}{named[written.end(2) :]}"
        after = [every_number(line) for _, line in read(wrong).pattern.lines()]
        if [len(numbers) for numbers in before] == [len(numbers) for numbers in after]:
            for number, moved in zip(chain(*before), chain(*after), strict=True):
                was, now, form = number.values[size], moved.values[size], number.form(size)
                assert None in (was, now, form) or now - was == form.of(written[1])
        plain, proof = prove_text(without_names(wrong, read(wrong))), prove_text(wrong)
        assert proof.pattern == plain.pattern
        assert [(f.code, f.severity, f.size) for f in proof.findings] == [
            (f.code, f.severity, f.size) for f in plain.findings
        ]
        assert errors(proof) or [every_number(line) for _, line in proof.pattern.lines()] != whole


def markdown_and_page_hold_the_same_words(one: CorpusText) -> None:
    for size in {None, len(one.pattern.sizes) - 1 or None}:
        design = design_of(one.text).model_copy(update={"hand": "left"})
        made = booklet(design, one.prints[one.pattern.terms, size], one.pattern.terms, [])
        written = markdown_of(made).replace("\\*", "*")
        page = unescape(html_of(made, "left-handed", date(2026, 11, 25)))
        for section in made.sections:
            if section.lines:
                assert f"## {section.title}" in written
            for line in section.lines:
                assert line.text in written and line.text in page
                assert line.totals in written and line.totals in page
        assert any("Left-handed" in note for note in made.notes)
        assert all(note in written for note in made.notes)
        assert all(f"- **{short}** {meaning}" in written for short, meaning in made.abbreviations)


def a_torn_text_is_answered(one: CorpusText) -> None:
    """Lines cut, doubled, swapped and run together, as when a page is pasted badly."""
    draw = random.Random(one.name)
    for _ in range(5):
        lines = one.text.split("\n")
        for _ in range(draw.randint(1, 4)):
            at = draw.randrange(len(lines))
            kind = draw.randrange(4)
            if kind == 0:
                lines[at] = lines[at][draw.randrange(len(lines[at]) + 1) :]
            elif kind == 1:
                lines.insert(draw.randrange(len(lines)), lines[at])
            elif kind == 2:
                lines[at] = lines[at].replace(" ", "\n", draw.randint(1, 6))
            else:
                moved = lines.pop(draw.randrange(len(lines)))
                lines = [*lines, moved] if not lines else [*lines[:-1], f"{lines[-1]} {moved}"]
            lines = "\n".join(lines).split("\n")
        answered("\n".join(lines))


def a_changed_text_is_answered_as_if_it_were_new(one: CorpusText) -> None:
    draw = random.Random(one.name)
    texts = [one.text]
    for _ in range(6):
        texts.append(typed(draw, texts[-1] if draw.random() < 0.5 else one.text))
    warm = [answer(prove_text(text)) for text in texts]
    for text, before in zip(texts, warm, strict=True):
        forget()
        assert answer(prove_text(text)) == before


def every_repair_makes_its_line_true(one: CorpusText) -> None:
    for wrong, _, _ in slips(one.text, random.Random(one.name), 6):
        for finding in errors(prove_text(wrong))[:3]:
            for repair in finding.repairs:
                mended = prove_text(apply_edits(wrong, repair.edits))
                again = [f for f in errors(mended) if f.span.line == finding.span.line and f.code == finding.code]
                assert not [f for f in again if f.size == finding.size], (wrong, finding, repair)


def a_slip_in_one_size_is_no_fault_of_the_others(one: CorpusText) -> None:
    if len(one.pattern.sizes) < 2:
        return
    for wrong, row, size in slips(one.text, random.Random(one.name + "!"), 6):
        for finding in errors(prove_text(wrong)):
            if finding.span.line in lines_of(row) and finding.size is not None:
                assert finding.size == size or finding.code == "starting-chain-uneven"


Property = Callable[[CorpusText], None]
QUICK: tuple[Property, ...] = (
    every_line_is_true,
    its_outcomes_are_those_that_were_seen,
    its_marks_are_those_that_were_seen,
    its_body_is_what_was_looked_up_by_hand,
)
# Each with the share of the texts that `make test` tries it on: every so manieth.
LONG: tuple[tuple[Property, int], ...] = (
    (every_print_is_proved, 16),
    (the_slow_walker_counts_the_same, 8),
    (a_broken_line_reads_as_it_was, 16),
    (the_sheet_holds_every_line, 16),
    (print_loses_nothing, 8),
    (each_hand_has_a_text_that_stands_alone, 16),
    (the_trace_is_the_work_itself, 24),
    (every_row_can_be_drawn, 24),
    (names_for_all_sets_say_the_same, 48),
    (a_wrong_name_is_a_wrong_number, 48),
    (markdown_and_page_hold_the_same_words, 16),
    (a_reader_text_can_be_printed_once_more, 16),
    (a_torn_text_is_answered, 32),
    (a_changed_text_is_answered_as_if_it_were_new, 48),
    (every_repair_makes_its_line_true, 32),
    (a_slip_in_one_size_is_no_fault_of_the_others, 32),
    (sizes_come_and_go, 48),
)


def of_share(index: int) -> list[Property]:
    """The long properties whose turn it is at this text of the corpus."""
    return [holds for at, (holds, share) in enumerate(LONG) if (index + at // 2) % share == 0]
