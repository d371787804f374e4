"""What the command line prints of a design, as plain data: the same proof, measures and grading as on the screen."""

from typing import Any

from rillstep.core.chart import chart_of, rows_for
from rillstep.core.craft import Terms
from rillstep.core.grading import GradedText, NotGraded, grade_text, lift
from rillstep.core.lengths import in_units
from rillstep.core.measures.side_stitches import Sides, sides_of
from rillstep.core.printing.unnaming import without_names
from rillstep.core.proof import Mark, Proof, counts_of
from rillstep.core.settling import read
from rillstep.design import allowance_of, facts_of
from rillstep.design.grading import as_written, size_wanted
from rillstep.document import Design
from rillstep.document.targets import sizes_wanted
from rillstep.publish.chart import svg_of
from rillstep.services.assuming import asked_of, is_asked, views_of
from rillstep.services.errors import Invalid
from rillstep.services.files import size_in, usable_proof
from rillstep.services.proof_views import finding_view

MARKS: dict[Mark, str] = {
    "proved": "proved", "unchecked": "not-checked", "wrong": "wrong", "not understood": "not-understood",
    "vouched": "vouched-for", "assumed": "assumed",
}  # fmt: skip


# Lines of which something may be asked.
_ASKS: tuple[Mark, ...] = ("not understood", "unchecked", "wrong")


def check_report(design: Design) -> dict[str, Any]:
    """Every line with its totals and its mark, what was found, and what is asked of words that are not understood; the
    marks are those on what is assumed of them. Raises Invalid."""
    proof = usable_proof(design)
    asked = asked_of(design.text) if any(line.mark in _ASKS for line in proof.lines) else None
    questions = views_of(design.text, asked) if asked is not None else []
    proof = asked.proof if asked is not None and questions else proof
    lines = [
        {
            "line": line.line, "section": proof.pattern.sections[line.section].title, "label": line.label,
            "mark": MARKS[line.mark], "totals": {"sts": list(line.sts), "spaces": list(line.spaces)},
            "stated": {"sts": list(line.stated)}, "depends": line.depends,
        }
        for line in proof.lines
    ]  # fmt: skip
    found = (finding_view(f, proof.pattern.sizes) for f in proof.findings)
    findings = [one.model_dump() for one in found if asked is None or not is_asked(design.text, one, asked)]
    return {
        "ok": proof.ok and not questions, "sizes": list(proof.pattern.sizes), "counts": counts_of(proof).words(),
        "lines": lines, "findings": findings,
        "questions": [
            {
                "words": one.words, "question": one.question, "lines": one.lines, "assumed": one.assumed,
                "answers": [answer.model_dump(exclude={"edits"}) for answer in one.answers],
            }
            for one in questions
        ],
    }  # fmt: skip


def measure_report(design: Design) -> dict[str, Any]:
    """The measures of the bag and of its pieces in every size, in mm and as shown. Raises Invalid."""
    proof = usable_proof(design)
    if proof.bag is None:
        raise Invalid("there is no “Gauge:” line in this text, so nothing can be measured")
    units = proof.pattern.units
    sides, notes = _sides(proof)
    return {
        "ok": proof.ok, "units": units, "sizes": proof.pattern.sizes, "sides": sides, "notes": notes,
        "measures": [
            {
                "name": one.name, "piece": one.piece, "label": one.label, "estimated": one.estimated, "why": one.why,
                "mm": [round(mm, 1) if mm is not None else None for mm in one.mm], "rounds": one.rounds,
                "shown": [None if mm is None else in_units(mm, units) for mm in one.mm], "gauges": one.gauges,
            }
            for one in proof.bag.measures
        ],
    }  # fmt: skip


