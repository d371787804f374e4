"""Made-up data: an amateur astronomy club's observing-night bags, sold in aid of a new dome."""

import hashlib
import hmac
from collections.abc import Mapping
from datetime import timedelta

from sqlalchemy import select
from sqlalchemy.orm import Session

from rillstep.demo.texts import bag_text
from rillstep.design import facts_of
from rillstep.design.steps import steps_of
from rillstep.document import Design, Parts, Size, Swatch, Weighing, Yarn
from rillstep.document.schema import ExtraYarn
from rillstep.services import accounts, designs, testing, testing_views
from rillstep.store import Designer, LineReport, Tester

EMAIL = "maker@observing-night.example"
PASSWORD = "new-dome-fund"
STUDIO = "Observing Night Bags"


def nightfield() -> Design:
    """The Nightfield tote in four sizes."""
    return Design(
        name="Nightfield tote",
        text=bag_text("nightfield"),
        yarns=[
            Yarn(
                name="Quiet Meridian",
                weight_class=4,
                fibre="80 % cotton, 20 % linen",
                grams_per_ball=100,
                metres_per_ball=170,
                have_g=200,
            )
        ],
        swatches=[
            Swatch(stitch="hdc", stitches=18, rows=14, width_mm=120, height_mm=121.7, weight_g=10.5, blocked=True)
        ],
        weighings=[
            Weighing(size="Flask", grams=148),
            Weighing(size="Atlas", grams=117, maker="Ottilie"),
            Weighing(of="Base", size="Tent", grams=34),
        ],
        extras=[ExtraYarn(kind="tail", length_mm=600, count=2)],
        sizes=[
            _tote_size("Atlas", 240, 265, 85, 120),
            _tote_size("Flask", 290, 300, 85, 140),
            _tote_size("Rug", 340, 340, 105, 160),
            _tote_size("Tent", 400, 380, 120, 180),
        ],
        parts=Parts(count=4),
        notes="Sold in aid of the new dome: please leave the star tag on the side seam.",
    )


def _tote_size(name: str, width: float, height: float, depth: float, drop: float) -> Size:
    return Size(
        name=name,
        targets_mm={"width": width, "height": height, "depth": depth, "drop": drop},
        tolerances_mm={"width": 10, "height": 10, "depth": 10, "drop": 15},
    )


def steward() -> Design:
    """A second tote, in inches, UK terms, and a spiral."""
    return Design(
        name="Dome steward's tote",
        text=bag_text("steward"),
        units="in",
        terms="UK",
        yarns=[Yarn(name="Soft Eclipse", weight_class=5, fibre="acrylic", grams_per_ball=150, metres_per_ball=180)],
        swatches=[Swatch(stitch="sc", stitches=12, rows=14, width_mm=101.6, height_mm=104, weight_g=9)],
        carried="shoulder",
        sizes=[_tote_size("Thermos", 254, 279, 89, 229), _tote_size("Tripod", 356, 381, 114, 254)],
    )


def comet() -> Design:
    """A bucket in one size: a wall of post stitches with a stripe in a second colour."""
    return Design(
        name="Comet bucket", text=bag_text("comet"), sizes=[Size(name="One size")],
        yarns=[
            Yarn(name="Quiet Meridian, slate", weight_class=4, grams_per_ball=100, metres_per_ball=170, have_g=250),
            Yarn(name="Quiet Meridian, amber", colour="B", grams_per_ball=50, metres_per_ball=85, have_g=14),
        ],
        swatches=[
            Swatch(stitch="dc", stitches=18, rows=10, width_mm=120, height_mm=125, weight_g=9.5, blocked=True),
            Swatch(stitch="FPdc, BPdc", stitches=20, rows=10, width_mm=125, height_mm=118, weight_g=13.5),
        ],
        weighings=[Weighing(of="Base", size="One size", grams=13)],
        parts=Parts(count=2),
    )  # fmt: skip


_MERIDIAN = Yarn(name="Quiet Meridian", weight_class=4, grams_per_ball=100, metres_per_ball=170)
# Bags that were graded from a sample in one size: the name, the hook in mm, and for each size what it shall measure.
GRADED: Mapping[str, tuple[str, float, Mapping[str, Mapping[str, float]]]] = {
    "pouch": (
        "Eyepiece pouch", 4.0,
        {"Lens": {}, "Eyepiece": {"height": 100, "Cord.length": 700},
         "Barlow": {"width": 180, "height": 132, "Cord.length": 900}},
    ),
    "mesh": (
        "Lamplight net", 5.0,
        {"Lamp": {}, "Lantern": {"width": 300, "height": 200, "strap": 650},
         "Rug": {"width": 375, "height": 300, "strap": 700}},
    ),
    "clutch": (
        "Chart clutch", 3.5,
        {"Pocket": {}, "Chart": {"width": 250, "height": 182, "flap": 100},
         "Atlas": {"width": 300, "height": 214, "flap": 109, "Loop.length": 80}},
    ),
    "panels": (
        "Tripod sleeve", 4.5, {"Short": {}, "Long": {"width": 187, "height": 450, "Trim.around": 373}},
    ),
    "squares": (
        "Constellation bag", 4.5,
        {"Spring": {}, "Summer": {"height": 100}, "Winter": {"height": 150}},
    ),
}  # fmt: skip


