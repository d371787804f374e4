"""Phrases that a text teaches: `Means: "in bb" = in back bump`, or `= nothing` where the words change nothing.

The words of a phrase are put in the place of what they mean before a line is read, so the language itself needs no
form for
them. A phrase that the language can read already is refused: no text changes what a word means.
"""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from rillstep.core.clauses.steps import read_steps
from rillstep.core.craft import Terms, stitch_words
from rillstep.core.findings import Edit, Finding, Span
from rillstep.core.memory import remember
from rillstep.core.wordlists import word_list
from rillstep.core.words.asides import words_change_nothing
from rillstep.core.words.lexicon import CRAFT, USUAL_WORDS
from rillstep.core.words.stream import Context, NotUnderstood, Stream
from rillstep.core.words.tokens import Taught, Token, places_of, tokens_of

NOTHING = "nothing"
# What is a stitch of the text's own: one into each place, or as it says behind a colon.
A_STITCH = "a stitch"
# What a designer vouches for stays unread: its line takes its stated total, and is marked so.
VOUCHED = "vouched"
LEAST_VOUCHED, MOST_VOUCHED = 3, 60
MOST_PHRASES = 40
MOST_WORDS = 12
# What ends the words that are offered to be taught.
_ENDS = word_list(", ; . : ( ) [ ] * - — =")
_FORM = re.compile(
    r'^\s*(?:["“”](?P<quoted>[^"“”]+)["“”]|(?P<bare>[^\s"“”=](?:[^"“”=]*[^\s"“”=])?))\s*=\s*'
    r"(?P<meaning>\S(?:.*\S)?)\s*$"
)
_HOW = "A phrase is taught like this: Means: “in bb” = in back bump, or = nothing where it changes nothing."


@dataclass(frozen=True)
class Offer:
    """Words of a line that are not understood, and may be taught; nothing: they may be said to change nothing."""

    words: str
    nothing: bool


def read_phrase(value: str, span: Span, terms: Terms, own: Sequence[str] = ()) -> Taught | Finding:
    """The phrase that a `Means:` line teaches; a finding where its form is wrong, or it may not be taught so.

    own: names of the text's own stitches, which change the work.
    """
    match = _FORM.match(value)
    if match is None:
        return Finding("phrase-form", "error", span, _HOW)
    written = " ".join((match["quoted"] or match["bare"]).split())
    words, meaning = _texts(written), match["meaning"].rstrip(".")
    if words and len(words) <= MOST_VOUCHED and meaning.lower() == VOUCHED:
        if len(words) < LEAST_VOUCHED:
            message = (
                f"You vouch for the words of a line: at least {LEAST_VOUCHED} of them, so that no other line is meant."
            )
            return Finding("phrase-form", "error", span, message)
        return Taught(written, words, VOUCHED, (), vouched=True)
    if not words or len(words) > MOST_WORDS or not any(word[0].isalpha() for word in words):
        return Finding("phrase-form", "error", span, _HOW)
    stitch = meaning.lower().startswith(A_STITCH)
    if _reads(f"{written} in next st", terms) if stitch else _is_read(written, terms):
        message = f"“{written}” is understood already; no other meaning is taken for it."
        return Finding("phrase-known", "error", span, message)
    if meaning.lower() == NOTHING:
        if not words_change_nothing(written, own):
            message = (
                f"“{written}” holds a number or a word of the craft, so it cannot "
                f"be said to change nothing: say what is meant."
            )
            return Finding("phrase-not-harmless", "error", span, message)
        return Taught(written, words, "", ())
    return Taught(written, words, meaning, tokens_of(meaning, span.line, 1))


@remember(256)
def _texts(words: str) -> tuple[str, ...]:
    return tuple(token.text for token in tokens_of(words, 1, 1))


@remember(256)
def _is_read(words: str, terms: Terms) -> bool:
    """Can the language read these words, alone or behind a stitch?"""
    return any(_reads(text, terms) for text in (words, f"sc {words}", f"sc in {words}", f"ch 1, {words}"))


def _reads(text: str, terms: Terms) -> bool:
    stream = Stream(tokens_of(text, 1, 1), Context(1, (0,), terms), Span(1, len(text), len(text) + 1), text)
    try:
        steps = read_steps(stream)
    except NotUnderstood:
        return False  # a number by name, say, that only the text knows
    return bool(steps) and not stream.findings and not stream.kept


_SHORT = re.compile(r"[A-Za-z][A-Za-z-]{1,9}")


def abbreviation_of(name: str, meaning: str, terms: Terms) -> Taught | None:
    """An abbreviation that a list explains by words of the language: "nst = next stitch"; None where it is known, or
    they are not."""
    name, meaning = name.strip(), " ".join(meaning.strip(" .").lower().split())
    if not _SHORT.fullmatch(name) or not re.fullmatch(r"[a-z0-9 -]{3,60}", meaning) or _is_read(name.lower(), terms):
        return None
    if not any(_reads(text, terms) for text in (f"sc {meaning}", f"sc in {meaning}", meaning)):
        return None
    return Taught(name, _texts(name), meaning, tokens_of(meaning, 1, 1), listed=True)


