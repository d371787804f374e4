"""Tests: others make the bag before it is published, each by a private link, in one size."""

import secrets

from sqlalchemy import select
from sqlalchemy.orm import Session

from rillstep.core.fabric import RowsByNumber
from rillstep.core.lengths import MM_PER, show_difference, show_length
from rillstep.core.printing.writer import (
    check_word,
    write_besides,
    write_check,
    write_line,
    write_make,
    write_sentence,
    write_stated,
)
from rillstep.core.proof import Hand, Proof, Reprint, reprint
from rillstep.core.stitches import Terms
from rillstep.core.tree import Again, Check, Prose, Row, Setup
from rillstep.document import Design, TextDesign, dump
from rillstep.document import load as read_file
from rillstep.services import designs, testing_views, views
from rillstep.services.accounts import hash_token, now
from rillstep.services.errors import Invalid, NotFound, NotProved
from rillstep.services.words import booklet_of
from rillstep.services.workbench import allowance_of, current, proof_of
from rillstep.services.yarn_needs import gauge_of, yarn_need
from rillstep.store import DesignRow, LineReport, Tester, TestRow

MOST_TESTERS = 50
MOST_REPORTS = 500


# How far off a measure may be where a design does not say, in mm.
_USUAL_TOLERANCES = {"width": 10.0, "height": 10.0, "depth": 10.0, "drop": 15.0}


# --- the designer's side -------------------------------------------------------------


def open_test(session: Session, studio_id: int, design_id: int) -> testing_views.TestView:
    """Open a test of the newest revision. Raises NotProved when its text is not proved."""
    opened = designs.read(session, studio_id, design_id)
    if not proof_of(opened.document).ok:
        raise NotProved("The text is not proved yet; testers would work wrong numbers. Repair it first.")
    row = TestRow(design_id=design_id, revision=opened.revision, document=dump(opened.document), opened_at=now())
    session.add(row)
    session.flush()
    return _test_view(session, row)


def _own_test(session: Session, studio_id: int, test_id: int) -> TestRow:
    query = select(TestRow).join(DesignRow).where(TestRow.id == test_id, DesignRow.studio_id == studio_id)
    row = session.scalar(query)
    if row is None:
        raise NotFound("This test does not exist, or belongs to another studio.")
    return row


def _own_tester(session: Session, studio_id: int, tester_id: int) -> Tester:
    query = select(Tester).join(TestRow).join(DesignRow).where(Tester.id == tester_id, DesignRow.studio_id == studio_id)
    row = session.scalar(query)
    if row is None:
        raise NotFound("This tester does not exist, or belongs to another studio.")
    return row


def tests_of(session: Session, studio_id: int, design_id: int) -> testing_views.TestsView:
    """All tests of a design, the newest first."""
    designs.own_design(session, studio_id, design_id)
    rows = session.scalars(select(TestRow).where(TestRow.design_id == design_id).order_by(TestRow.id.desc()))
    return testing_views.TestsView(tests=[_test_view(session, row) for row in rows])


def load(document: str) -> Design:
    """The design of a test, as it is worked."""
    return current(read_file(document))


def close_test(session: Session, studio_id: int, test_id: int, closed: bool) -> testing_views.TestView:
    """Close a test (testers can still read, not report), or open it again."""
    row = _own_test(session, studio_id, test_id)
    row.closed_at = now() if closed else None
    return _test_view(session, row)


def invite(
    session: Session, studio_id: int, test_id: int, name: str, size: str, terms: str, hand: str
) -> testing_views.InvitedView:
    """Add a tester. The path of her link is in the answer, and nowhere else."""
    row = _own_test(session, studio_id, test_id)
    design = load(row.document)
    name = " ".join(name.split())
    if not 1 <= len(name) <= 80:
        raise Invalid("Give the tester a name of up to 80 characters.")
    if size not in _size_names(design, proof_of(design)):
        raise Invalid(f"There is no size “{size}” in this test.")
    count = len(session.scalars(select(Tester.id).where(Tester.test_id == row.id)).all())
    if count >= MOST_TESTERS:
        raise Invalid(f"A test has at most {MOST_TESTERS} testers.")
    token = secrets.token_urlsafe(24)
    tester = Tester(
        test_id=row.id, name=name, size=size, terms=terms, hand=hand, token_hash=hash_token(token), place=0,
    )  # fmt: skip
    session.add(tester)
    session.flush()
    return testing_views.InvitedView(tester=_tester_view(tester, design), path=f"/t/{token}")


def withdraw(session: Session, studio_id: int, tester_id: int) -> testing_views.TesterView:
    """Withdraw a link: it opens nothing any more."""
    tester = _own_tester(session, studio_id, tester_id)
    tester.withdrawn_at = tester.withdrawn_at or now()
    return _tester_view(tester, load(tester.test.document))


