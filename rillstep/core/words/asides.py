"""Words that change nothing in what is worked: the only room that may keep words.

Words are kept where they hold no number and no word of the craft, but for what a table calls harmless. Whatever else is
not read is not understood. What is kept stays in the line (`Kept`) and is printed as it was written.
"""

import difflib
import re
from collections.abc import Sequence
from dataclasses import replace

from rillstep.core.craft import GATHERED, stitch_words
from rillstep.core.memory import remember
from rillstep.core.tree import Kept, Step
from rillstep.core.wordlists import word_list
from rillstep.core.words.lexicon import (
    ALONE_IN_BRACKETS,
    ASIDE_BEGINS,
    CRAFT,
    FINISHING,
    HANDS,
    HARMLESS,
    MEASURES,
    NEAR_CRAFT,
    SAY_NOTHING,
    STRANDS,
    TITLE_WORDS,
    TITLED,
    TURNING_MEANING,
    USUAL_WORDS,
    WORD_NUMBERS,
)
from rillstep.core.words.stitch_names import sees_stitch
from rillstep.core.words.stream import Context, Passed, Stream, stream_over
from rillstep.core.words.tokens import Token, bracket_end

_ENDS = word_list(", ; . : ] ) [ ( * ** —")
_PLAIN_MARKS = ("-", "'", '"', "/", "!", "?", "&", "%", "°")
_USED = word_list("in into around across twice once x to all over rep repeat times")
MOST_WORDS = 60


def changes_nothing(stream: Stream, first: int, last: int) -> bool:
    """Do tokens hold no number and no word of the craft, beyond what is harmless?"""
    tokens = stream.tokens[first:last]
    if not tokens or len(tokens) > MOST_WORDS or any(t.kind == "expr" for t in tokens):
        return False
    words: list[str] = []
    for at, token in enumerate(tokens):
        if token.kind == "mark" and token.text not in (*_PLAIN_MARKS, ",", ".", ":", ";", "—"):
            return False
        if token.kind == "num" and _measures(tokens, at):
            continue
        words.append(token.text)
    own = tuple(part for _, parts in stream.context.specials for part in parts)
    return _harmless(" ".join(words), stream.context.terms, own)


def _measures(tokens: Sequence[Token], at: int) -> bool:
    """Is a number one of centimetres, grams, hooks or the like, and none of stitches?"""
    following = next((t for t in tokens[at + 1 : at + 3] if not t.is_mark("-", "/")), None)
    return following is not None and (following.is_word(*MEASURES) or following.is_mark('"'))


@remember(8192)
def _harmless(text: str, terms: str, own: tuple[str, ...]) -> bool:
    for phrase in HARMLESS:
        text = phrase.sub(" ", text)
    words = re.findall(r"[^\W_][\w'-]*", text)
    if any(word[0].isdigit() for word in words):
        return False
    names = {*stitch_words("US"), *stitch_words("UK"), *GATHERED, *own}
    parts = {part for word in words for part in (word, *word.split("-"))}
    return not (parts & CRAFT or parts & names or _has_slip(words))


def words_change_nothing(words: str, own: Sequence[str] = ()) -> bool:
    """May it be said of a phrase, anywhere in a line, that it changes nothing: is there no number and no word of the
    craft in it?

    own: names of stitches of the text's own. What the table calls harmless is not looked at: only the words
    themselves are.
    """
    found = re.findall(r"[^\W_][\w'’-]*", words.lower().replace("’", "'"))
    parts = {part for word in found for part in (word, *word.split("-"))}
    named = {*stitch_words("US"), *stitch_words("UK"), *GATHERED, *own}
    if not found or any(letter.isdigit() for letter in words) or parts & WORD_NUMBERS:
        return False
    return not (parts & (CRAFT | TURNING_MEANING | named) or _has_slip(found))


def may_change_work(words: str) -> bool:
    """May words that are kept behind a stitch say how it is worked? They may where they name strands of it, or begin
    as no aside does that is known to say nothing of it: "catching just the far strand"."""
    text = " ".join(words.lower().replace("’", "'").split())
    for phrase in HARMLESS:
        text = phrase.sub(" ", text)
    found = re.findall(r"[a-z][\w'-]*", text)
    if not found or " ".join(found) in SAY_NOTHING or _STRANDS_HELD.search(text):
        return False
    return bool(STRANDS & set(found)) or not (found[0] in ASIDE_BEGINS or found[0] in HANDS or len(found) < 3)


