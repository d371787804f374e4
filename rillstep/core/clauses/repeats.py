"""How often: "6 times", "twice", "*...; rep from * around", "*A*, B, rep from * to * once", "..., repeat around"."""

from collections.abc import Callable

from rillstep.core.language.match import read
from rillstep.core.reading.places import read_end
from rillstep.core.tree import Chain, Num, Repeat, Step, ToEnd
from rillstep.core.wordlists import word_list
from rillstep.core.words.stream import NotUnderstood, Stream, plain_num

Reader = Callable[..., tuple[Step, ...]]

# Brackets within brackets, at most.
DEEPEST = 6
CLOSING = {"[": "]", "(": ")", "{": "}"}


def read_times(stream: Stream, bracket: bool = False) -> Num | None:
    """ "6 times", "x 6", "x6", "6x", "twice", "5 more times", "a total of 6 times"; None when no number of times
    comes."""
    start = stream.at
    # "(sc, inc)*6": only behind a bracket, as elsewhere a star closes a run.
    starred = bracket and stream.mark("*")
    number: Num | None = read(stream, "Times")
    if number is None and starred:
        number = stream.number()
    if number is None:
        stream.at = start
    return number


def one_more(number: Num) -> Num:
    """The written number counts the repeats after the first one."""
    return number.more(1)


def less(number: Num, fewer: int) -> Num:
    """So many fewer than the written number says."""
    return number.more(-fewer)


def inner_run(stream: Stream) -> tuple[int, int] | None:
    """The tokens between the stars of "**dc in next st, sc in next st**; rep from ** to ** once", which comes next;
    None for anything else."""
    at, tokens = stream.at, stream.tokens
    if at >= len(tokens) or not tokens[at].is_mark("**"):
        return None
    close = next((i for i in range(at + 1, len(tokens)) if tokens[i].is_mark("**", "*")), None)
    if close is None or not tokens[close].is_mark("**"):
        return None
    begin = close + 1
    while begin < len(tokens) and tokens[begin].is_mark(",", ";", "."):
        begin += 1
    texts = [token.text for token in tokens[begin : begin + 5]]
    named = texts[:1] in (["rep"], ["repeat"]) and texts[1:] in (
        ["from", "**", "to", "**"],
        ["between", "**", "and", "**"],
    )
    return (close, begin + 5) if named else None


def read_inner_run(stream: Stream, read_steps: Reader) -> Repeat:
    """A run between two stars each, within a run that is starred once. Raises NotUnderstood."""
    found = inner_run(stream)
    assert found is not None
    start, (close, after) = stream.at, found
    part = stream.part(start + 1, close)
    if stream.depth >= DEEPEST:
        raise NotUnderstood(stream.since(start), "brackets are nested too deeply")
    part.depth = stream.depth + 1
    steps = read_steps(part, None)
    stream.adopt(part, start + 1)
    stream.findings += part.findings
    stream.at = after
    times = read_times(stream) or plain_num(stream, 1)
    if not steps:
        raise NotUnderstood(stream.since(start), "what to repeat is missing")
    if any(token.is_word("more") for token in stream.tokens[after : stream.at]):
        return Repeat(steps, times, stream.since(start))  # counted with the first already
    return Repeat(steps, one_more(times), stream.since(start))


def read_times_first(stream: Stream, read_steps: Reader) -> Repeat | None:
    """ "6 x (1 sc, inc)", "6 times (sc, inc)": how often stands before the bracket; None for anything else."""
    times, opening = stream.peek(1), stream.peek(2)
    if times is None or opening is None or not times.is_word("x", "times") or not opening.is_mark("(", "["):
        return None
    start = stream.at
    number = stream.need_number("repeats")
    stream.next()
    stream.next()
    if stream.depth >= DEEPEST:
        raise NotUnderstood(stream.since(start), "brackets are nested too deeply")
    stream.depth += 1
    steps = read_steps(stream, CLOSING[opening.text])
    stream.depth -= 1
    stream.next()
    return Repeat(steps, number, stream.since(start))


def read_starred(stream: Stream, read_steps: Reader) -> list[Step]:
    """ "*...; rep from * around", "*...* 6 times", with the repetition counted as in the brackets form."""
    start = stream.at
    stream.next()
    loop = stream.loop
    steps = read_steps(stream, "*")
    stream.loop = loop
    token = stream.peek()
    if token is not None and token.is_mark("**") and _has_end_mark(stream):
        return _ended_within(stream, steps, read_steps, start)
    if token is None:
        raise NotUnderstood(stream.since(start), "“rep from *” is missing after the star")
    again, closed = True, token.is_mark("*", "**")
    if token.is_mark("*", "**"):
        stream.next()
        if _named_later(stream):
            stream.starred = steps
            return list(steps)
        stream.mark(",", ";", ".")
        again = stream.word("rep", "repeat")
    else:
        stream.next()
    if again:
        read(stream, "FromStar")
        again = (stream.choose(2, "times") == 0) != closed  # "*...* repeat 6 times" is six in all, mostly
    return [Repeat(steps, _times_or_end(stream, again), stream.since(start))]