def _sides(proof: Proof) -> tuple[list[dict[str, Any]], list[str]]:
    """The sides and centres of a wall in each size, at the rounds that need them: those on which openings are counted,
    and the last; and in which sizes they are not told."""
    found: list[dict[str, Any]] = []
    notes: list[str] = []
    for name, work in zip(proof.pattern.sizes, proof.works, strict=True):
        every: tuple[Sides, ...] = ()
        try:
            every = sides_of(proof.bag, work.lines, work.size) if proof.bag is not None else ()
        except ValueError:
            notes.append(f"{name}: a round is too long for its sides to be followed, so they are not told")
        opened = {line.line.span.line for line in work.lines if line.openings}
        for one, after in zip(every, (*every[1:], None), strict=False):
            if after is None or (after.line in opened and one.line not in opened):
                found.append({"size": name, **vars(one)})
    return found, notes


def lift_report(design: Design) -> dict[str, Any]:
    """The text with names for the numbers that may move, and why others are held. Raises Invalid."""
    lifted = lift(design.text)
    if lifted is None:
        raise Invalid("a text in one size is lifted, where it reads back to the same tree with its names")
    return {
        "text": lifted.text,
        "names": [{"name": name, "value": value, "places": places} for name, value, places in lifted.names],
        "held": [vars(one) for one in lifted.held],
    }


def grade_report(design: Design, targets: str | None) -> dict[str, Any]:
    """A design graded to a file of targets, or to its own sizes: the text, its numbers, ways and notes. The sample, and
    what carrying takes of a handle, are those of the design. Raises Invalid."""
    sizes = as_written(design, facts_of(design).proof).sizes
    own = [size_wanted(design, one) for one in sizes]
    if targets is None and not any(one.targets_mm or one.locks for one in sizes):
        raise Invalid("a text is graded to targets: --to TARGETS, a JSON file of sizes")
    try:
        wanted = sizes_wanted(targets) if targets is not None else own
        return _graded(grade_text(design.text, wanted, allowance_of(design), design.sample))
    except NotGraded as refused:
        raise Invalid(str(refused)) from None


def _graded(graded: GradedText) -> dict[str, Any]:
    measures = graded.proof.bag.measures if graded.proof.bag is not None else ()
    return {
        "ok": not graded.notes, "text": graded.text, "sizes": graded.proof.pattern.sizes,
        "numbers": [
            {"name": name, "values": values, "free": name not in graded.stuck, "held": graded.stuck.get(name)}
            for name, values in graded.values.items()
        ],
        "directions": [{"label": way.label, "step": dict(way.step), "mm": way.mm} for way in graded.ways],
        "multiples": [f"{way.label}: {way.multiple}" for way in graded.ways if way.multiple],
        "rules": [way.rule for way in graded.ways],
        "next_best": {
            size: [{"numbers": one.values, "mm": one.made_mm} for one in found]
            for size, found in graded.next_best.items()
        },
        "measures": [{"name": one.called, "mm": one.mm} for one in measures],
        "notes": graded.notes,
        "not_changed": [{"line": one.line, "number": one.number, "was": one.was} for one in graded.kept],
    }  # fmt: skip


_NAMES = ("number-form", "number-not-worked-out", "name-not-defined")


def unnamed_text(design: Design) -> str:
    """The text with plain numbers and sets for its names. Raises Invalid."""
    parsed = read(design.text)
    wrong = next((finding for finding in parsed.findings if finding.code in _NAMES), None)
    if wrong is not None:
        raise Invalid(f"line {wrong.span.line}: {wrong.message}")
    return without_names(design.text, parsed)


def line_chart(design: Design, line: int, size: str | None, terms: Terms, left_handed: bool) -> str:
    """The stitch chart of one line as SVG. Raises Invalid."""
    proof = usable_proof(design)
    index = size_in(proof, size)
    try:
        rows, around = rows_for(proof.works[index], line)
    except ValueError as error:
        raise Invalid(str(error)) from None
    name = proof.pattern.sizes[index]
    if not rows:
        raise Invalid(f"no round or row is worked in line {line} in size {name}")
    title = f"{proof.pattern.name or 'Pattern'}, line {line}, size {name}"
    return svg_of(chart_of(rows, around), title, terms, left_handed)