# "two strands held together": yarns, and not the strands of a stitch.
_STRANDS_HELD = re.compile(r"\bstrands?\b[^,;]*\b(?:held|together|of yarn)\b|\b(?:hold|holding)\b[^,;]*\bstrands?\b")


def _has_slip(words: Sequence[str]) -> bool:
    """Could one of these words be an instruction that is misspelt?"""
    return any(
        len(word) > 2
        and word not in USUAL_WORDS
        and word not in HANDS
        and difflib.get_close_matches(word, NEAR_CRAFT, 1, 0.75)
        for word in words
    )


def keep(stream: Stream, first: int, bracket: bool = False) -> None:
    """Keep the tokens from `first` up to the cursor as words."""
    last = stream.at
    inner = (first + 1, last - 1) if bracket else (first, last)
    while not bracket and inner[0] < inner[1] and stream.tokens[inner[1] - 1].is_mark(",", ";", ":"):
        inner = (inner[0], inner[1] - 1)
    words = stream.written(*inner)
    if words:
        stream.kept.append(Passed(first, last, words, bracket, stream.since(first)))


def keep_phrase(stream: Stream, first: int) -> bool:
    """Keep the tokens from `first` up to the next mark, where they change nothing; else the cursor is put back to
    `first`."""
    end = first
    while end < len(stream.tokens) and not stream.tokens[end].is_mark(*_ENDS):
        end += 1
    if changes_nothing(stream, first, end):
        stream.at = end
        keep(stream, first)
        return True
    stream.at = first
    return False


def keep_title(stream: Stream) -> bool:
    """Keep "Front:" or "Across the back:" within a row, which tells where its part lies and changes nothing; nothing
    else is taken."""
    tokens, start = stream.tokens, stream.at
    end = start
    while (
        end < len(tokens)
        and end - start < MOST_OF_TITLE
        and tokens[end].kind == "word"
        and tokens[end].text in TITLE_WORDS
    ):
        end += 1
    named = any(token.text in TITLED for token in tokens[start:end])
    if not named or end >= len(tokens) or not tokens[end].is_mark(":"):
        return False
    stream.at = end
    keep(stream, start)
    stream.at = end + 1
    return True


MOST_OF_TITLE = 6


def keep_strands(stream: Stream) -> bool:
    """Keep "with one yarn", "using two strands held together": how many strands are held, which makes no stitch;
    nothing else is taken."""
    start = stream.at
    if stream.word("with", "using", "holding"):
        number = stream.peek()
        if number is not None and number.kind == "num":
            stream.next()
        if number is not None and number.kind == "num" and stream.word("yarn", "yarns", "strand", "strands", "threads"):
            stream.any_of("of yarn", "of the yarn")
            stream.any_of("held together", "held double", "together")
            keep(stream, start)
            stream.mark(",")
            return True
    stream.at = start
    return False


def keep_clause(stream: Stream, start: int) -> bool:
    """Keep the clause from token `start` on, when words that change nothing are all it can be; nothing is taken
    otherwise.

    The cursor may stand further on, where reading the clause failed.
    """
    tokens, end = stream.tokens, start
    if tokens[start].is_word(*FINISHING) and (not start or tokens[start - 1].is_mark(".", ";", ":")):
        while end < len(tokens) and not tokens[end].is_mark(".", ";"):
            end += 1
        stream.at = start
        stream.at = end
        keep(stream, start)
        return True
    while end < len(tokens) and not tokens[end].is_mark(*_ENDS):
        if tokens[end].is_word("and") and end > start and (_works_next(stream, end + 1) or _goes_on(tokens, end + 1)):
            break  # "fold flat and sl st through both layers"
        end += 1
    words = [token.text for token in tokens[start:end] if token.kind == "word"]
    hands = bool(words) and words[0] in HANDS
    if not words or not changes_nothing(stream, start, end) or (not hands and len(words) < 3 and not _is_known(words)):
        return False
    stream.at = start
    stream.at = end
    keep(stream, start)
    return True


