"""What the screens get: plain data, computed by the server. These models make the OpenAPI file."""

from datetime import date
from typing import Literal

from pydantic import BaseModel

from rillstep.services.swatch_views import GaugeAskedView, GaugeView, HookView, YarnSaidView


class SpanView(BaseModel):
    line: int
    column: int
    end_column: int


class EditView(SpanView):
    text: str


class RepairView(BaseModel):
    message: str
    edits: list[EditView]


class OfferView(BaseModel):
    """Words that are not understood and may be taught; nothing: they may be said to change nothing. vouch: the words of
    the line that may be vouched for, empty where there are too few."""

    words: str
    nothing: bool
    vouch: str


class PhraseView(BaseModel):
    """A phrase that a studio keeps for all its texts; meaning: "nothing" where it changes nothing."""

    id: int
    words: str
    meaning: str


class TaughtView(BaseModel):
    """The edit that writes a phrase into the head of a text."""

    edit: EditView


class FindingView(BaseModel):
    """Something wrong in the text. `size` is a size's name, or null when it holds for every size.

    unchecked: it says of words or of a number that nothing is held to them.
    """

    code: str
    severity: str
    line: int
    column: int
    end_column: int
    size: str | None
    expected: float | None
    found: float | None
    message: str
    unchecked: bool
    offer: OfferView | None = None
    repairs: list[RepairView]
    related: list[SpanView]


class ColourYarnView(BaseModel):
    """Yarn in one colour, for another maker. left_g: what the last ball leaves. have_g: in the drawer, null where it is
    not said; enough: how likely that is enough, in per cent; lasts: the same in one word."""

    colour: str
    yarn: str
    metres: int
    grams: int
    low_g: int
    high_g: int
    balls: int
    grams_per_ball: float
    left_g: int
    have_g: float | None
    enough: int | None
    lasts: Literal["likely", "maybe", "hardly"] | None


class PieceYarnView(BaseModel):
    """Yarn of one piece; basis: what the estimate of its stitches stands on."""

    piece: str
    grams: int
    low_g: int
    high_g: int
    basis: str


class YarnView(BaseModel):
    """Yarn of a size: in 9 of 10 bags of other makers between low_g and high_g, of the designer's own between own_low_g
    and own_high_g. missing: pieces that are not in it, as some of their rows are not known. once: headings that are
    made several times, and whose parts are counted once. within: lines that change
    their colour in a way that is not followed, counted as the first one. fits: whether the drawer is likely enough for
    all colours; null where that is not said."""

    metres: int
    grams: int
    low_g: int
    high_g: int
    own_grams: int
    own_low_g: int
    own_high_g: int
    balls: int
    weighed: bool
    colours: list[ColourYarnView]
    pieces: list[PieceYarnView]
    within: list[int]
    missing: list[str]
    once: list[str]
    fits: bool | None


class YarnAnswersView(BaseModel):
    """What the designer asks of the yarn. problem: why there is no estimate, and what to do; largest: the largest size
    that comes out of the drawer; scarce: the colour that is the first not to be enough; doubted: weighings that cannot
    be of what they are said to be; tighter: what a gauge one twentieth tighter takes more for the same centimetres, in
    per cent; instead: thinner yarns that stand for the first one, and how many strands of them."""

    problem: str
    instead: list[str]
    in_drawer: bool
    largest: str | None
    scarce: str | None
    doubted: list[str]
    tighter: int | None


class LargestView(BaseModel):
    """How large the bag can be with the yarn that is there: as a share of the sample in per cent, and its measures.
    problem: why it is not known. enough: how likely the yarn is enough for it, in per cent."""

    problem: str
    percent: int
    width: str
    height: str
    grams: int
    enough: int


class SizeView(BaseModel):
    """A size with the yarn that it takes, null where gauge or yarn is not known; holds: the things that fit in it."""

    name: str
    yarn: YarnView | None
    holds: list[str]


MarkView = Literal["proved", "assumed", "unchecked", "wrong", "not understood", "vouched"]


class PlaceView(BaseModel):
    """A place in a text: line and columns count from 1, `end_column` is one past the end."""

    line: int
    column: int
    end_column: int


class NamedPlaceView(PlaceView):
    """A place of a text where a name or a sum of names stands, and its numbers as they are read. name: where one name
    stands alone, that; values: then its numbers, size by size."""

    shown: str
    name: str | None
    values: list[int]


class CountsView(BaseModel):
    """How many lines are proved, and of those with the text's own phrases; proved if some words mean what is assumed;
    worked, with something not checked; wrong;
    not understood; vouched for; and kept as words."""

    proved: int
    with_phrases: int
    assumed: int
    unchecked: int
    wrong: int
    not_understood: int
    vouched: int
    kept: int


class LineView(BaseModel):
    """A line with its totals in each size. depends: an earlier line that is wrong, from whose stated total this one
    goes on."""

    line: int
    section: str
    label: str
    sts: list[int | None]
    spaces: list[int | None]
    stated: list[int | None]
    mark: MarkView
    phrases: list[str]
    depends: int | None
    last_line: int


