"""A booklet: a proved text with its materials, measures, abbreviations, notes and cautions.

It is data. The screen shows it and the PDF prints it, both from here. Every instruction in it
comes from the tree that was read back from the printed text.
"""

from dataclasses import dataclass
from typing import Literal

from rillstep.core.cautions import Caution, cautions_for
from rillstep.core.craft import Terms, abbreviation
from rillstep.core.gauge import Gauge
from rillstep.core.lengths import GAUGE_SPAN, Units, in_units
from rillstep.core.printing.abbreviations import abbreviations_used
from rillstep.core.printing.handed import mirrored
from rillstep.core.printing.step_words import write_sentence
from rillstep.core.printing.writer import (
    check_word,
    size_line,
    write_again,
    write_check,
    write_label,
    write_line,
    write_make,
    write_own_gauge,
    write_special,
    write_stated,
)
from rillstep.core.proof import LineProof, Mark, Proof, Reprint, advice
from rillstep.core.proof.as_written import NOT_PROVED, VOUCHED_FOR
from rillstep.core.tree import Again, Check, Line, Pattern, Prose, Row, Setup
from rillstep.document import Design, Yarn
from rillstep.document.design import hook_said_mm

# US letter sizes of hooks by mm, as printed on hooks sold there.
_HOOKS = (
    (2.25, "B/1"), (2.75, "C/2"), (3.25, "D/3"), (3.5, "E/4"), (3.75, "F/5"), (4.0, "G/6"), (4.5, "7"),
    (5.0, "H/8"), (5.5, "I/9"), (6.0, "J/10"), (6.5, "K/10½"), (8.0, "L/11"), (9.0, "M/13"), (10.0, "N/15"),
    (12.0, "P"), (15.0, "Q"), (25.0, "U"),
)  # fmt: skip
_CLASSES = ("lace", "super fine", "fine", "light", "medium", "bulky", "super bulky", "jumbo")


def hook_letter(hook_mm: float) -> str:
    """The US size of a hook ("H/8"), or nothing when no letter is used for it."""
    return next((letter for size, letter in _HOOKS if abs(size - hook_mm) < 0.01), "")


def weight_name(weight_class: int) -> str:
    """The name of a yarn weight class, 0 to 7."""
    return _CLASSES[weight_class]


def weight_names() -> tuple[str, ...]:
    """The names of the yarn weight classes, from 0 on."""
    return _CLASSES


# What is said of a printed line: the mark of its proof, or that it is words and nothing to prove.
LineMark = Mark | Literal["kept"]


@dataclass(frozen=True)
class BookletLine:
    """One printed line. `line` is its number in the source text; 0 for a line that says for which sizes.

    kind: "row", "setup", "check", "prose" or "note" (words that are kept), "make" (how many of a piece), "sizes",
    "written" (as it stands in the source, since it is not proved), "vouched" (so as well, with the designer's word).
    """

    kind: str
    line: int
    label: str
    text: str
    totals: str
    mark: LineMark
    sts: tuple[int | None, ...] = ()


@dataclass(frozen=True)
class BookletSection:
    title: str
    worked: str
    lines: tuple[BookletLine, ...]


@dataclass(frozen=True)
class Booklet:
    title: str
    sizes: tuple[str, ...]
    proved: bool
    materials: tuple[str, ...]
    gauge: str
    measures: tuple[tuple[str, tuple[str, ...]], ...]
    abbreviations: tuple[tuple[str, str], ...]
    notes: tuple[str, ...]
    cautions: tuple[Caution, ...]
    sections: tuple[BookletSection, ...]
    text: str

    @property
    def as_written(self) -> int:
        """How many lines stand as they were written, since they are not proved."""
        return sum(line.kind == "written" for section in self.sections for line in section.lines)

    @property
    def vouched(self) -> int:
        """How many lines stand as they were written, with the designer's word for them."""
        return sum(line.kind == "vouched" for section in self.sections for line in section.lines)

    @property
    def unchecked(self) -> int:
        """How many lines are worked, with something in them that is not checked."""
        return sum(
            line.mark == "unchecked" and line.kind != "written" for section in self.sections for line in section.lines
        )


