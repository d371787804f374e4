"""Lines that work stitches and have no label: "Work 10 rounds even in sc.", "Ch 121, sl st in 2nd ch from hook and in
each ch across."

They are rows like others, with the number that comes next. A line that seems to instruct and cannot be
read so is kept as words, and the reader is told that it was not worked.
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from rillstep.core.clauses.steps import read_steps
from rillstep.core.craft import name_expression, stitch_words
from rillstep.core.findings import Finding, Span
from rillstep.core.notation.rewriting import rewritten
from rillstep.core.tree import (
    Chain,
    Evenly,
    Every,
    Foundation,
    FromHook,
    Gesture,
    InRing,
    Kept,
    Next,
    Num,
    Repeat,
    Skip,
    Step,
    ToEnd,
    Total,
    What,
    Work,
)
from rillstep.core.wordlists import word_list
from rillstep.core.words.asides import kept_among
from rillstep.core.words.ledger import uncounted
from rillstep.core.words.lexicon import ROWS
from rillstep.core.words.stream import NotUnderstood, Stream
from rillstep.core.words.tokens import Token

_LEADING = word_list("work working continue continuing crochet now then even evenly in of to with next and")
_MORE = ("more", "additional", "further", "even", "plain", "straight")
_STITCHES = name_expression()
_INSTRUCTS = re.compile(
    rf"\b(?:f(?:sc|hdc|dc|tr)\s+\d|\d[\d (),/]{{0,30}}\sfoundation\s+(?:sc|hdc|dc|single|half|"
    rf"double)\b|\d+\s+f?{_STITCHES}\b(?!\s*(?:rows?|rnds?|=|\(?in total))|{_STITCHES}"
    r"\s+(?:in|into|\d|around|across|evenly|blo|flo)\b|"
    r"^\s*work(?:ing)?\s+\d[^.;]{0,30}\b(?:rows|rounds|rnds)\b|^\s*rep(?:eat)?\b|^\s*(?:cont(?:inue)?\.?|"
    r"carry on|keep)\b[^.;]{0,60}\b(?:increasing|decreasing|inc|dec)\s+\d|^\s*(?:cont(?:inue)?\.?|"
    r"keep)\s+(?:on\s+)?(?:increasing|decreasing|to\s+(?:increase|decrease))\b|(?:sl "
    r"st|ss|slst)\s+(?:in|into|across|around|through\s+(?:both|all)\s+\w+\s+(?:across|"
    r"around))\b|(?:sk|skip|miss)\s+(?:next\s+)?\d)",
    re.IGNORECASE,
)
# A gauge that is told works nothing.
_MEASURES = re.compile(
    r"\b(?:gauge|tension)\b|\d\s*(?:cm|inches|inch|in)\b\.?\s*$|=\s*\d+\s*(?:x\s*\d+\s*)?(?:cm|in)\b", re.IGNORECASE
)
_COUNTS_AS = re.compile(r"\bcounts?\s+as\s+(?:the\s+)?(?:first|one|an?|1)\s+\w+", re.IGNORECASE)
# What is sewn makes no row.
_PUTS_TOGETHER = re.compile(r"\b(?:sew|sewn|sewing|whip ?stitch|mattress stitch)\b", re.IGNORECASE)
# How one stitch is made.
_HANDWORK = re.compile(
    r"\b(?:yarn over|insert (?:the )?hook|(?:draw|pull) (?:up|it|the loop|through)|(?:drop|remove) (?:the )?loop)\b",
    re.IGNORECASE,
)
_TITLE = re.compile(r"^\s*(?:[A-Za-z][\w' -]{0,30}(?:\([^()]{1,30}\)\s*|,\s*make\s+\w+\s*)?:\s*)?(?=\S)")


def alone(steps: tuple[Step, ...], kind: str) -> tuple[Step, ...]:
    """ "R7: sc" is sc all around: one stitch alone would be no row."""
    works = [step for step in steps if not (isinstance(step, Chain | Gesture))]
    one = works[0] if len(works) == 1 else None
    if not (isinstance(one, Work) and isinstance(one.into, Next) and one.into.what == What("st")):
        return steps
    if one.into.count.parts or not one.per.is_always(1):
        return steps
    every = replace(one, into=Every(one.into.what, ToEnd("around" if kind == "Rnd" else "across")))
    return tuple(every if step is one else step for step in steps)


@dataclass(frozen=True)
class Even:
    """So many rows worked alike: "Row" or "Rnd", how many, what is worked in each, and words besides."""

    kind: Literal["Rnd", "Row"]
    many: Num
    steps: tuple[Step, ...]
    kept: tuple[Kept, ...]


def even_rows(body: Stream) -> Even | None:
    """ "Work 10 (12) rounds even in hdc", "Sc in each st around for 8 rnds"; None for anything else. The stream is
    only looked at."""
    tokens, context = body.tokens, body.context
    first = tokens[0] if tokens else None
    if (
        first is None
        or first.kind != "word"
        or not (first.is_word(*_LEADING, "blo", "flo") or first.text in stitch_words(context.terms))
    ):
        return None
    at = next((i for i, token in enumerate(tokens) if token.kind in ("num", "expr") and _counts_rows(tokens, i)), None)
    if at is None:
        return None
    last = at + 1
    while not tokens[last].is_word(*ROWS):
        last += 1
    kind: Literal["Rnd", "Row"] = "Row" if tokens[last].text.startswith("row") else "Rnd"
    last += 1
    while last < len(tokens) and tokens[last].is_word(*_MORE):
        last += 1
    begin = at
    while begin and tokens[begin - 1].is_word(
        "for", "the", "next", "another", "a", "total", "of", "further", "following"
    ):
        begin -= 1
    rest = [*tokens[:begin], *tokens[last:]]
    counting = Stream([tokens[at]], context, body.end)
    try:
        number = counting.need_number("rows")
    except NotUnderstood:
        return None
    told = 0
    comma = next((i for i, token in enumerate(tokens[:6]) if token.is_mark(",")), None)
    if comma is not None and comma < begin and tokens[0].is_word("with", "using"):
        told = comma + 1  # "With colour 2, work 4 rows in sc"
    lead = told
    while lead < len(rest) and rest[lead].is_word(*_LEADING):
        lead += 1
    stream = Stream([*rest[:told], *rest[lead:]], replace(context, kind=kind), body.end, body.text)
    stream.told = body.told
    steps = alone(read_steps(stream), kind)
    if counting.findings or stream.findings or uncounted(stream, (steps, tuple(stream.totals))) or stream.totals:
        return None
    if not any(isinstance(step, Work | Repeat) for step in steps):
        return None
    plain = rewritten(steps, kind)
    return Even(kind, number, plain, kept_among(stream, plain))


def _counts_rows(tokens: Sequence[Token], at: int) -> bool:
    following = at + 1
    while following < len(tokens) and tokens[following].is_word(*_MORE):
        following += 1
    return (
        following < len(tokens)
        and tokens[following].is_word(*ROWS)
        and not (following + 1 < len(tokens) and tokens[following + 1].is_word("below", "down"))
        and not (at and tokens[at - 1].is_word(*ROWS, "row", "until"))
    )


def whole_row(steps: tuple[Step, ...], totals: tuple[Total, ...]) -> bool:
    """Do these steps make a row by themselves: to an end, from a new foundation, or with a total?"""
    works = [step for step in steps if not isinstance(step, Gesture | Chain)]
    if not works:
        return False
    ends = any(
        isinstance(getattr(s, "into", None), Every)
        or isinstance(getattr(s, "times", None), ToEnd)
        or getattr(s, "end", None)
        for s in works
    )
    full = len(works) >= 4 and any(isinstance(step, Skip | Chain) for step in steps)
    return (
        full
        or bool(totals)
        or ends
        or any(isinstance(s, Evenly | Foundation) for s in works)
        or any(isinstance(getattr(s, "into", None), FromHook | InRing) for s in works)
    )


def starts_piece(steps: tuple[Step, ...]) -> bool:
    """Do they begin with a foundation of their own?"""
    if any(isinstance(step, Foundation) for step in steps):
        return True
    chained = isinstance(steps[0], Chain) if steps else False
    into = next((s.into for s in steps if isinstance(s, Work) and s.into is not None), None)
    return chained and isinstance(into, FromHook)


def kind_of(steps: tuple[Step, ...], usual: Literal["Rnd", "Row"]) -> Literal["Rnd", "Row"]:
    """Is it a row or a round? What it says of itself, or what the section is worked in."""
    kinds = {step.kind for step in steps if isinstance(step, Gesture)}
    if kinds & {"join"}:
        return "Rnd"
    if "turn" in kinds or starts_piece(steps):
        return "Row"
    return usual


def title_ends(text: str) -> int:
    """Where the instructions begin after a title of a few words and a colon ("Cord: ch 121, ...")."""
    match = _TITLE.match(text)
    return match.end() if match is not None else 0


# What holds for all rounds is a note.
_OF_ALL = re.compile(
    r"\bunless\b|\botherwise\b|\bthroughout\b|"
    r"\b(?:each|every) (?:rn?ds?|rounds?|rows?) (?:ends|begins|starts|is|are)\b|"
    r"^\W*(?:\d\W+)?join (?:each|all|every) (?:rn?ds?|rounds?)\b",
    re.IGNORECASE,
)


def instructs(text: str) -> bool:
    """Does a line that is kept as words seem to instruct?"""
    return (
        _OF_ALL.search(text) is None
        and _INSTRUCTS.search(_COUNTS_AS.sub("", text)) is not None
        and _MEASURES.search(text) is None
        and _PUTS_TOGETHER.search(text) is None
        and _HANDWORK.search(text) is None
    )


def only_a_loop(steps: tuple[Step, ...]) -> bool:
    """ "Join yarn at the tip, ch 8, sl st in same st. Fasten off.": a loop of chains, of which nothing else depends."""
    works = [step for step in steps if isinstance(step, Work)]
    rest = all(isinstance(step, Chain | Gesture | Work) for step in steps)
    return rest and any(isinstance(step, Chain) for step in steps) and all(work.stitch == "sl st" for work in works)


def not_worked(span: Span) -> Finding:
    """The warning for such a line."""
    message = (
        "This line has no label and is kept as words: it is not worked. Begin it "
        "with “Rnd 9:” or “Row 9:” to have it proved."
    )
    return Finding("not-worked", "warning", span, message)
