"""Tests: others make the bag before it is published, each by a private link, in one size.

What follows from the document alone is computed and kept by whoever calls (`Compute`); here it meets what testers did.
"""

import json
import secrets
from collections.abc import Callable
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from rillstep.core.craft import Terms
from rillstep.core.lengths import MM_PER, Units, show_difference, show_length
from rillstep.core.proof import Hand
from rillstep.design.tested import Comparison, MeasureAsked, compared
from rillstep.document import dump
from rillstep.services import designs, testing_views
from rillstep.services.accounts import hash_token, now
from rillstep.services.errors import Invalid, NotFound, NotProved
from rillstep.services.snapshots import PageSnapshot, SizeSnapshot, TestSnapshot, snapshot_of_page, snapshot_of_test
from rillstep.store import DesignRow, LineReport, Tester, TestRow

MOST_TESTERS = 50
MOST_REPORTS = 500

# Computes for a studio what a function makes of its arguments, as JSON.
Compute = Callable[..., bytes]


def at_once(_studio_id: int, work: Callable[..., Any], *args: Any) -> bytes:
    """Computes in place, and keeps nothing."""
    made: bytes = work(*args).model_dump_json().encode()
    return made


def _frozen(compute: Compute, studio_id: int, document: str) -> TestSnapshot:
    return TestSnapshot.model_validate_json(compute(studio_id, snapshot_of_test, document))


def _page(compute: Compute, tester: Tester) -> PageSnapshot:
    terms: Terms = "UK" if tester.terms == "UK" else "US"
    hand: Hand = "left" if tester.hand == "left" else "right"
    studio_id, document = tester.test.design.studio_id, tester.test.document
    return PageSnapshot.model_validate_json(compute(studio_id, snapshot_of_page, document, tester.size, terms, hand))


# --- the designer's side -------------------------------------------------------------


def open_test(session: Session, compute: Compute, studio_id: int, design_id: int) -> testing_views.TestView:
    """Open a test of the newest revision. Raises NotProved when its text is not proved."""
    opened = designs.read(session, studio_id, design_id)
    document = dump(opened.document)
    if not _frozen(compute, studio_id, document).proved:
        raise NotProved("The text is not proved yet; testers would work wrong numbers. Repair it first.")
    designs.own_design(session, studio_id, design_id, lock=True)  # it may have been deleted meanwhile
    row = TestRow(design_id=design_id, revision=opened.revision, document=document, opened_at=now())
    session.add(row)
    session.flush()
    return _test_view(session, compute, studio_id, row)


def _own_test(session: Session, studio_id: int, test_id: int, lock: bool = False) -> TestRow:
    """A test of this studio; lock: its design is held, in the same order as by whoever deletes it."""
    own = (DesignRow.studio_id == studio_id, DesignRow.deleted_at.is_(None))
    query = select(TestRow).join(DesignRow).where(TestRow.id == test_id, *own)
    row = session.scalar(query)
    if row is not None and lock:
        designs.own_design(session, studio_id, row.design_id, lock=True)
        row = session.scalar(query)
    if row is None:
        raise NotFound("This test does not exist, or belongs to another studio.")
    return row


def _own_tester(session: Session, studio_id: int, tester_id: int) -> Tester:
    own = (DesignRow.studio_id == studio_id, DesignRow.deleted_at.is_(None))
    query = select(Tester).join(TestRow).join(DesignRow).where(Tester.id == tester_id, *own)
    row = session.scalar(query)
    if row is None:
        raise NotFound("This tester does not exist, or belongs to another studio.")
    return row


def tests_of(session: Session, compute: Compute, studio_id: int, design_id: int) -> testing_views.TestsView:
    """All tests of a design, the newest first."""
    designs.own_design(session, studio_id, design_id)
    rows = session.scalars(select(TestRow).where(TestRow.design_id == design_id).order_by(TestRow.id.desc())).all()
    return testing_views.TestsView(tests=[_test_view(session, compute, studio_id, row) for row in rows])


