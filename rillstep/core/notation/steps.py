"""The body of a line into steps: "Ch 1, sc in same st, [sc in next 2 sts, 2 sc in next st] 3 times; join."

A clause that cannot be read becomes a finding that names its words; the clauses around it
are still read.
"""

import difflib
import re

from rillstep.core.findings import Finding, Span
from rillstep.core.notation.lexer import Token
from rillstep.core.notation.places import CHAINS, STITCHES, STITCHES_AND, plain_num, read_end, read_into, read_what
from rillstep.core.notation.stream import NotUnderstood, Stream
from rillstep.core.notation.tree import (
    Chain,
    Gesture,
    GestureKind,
    Next,
    Repeat,
    Skip,
    Step,
    Together,
    Work,
)
from rillstep.core.stitches import Loop, stitch_words

_TOGETHER = re.compile(r"^([a-z]+?)(\d)tog$")
_STUCK = re.compile(r"^([a-z]+?)(\d{1,4})$")
_DEEPEST = 6
_SEPARATORS = (",", ";", ".")

_GESTURES: tuple[tuple[tuple[str, ...], GestureKind], ...] = (
    (("do", "not", "join"), "do not join"),
    (("join", "without", "twisting"), "join into ring"),
    (("join", "into", "a", "ring"), "join into ring"),
    (("join", "with", "sl", "st", "in", "first", "st"), "join"),
    (("join", "with", "a", "sl", "st"), "join"),
    (("join", "with", "sl", "st"), "join"),
    (("sl", "st", "in", "first", "st"), "join"),
    (("join",), "join"),
    (("turn",), "turn"),
    (("rotate",), "rotate"),
    (("fasten", "off"), "fasten off"),
    (("make", "an", "adjustable", "ring"), "adjustable ring"),
    (("place", "marker"), "place marker"),
    (("pm",), "place marker"),
    (("move", "marker"), "move marker"),
)


def read_steps(stream: Stream, closing: str | None = None) -> tuple[Step, ...]:
    """Steps up to the closing bracket, or to the end of the line when there is none."""
    steps: list[Step] = []
    while (token := stream.peek()) is not None:
        if closing is not None and token.is_mark(closing):
            return tuple(steps)
        if token.is_mark(*_SEPARATORS) or token.is_word("then", "and"):
            stream.at += 1
            continue
        start = stream.at
        try:
            steps.append(_read_step(stream))
        except NotUnderstood as problem:
            _give_up_clause(stream, start, problem, closing)
    if closing is not None:
        raise NotUnderstood(stream.end, f"a “{closing}” is missing")
    return tuple(steps)


def _give_up_clause(stream: Stream, start: int, problem: NotUnderstood, closing: str | None) -> None:
    """Step over a clause that was not understood, and say so, naming its words."""
    stream.at = max(stream.at, start + 1)
    while (token := stream.peek()) is not None and not token.is_mark(*_SEPARATORS, "]", ")"):
        stream.at += 1
    if closing is None and (token := stream.peek()) is not None and token.is_mark("]", ")"):
        stream.at += 1
    span = stream.since(start)
    words = " ".join(token.text for token in stream.tokens[start : stream.at])
    detail = f": {problem.message}" if problem.message else ""
    message = f"“{words}” is not understood{detail}.{_did_you_mean(stream, start)}"
    stream.findings.append(Finding(problem.code, "error", span, message))


def _did_you_mean(stream: Stream, start: int) -> str:
    known = [*stitch_words(stream.context.terms), "ch", "sk", "inc", "dec", "join", "turn", "rotate", "repeat"]
    for token in stream.tokens[start : stream.at]:
        if token.kind == "word" and token.text not in known and len(token.text) > 1:
            near = difflib.get_close_matches(token.text, known, 1, 0.6)
            if near:
                return f" Did you mean “{near[0]}”?"
    return ""


def _read_step(stream: Stream) -> Step:
    start = stream.at
    for words, kind in _GESTURES:
        if stream.words(*words):
            return Gesture(kind, stream.since(start))
    token = stream.peek()
    assert token is not None
    if token.is_mark("[", "("):
        return _read_group(stream)
    if token.is_mark("*"):
        return _read_starred(stream)
    if stream.word("sk", "skip", "miss"):
        return _read_skip(stream, start)
    if stream.word("ch", "chain"):
        return _read_chain(stream, start)
    return _read_stitches(stream, start)


def _read_group(stream: Stream) -> Step:
    start = stream.at
    closing = "]" if stream.next().text == "[" else ")"
    if stream.depth >= _DEEPEST:
        raise NotUnderstood(stream.since(start), "brackets are nested too deeply")
    stream.depth += 1
    steps = read_steps(stream, closing)
    stream.depth -= 1
    stream.next()
    stream.mark(",")
    if stream.word("x"):
        return Repeat(steps, stream.need_number("repeats"), stream.since(start))
    number = stream.number()
    if number is not None:
        if not stream.word("times", "time", "x"):
            raise NotUnderstood(stream.here(), "“times” is missing after the brackets")
        return Repeat(steps, number, stream.since(start))
    end = read_end(stream)
    if end is not None:
        return Repeat(steps, end, stream.since(start))
    raise NotUnderstood(stream.since(start), "how often to work the brackets is missing")


