"""Where a line states its totals: in brackets or behind a dash at its end, in a sentence of their own, or within it."""

from collections.abc import Iterable
from dataclasses import dataclass

from rillstep.core.findings import Finding
from rillstep.core.language.match import built, longest, readings, whole
from rillstep.core.tree import Gesture, Next, Step, Total, What
from rillstep.core.wordlists import word_list
from rillstep.core.words.stream import Context, NotUnderstood, Stream, problem_of, stream_over

_CLOSED_BY = {"[": "]", "(": ")", "{": "}", "<": ">"}


@dataclass(frozen=True)
class Stated:
    """Where the instructions of a line end (0-based column), the totals that it states after them, and what is wrong
    with these."""

    end: int
    totals: tuple[Total, ...] = ()
    findings: tuple[Finding, ...] = ()


def split_totals(text: str, line: int, context: Context, start: int) -> tuple[Stated, Stated | None]:
    """What a line states at its end; and how it may be read else, where a bracket is a total or one of a set: in two
    sizes "x 6 (12)" is a set, or six times and twelve in all."""
    stream = stream_over(text, line, context, start, len(text))
    tokens = stream.tokens
    stop = len(tokens)
    while stop and tokens[stop - 1].is_mark("."):
        stop -= 1
    other: Stated | None = None
    if stop:
        last = tokens[stop - 1]
        if last.text[-1] in _CLOSED_BY.values() and last.kind in ("num", "expr"):
            bracketed = _bracket_of_set(stream, stop - 1, text)
            if bracketed is not None:
                certain, stated = bracketed
                if certain:
                    return stated, None
                other = stated
        elif last.text in _CLOSED_BY.values() and last.kind == "mark":
            found = _in_bracket(stream, stop)
            if found is not None:
                return found, None
    found = _behind_dash(stream, stop) or _in_sentence(stream, stop)
    return (found, None) if found is not None else (Stated(len(text)), other)


def _in_bracket(stream: Stream, stop: int) -> Stated | None:
    """ "... around. (24 sts)": a bracket at the end that holds totals and nothing else."""
    tokens = stream.tokens
    opening = stop - 1
    depth = 0
    while opening >= 0:
        depth += (tokens[opening].text in _CLOSED_BY.values()) - (tokens[opening].text in _CLOSED_BY)
        if not depth:
            break
        opening -= 1
    if opening < 1 or _CLOSED_BY.get(tokens[opening].text) != tokens[stop - 1].text:
        return None
    return _read(stream, opening, opening + 1, stop - 1, "SetOff")


def _bracket_of_set(stream: Stream, at: int, text: str) -> tuple[bool, Stated] | None:
    """ "x 6 (42)": where the bracket behind a number is no set with it, but a total; whether that is certain."""
    token = stream.tokens[at]
    begin = token.span.column
    if token.text[0] in _CLOSED_BY:  # "last ch [44, 52]", "around. {26}"
        certain, end = at > 0, stream.tokens[at - 1].span.end_column
    else:
        (first, span), *others = token.members
        certain, end = _is_no_set(stream, at, first, [value for value, _ in others]), span.end_column
        begin = others[0][1].column - 1
        if not certain and len(others) > 1:
            return None
    inside = stream_over(text, token.span.line, stream.context, begin, token.span.end_column - 2)
    node = whole(inside, "SetOff")
    return None if node is None else (certain, Stated(end - 1, built(inside, node), tuple(inside.findings)))


def _is_no_set(stream: Stream, at: int, first: float, others: list[float]) -> bool:
    """Is it certain that numbers in brackets make no set with the number before them?"""
    active, sizes = len(stream.context.active), stream.context.n_sizes
    rows = at > 0 and stream.tokens[at - 1].is_word("and", "row", "rows", "rnd", "rnds", "round", "rounds", "x")
    if len(others) == active > (1 if rows else 2):
        return len(others) + 1 != sizes
    far = len(others) == 1 and others[0] > 3 * first  # sizes do not differ so much
    return len(others) == 1 and (active != 2 or far)


def _behind_dash(stream: Stream, stop: int) -> Stated | None:
    """ "... around — 24 sts", "... around: 24 sts", "= 24"."""
    tokens = stream.tokens
    for at in range(stop - 2, 0, -1):
        if _sets_off(stream, at):
            first = at + 1
            while first < stop and tokens[first].is_mark("-", "—", ">", "="):
                first += 1
            found = _read(stream, at, first, stop, "SetOff")
            if found is not None:
                return found
    return None


def _sets_off(stream: Stream, at: int) -> bool:
    """Is a mark one that a total may stand behind?"""
    before, token, after = stream.tokens[at - 1], stream.tokens[at], stream.tokens[at + 1]
    apart = token.span.column > before.span.end_column
    spaced = apart and after.span.column > token.span.end_column
    if token.is_mark("-"):
        return spaced or before.is_mark(".", ";", ":") or (apart and after.is_mark("-"))
    if token.is_mark(":"):
        chain = at > 2 and before.kind == "num" and stream.tokens[at - 2].is_mark("-")  # "join to top of ch-3: 24 dc"
        return (before.kind == "word" and not before.is_word("total")) or chain or before.is_mark(")", "]")
    return token.is_mark("—", ">") or (token.is_mark("=") and (spaced or before.kind != "word"))