def close_test(
    session: Session, compute: Compute, studio_id: int, test_id: int, closed: bool
) -> testing_views.TestView:
    """Close a test (testers can still read, not report), or open it again."""
    row = _own_test(session, studio_id, test_id)
    view = _test_view(session, compute, studio_id, row)
    row.closed_at = now() if closed else None
    return view.model_copy(update={"closed": closed})


def invite(
    session: Session, compute: Compute, studio_id: int, test_id: int, name: str, size: str, terms: str, hand: str
) -> testing_views.InvitedView:
    """Add a tester. The path of her link is in the answer, and nowhere else."""
    frozen = _frozen(compute, studio_id, _own_test(session, studio_id, test_id).document)
    name = " ".join(name.split())
    if not 1 <= len(name) <= 80:
        raise Invalid("Give the tester a name of up to 80 characters.")
    if frozen.size(size) is None:
        raise Invalid(f"There is no size “{size}” in this test.")
    # The test may be deleted meanwhile, and others may be invited: from here on it is held.
    row = _own_test(session, studio_id, test_id, lock=True)
    if (session.scalar(select(func.count(Tester.id)).where(Tester.test_id == row.id)) or 0) >= MOST_TESTERS:
        raise Invalid(f"A test has at most {MOST_TESTERS} testers.")
    token = secrets.token_urlsafe(24)
    tester = Tester(
        test_id=row.id, name=name, size=size, terms=terms, hand=hand, token_hash=hash_token(token), place=0,
    )  # fmt: skip
    session.add(tester)
    session.flush()
    return testing_views.InvitedView(tester=_tester_view(tester, frozen), path=f"/t/{token}")


def withdraw(session: Session, compute: Compute, studio_id: int, tester_id: int) -> testing_views.TesterView:
    """Withdraw a link: it opens nothing any more."""
    tester = _own_tester(session, studio_id, tester_id)
    frozen = _frozen(compute, studio_id, tester.test.document)
    tester.withdrawn_at = tester.withdrawn_at or now()
    return _tester_view(tester, frozen)


def new_link(session: Session, compute: Compute, studio_id: int, tester_id: int) -> testing_views.InvitedView:
    """A new link for a tester whose link was lost or withdrawn; the old one opens nothing any more."""
    tester = _own_tester(session, studio_id, tester_id)
    frozen = _frozen(compute, studio_id, tester.test.document)
    token = secrets.token_urlsafe(24)
    tester.token_hash, tester.withdrawn_at = hash_token(token), None
    return testing_views.InvitedView(tester=_tester_view(tester, frozen), path=f"/t/{token}")


def _test_view(session: Session, compute: Compute, studio_id: int, row: TestRow) -> testing_views.TestView:
    frozen = _frozen(compute, studio_id, row.document)
    testers = list(session.scalars(select(Tester).where(Tester.test_id == row.id).order_by(Tester.id)))
    reports = session.execute(
        select(LineReport, Tester).join(Tester).where(Tester.test_id == row.id).order_by(LineReport.line, LineReport.id)
    )
    return testing_views.TestView(
        id=row.id, revision=row.revision, opened_at=row.opened_at, closed=row.closed_at is not None,
        testers=[_tester_view(tester, frozen) for tester in testers],
        reports=[_report_view(report, tester) for report, tester in reports], text=frozen.text,
        is_current=_text_in(row.document) == _text_in(designs.newest_document(session, row.design_id)),
    )  # fmt: skip


def _text_in(document: str) -> str | None:
    """The text of a document as it is kept; None in one of version 1 that had fields only."""
    text: str | None = json.loads(document).get("text")
    return text


def _report_view(report: LineReport, tester: Tester) -> testing_views.LineReportView:
    return testing_views.LineReportView(
        tester=tester.name, size=tester.size, line=report.line, label=report.label, expected=report.expected,
        found=report.found, note=report.note, reported_at=report.reported_at,
    )  # fmt: skip


def _tester_view(tester: Tester, frozen: TestSnapshot) -> testing_views.TesterView:
    report = testing_views.TesterReport.model_validate(tester.report) if tester.report else None
    size = frozen.size(tester.size)
    return testing_views.TesterView(
        id=tester.id, name=tester.name, size=tester.size, terms=tester.terms, hand=tester.hand,
        withdrawn=tester.withdrawn_at is not None, place=tester.place, steps=size.steps if size else 0,
        seen_at=tester.seen_at, finished=report is not None,
        compared=_compared(size, frozen.units, report) if report and size else [],
        grams=report.grams if report else None, hours=report.hours if report else None,
        remarks=report.remarks if report else "",
    )  # fmt: skip