class SwatchView(BaseModel):
    """What a swatch tells beside its weight, in sentences: tension, blocking, hanging."""

    tells: list[str]


class ReadingView(BaseModel):
    """A weight in g as the scale showed it; null: there is none, and problem says why."""

    grams: float | None
    problem: str


class CraftView(BaseModel):
    """What the page shows of the craft's usual values, and the most that a design can have of something. extras: kinds
    of what else uses yarn; has_scale: whether a kitchen scale can be read."""

    extras: list[str]
    has_scale: bool

    yarn_classes: list[str]
    most_sizes: int
    most_yarns: int
    most_swatches: int
    usual_tolerance_mm: float
    usual_tolerances_mm: dict[str, float]


class BagMeasureView(BaseModel):
    """A measure of the bag, or of a piece, in each size: in mm and as it is shown; null where it is not known.

    name: as targets call it ("width", "Cord.length"). of_body: the piece is a part of the bag's body, whose measures
    are those of the bag. why: for each size its formula, or what is missing.
    """

    name: str
    piece: str | None
    of_body: bool
    label: str
    mm: list[float | None]
    shown: list[str | None]
    estimated: bool
    why: list[str]


class FindingHelp(BaseModel):
    """What a kind of finding means, and what to do; `example` is a text in which it is found, in `line`."""

    code: str
    severity: str
    group: str
    title: str
    meaning: str
    way_out: str
    example: str
    line: int


class QuestionView(BaseModel):
    """Something that a text leaves open; each answer is an edit of the text."""

    code: str
    line: int
    words: str
    answers: list[RepairView]


class OutlineSection(BaseModel):
    """A section of a text. made: how many of it are made, the most of all sizes."""

    title: str
    line: int
    made: int


class OutlineView(BaseModel):
    """The sections of a text, the names that are defined in it, and the terms that it is written in."""

    sections: list[OutlineSection]
    stitches: list[str]
    markers: list[str]
    sizes: list[str]
    terms: str


class WorkView(BaseModel):
    """A design worked through: proof, measures, yarn; all of its text. bag: the measures of the bag and its pieces."""

    ok: bool
    text: str
    gauge: GaugeView | None
    hook: HookView | None
    asked: GaugeAskedView
    yarn_said: YarnSaidView | None
    strands_said: int
    swatches: list[SwatchView]
    sizes: list[SizeView]
    yarn: YarnAnswersView
    bag: list[BagMeasureView]
    lines: list[LineView]
    findings: list[FindingView]
    counts: CountsView
    kept: list[PlaceView]
    named: list[NamedPlaceView]
    questions: list[QuestionView]
    outline: OutlineView


class CheckView(BaseModel):
    """A text written elsewhere, proved or refuted line by line. `words`: each of `lines` as it is written."""

    ok: bool
    name: str
    terms: str
    sizes: list[str]
    lines: list[LineView]
    findings: list[FindingView]
    counts: CountsView
    kept: list[PlaceView]
    words: list[str]
    questions: list[QuestionView]
    outline: OutlineView


class BookletLineView(BaseModel):
    kind: str
    line: int
    label: str
    text: str
    totals: str
    mark: MarkView | Literal["kept"]
    sts: list[int | None]


class BookletSectionView(BaseModel):
    title: str
    worked: str
    lines: list[BookletLineView]


class TextPair(BaseModel):
    name: str
    text: str


class TableRow(BaseModel):
    name: str
    values: list[str]


class BookletView(BaseModel):
    title: str
    sizes: list[str]
    proved: bool
    unchecked: int
    as_written: int
    vouched: int
    problems: list[FindingView]
    materials: list[str]
    gauge: str
    measures: list[TableRow]
    abbreviations: list[TextPair]
    notes: list[str]
    cautions: list[TextPair]
    sections: list[BookletSectionView]
    text: str


class PartSizeView(BaseModel):
    """Where a size stands at the end of a part; lengths as shown text, null when not known."""

    name: str
    stitches: int
    grams: int | None
    sts: int | None
    half: int | None
    width: str | None
    height: str | None


class PartView(BaseModel):
    number: int
    day: date
    title: str
    needs: list[str]
    checkpoint: str
    sections: list[BookletSectionView]
    sizes: list[PartSizeView]


class PartsView(BaseModel):
    proved: bool
    problems: list[FindingView]
    parts: list[PartView]


class LinesChangedView(BaseModel):
    """Lines of the text before and after; line: of the first one before."""

    line: int
    before: list[str]
    after: list[str]


class MeView(BaseModel):
    """Who is signed in; `csrf` goes into the X-CSRF-Token header of everything that changes something. account: a name
    of the studio that says nothing, under which a browser keeps what is not saved yet."""

    email: str | None
    studio: str | None
    account: str | None
    csrf: str
