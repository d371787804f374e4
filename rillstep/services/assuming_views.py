"""What the screens get of what is assumed of a text, and of what is asked."""

from pydantic import BaseModel

from rillstep.services.views import CountsView, EditView, FindingView, LineView, OfferView


class MeaningView(BaseModel):
    """What some words may mean. makes: what the first of their lines makes then; decided_by: the total that says so,
    empty where none does; edits: they write the answer into the text."""

    means: str
    makes: str
    decided_by: str
    edits: list[EditView]


class UnknownWordsView(BaseModel):
    """Words that are not understood, asked once for all their places. assumed: the text is worked on the first of the
    answers. offer: the words as they may be taught otherwise; None for a number that a row leaves out. open: why
    nothing is assumed."""

    words: str
    offer: OfferView | None
    open: str
    question: str
    lines: list[int]
    assumed: bool
    answers: list[MeaningView]


class AssumptionsView(BaseModel):
    """A text worked on what its unknown words may mean: what is asked, and the proof on what is assumed."""

    questions: list[UnknownWordsView]
    ok: bool
    lines: list[LineView]
    findings: list[FindingView]
    counts: CountsView