def _is_known(words: list[str]) -> bool:
    """Is so short a clause one that is known to say nothing? A word or two may be the name of a stitch."""
    return any(pattern.fullmatch(" ".join(words)) for pattern in HARMLESS) or " ".join(words) in SAY_NOTHING


def keep_bracket(stream: Stream) -> bool:
    """Keep the bracket that comes next, when it only tells: "(picot made)", "(for the strap)"; nothing is taken
    otherwise."""
    end = bracket_end(stream.tokens, stream.at)
    if end is None or end - stream.at < 3:
        return False
    following = stream.tokens[end] if end < len(stream.tokens) else None
    if following is not None and (following.kind == "num" or following.is_word(*_USED)):
        return False
    words = [token.text for token in stream.tokens[stream.at + 1 : end - 1]]
    if _COUNTS & set(words) and words[0] not in HANDS:
        return False  # "(does not count)"
    least = 2 if not (words[0] in HANDS or _is_known(words) or words[0] in ALONE_IN_BRACKETS) else 1
    letter = (
        len(words) == 1
        and words[0] != "x"
        and (words[0] in ("mc", "cc") or (len(words[0]) == 1 and words[0].isalpha()))
    )
    if not letter and (len(words) < least or not changes_nothing(stream, stream.at + 1, end - 1)):
        return False
    start, stream.at = stream.at, end
    keep(stream, start, bracket=True)
    return True


_COUNTS = frozenset(["count", "counts", "counted", "counting"])


def keep_finish(stream: Stream) -> bool:
    """ "... and weave in the ends", "..., then sew to the back": what is done when the yarn is off the hook; kept to
    the end of the sentence."""
    start = stream.at
    stream.mark(",")
    stream.word("and", "then", "to") and stream.word("then")
    token = stream.peek()
    if token is None or not token.is_word(*FINISHING):
        stream.at = start
        return False
    begin = stream.at
    while (token := stream.peek()) is not None and not token.is_mark(".", ";"):
        stream.next()
    keep(stream, begin)
    return True


def _goes_on(tokens: Sequence[Token], at: int) -> bool:
    return (
        at + 1 < len(tokens)
        and tokens[at].is_word("working", "work")
        and tokens[at + 1].is_word("through", "in", "into")
    )


def _works_next(stream: Stream, at: int) -> bool:
    """Does a stitch come next, worked from token `at` on?"""
    kept = stream._at
    stream._at = at  # looked at only: nothing that is kept may be given up for it
    found = sees_stitch(stream) is not None
    stream._at = kept
    return found


def _holds(kept: Passed, told: Passed) -> bool:
    return not kept.bracket and kept.span.column <= told.span.column < kept.span.end_column


def kept_among(stream: Stream, steps: Sequence[Step]) -> tuple[Kept, ...]:
    """What the ledger of a stream keeps, each with how many of the steps begin before it."""
    columns = [step.span.column for step in steps]
    return tuple(
        Kept(one.words, sum(column < one.span.column for column in columns), one.bracket, one.span)
        for one in sorted(
            [*stream.kept, *(t for t in stream.told if not any(_holds(k, t) for k in stream.kept))],
            key=lambda one: one.span,
        )
    )


def instructions(text: str, line: int, context: Context, start: int, end: int) -> Stream:
    """A stream over the instructions text[start:end]; brackets that only tell, wherever they stand, are in its
    ledger."""
    stream = stream_over(text, line, context, start, end)
    if not any(token.is_mark("(", "[") for token in stream.tokens):
        return stream
    rest: list[Token] = []
    at = 0
    while at < len(stream.tokens):
        close = bracket_end(stream.tokens, at) if stream.tokens[at].is_mark("(", "[") else None
        if close is not None and close - at > 3 and not stream.tokens[at + 1].is_word("rs", "ws", "right", "wrong"):
            stream.at = at
            if keep_bracket(stream):
                told = stream.kept.pop()
                stream.told.append(replace(told, first=len(rest), last=len(rest)))
                at = close
                continue
        rest.append(stream.tokens[at])
        at += 1
    stream.at = 0
    stream.use(rest)
    return stream