def is_taught(line: str) -> bool:
    """Is this a line that teaches a phrase?"""
    return line.lstrip().lower().startswith("means")


def lines_of_phrases(rows: Sequence[tuple[int, str]], taught: Sequence[Taught]) -> Iterator[tuple[Taught, int]]:
    """Each phrase with each line that holds it; rows: the lines of a text with their numbers."""
    taught = [one for one in taught if not one.listed]
    for number, text in rows:
        tokens = tokens_of(text, number, 1)
        yield from {(one, number): None for _, _, one in places_of(tokens, taught)}


def vouchable(line: str, finding: Finding) -> str:
    """The words of a line that a designer may vouch for: all that stands behind its label, or in a long line those at
    which a finding says that they are not understood; "" where these are too few."""
    label = _LABEL.match(line)
    whole = line[label.end() if label is not None else 0 :]
    told = line[finding.span.column - 1 : finding.span.end_column - 1]
    for words in (" ".join(one.replace('"', " ").split()) for one in (whole, told)):
        if LEAST_VOUCHED <= len(_texts(words)) <= MOST_VOUCHED:
            return words
    return ""


_LABEL = re.compile(r"\s{0,9}(?:[A-Za-z]{1,9}\.?\s{0,3})?\d[^:a-z]{0,40}[:.]\s")


def stands_in(line: str, words: str) -> bool:
    """Does a phrase stand in a line?"""
    return bool(places_of(tokens_of(line, 1, 1), [Taught(words, _texts(words), "", ())])) and bool(_texts(words))


def offer(line: str, finding: Finding, own: Sequence[str] = ()) -> Offer | None:
    """The words of a line at which a finding says that they are not understood, up to where the clause ends."""
    if finding.code not in ("not-understood", "words-not-worked"):
        return None
    tokens: list[Token] = []
    for token in tokens_of(line, finding.span.line, 1, max(0, finding.span.column - 1)):
        if token.is_mark(*_ENDS) or len(tokens) == MOST_WORDS:
            break
        tokens.append(token)
    tokens = _unknown(tokens, own)
    if not any(token.kind == "word" for token in tokens):
        return None
    words = " ".join(line[tokens[0].span.column - 1 : tokens[-1].span.end_column - 1].split())
    return Offer(words, words_change_nothing(words, own))


_BEFORE = word_list("in into with through by the a an")


def _unknown(tokens: list[Token], own: Sequence[str]) -> list[Token]:
    """From the first word that the language does not know to the last one; all of them where it knows each."""
    known = CRAFT | USUAL_WORDS | {*stitch_words("US"), *stitch_words("UK"), *own, *_BEFORE}
    unknown = [at for at, token in enumerate(tokens) if token.kind == "word" and token.text not in known]
    if not unknown:
        return tokens
    first = unknown[0]
    while first and tokens[first - 1].is_word(*_BEFORE):
        first -= 1
    return tokens[first : unknown[-1] + 1]


def teach(text: str, words: str, meaning: str, terms: Terms, own: Sequence[str] = ()) -> Edit | Finding:
    """The edit that writes a phrase into the head of a text; a finding where it may not be taught."""
    words, meaning = " ".join(words.replace('"', " ").split()), " ".join(meaning.split())
    line = f'Means: "{words}" = {meaning}'
    read = read_phrase(line.partition(":")[2], Span(1, 1, 2), terms, own)
    if isinstance(read, Finding):
        return read
    at = _place(text.split("\n"))
    return Edit(Span(at, 1, 1), line + "\n")


_HEAD_LINE = re.compile(
    r"\s*(?:pattern|name|title|terms|sizes?|units?|gauge|tension|yarn|hook|define|number|colou?rs?|notes?|means)\s*:",
    re.IGNORECASE,
)
_BODY_LINE = re.compile(r"\s*(?:section\s*:|(?:rn?ds?|rows?|rounds?|r)\s*\d)", re.IGNORECASE)


def _place(rows: Sequence[str]) -> int:
    """The line, from 1, before which a new line of the head goes: behind the last one that is there, or behind the
    name."""
    body = next((at for at, row in enumerate(rows) if _BODY_LINE.match(row)), len(rows))
    last = max((at for at, row in enumerate(rows[:body]) if _HEAD_LINE.match(row)), default=None)
    if last is None:
        first = next((at for at, row in enumerate(rows) if row.strip()), 0)
        last = first if first < body - 1 and ":" not in rows[first] and not rows[first + 1].strip() else -1
    return last + 2