def _in_sentence(stream: Stream, stop: int) -> Stated | None:
    """ "... around. 24 sts.": the last sentence, where it is a total and nothing else."""
    tokens = stream.tokens
    found: Stated | None = None
    for at in range(stop - 2, -1, -1):
        if tokens[at].is_mark(".", ";", ")", "]"):
            end = at + 1 if tokens[at].is_mark(")", "]") else at
            found = _read(stream, end, at + 1, stop) or _beside_known(stream, end, at + 1, stop) or found
            if tokens[at].is_mark("."):
                break
    return found


def _beside_known(stream: Stream, end: int, first: int, last: int) -> Stated | None:
    """ "53 zed and ch-20 loop": of words alone nothing is known, but beside a total they are one as well."""
    found = _read(stream, end, first, last, "SetOff")
    return found if found is not None and found.totals else None


def _read(stream: Stream, end: int, first: int, last: int, category: str = "Totals") -> Stated | None:
    """Tokens `first` to `last` (one past the last) as totals, behind instructions up to token `end`; None if they are
    not that."""
    part = stream.part(first, last)
    if len(part.tokens) == 1 and (stream.tokens[first - 1].is_mark(":") or not part.tokens[0].text[0].isdigit()):
        return None  # "Size: one"
    node = whole(part, category)
    if node is None:
        return None
    column = stream.tokens[end - 1].span.end_column - 1 if end else 0
    try:
        return Stated(column, built(part, node), tuple(part.findings))
    except NotUnderstood as problem:
        return Stated(column, (), (problem_of(problem, "This total is not understood"),))


def unknown_total(stream: Stream) -> Total | None:
    """ "1 buttonhole": a total of something that the text does not define, by the words that are written."""
    node = longest(stream, "Count")
    count = built(stream, node) if node is not None else None
    words = stream.written(stream.at, len(stream.tokens))
    return Total(count, words) if count is not None and words else None


def bracket_total(stream: Stream) -> list[Step] | None:
    """ "(24 sts)" within a line: its total when it is that and nothing else, or what there is so far where the line
    ends with a total. None, and nothing taken, for any other bracket."""
    start, findings = stream.at, len(stream.findings)
    closing = _CLOSED_BY.get(stream.tokens[start].text, "")
    totals = _up_to_bracket(stream, closing)
    if totals is not None and not _goes_on(stream):
        first = totals[0] if len(totals) == 1 else None
        if stream.ends_with_total and first is not None and first.what not in ("sp", "ch") and not stream.depth:
            return [Gesture("so far", into=Next(first.count, What("st")), span=stream.since(start))]
        stream.totals += totals
        return []
    del stream.findings[findings:]
    stream.at = start
    return None


def label_totals(stream: Stream) -> tuple[Total, ...]:
    """ "Rnd 3 (18 sts):": the totals in a bracket of a label; none, and nothing taken, where it holds anything else."""
    start, findings = stream.at, len(stream.findings)
    totals = _up_to_bracket(stream, _CLOSED_BY.get(stream.tokens[start].text, ""))
    if totals:
        return totals
    del stream.findings[findings:]
    stream.at = start
    return ()


def _up_to_bracket(stream: Stream, closing: str) -> tuple[Total, ...] | None:
    """The totals in the bracket that comes next, which is taken; None where it holds anything else."""
    stream.at += 1
    for end, node in sorted(readings(stream, "Totals").items(), reverse=True):
        if end < len(stream.tokens) and stream.tokens[end].is_mark(closing):
            try:
                totals: tuple[Total, ...] = built(stream, node)
            except NotUnderstood:
                return None
            stream.next()
            return totals
    return None


_AFTER_TOTAL = word_list(
    "fasten finish cut break do turn weave join leave sew change place move continue ch chain sl ss"
)


def stated_within(stream: Stream) -> bool:
    """ "... in next 3 ch. 4 sc. Fasten off.": a sentence that is a total, with only gestures after it; taken as one."""
    before = stream.tokens[stream.at - 1] if stream.at else None
    token = stream.peek()
    if before is None or not before.is_mark(".", ":", "-", "—") or token is None or token.kind != "num":
        return False
    start, findings = stream.at, len(stream.findings)
    for end, node in readings(stream, "Totals").items():
        following = stream.tokens[end + 1] if end + 1 < len(stream.tokens) else None
        if following is None or not stream.tokens[end].is_mark(".", ";") or not following.is_word(*_AFTER_TOTAL):
            continue
        totals = built(stream, node)
        if len(stream.findings) == findings:
            stream.next()
            stream.totals += totals
            return True
        del stream.findings[findings:]
        stream.at = start
    return False


def _goes_on(stream: Stream) -> bool:
    """Is the bracket worked ("(2 dc) in next st", "(6 sc) twice")?"""
    token = stream.peek()
    return token is not None and (
        token.kind == "num"
        or token.is_word("in", "into", "twice", "once", "x", "around", "across", "over", "to", "all", "rep", "repeat")
    )


def same_totals(one: tuple[Total, ...], other: Iterable[Total]) -> tuple[Total, ...]:
    """Totals stated at the end and within the line, each once."""
    seen = {(t.what, t.length) for t in one}
    return (*one, *[t for t in other if (t.what, t.length) not in seen])
