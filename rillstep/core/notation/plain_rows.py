"""Lines of words about plain rows ("Work even for 20 more rows.") and about loops of chains, on which nothing else
hangs."""

import re
from dataclasses import replace

from rillstep.core.clauses.measured import not_counted, split_until
from rillstep.core.clauses.steps import read_steps
from rillstep.core.craft import stitch_words
from rillstep.core.findings import Finding, Span
from rillstep.core.notation.unlabelled import only_a_loop, title_ends
from rillstep.core.reading.places import STITCHES
from rillstep.core.reading.stated_totals import split_totals
from rillstep.core.tree import Chain, Every, Gesture, Row, ToEnd, Work
from rillstep.core.tree.features import main_stitch
from rillstep.core.tree.leaves import Coming
from rillstep.core.words.asides import instructions, kept_among
from rillstep.core.words.lexicon import ROWS
from rillstep.core.words.stream import Context, Stream, plain_num


def makes_a_loop(text: str, line: int, context: Context) -> bool:
    """Does a line of words only make a loop of chains?"""
    stream = instructions(text, line, context, title_ends(text), len(text))
    steps = read_steps(stream)
    return not stream.findings and only_a_loop(steps)


_EVEN = re.compile(
    r"^\s*(?:then\s+|now\s+)?(?:(?:continue|work)\s+in\s+(?:rows|rounds|rnds)\s+of\s+\d|"
    r"(?:(?:work|continue|crochet|keep|go)\b[^.;]{0,40})?\b(?:even|straight|plain|"
    r"without (?:shaping|increasing|decreasing))\b"
    r"|work\s+\d+\s*(?:[(\[][\d\s,;:/|]+[)\]]\s*)?(?:more\s+)?(?:rows|rounds|rnds)\s+(?:even|"
    r"straight|plain)\b|work\s+\d+\s+(?:rows|rounds|rnds)\s+(?:each|in each)\b)",
    re.IGNORECASE,
)


_UNTIL = re.compile(r"^\s*(?:then\s+|now\s+)?(?:continue|work|keep)\b[^.;\d]{0,40}\b(?:until|till)\b", re.IGNORECASE)
_OF_EVEN = (
    "work", "working", "continue", "continuing", "even", "straight", "plain", "for", "more", "further", "additional",
    "until", "till", "there", "are", "you", "have", "in", "total", "without",
    "shaping", "increasing", "decreasing", "then", "now", "each", "with", "and", "of", "the", "a", "crochet", "keep",
    "go", "on", "next", "pattern", "colour", "color", "yarn", "mc", "cc", "done", "worked", "all",
    "same", "st", "stitch", "stitches", "this", "way", "piece", "on", "these", "another", "sts", "around", "across",
    *ROWS,
)  # fmt: skip


def _says_only_how_many(stream: Stream) -> bool:
    """Is a sentence made of nothing but words for plain rows, colours and numbers?"""
    known = stitch_words(stream.context.terms)
    return all(
        token.kind == "num"
        or token.is_word(*_OF_EVEN)
        or token.is_mark(",", ".", ";", "-")
        or token.text in known
        or (token.kind == "word" and len(token.text) == 1)
        for token in stream.tokens
    )


def read_even(
    text: str, line: int, context: Context, expected: Coming, before: Row
) -> tuple[Row, tuple[Finding, ...]] | None:
    """Plain rows that only say how many they are; None for any other line."""
    if not _EVEN.match(text) and not _UNTIL.match(text):
        return None
    at_end, _ = split_totals(text, line, context, 0)
    end = at_end.end
    text, until = split_until(text, line, context, 0, end)
    if until is None and not _EVEN.match(text):
        return None
    stream = instructions(text, line, context, 0, end)
    if not _says_only_how_many(stream):
        return None
    many, stitch = None, main_stitch(before.steps)
    while many is None and until is None and stream.peek() is not None:
        if (number := stream.number()) is None:
            stream.next()
            continue
        if "until" in (words := {token.text for token in stream.tokens}) or "till" in words:
            if not any(token.is_word("until", "till") for token in stream.tokens[: stream.at]):
                continue  # "work 4 rows each with A and B until 48 rows are done"
            of_rows = stream.word(*ROWS)
            many = number.plus(expected.number, -1, 1) if of_rows else None
            if many is not None and any(v is not None and v < 0 for v in many.values):
                many = replace(many, values=tuple(v and max(0, v) for v in many.values), forms=())
            break
        stream.word("more", "further", "additional", "plain", "even")
        many = number if stream.word(*ROWS) else None
    known = stitch_words(context.terms)
    stitch = next((known[token.text] for token in stream.tokens if token.text in known), stitch)
    if (many is None and until is None) or stitch is None or at_end.findings or stream.findings:
        return None
    coming = expected.only(context.active)
    span = Span(line, 1, len(text) + 1)
    plain = next((s for s in before.steps if isinstance(s, Work) and isinstance(s.into, Every)), None)
    every = Work(
        stitch, plain_num(stream, 1), Every(STITCHES, ToEnd("around" if before.kind == "Rnd" else "across")), span=span
    )
    every = replace(every, loop=plain.loop if plain is not None and plain.stitch == stitch else "both")
    first = next((i for i, s in enumerate(before.steps) if not isinstance(s, Chain | Gesture)), 0)
    last = max((i for i, s in enumerate(before.steps) if not isinstance(s, Chain | Gesture)), default=0)
    ends = tuple(s for s in before.steps[last + 1 :] if not isinstance(s, Gesture) or s.kind in ("join", "turn"))
    steps = (*(s for s in before.steps[:first] if isinstance(s, Chain)), every, *ends)
    ends_with = coming.plus(many, by=-1) if many is not None else None
    return Row(
        before.kind,
        coming,
        ends_with,
        steps,
        at_end.totals,
        context.active,
        None,
        span,
        span,
        kept=kept_among(stream, steps),
        until=until,
    ), tuple(not_counted(until, ends_with))
