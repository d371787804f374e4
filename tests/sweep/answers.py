"""Everything that Rillstep does with a text, done: nothing may be raised, and all that is found is known."""

from rillstep.core.chart import chart_of, rows_for
from rillstep.core.findings import apply_edits
from rillstep.core.notation import parse
from rillstep.core.notation.limits import MAX_LINES
from rillstep.core.printing import write
from rillstep.core.proof import prove_text, questions, reader_text
from rillstep.core.proof.catalogue import CATALOGUE, WITHOUT_EXAMPLE
from rillstep.publish.chart import svg_of

CODES = {entry.code for entry in CATALOGUE} | set(WITHOUT_EXAMPLE)


def answered(text: str) -> None:
    """Everything that Rillstep does with a text, done; nothing may be raised, and all that is found is known."""
    proof = prove_text(text)
    rows = text.split("\n")
    for finding in proof.findings:
        assert finding.code in CODES
        assert 1 <= finding.span.line <= len(rows)
        assert finding.size is None or finding.size < len(proof.pattern.sizes)
        for repair in finding.repairs:
            apply_edits(text, repair.edits)
    for question in questions(proof, text):
        for answer in question.answers:
            prove_text(apply_edits(text, answer.edits))
    for work in proof.works[:1]:
        for line in work.lines[:6]:
            if line.turns:
                try:
                    drawn, around = rows_for(work, line.line.span.line)
                except ValueError as too_long:  # a row that a torn number made thousands of stitches long
                    assert "not traced" in str(too_long)
                    continue
                assert svg_of(chart_of(drawn, around), "t", "US").startswith("<svg")
    written = write(proof.pattern)
    if written.count("\n") > MAX_LINES - 10:
        return  # printed with its empty lines it would be too long to be read
    assert (
        not proof.ok or parse(written).pattern == proof.pattern or any(f.severity != "caution" for f in proof.findings)
    )
    if proof.ok and proof.lines:
        reader_text(proof.pattern, "UK", 0, hand="left")
