"""Phrases that a studio keeps for all its texts."""

from sqlalchemy import select
from sqlalchemy.orm import Session

from rillstep.core.findings import Finding, Span
from rillstep.core.notation.phrases import read_phrase
from rillstep.services import views
from rillstep.services.errors import Invalid, NotFound
from rillstep.store import Phrase

MOST_KEPT = 200


def list_phrases(session: Session, studio_id: int) -> list[views.PhraseView]:
    """The phrases of a studio, by their words."""
    rows = session.scalars(select(Phrase).where(Phrase.studio_id == studio_id).order_by(Phrase.words))
    return [views.PhraseView(id=row.id, words=row.words, meaning=row.meaning) for row in rows]


def keep_phrase(session: Session, studio_id: int, words: str, meaning: str) -> views.PhraseView:
    """Keep a phrase for all texts of a studio; one that it keeps already gets the new meaning. Raises Invalid."""
    words, meaning = " ".join(words.split()), " ".join(meaning.split())
    read = read_phrase(f'"{words}" = {meaning}', Span(1, 1, 2), "US")
    if isinstance(read, Finding):
        raise Invalid(read.message)
    if read.vouched:
        raise Invalid("A line is vouched for in its own text; no phrase is kept for others.")
    row = session.scalar(select(Phrase).where(Phrase.studio_id == studio_id, Phrase.words == words).with_for_update())
    if row is None:
        if len(list_phrases(session, studio_id)) >= MOST_KEPT:
            raise Invalid(f"A studio keeps at most {MOST_KEPT} phrases: take one away first.")
        row = Phrase(studio_id=studio_id, words=words, meaning=meaning)
        session.add(row)
    row.meaning = meaning
    session.flush()
    return views.PhraseView(id=row.id, words=row.words, meaning=row.meaning)


def forget_phrase(session: Session, studio_id: int, phrase_id: int) -> None:
    """Keep a phrase no longer; texts that it was written into stay as they are. Raises NotFound."""
    row = session.scalar(select(Phrase).where(Phrase.studio_id == studio_id, Phrase.id == phrase_id))
    if row is None:
        raise NotFound("This phrase does not exist, or belongs to another studio.")
    session.delete(row)