def new_link(session: Session, studio_id: int, tester_id: int) -> testing_views.InvitedView:
    """A new link for a tester whose link was lost or withdrawn; the old one opens nothing any more."""
    tester = _own_tester(session, studio_id, tester_id)
    token = secrets.token_urlsafe(24)
    tester.token_hash, tester.withdrawn_at = hash_token(token), None
    return testing_views.InvitedView(tester=_tester_view(tester, load(tester.test.document)), path=f"/t/{token}")


def _test_view(session: Session, row: TestRow) -> testing_views.TestView:
    design = load(row.document)
    testers = list(session.scalars(select(Tester).where(Tester.test_id == row.id).order_by(Tester.id)))
    reports = session.execute(
        select(LineReport, Tester).join(Tester).where(Tester.test_id == row.id).order_by(LineReport.line, LineReport.id)
    )
    return testing_views.TestView(
        id=row.id, revision=row.revision, opened_at=row.opened_at, closed=row.closed_at is not None,
        testers=[_tester_view(tester, design) for tester in testers],
        reports=[_report_view(report, tester) for report, tester in reports],
        text=_printed(design, design.terms, None).text,
    )  # fmt: skip


def _report_view(report: LineReport, tester: Tester) -> testing_views.LineReportView:
    return testing_views.LineReportView(
        tester=tester.name, size=tester.size, line=report.line, label=report.label, expected=report.expected,
        found=report.found, note=report.note, reported_at=report.reported_at,
    )  # fmt: skip


def _tester_view(tester: Tester, design: Design) -> testing_views.TesterView:
    report = testing_views.TesterReport.model_validate(tester.report) if tester.report else None
    return testing_views.TesterView(
        id=tester.id, name=tester.name, size=tester.size, terms=tester.terms, hand=tester.hand,
        withdrawn=tester.withdrawn_at is not None, place=tester.place, steps=len(steps_for(design, tester)),
        seen_at=tester.seen_at, finished=report is not None,
        compared=_compared(design, tester.size, report) if report else [],
        hours=report.hours if report else None, remarks=report.remarks if report else "",
    )  # fmt: skip


def _predicted(design: Design, proof: Proof, index: int) -> dict[str, float]:
    """What a size is said to measure, in mm, by the name of the measure; what is not known is left out."""
    if isinstance(design, TextDesign):
        found = proof.bag.measures if proof.bag is not None else ()
        return {one.name: mm for one in found if one.piece is None and (mm := one.mm[index]) is not None}
    if proof.shapes is None:
        return {}
    shape = proof.shapes[index]
    return {"width": shape.width_mm, "height": shape.height_mm, "depth": shape.base_depth_mm, "drop": shape.drop_mm}


def _tolerances(design: Design, size: str) -> dict[str, float]:
    """How far off each measure of a size may be, in mm."""
    if isinstance(design, TextDesign):
        wish = next((one for one in design.sizes if one.name == size), None)
        return {**_USUAL_TOLERANCES, **(wish.tolerances_mm if wish is not None else {})}
    target = next(one for one in design.sizes if one.name == size)
    return {
        "width": target.width_tolerance_mm, "height": target.height_tolerance_mm,
        "depth": target.depth_tolerance_mm, "drop": target.drop_tolerance_mm,
    }  # fmt: skip


def _compared(design: Design, size: str, report: testing_views.TesterReport) -> list[testing_views.ComparedView]:
    """Measured against predicted, only what was measured and is known."""
    proof = proof_of(design)
    if size not in _size_names(design, proof) or size not in proof.pattern.sizes:
        return []
    index, units = proof.pattern.sizes.index(size), design.units
    rows = []
    gauge = gauge_of(design, proof, index)
    across, up = gauge.per_span(units) if gauge is not None else (0.0, 0.0)
    for label, wanted, got in (("Gauge: stitches", across, report.gauge_sts), ("Gauge: rows", up, report.gauge_rows)):
        if got is not None and wanted:
            difference = f"{(got - wanted) / wanted:+.0%}".replace("-", "−")
            off = abs(got - wanted) / wanted > 0.05
            rows.append(
                testing_views.ComparedView(
                    label=label, predicted=f"{wanted:g}", measured=f"{got:g}", difference=difference, off=off
                )
            )
    predicted, tolerances = _predicted(design, proof, index), _tolerances(design, size)
    for name, label, got in (
        ("width", "Width", report.width_mm),
        ("height", "Height", report.height_mm),
        ("depth", "Depth of base", report.depth_mm),
        ("drop", "Handle drop", report.drop_mm),
    ):
        if got is not None and name in predicted:
            off_mm = got - predicted[name]
            rows.append(
                testing_views.ComparedView(
                    label=label, predicted=show_length(predicted[name], units), measured=show_length(got, units),
                    difference=show_difference(off_mm, units), off=abs(off_mm) > tolerances[name],
                )
            )  # fmt: skip
    yarn = yarn_need(design, proof, index)
    if report.grams is not None and yarn is not None:
        difference = f"{report.grams - yarn.grams:+.0f} g".replace("-", "−")
        off = not yarn.low_g <= report.grams <= yarn.high_g
        rows.append(
            testing_views.ComparedView(
                label="Yarn", predicted=f"{yarn.low_g:.0f} to {yarn.high_g:.0f} g",
                measured=f"{report.grams:g} g", difference=difference, off=off,
            )
        )  # fmt: skip
    return rows