def _materials(design: Design, pattern: Pattern, needs: list[tuple[str, str]]) -> tuple[str, ...]:
    """Yarn, hook and what else is needed: as the text names it, and of the labels what it does not say."""
    named = {key: value for key, value in pattern.extra if key in ("Yarn", "Hook", "Materials")}
    hook_mm = hook_said_mm(design, named.get("Hook"))
    hook = named.get("Hook") or ("" if hook_mm is None else f"{hook_mm:g} mm")
    if hook_mm is not None and hook_letter(hook_mm) and "US" not in hook:
        hook += f" (US {hook_letter(hook_mm)})"
    yarns = [_yarn_line(yarn, named.get("Yarn", "")) for yarn in design.yarns]
    if "Yarn" in named and not any(named["Yarn"] in line for line in yarns):
        yarns = [named["Yarn"], *yarns]
    return (
        *yarns,
        *[f"{name}: {text}" for name, text in needs],
        *([f"Hook {hook}"] if hook else []),
        *([named["Materials"]] if "Materials" in named else []),
        "Stitch marker, tapestry needle, scissors, tape measure",
    )


def _yarn_line(yarn: Yarn, said: str) -> str:
    """A yarn as its label says, for what a text says of it: a name that stands there holds, with its words."""
    strands = "" if yarn.strands == 1 else f", {yarn.strands} strands held together"
    weight = f"weight class {yarn.weight_class} ({weight_name(yarn.weight_class)})"
    name = said if yarn.name.lower() in said.lower() and not yarn.colour else yarn.name
    begun = (
        f"{name} ({weight_name(yarn.weight_class)})" if f"class {yarn.weight_class}" in name else f"{name}: {weight}"
    )
    colour = f"Colour {yarn.colour}: " if yarn.colour else ""
    fibre = f", {yarn.fibre}" if yarn.fibre and yarn.fibre not in name else ""
    metres = "" if yarn.metres_per_ball is None else f" = {yarn.metres_per_ball:g} m"
    return f"{colour}{begun}{fibre}, {yarn.grams_per_ball:g} g{metres} a ball{strands}"


def gauge_line(gauge: Gauge, units: Units, terms: Terms, blocked: bool | None) -> str:
    """ "15 sts x 11.5 rows in hdc = 10 x 10 cm, not blocked"."""
    across, up = gauge.per_span(units)
    span = GAUGE_SPAN[units]
    state = {True: ", blocked", False: ", not blocked", None: ""}[blocked]
    hook = f", {gauge.hook} mm hook" if gauge.hook else ""
    sizes = f"{', '.join(gauge.sizes)}: " if gauge.sizes else ""
    stitch = abbreviation(gauge.stitch, terms)
    return f"{sizes}{across:g} sts × {up:g} rows in {stitch} = {span} × {span} {units}{hook}{state}"


def gauge_lines(pattern: Pattern, terms: Terms, blocked: bool | None) -> str:
    """Every gauge of a pattern: of plain stitches, of stitch patterns, of a chain."""
    plain = [gauge_line(gauge, pattern.units, terms, blocked) for gauge in pattern.gauges]
    return "; ".join([*plain, *(write_own_gauge(gauge, pattern.units) for gauge in pattern.own_gauges)])


def _notes(design: Design, pattern: Pattern, terms: Terms) -> tuple[str, ...]:
    notes = ["Work through every line in its order; count after each round before going on."]
    notes += advice(pattern, terms, design.hand)
    notes += [text for key, text in pattern.extra if key == "Note" and text not in notes]
    if design.notes.strip() and design.notes.strip() not in notes:
        notes.append(mirrored(design.notes.strip()) if design.hand == "left" else design.notes.strip())
    return tuple(notes)


def _mark(line: LineProof) -> LineMark:
    """The mark of a printed row: what is true only from the total of a wrong row before it is not proved in print."""
    return "unchecked" if line.mark == "proved" and line.depends is not None else line.mark