def _read_starred(stream: Stream) -> Step:
    """ "*...; rep from * around", with the repetition counted as in the brackets form."""
    start = stream.at
    stream.next()
    steps: list[Step] = []
    while not stream.word("rep", "repeat"):
        token = stream.peek()
        if token is None:
            raise NotUnderstood(stream.since(start), "“rep from *” is missing after the star")
        if token.is_mark(*_SEPARATORS):
            stream.at += 1
            continue
        steps.append(_read_step(stream))
    stream.word("from")
    stream.mark("*", "**")
    end = read_end(stream)
    if end is not None:
        return Repeat(tuple(steps), end, stream.since(start))
    number = stream.need_number("repeats")
    if not stream.words("more", "times"):
        raise NotUnderstood(stream.here(), "“more times” is missing here")
    again = tuple(None if v is None else v + 1 for v in number.values)
    return Repeat(tuple(steps), type(number)(again, number.span, number.parts), stream.since(start))


def _read_skip(stream: Stream, start: int) -> Step:
    stream.word("next")
    number = stream.number() or plain_num(stream, 1)
    what = read_what(stream) or STITCHES
    return Skip(number, what, stream.since(start))


def _read_chain(stream: Stream, start: int) -> Step:
    number = stream.number() or plain_num(stream, 1)
    counts = _read_counts(stream)
    return Chain(number, counts, stream.since(start))


def _read_counts(stream: Stream) -> str | None:
    """ "(counts as hdc)" or "(does not count)", where the text says so."""
    start = stream.at
    if not stream.mark("("):
        return None
    if stream.words("does", "not", "count"):
        while not stream.mark(")"):
            stream.next()
        return "none"
    if stream.words("counts", "as"):
        stream.word("a", "first")
        stitch = _stitch_word(stream)
        while stitch is not None and not stream.mark(")"):
            stream.next()
        if stitch is not None:
            return stitch
    stream.at = start
    return None


def _stitch_word(stream: Stream) -> str | None:
    """A stitch in the terms of the text, as its US abbreviation."""
    token = stream.peek()
    if token is None or token.kind != "word":
        return None
    if stream.words("sl", "st") or stream.words("slip", "stitch"):
        return "sl st"
    us = stitch_words(stream.context.terms).get(token.text)
    if us is not None:
        stream.at += 1
    return us


def _read_stitches(stream: Stream, start: int) -> Step:
    loop: Loop = "both"
    if stream.word("blo"):
        loop = "back"
    elif stream.word("flo"):
        loop = "front"
    leading = stream.number()
    token = stream.peek()
    if token is None:
        raise NotUnderstood(stream.since(start), "what to work is missing")
    together = _TOGETHER.match(token.text) if token.kind == "word" else None
    if together or token.is_word("dec"):
        return _read_together(stream, start, together, leading, loop)
    if stream.word("inc"):
        times = leading or stream.number() or plain_num(stream, 1)
        return Work("sc", plain_num(stream, 2), Next(times, STITCHES), loop, stream.since(start))
    stitch = _stitch_word(stream)
    if stitch is None:
        return _read_stuck(stream, start, token, loop)
    if stream.word("blo"):
        loop = "back"
    elif stream.word("flo"):
        loop = "front"
    if stream.word("inc") or stream.word("dec"):
        if stream.tokens[stream.at - 1].text == "dec":
            return Together(stitch, plain_num(stream, 2), leading or plain_num(stream, 1), loop, stream.since(start))
        per = plain_num(stream, 2)
        return Work(stitch, per, Next(leading or plain_num(stream, 1), STITCHES), loop, stream.since(start))
    count = stream.number()
    if count is not None:
        return Work(stitch, plain_num(stream, 1), Next(count, STITCHES), loop, stream.since(start))
    if stream.word("in", "into") or ((token := stream.peek()) is not None and token.is_word("each")):
        into = read_into(stream, _stitch_word)
        return Work(stitch, leading or plain_num(stream, 1), into, loop, stream.since(start))
    return Work(
        stitch, plain_num(stream, 1), Next(leading or plain_num(stream, 1), STITCHES), loop, stream.since(start)
    )


def _read_stuck(stream: Stream, start: int, token: Token, loop: Loop) -> Step:
    """ "sc6": a stitch and its count written together."""
    stuck = _STUCK.match(token.text) if token.kind == "word" else None
    us = stitch_words(stream.context.terms).get(stuck.group(1)) if stuck else None
    if stuck is None or us is None:
        raise NotUnderstood(stream.since(start))
    stream.at += 1
    digits = Span(token.span.line, token.span.end_column - len(stuck.group(2)), token.span.end_column)
    count = plain_num(stream, int(stuck.group(2)), digits)
    return Work(us, plain_num(stream, 1), Next(count, STITCHES), loop, stream.since(start))


def _read_together(stream: Stream, start: int, together: re.Match[str] | None, leading: object, loop: Loop) -> Step:
    stream.next()
    stitch, legs = "sc", 2
    if together is not None:
        found = stitch_words(stream.context.terms).get(together.group(1))
        if found is None:
            raise NotUnderstood(stream.since(start))
        stitch, legs = found, int(together.group(2))
    if stream.words("over", "next"):
        stream.number()
        read_what(stream)
    number = stream.number() if leading is None else leading
    if number is not None and leading is None:
        stream.word("times")
    times = number if number is not None else plain_num(stream, 1)
    return Together(stitch, plain_num(stream, legs), times, loop, stream.since(start))  # type: ignore[arg-type]


__all__ = ["CHAINS", "STITCHES_AND", "read_steps"]
