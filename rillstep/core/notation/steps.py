"""The body of a line into steps: "Ch 1, sc in same st, [sc in next 2 sts, 2 sc in next st] 3 times; join."

A clause that cannot be read becomes a finding that names its words; the clauses around it
are still read. Clauses that begin alike are told apart here; what they hold is read in
`gestures`, `chains`, `works` and `brackets`.
"""

import difflib

from rillstep.core.findings import Finding
from rillstep.core.notation import brackets, chains, works
from rillstep.core.notation.gestures import names_colour, read_gesture
from rillstep.core.notation.stream import NotUnderstood, Stream
from rillstep.core.notation.tree import Skip, Step
from rillstep.core.notation.whats import STITCHES, plain_num, read_what
from rillstep.core.stitches import GATHERED, PICOT, stitch_words

SEPARATORS = (",", ";", ".", ":", "-", "—", "&")
_BETWEEN = (
    "then",
    "and",
    "now",
    "working",
    "also",
    "again",
    "finally",
    "but",
    "with",
    "carefully",
    "loosely",
)


def read_steps(stream: Stream, closing: str | None = None) -> tuple[Step, ...]:
    """Steps up to the closing bracket, or to the end of the line when there is none."""
    steps: list[Step] = []
    while (token := stream.peek()) is not None:
        if closing is not None and (token.is_mark(closing) or (closing == "*" and token.is_mark("**"))):
            return tuple(steps)
        if _is_cut_off(stream):
            message = "The line is cut off here: what is left out cannot be worked."
            stream.findings.append(Finding("not-understood", "error", token.span, message))
            stream.at = len(stream.tokens)
            continue
        if token.is_mark(*SEPARATORS) or (token.is_word(*_BETWEEN) and not _opens(stream)):
            stream.at += 1
            continue
        if closing == "*" and token.is_word("rep", "repeat"):
            return tuple(steps)
        start = stream.at
        try:
            steps += read_clause(stream, steps)
        except NotUnderstood as problem:
            _give_up_clause(stream, start, problem, closing)
    if closing is not None and closing != "*":
        raise NotUnderstood(stream.end, f"a “{closing}” is missing")
    return tuple(steps)


def _is_cut_off(stream: Stream) -> bool:
    """ "..." where instructions should stand."""
    token, second, third = stream.peek(), stream.peek(1), stream.peek(2)
    if token is not None and token.is_mark("…"):
        return True
    return all(t is not None and t.is_mark(".") for t in (token, second, third))


def _opens(stream: Stream) -> bool:
    """Does this in-between word begin a clause of its own?"""
    if names_colour(stream):
        return True
    return (
        stream.sees("working")
        or stream.sees("with", "rs")
        or stream.sees("with", "right")
        or stream.sees("now", "work")
    )


def read_clause(stream: Stream, before: list[Step]) -> list[Step]:
    """One clause; more than one step where it names several places. Raises NotUnderstood."""
    start = stream.at
    token = stream.peek()
    assert token is not None
    gesture = read_gesture(stream)
    if gesture is not None:
        return gesture
    if token.is_mark("[", "(", "{"):
        return brackets.read_bracket(stream, before, read_steps)
    if token.is_mark("*", "**"):
        return brackets.read_starred(stream, read_steps)
    if stream.word("rep", "repeat"):
        return brackets.read_bare_repeat(stream, before, start)
    if stream.word("sk", "skip", "miss", "skipping", "missing"):
        return [_read_skip(stream, start)]
    if stream.word("ch", "chain", "chs"):
        return chains.read_chain(stream, start)
    if (
        token.kind == "num"
        and (following := stream.peek(1)) is not None
        and following.is_word("ch", "chs", "chain", "chains")
    ):
        return chains.read_counted_chain(stream, start)
    return works.read_works(stream, start)


def _read_skip(stream: Stream, start: int) -> Step:
    stream.word("the")
    first = stream.word("first") or _is_first(stream)
    stream.word("next", "following", "last", "a", "this")
    number = stream.number() or plain_num(stream, 1)
    what = read_what(stream) or STITCHES
    return Skip(number, what, first and number.is_always(1), stream.since(start))


def _is_first(stream: Stream) -> bool:
    token = stream.peek()
    if token is not None and token.kind == "ordinal" and token.text == "1st":
        stream.at += 1
        return True
    return False


def _give_up_clause(stream: Stream, start: int, problem: NotUnderstood, closing: str | None) -> None:
    """Step over a clause that was not understood, and say so, naming its words."""
    stream.at = max(stream.at, start + 1)
    while (token := stream.peek()) is not None and not token.is_mark(",", ";", ".", "]", ")"):
        stream.at += 1
    if closing is None and (token := stream.peek()) is not None and token.is_mark("]", ")"):
        stream.at += 1
    span = stream.since(start)
    words = " ".join(token.text for token in stream.tokens[start : stream.at])
    foreign = _foreign_word(stream, start)
    if foreign is not None:
        other = "UK" if stream.context.terms == "US" else "US"
        message = f"“{foreign}” is a {other} name, and this text is in {stream.context.terms} terms: “{words}” is not understood."
        stream.findings.append(Finding("terms-mixed", "error", span, message))
        return
    detail = f": {problem.message}" if problem.message else ""
    message = f"“{words}” is not understood{detail}.{_did_you_mean(stream, start)}"
    stream.findings.append(Finding(problem.code, "error", span, message))


def _foreign_word(stream: Stream, start: int) -> str | None:
    """A stitch that has this name only on the other side of the ocean."""
    other = stitch_words("UK" if stream.context.terms == "US" else "US")
    mine = stitch_words(stream.context.terms)
    found = (
        t.text for t in stream.tokens[start : stream.at] if t.kind == "word" and t.text in other and t.text not in mine
    )
    return next(found, None)


def _did_you_mean(stream: Stream, start: int) -> str:
    known = [
        *stitch_words(stream.context.terms),
        *GATHERED,
        PICOT,
        "ch",
        "sk",
        "inc",
        "dec",
        "join",
        "turn",
        "rotate",
        "repeat",
    ]
    known += [name for name, _ in stream.context.specials]
    for token in stream.tokens[start : stream.at]:
        if token.kind == "word" and token.text not in known and len(token.text) > 1:
            near = difflib.get_close_matches(token.text, known, 1, 0.6)
            if near:
                return f" Did you mean “{near[0]}”?"
    return ""