# The swatch of each, and what one size of it weighed. The net is worked with two strands of a thin yarn.
_THIN = Yarn(name="Faint Meridian", weight_class=2, grams_per_ball=50, metres_per_ball=190, strands=2)
_WEIGHED: Mapping[str, tuple[Yarn, Swatch, Weighing]] = {
    "pouch": (
        _MERIDIAN, Swatch(stitch="sc", stitches=24, rows=26, width_mm=120, height_mm=118.2, weight_g=12),
        Weighing(size="Lens", grams=26),
    ),
    "mesh": (
        _THIN, Swatch(stitch="sc", stitches=20, rows=22, width_mm=125, height_mm=122.2, weight_g=9.5),
        Weighing(size="Lamp", grams=48),
    ),
    "clutch": (
        _MERIDIAN, Swatch(stitch="sc", stitches=24, rows=26, width_mm=120, height_mm=118.2, weight_g=10),
        Weighing(of="Panel", size="Pocket", grams=80),
    ),
    "panels": (
        _MERIDIAN, Swatch(stitch="hdc", stitches=18, rows=14, width_mm=120, height_mm=116.7, weight_g=10),
        Weighing(of="Front", size="Short", grams=37),
    ),
    "squares": (
        _MERIDIAN, Swatch(stitch="dc", stitches=16, rows=8, width_mm=100, height_mm=100, weight_g=7.5),
        Weighing(of="Square", size="Spring", grams=24, maker="Bram"),
    ),
}  # fmt: skip


def graded_bag(key: str, text: str | None = None) -> Design:
    """A bag that was graded; text: another one, such as its sample."""
    name, hook, wanted = GRADED[key]
    yarn, swatch, weighing = _WEIGHED[key]
    return Design(
        name=name, text=bag_text(key) if text is None else text, hook_mm=hook, yarns=[yarn], swatches=[swatch],
        weighings=[weighing] if text is None else [], parts=Parts(count=2),
        sizes=[Size(name=size, targets_mm=dict(targets)) for size, targets in wanted.items()],
    )  # fmt: skip


def pouch() -> Design:
    """A pouch from a text in one size, graded to three."""
    return graded_bag("pouch")


_TESTERS = (
    ("Ottilie", "Atlas", "US", "right", 1.0),
    ("Bram", "Flask", "UK", "right", 0.55),
    ("Seraphine", "Flask", "US", "left", 0.31),
    ("Ivo", "Rug", "US", "right", 0.74),
    ("Nerys", "Tent", "UK", "right", 0.0),
)


def demo_token(secret: str, name: str) -> str:
    """A tester's link in the demo: the same at every start, and unguessable without the demo's secret."""
    return hmac.new(secret.encode(), name.encode(), hashlib.sha256).hexdigest()[:40]


def fill(session: Session, secret: str) -> None:
    """Put the demo data in, if it is not there."""
    if session.scalar(select(Designer).where(Designer.email == EMAIL)) is not None:
        return
    studio_id = accounts.sign_up(session, EMAIL, PASSWORD, STUDIO).studio_id
    designs.create(session, studio_id, steward())
    designs.create(session, studio_id, comet())
    for key in GRADED:
        designs.create(session, studio_id, graded_bag(key), "Graded from one size")
    opened = designs.create(session, studio_id, nightfield(), "First numbers")
    test = testing.open_test(session, testing.at_once, studio_id, opened.id)
    for name, size, terms, hand, done in _TESTERS:
        invited = testing.invite(session, testing.at_once, studio_id, test.id, name, size, terms, hand)
        tester = session.get(Tester, invited.tester.id)
        assert tester is not None
        tester.token_hash = accounts.hash_token(demo_token(secret, name))
        tester.place = round(invited.tester.steps * done)
        tester.seen_at = accounts.now() - timedelta(hours=7) if done else None
        session.flush()
        _reports(session, tester)


def _reports(session: Session, tester: Tester) -> None:
    """Some lines reported, one bag finished with its measurements."""
    steps = steps_of(facts_of(nightfield()), tester.size, "UK" if tester.terms == "UK" else "US", "right")
    told: dict[str, list[tuple[str, int, str]]] = {
        "Bram": [("Rnd 3", 1, "One too many at the second end: I had worked into the joining slip stitch.")],
        "Seraphine": [
            ("Rnd 2", -1, "Missed the last increase. Left-handed, so I read the round backwards at first."),
            ("Rnd 5", 2, "Lost count in the long side. A marker at each end helped."),
        ],
        "Ivo": [("Rnd 4", -2, "The line says 4 repeats at the far end; I made 3. Came out the second time.")],
    }
    for label, off, note in told.get(tester.name, []):
        step = next(s for s in steps if s.label == label)
        session.add(
            LineReport(
                tester_id=tester.id, line=step.line, label=f"{step.section}, {step.label}", expected=step.sts,
                found=None if step.sts is None else step.sts + off, note=note,
                reported_at=accounts.now() - timedelta(days=2),
            )
        )  # fmt: skip
    if tester.name == "Ottilie":
        tester.report = testing_views.TesterReport(
            gauge_sts=14.5, gauge_rows=11.5,
            measures_mm={"width": 248, "height": 271, "depth": 88, "drop": 131}, grams=117, hours=9.5,
            remarks="The back-loop round makes a lovely edge. The handles stretched once the atlas was in.",
        ).model_dump()  # fmt: skip