def _size_names(design: Design, proof: Proof) -> tuple[str, ...]:
    """The sizes that can be tested: of a text those that it has."""
    return proof.pattern.sizes if isinstance(design, TextDesign) else tuple(size.name for size in design.sizes)


# --- the tester's side ---------------------------------------------------------------


def _printed(design: Design, terms: Terms, size: str | None, hand: Hand = "right") -> Reprint:
    proof = proof_of(design)
    index = proof.pattern.sizes.index(size) if size is not None else None
    return reprint(proof.pattern, terms, index, allowance_of(design), hand, fold=False)


def steps_for(design: Design, tester: Tester) -> list[testing_views.StepView]:
    """The tester's size one line at a time; a range of rounds is one step for each round.

    `line` is the number of the line in the text for all sizes, where the designer reads reports.
    """
    terms: Terms = "UK" if tester.terms == "UK" else "US"
    if tester.size not in proof_of(design).pattern.sizes:
        return []
    hand: Hand = "left" if tester.hand == "left" else "right"
    pattern = _printed(design, terms, tester.size, hand).proof.pattern
    index = proof_of(design).pattern.sizes.index(tester.size)
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


def _by_token(session: Session, token: str) -> Tester:
    tester = None
    if 16 <= len(token) <= 64:
        tester = session.scalar(select(Tester).where(Tester.token_hash == hash_token(token)))
    if tester is None or tester.withdrawn_at is not None:
        raise NotFound(
            "This link opens nothing. It may have been mistyped, or withdrawn: ask the designer for a new one."
        )
    return tester


def page(session: Session, token: str) -> testing_views.TesterPage:
    """All that a tester's phone shows. Raises NotFound."""
    tester = _by_token(session, token)
    tester.seen_at = now()
    design = load(tester.test.document)
    terms: Terms = "UK" if tester.terms == "UK" else "US"
    hand = design.model_copy(update={"hand": tester.hand})
    made, _ = booklet_of(hand, terms, tester.size)
    reports = session.scalars(select(LineReport).where(LineReport.tester_id == tester.id).order_by(LineReport.id))
    return testing_views.TesterPage(
        title=design.name, tester=tester.name, size=tester.size, terms=terms, hand=tester.hand, units=design.units,
        closed=tester.test.closed_at is not None, gauge=made.gauge, materials=list(made.materials),
        abbreviations=[views.TextPair(name=a, text=b) for a, b in made.abbreviations], notes=list(made.notes),
        cautions=[c.text for c in made.cautions], steps=steps_for(design, tester), place=tester.place,
        reported=[_report_view(report, tester) for report in reports],
        report=testing_views.TesterReport.model_validate(tester.report) if tester.report else None,
    )  # fmt: skip


def _open_for_reports(tester: Tester) -> Design:
    if tester.test.closed_at is not None:
        raise Invalid("This test is closed. You can still read the pattern; ask the designer to open it again.")
    return load(tester.test.document)


def keep_place(session: Session, token: str, place: int) -> int:
    """Remember the step that the tester is at."""
    tester = _by_token(session, token)
    steps = steps_for(load(tester.test.document), tester)
    tester.place, tester.seen_at = max(0, min(place, len(steps))), now()
    return tester.place


def report_line(session: Session, token: str, step: int, found: int | None, note: str) -> testing_views.LineReportView:
    """ "It did not come out": what came, and a note. Raises Invalid."""
    tester = _by_token(session, token)
    steps = steps_for(_open_for_reports(tester), tester)
    if not 0 <= step < len(steps):
        raise Invalid("There is no such line in this pattern.")
    if found is None and not note.strip():
        raise Invalid("Write the count that came, or what went wrong.")
    count = len(session.scalars(select(LineReport.id).where(LineReport.tester_id == tester.id)).all())
    if count >= MOST_REPORTS:
        raise Invalid("There are very many reports from this link already; write to the designer instead.")
    at = steps[step]
    row = LineReport(
        tester_id=tester.id, line=at.line, label=f"{at.section}, {at.label or 'set-up'}"[:80], expected=at.sts,
        found=found, note=note.strip()[:4000], reported_at=now(),
    )  # fmt: skip
    session.add(row)
    session.flush()
    return _report_view(row, tester)


def report_end(session: Session, token: str, report: testing_views.TesterReport) -> testing_views.TesterReport:
    """The report at the end; it can be sent again to correct it. Raises Invalid."""
    tester = _by_token(session, token)
    _open_for_reports(tester)
    tester.report = report.model_dump()
    tester.seen_at = now()
    return report


__all__ = [
    "MM_PER",
    "close_test",
    "invite",
    "new_link",
    "open_test",
    "page",
    "report_end",
    "report_line",
    "tests_of",
    "withdraw",
]
