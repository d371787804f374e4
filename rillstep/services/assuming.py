"""What the unknown words of a text may mean: asked once for equal words, and written into the text where it is
answered."""

from collections.abc import Mapping, Sequence

from rillstep.core.assumptions import Asked, MissingNumber, TriedMeaning, UnknownWords, ask
from rillstep.core.craft import Terms
from rillstep.core.findings import Edit, Span, apply_edits
from rillstep.core.memory import Shelf
from rillstep.core.notation.phrases import offer, stands_in, teach, vouchable
from rillstep.core.proof import Proof
from rillstep.services import assuming_views, views
from rillstep.services.errors import Invalid
from rillstep.services.proof_views import counts_view, line_views
from rillstep.services.teaching import findings_of, from_studio

# A question for itself ("What is ...?") where the words stand as a stitch does.
_NAMES = ("near stitch", "stitch", "several")
_ASKED: Shelf[tuple[str, Terms | None], Asked] = Shelf(40)
LETTERS = "abcdefgh"


def asked_of(text: str, terms: Terms | None = None) -> Asked:
    """The questions of a text, and its proof on what is assumed, as they were found before."""
    known = _ASKED.get((text, terms))
    if known is None:
        known = ask(text, terms)
        _ASKED.put((text, terms), known)
    return known


def assumptions(
    text: str, terms: Terms | None = None, kept: Sequence[views.PhraseView] = ()
) -> assuming_views.AssumptionsView:
    """What is asked of a text, and its lines, findings and counts on what is assumed; kept: phrases of the studio."""
    asked = asked_of(text, terms)
    return assuming_views.AssumptionsView(
        questions=views_of(text, asked, kept),
        ok=asked.proof.ok and not asked.questions,
        lines=line_views(asked.proof),
        findings=[one for one in findings_of(text, asked.proof, kept) if not is_asked(text, one, asked)],
        counts=counts_view(asked.proof),
    )


def is_asked(text: str, finding: views.FindingView, asked: Asked) -> bool:
    """Does a finding say that words are not understood of which a question asks?"""
    if finding.code not in ("not-understood", "words-not-worked"):
        return False
    row = text.split("\n")[finding.line - 1].lower()
    for one in asked.questions:
        around = row[max(0, finding.column - 1 - len(one.words)) : finding.end_column + len(one.words)]
        if one.offers and finding.line in one.lines and one.words.lower() in " ".join(around.split()):
            return True
    return False


_OPEN_WORDS = "No total tells which: the lines stay open until you answer."
_OPEN_NUMBER = "The line stays as it is until you answer."


def views_of(text: str, asked: Asked, kept: Sequence[views.PhraseView] = ()) -> list[assuming_views.UnknownWordsView]:
    """Each question with its answers, the studio's own phrases among them; those that have none are findings, and no
    questions."""
    words = [_view(text, asked.proof, one, kept) for one in asked.questions if one.offers]
    return [*words, *(_number_view(one) for one in asked.numbers if one.answers)]


def _number_view(one: MissingNumber) -> assuming_views.UnknownWordsView:
    return assuming_views.UnknownWordsView(
        words=one.words,
        offer=None,
        open=_OPEN_NUMBER,
        question=f"A number is left out: how many is “{one.words}”?",
        lines=[one.line],
        assumed=False,
        answers=[
            assuming_views.MeaningView(
                means=answer.number, makes=answer.makes, decided_by=answer.decided_by, edits=_edit_views([answer.edit])
            )
            for answer in one.answers
        ],
    )


def question_of(one: UnknownWords) -> str:
    """The question in the designer's words."""
    stitch = bool(one.offers) and one.offers[0].meaning.kind in _NAMES
    return f"What is “{one.words}”?" if stitch else f"What does “{one.words}” mean?"


def _view(
    text: str, proof: Proof, one: UnknownWords, kept: Sequence[views.PhraseView]
) -> assuming_views.UnknownWordsView:
    row = text.split("\n")[one.finding.span.line - 1]
    own = [special.name for special in proof.pattern.specials if special.name.lower() != one.words.lower()]
    offered = offer(row, one.finding, own)
    known = [from_studio(text, proof, phrase, own) for phrase in kept if stands_in(row, phrase.words)]
    return assuming_views.UnknownWordsView(
        words=one.words,
        offer=None
        if offered is None
        else views.OfferView(words=offered.words, nothing=offered.nothing, vouch=vouchable(row, one.finding)),
        open="" if one.assumed else _OPEN_WORDS,
        question=question_of(one),
        lines=list(one.lines),
        assumed=one.assumed,
        answers=[
            assuming_views.MeaningView(
                means=way.meaning.words,
                makes=way.makes,
                decided_by=way.decided_by,
                edits=_edit_views(_edits(text, proof, one, way)),
            )
            for way in one.offers
        ]
        + [
            assuming_views.MeaningView(means=way.message, makes="", decided_by="", edits=_edit_views(way.edits))
            for way in known
            if way is not None
        ],
    )


def _edit_views(edits: Sequence[Edit]) -> list[views.EditView]:
    return [views.EditView(**vars(edit.span), text=edit.text) for edit in edits]


def _edits(text: str, proof: Proof, one: UnknownWords, way: TriedMeaning) -> list[Edit]:
    """What writes an answer into the head of the text."""
    meaning = way.meaning.head.partition('" = ')[2]
    own = [special.name for special in proof.pattern.specials if special.name.lower() != one.words.lower()]
    edit = teach(text, one.words, meaning, proof.pattern.terms, own)
    return [edit] if isinstance(edit, Edit) else []


def answered(text: str, terms: Terms | None, answers: Mapping[int, str]) -> str:
    """The text with some of its questions answered, each by its number from 1 and the letter of an answer. Raises
    Invalid."""
    questions = views_of(text, asked_of(text, terms))
    edits: list[Edit] = []
    for number, letter in answers.items():
        at = LETTERS.find(letter.lower())
        if not 1 <= number <= len(questions) or len(letter) != 1 or not 0 <= at < len(questions[number - 1].answers):
            raise Invalid(f"there is no answer {number}={letter}: “rillstep check” prints the questions")
        for edit in questions[number - 1].answers[at].edits:
            edits.append(Edit(Span(edit.line, edit.column, edit.end_column), edit.text))
    return apply_edits(text, tuple(edits))