def _compared(size: SizeSnapshot, units: Units, report: testing_views.TesterReport) -> list[testing_views.ComparedView]:
    """Measured against predicted, only what was measured and is known."""
    found = compared(
        size.gauge, (report.gauge_sts, report.gauge_rows),
        [MeasureAsked(one.name, one.label, one.mm, one.tolerance_mm) for one in size.asked], report.measures_mm,
        size.yarn_g, report.grams,
    )  # fmt: skip
    return [_compared_view(one, units) for one in found]


def _compared_view(one: Comparison, units: Units) -> testing_views.ComparedView:
    by = one.measured - one.predicted
    match one.unit:
        case "mm":
            predicted, measured = show_length(one.predicted, units), show_length(one.measured, units)
            difference = show_difference(by, units)
        case "g":
            predicted, measured = f"{one.low:.0f} to {one.high:.0f} g", f"{one.measured:g} g"
            difference = f"{by:+.0f} g"
        case _:
            predicted, measured, difference = f"{one.predicted:g}", f"{one.measured:g}", f"{by / one.predicted:+.0%}"
    return testing_views.ComparedView(
        label=one.label, predicted=predicted, measured=measured, difference=difference.replace("-", "−"), off=one.off
    )


# --- the tester's side ---------------------------------------------------------------


def _by_token(session: Session, token: str) -> Tester:
    tester = None
    if 16 <= len(token) <= 64:
        tester = session.scalar(select(Tester).where(Tester.token_hash == hash_token(token)))
    if tester is None or tester.withdrawn_at is not None or tester.test.design.deleted_at is not None:
        raise NotFound(
            "This link opens nothing. It may have been mistyped, or withdrawn: ask the designer for a new one."
        )
    return tester


def page(session: Session, compute: Compute, token: str) -> testing_views.TesterPage:
    """All that a tester's phone shows. Raises NotFound."""
    tester = _by_token(session, token)
    frozen = _page(compute, tester)
    tester.seen_at = now()
    reports = session.scalars(select(LineReport).where(LineReport.tester_id == tester.id).order_by(LineReport.id))
    return testing_views.TesterPage(
        **frozen.model_dump(), mm_per_unit=MM_PER["cm" if frozen.units == "cm" else "in"],
        tester=tester.name, size=tester.size, terms=tester.terms, hand=tester.hand,
        closed=tester.test.closed_at is not None, place=tester.place,
        reported=[_report_view(report, tester) for report in reports],
        report=testing_views.TesterReport.model_validate(tester.report) if tester.report else None,
    )  # fmt: skip


def _check_open(tester: Tester) -> None:
    if tester.test.closed_at is not None:
        raise Invalid("This test is closed. You can still read the pattern; ask the designer to open it again.")


def keep_place(session: Session, compute: Compute, token: str, place: int) -> int:
    """Remember the step that the tester is at."""
    tester = _by_token(session, token)
    many = len(_page(compute, tester).steps)
    tester.place, tester.seen_at = max(0, min(place, many)), now()
    return tester.place


def report_line(
    session: Session, compute: Compute, token: str, step: int, found: int | None, note: str
) -> testing_views.LineReportView:
    """ "It did not come out": what came, and a note. Raises Invalid."""
    tester = _by_token(session, token)
    _check_open(tester)
    steps = _page(compute, tester).steps
    if not 0 <= step < len(steps):
        raise Invalid("There is no such line in this pattern.")
    if found is None and not note.strip():
        raise Invalid("Write the count that came, or what went wrong.")
    count = session.scalar(select(func.count(LineReport.id)).where(LineReport.tester_id == tester.id)) or 0
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
    _check_open(tester)
    tester.report = report.model_dump()
    tester.seen_at = now()
    return report


__all__ = ["close_test", "invite", "new_link", "open_test", "page", "report_end", "report_line", "tests_of", "withdraw"]
