"""What a test freezes of its design: the text for all sizes, what each size is said to measure and need, and the steps
of a tester's page. All of it follows from the document alone."""

from pydantic import BaseModel

from rillstep.core.craft import Terms
from rillstep.core.fabric import RowsByNumber
from rillstep.core.lengths import Units
from rillstep.core.printing.step_words import write_sentence
from rillstep.core.printing.writer import check_word, write_besides, write_check, write_line, write_make, write_stated
from rillstep.core.proof import Hand, Proof, Reprint, reprint
from rillstep.core.tree import Again, Check, Prose, Row, Setup
from rillstep.core.yarn import Known
from rillstep.document import Design
from rillstep.document import load as read_file
from rillstep.document.design import tolerance_mm
from rillstep.services import testing_views, views
from rillstep.services.drawing_views import small_picture
from rillstep.services.words import booklet_of
from rillstep.services.workbench import allowance_of, proof_of
from rillstep.services.yarn_needs import gauge_of, known_of, yarn_need
from rillstep.services.yarn_views import rounded

# How far off a measure may be where a design does not say, in mm.
_OF_BAG = ("width", "height", "depth", "drop")


class FrozenSize(BaseModel):
    """A size of a test: how many steps it has; gauge, as stitches and rows over 10 cm or 4 in, None where it is not
    known; predicted measures with their tolerances, in mm; the yarn in grams, with the least and the most."""

    name: str
    steps: int
    gauge: tuple[float, float] | None
    predicted_mm: dict[str, float]
    tolerances_mm: dict[str, float]
    yarn_g: tuple[float, float, float] | None


class FrozenTest(BaseModel):
    """A test's design; proved: whether it can be given to testers at all."""

    proved: bool
    units: Units
    text: str
    sizes: list[FrozenSize]

    def size(self, name: str) -> FrozenSize | None:
        """A size by its name."""
        return next((size for size in self.sizes if size.name == name), None)


class FrozenPage(BaseModel):
    """What all testers of one size, terms and hand read. picture: the bag as it lies in this size, as SVG."""

    title: str
    units: str
    gauge: str
    materials: list[str]
    abbreviations: list[views.TextPair]
    notes: list[str]
    cautions: list[str]
    picture: str = ""
    steps: list[testing_views.StepView]


def frozen_test(document: str) -> FrozenTest:
    """What a test's lists are made of."""
    design = read_file(document)
    proof = proof_of(design)
    known = known_of(design, proof)
    return FrozenTest(
        proved=proof.ok, units=design.units, text=_printed(design, design.terms, None).text,
        sizes=[_size(design, proof, name, known) for name in proof.pattern.sizes],
    )  # fmt: skip


def _size(design: Design, proof: Proof, name: str, known: Known) -> FrozenSize:
    index = proof.pattern.sizes.index(name)
    gauge, yarn = gauge_of(proof, index), yarn_need(design, proof, index, known=known)
    return FrozenSize(
        name=name, steps=len(steps_for(design, name, design.terms, "right")),
        gauge=gauge.per_span(design.units) if gauge is not None else None,
        predicted_mm=_predicted(proof, index), tolerances_mm=_tolerances(design, name),
        yarn_g=rounded(yarn.whole) if yarn is not None else None,
    )  # fmt: skip


def frozen_page(document: str, size: str, terms: Terms, hand: Hand) -> FrozenPage:
    """A tester's page, apart from what she has reported."""
    design = read_file(document)
    made, _ = booklet_of(design.model_copy(update={"hand": hand}), terms, size)
    return FrozenPage(
        title=design.name, units=design.units, gauge=made.gauge, materials=list(made.materials),
        abbreviations=[views.TextPair(name=a, text=b) for a, b in made.abbreviations], notes=list(made.notes),
        cautions=[c.text for c in made.cautions], picture=small_picture(design, size),
        steps=steps_for(design, size, terms, hand),
    )  # fmt: skip


def _predicted(proof: Proof, index: int) -> dict[str, float]:
    """What a size is said to measure, in mm, by the name of the measure; what is not known is left out."""
    found = proof.bag.measures if proof.bag is not None else ()
    return {one.name: mm for one in found if one.piece is None and (mm := one.mm[index]) is not None}


def _tolerances(design: Design, size: str) -> dict[str, float]:
    """How far off each measure of a size may be, in mm."""
    wish = next((one for one in design.sizes if one.name == size), None)
    own = wish.tolerances_mm if wish is not None else {}
    return {name: tolerance_mm(wish, name) for name in dict.fromkeys((*_OF_BAG, *own))}


def _printed(design: Design, terms: Terms, size: str | None, hand: Hand = "right") -> Reprint:
    proof = proof_of(design)
    index = proof.pattern.sizes.index(size) if size is not None else None
    return reprint(proof.pattern, terms, index, allowance_of(design), hand, fold=False)


def steps_for(design: Design, size: str, terms: Terms, hand: Hand) -> list[testing_views.StepView]:
    """A size one line at a time; a range of rounds is one step for each round.

    `line` is the number of the line in the text for all sizes, where the designer reads reports.
    """
    if size not in proof_of(design).pattern.sizes:
        return []
    pattern = _printed(design, terms, size, hand).proof.pattern
    index = proof_of(design).pattern.sizes.index(size)
    whole = _printed(design, terms, None).proof.pattern
    steps: list[testing_views.StepView] = []
    for at, (section, of_all) in enumerate(zip(pattern.sections, whole.sections, strict=True)):
        originals = [line for line in of_all.lines if index in line.sizes]
        by_number = RowsByNumber(pattern, at, 0)
        if (often := write_make(section)) and originals:
            steps.append(_step(originals[0].span.line, section.title, "How many", "", often, "", None, "words"))
        for line, original in zip(section.lines, originals, strict=True):
            number = original.span.line
            if isinstance(line, Setup):
                steps.append(
                    _step(number, section.title, "", "", write_line(line, terms, pattern.units), "", None, "setup")
                )
            elif isinstance(line, Prose):
                steps.append(
                    _step(number, section.title, "Note" if line.note else "", "", line.text, "", None, "words")
                )
            elif isinstance(line, Check):
                told = f"{write_check(line, pattern.units)}."
                steps.append(_step(number, section.title, check_word(line), "", told, "", None, "words"))
            elif isinstance(line, Row | Again):
                first, rounds = line.first.at(0), line.rounds(0)
                # Makers read the rows in full, not "rep".
                rows = [line] if isinstance(line, Row) else by_number.sources(line)
                sts = next((t.count.at(0) for t in line.totals if t.what == "sts"), None)
                for offset in range(rounds if rows else 0):
                    of = f"{line.kind}s {first}–{first + rounds - 1}, worked alike" if rounds > 1 else ""
                    source, label = rows[offset % len(rows)], f"{line.kind} {first + offset}"
                    text = f"{write_sentence(source.steps, source.kept, terms)}."
                    if isinstance(line, Again) and offset == rounds - 1:
                        text += "".join(f" {words[:1].upper()}{words[1:]}." for words in write_besides(line, terms))
                    total = write_stated(line, terms)
                    steps.append(_step(number, section.title, label, line.name or of, text, total, sts, "row"))
    return steps


def _step(
    line: int, section: str, label: str, of: str, text: str, total: str, sts: int | None, kind: str
) -> testing_views.StepView:
    return testing_views.StepView(
        line=line, section=section, label=label, of=of, text=text, total=total, sts=sts, kind=kind
    )