def _line(line: Line, pattern: Pattern, reprint: Reprint, terms: Terms) -> BookletLine:
    number = line.span.line
    source = reprint.source_of(number)
    if number in reprint.written and isinstance(line, Prose):
        vouched = line.text.startswith(VOUCHED_FOR)
        words = line.text.removeprefix(VOUCHED_FOR).removeprefix(NOT_PROVED)
        return BookletLine(
            "vouched" if vouched else "written", source, "", words, "", "vouched" if vouched else "unchecked"
        )
    match line:
        case Row():
            proof = next(p for p in reprint.proof.lines if p.line == number)
            return BookletLine(
                "row", source, write_label(line), f"{write_sentence(line.steps, line.kept, terms)}.",
                write_stated(line, terms), _mark(proof), proof.sts,
            )  # fmt: skip
        case Again():
            proof = next(p for p in reprint.proof.lines if p.line == number)
            return BookletLine(
                "row", source, write_label(line), f"{write_again(line, terms)}.", write_stated(line, terms),
                _mark(proof), proof.sts,
            )  # fmt: skip
        case Check():
            wrong = any(f.span.line == number and f.severity == "error" for f in reprint.proof.findings)
            return BookletLine(
                "check",
                source,
                check_word(line),
                f"{write_check(line, pattern.units)}.",
                "",
                "wrong" if wrong else "proved",
            )
        case Setup():
            return BookletLine(
                "setup",
                source,
                "",
                write_line(line, terms, pattern.units),
                "",
                "not understood" if line.broken else "proved",
            )
        case Prose(text=text, note=note):
            return BookletLine("note" if note else "prose", source, "Note" if note else "", text, "", "kept")


def _own_stitches(pattern: Pattern, terms: Terms) -> tuple[tuple[str, str], ...]:
    """The stitches that the pattern defines, with what they are."""
    told = (write_special(special, terms).partition(" = ") for special in pattern.specials)
    return tuple((name, meaning) for name, _, meaning in told)


def booklet_sections(reprint: Reprint, terms: Terms) -> tuple[BookletSection, ...]:
    """The lines of a printed text, section by section, each with its proof."""
    pattern = reprint.proof.pattern
    sections = []
    for section in pattern.sections:
        lines: list[BookletLine] = []
        active = tuple(range(len(pattern.sizes)))
        if (often := write_make(section)) and section.lines:
            lines.append(BookletLine("make", reprint.source_of(section.lines[0].span.line), "", often, "", "kept"))
        for line in section.lines:
            if line.sizes != active:
                lines.append(BookletLine("sizes", 0, "", size_line(line.sizes, pattern.sizes), "", "kept"))
                active = line.sizes
            lines.append(_line(line, pattern, reprint, terms))
        sections.append(BookletSection(section.title, section.worked, tuple(lines)))
    return tuple(sections)


def booklet(design: Design, reprint: Reprint, terms: Terms, needs: list[tuple[str, str]]) -> Booklet:
    """The booklet of a printed text. `needs`: yarn per size, in words."""
    pattern = reprint.proof.pattern
    blocked = design.swatches[0].blocked if design.swatches else None
    return Booklet(
        design.name, pattern.sizes, reprint.ok, _materials(design, pattern, needs),
        gauge_lines(pattern, terms, blocked), _measures(design, reprint.proof),
        (*abbreviations_used(pattern, terms), *_own_stitches(pattern, terms)), _notes(design, pattern, terms),
        cautions_for(" ".join(yarn.fibre for yarn in design.yarns), _drop_mm(reprint.proof)),
        booklet_sections(reprint, terms), reprint.text,
    )  # fmt: skip


def _measures(design: Design, proof: Proof) -> tuple[tuple[str, tuple[str, ...]], ...]:
    """The finished measures of the whole bag in every size, as worked."""

    def shown(mm: float | None) -> str:
        return "–" if mm is None else f"{in_units(mm, design.units):.1f} {design.units}"

    whole = [one for one in (proof.bag.measures if proof.bag is not None else ()) if one.piece is None]
    return tuple(
        (f"{one.label} (estimated)" if one.estimated else one.label, tuple(shown(mm) for mm in one.mm)) for one in whole
    )


def _drop_mm(proof: Proof) -> float:
    """The longest drop of a handle in any size, in mm; 0 where there is none."""
    drops = [one.mm for one in (proof.bag.measures if proof.bag is not None else ()) if one.name == "drop"]
    return max((mm for row in drops for mm in row if mm is not None), default=0.0)
