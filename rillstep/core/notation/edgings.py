"""Edges of a whole piece that a sentence tells: "Sc evenly around the base, 3 sc in each corner. [64 sc]".

What is worked in each side is mostly not said, and need not be: so many stitches are there afterwards. They are taken
from the total that the sentence states, and what follows is judged from them.
"""

import re

from rillstep.core.craft import BY_US, stitch_words
from rillstep.core.findings import Finding, Span
from rillstep.core.reading.stated_totals import split_totals
from rillstep.core.tree import Evenly, Gesture, Num, Setup
from rillstep.core.words.stream import Context, NotUnderstood, stream_over

MOST_OF_EDGING = 600
_PLAIN = re.compile(
    r"^\s{0,8}(?P<number>\d[\d\s,()]{0,80}?)\s{0,3}(?P<stitch>[a-z]{2,5}) evenly around all edges\b", re.IGNORECASE
)
_EVEN = re.compile(r"\b(?:evenly|around|along|across)\b", re.IGNORECASE)
_SIDES = re.compile(
    r"\b(?:edges?|sides?|ends|piece|rectangle|square|panel|base|bottom|outside|perimeter|"
    r"(?:all|whole) (?:the )?(?:way )?around)\b",
    re.IGNORECASE,
)
# What holds two pieces together has an edge of its own, which is not told so.
_OF_TWO = re.compile(
    r"\b(?:both|together|layers|seams?|pieces|panels|circles|squares|motifs|sew|whip)\b", re.IGNORECASE
)
_SO_MANY = re.compile(
    r"(?:[:=–—-]\s?|[(\[]\s?)(?P<number>\d{1,4}(?:\s?[(\[][\d\s,;:/]{1,40}[)\]]|(?:/\d{1,4}){1,9})?)\s?(?:sts?|"
    r"stitches|[a-z]{2,3})\b(?!\s(?:in(?! total| all)|on|along|down|up|per|each|across|"
    r"for|at|over)\b)",
    re.IGNORECASE,
)


# Of a round with a label only this is taken so; else what it does not say well would be hidden.
_ROUND = re.compile(
    r"\s{0,3}(?:ch\s?\d[^,.;]{0,40}[,.;]\s{0,3})?(?:(?:do not turn|turn|rotate)[,.;]\s{0,3}){0,2}(?:work\s|"
    r"place\s)?[a-z]{2,3} evenly (?:all )?(?:the way )?a?round\b",
    re.IGNORECASE,
)


def as_note(text: str, context: Context) -> str:
    """The words of an edge as a note, with the terms that its stitches are in: it may be printed in others."""
    return f"In {context.terms} terms: {text.strip()}"


def is_edging(instructions: str) -> bool:
    """Does a round begin with "ch 1, sc evenly around"?"""
    return _ROUND.match(instructions) is not None


def read_plain_edging(text: str, line: int, context: Context) -> Setup | None:
    """ "64 (76) sc evenly around all edges; join.", as it is printed; None for any other line."""
    match = _PLAIN.match(text)
    if match is None:
        return None
    stitch = stitch_words(context.terms).get(match["stitch"].lower())
    count = _number(text, line, context, match.span("number"))
    return _setup(stitch, count, text, line, context) if stitch in BY_US and count is not None else None


def read_edging(text: str, line: int, context: Context) -> tuple[Setup, Finding] | None:
    """The edge that a sentence tells, with its total, and the warning that its sides are not looked at; None for any
    other line."""
    if len(text) > MOST_OF_EDGING or not _EVEN.search(text) or not _SIDES.search(text) or _OF_TWO.search(text):
        return None
    words = stitch_words(context.terms)
    stitch = next((us for word in re.findall(r"[a-z]+", text.lower()) if (us := words.get(word)) in BY_US), None)
    if stitch is None or stitch == "sl st":
        return None
    at_end, _ = split_totals(text, line, context, 0)
    stated = [total.count for total in at_end.totals if total.what in ("sts", stitch)]
    if at_end.findings or len(stated) != 1:
        told = list(_SO_MANY.finditer(text))
        count = _number(text, line, context, told[0].span("number")) if len(told) == 1 else None
    else:
        count = stated[0]
    setup = _setup(stitch, count, text, line, context) if count is not None else None
    if setup is None:
        return None
    message = (
        "What is worked along each side is not looked at here; the stitches that this line states are gone on from."
    )
    return setup, Finding("edge-not-checked", "warning", setup.span, message)


def _number(text: str, line: int, context: Context, where: tuple[int, int]) -> Num | None:
    stream = stream_over(text, line, context, *where)
    try:
        number = stream.number()
    except NotUnderstood:
        return None
    return number if not stream.findings and stream.peek() is None else None


def _setup(stitch: str | None, count: Num, text: str, line: int, context: Context) -> Setup | None:
    if stitch is None or any(value is not None and value < 1 for value in count.values):
        return None
    span = Span(line, len(text) - len(text.lstrip()) + 1, len(text) + 1)
    return Setup((Evenly(stitch, count, "all edges", span), Gesture("join", span=span)), context.active, span)