def _named_later(stream: Stream) -> bool:
    """ "*A*, B, rep from * to * once, C": what the stars hold is worked here, and once more where it is named again."""
    following = stream.peek()
    if following is None or not following.is_mark(",", ";") or (after := stream.peek(1)) is None:
        return False
    rest = stream.tokens[stream.at + 1 :]
    stars = [at for at, token in enumerate(rest) if token.is_mark("*")]
    many = len(stars) > 1 or any(rest[at + 1].is_word("s") for at in stars if at + 1 < len(rest))
    told = many and any(token.is_word("rep", "repeat") for token in rest[max(0, stars[0] - 3) : stars[0]])
    return told and not after.is_word("rep", "repeat")


def _has_end_mark(stream: Stream) -> bool:
    """Does the line name this mark again, as where the last repeat ends ("ending last rep at **")?"""
    rest = stream.tokens[stream.at + 1 :]
    at = next((i for i, token in enumerate(rest) if token.is_mark("**")), None)
    if at is None:
        return False
    words = {token.text for token in rest[max(0, at - 8) : at]}
    return bool(words & {"ending", "end", "ends", "ended", "stopping", "stop", "finish", "finishing", "last"})


def _ended_within(stream: Stream, first: tuple[Step, ...], read_steps: Reader, start: int) -> list[Step]:
    """ "*A**, B; rep from * around, ending last rep at **" is A, [B, A] around."""
    stream.next()
    rest = read_steps(stream, "*")
    if not stream.word("rep", "repeat"):
        raise NotUnderstood(stream.since(start), "“rep from *” is missing after the star")
    read(stream, "FromStar")
    times = _times_or_end(stream, again=False)
    stream.mark(",", ";", ".")
    while stream.word(*_ENDING_AT) or stream.mark("-", "("):
        pass
    if not stream.mark("**"):
        raise NotUnderstood(stream.since(start), "where the last repeat ends is not understood")
    stream.mark(")")
    return [*first, Repeat((*rest, *first), times, stream.since(start))]


_ENDING_AT = word_list(
    "ending end ends ended stopping stop finish finishing the last final rep repeat repetition at with on "
    "in and only working work to up but you time of repeats"
)


def _times_or_end(stream: Stream, again: bool) -> Num | ToEnd:
    """How often: with "rep from *" a plain number of times counts those after the first."""
    start = stream.at
    stream.mark(",")
    token = stream.peek()
    if token is not None and token.is_word("ending", "end"):
        return ToEnd("around" if stream.context.kind == "Rnd" else "across")
    if token is not None and token.is_word("once", "twice", "thrice"):
        number = read_times(stream)
        assert number is not None
        return one_more(number) if again and not stream.tokens[stream.at - 1].is_word("more") else number
    number = read_times(stream)
    if number is not None:
        more = any(t.is_word("more", "additional", "further") for t in stream.tokens[start : stream.at])
        total = any(t.is_word("total", "all", "altogether") for t in stream.tokens[start : stream.at])
        return one_more(number) if again and not more and not total else number
    end = read_end(stream)
    if end is not None:
        return end
    stream.at = start
    if stream.peek() is None or (stream.peek() is not None and stream.tokens[stream.at].is_mark(".", ";")):
        return ToEnd("around" if stream.context.kind == "Rnd" else "across")
    raise NotUnderstood(stream.here(), "how often to repeat is missing")


def read_bare_repeat(stream: Stream, before: list[Step], start: int) -> list[Step]:
    """ "sc 3, inc, repeat around": what stands before it is repeated, but for a chain that begins the row."""
    read(stream, "FromStar")
    if stream.starred:
        begin = stream.at
        times = _times_or_end(stream, again=False)
        if isinstance(times, Num) and any(token.is_word("more") for token in stream.tokens[begin : stream.at]):
            times = less(times, 1)
        once = isinstance(times, Num) and times.is_always(1)
        return list(stream.starred) if once else [Repeat(stream.starred, times, stream.since(start))]
    # "sc 3, inc, repeat 6 times" is mostly six times in all; "rep from * 6 times" mostly six times more.
    times = _times_or_end(stream, again=stream.choose(2, "times") == 1)
    keep = 1 if before and isinstance(before[0], Chain) else 0
    body = tuple(before[keep:])
    if not body or any(isinstance(step, Repeat) for step in body):
        raise NotUnderstood(stream.since(start), "what to repeat is missing")
    del before[keep:]
    return [Repeat(body, times, stream.since(start))]
