"""The terminals of the grammar: what one token, or a few that are one thing, may be."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Any

from rillstep.core.findings import Span
from rillstep.core.language.classes import CLASSES
from rillstep.core.tree import Num, What
from rillstep.core.words.asides import keep, keep_phrase
from rillstep.core.words.lexicon import MOTIFS
from rillstep.core.words.stitch_names import foundation_stitch, stitch_word
from rillstep.core.words.stream import Stream, plain_num
from rillstep.core.words.tokens import Token


@dataclass(frozen=True)
class Terminal:
    """begins: whether it can begin with a word ("#" for a number, "" at the end of the line), None where it takes no
    token. ends: where it can end, from a token on. build: what it is."""

    begins: Callable[[str], bool | None]
    ends: Callable[[Stream, int], Iterable[int]]
    build: Callable[[Stream, int, int], Any]


def _is_number(text: str) -> bool:
    return text == "#"


def is_any(text: str) -> bool:
    """Any token begins it."""
    return text != ""


def _may_name(text: str) -> bool:
    """May a stitch be named by words that begin so? No name begins with a mark, or with a word that leads to one."""
    return text not in CLASSES["no_name"]


def _number_ends(stream: Stream, at: int) -> Iterable[int]:
    if at < len(stream.tokens) and stream.tokens[at].kind in ("num", "expr"):
        yield at + 1


def _number(stream: Stream, start: int, end: int) -> Num:
    return stream.as_num(stream.tokens[start])


def _held(stream: Stream, start: int, end: int) -> Num:
    """A number that is held to something else than as a number of a step."""
    stream.counted.append((start, end))
    return stream.as_num(stream.tokens[start])


def _idle_ends(stream: Stream, at: int) -> Iterable[int]:
    if at < len(stream.tokens) and stream.tokens[at].kind in ("num", "expr", "ordinal"):
        yield at + 1


def idle(stream: Stream, start: int, end: int) -> None:
    """Numbers that hold nothing: they are taken into account in what was read."""
    stream.counted.append((start, end))


def _set_ends(stream: Stream, at: int) -> Iterable[int]:
    """ "16, 20": one number for each size in force with only commas, colons or slashes between."""
    sizes = len(stream.context.active)
    tokens = stream.tokens[at : at + 2 * sizes - 1]
    if sizes < 2 or len(tokens) < 2 * sizes - 1:
        return
    if any(token.kind != "num" or len(token.members) != 1 for token in tokens[::2]):
        return
    if any(not token.is_mark(",", ":", "/") for token in tokens[1::2]):
        return
    following = stream.tokens[at + 2 * sizes - 1] if at + 2 * sizes - 1 < len(stream.tokens) else None
    if following is None or following.kind != "num":
        yield at + 2 * sizes - 1


def _set(stream: Stream, start: int, end: int) -> Num:
    return stream.set_of([stream.as_num(token) for token in stream.tokens[start:end:2]])


def _listed_ends(stream: Stream, at: int) -> Iterable[int]:
    """ "26, 24, 22, 20": more numbers than there are sizes, one for each of some rounds."""
    end = at
    while end < len(stream.tokens) and stream.tokens[end].kind in ("num", "expr"):
        end += 1
        if end >= len(stream.tokens) or not stream.tokens[end].is_mark(","):
            break
        end += 1
    count = (end - at + 1) // 2
    if (end - at) % 2 and count > max(2, len(stream.context.active)):
        yield end


def _listed(stream: Stream, start: int, end: int) -> tuple[Num, ...]:
    return tuple(stream.as_num(token) for token in stream.tokens[start:end:2])


def _stitch_ends(stream: Stream, at: int) -> Iterable[int]:
    before = stream.at
    stream.at = at
    found = stitch_word(stream) or foundation_stitch(stream)
    end = stream.at
    stream.at = before
    if found is not None:
        yield end


def _stitch(stream: Stream, start: int, end: int) -> str | None:
    stream.at = start
    return stitch_word(stream) or foundation_stitch(stream)


def _at_end(stream: Stream, at: int) -> Iterable[int]:
    """Where a number stands alone: at the end, or before a mark that ends what is counted."""
    if at >= len(stream.tokens) or stream.tokens[at].is_mark(")", "]", ".", "}"):
        yield at


def _word_ends(stream: Stream, at: int) -> Iterable[int]:
    if at < len(stream.tokens) and stream.tokens[at].kind == "word":
        yield at + 1


def _written(stream: Stream, start: int, end: int) -> str:
    return stream.written(start, end)


_MOST_WORDS = 3


def _thing_ends(stream: Stream, at: int) -> Iterable[int]:
    """Words that name things, which are counted and are no stitches: "scallops", "button loops", "V's"."""
    if at < len(stream.tokens) and (stream.tokens[at].text in CLASSES["place"] or list(_stitch_ends(stream, at))):
        return
    for end in range(at + 1, min(at + _MOST_WORDS, len(stream.tokens)) + 1):
        token = stream.tokens[end - 1]
        if token.kind != "word" or token.text in CLASSES["instructs"] or token.text in ("and", "plus"):
            return
        if (token.text.endswith("s") and len(token.text) > 2) or token.text in CLASSES["thing"]:
            yield end


def _any_thing_ends(stream: Stream, at: int) -> Iterable[int]:
    """Words of which nothing is known, where they are set off as a total: "60 zed"."""
    for end in range(at + 1, min(at + _MOST_WORDS, len(stream.tokens)) + 1):
        token = stream.tokens[end - 1]
        if token.kind != "word" or token.text in CLASSES["instructs"] or token.text in CLASSES["between_totals"]:
            return
        if not (token.text in CLASSES["place"] or sees_stitch_at(stream, end - 1)):
            yield end


def _run_of(stream: Stream, at: int, words: frozenset[str], more: bool) -> int:
    """Where a run of words of a class ends, and of numbers and stitches too if more may stand in it."""
    end = at
    while end < len(stream.tokens):
        token = stream.tokens[end]
        if token.text in words or (more and token.kind in ("num", "ordinal")):
            end += 1
        elif more and (after := next(iter(_stitch_ends(stream, end)), None)) is not None:
            end = after
        else:
            break
    return end


def _fill(stream: Stream, at: int) -> Iterable[int]:
    end = _run_of(stream, at, CLASSES["between_totals"], False)
    return (end,) if end > at else ()


def _remark_ends(words: frozenset[str]) -> Callable[[Stream, int], Iterable[int]]:
    """What a total says besides of when it holds or what it includes, up to the next mark."""

    def ends(stream: Stream, at: int) -> Iterable[int]:
        end = _run_of(stream, at, words, True)
        token = stream.tokens[end] if end < len(stream.tokens) else None
        return (end,) if end > at and (token is None or token.kind == "mark") else ()

    return ends


def _counting_ends(stream: Stream, at: int) -> Iterable[int]:
    """ "skipped 2 ch do not count": words to the end that say what is counted."""
    end = at
    while end < len(stream.tokens) and not stream.tokens[end].is_mark("(", ")", "[", "]"):
        end += 1
    told = any(token.is_word("count", "counts", "counted", "made", "worked") for token in stream.tokens[at:end])
    return (end,) if told and stream.tokens[at].kind == "word" else ()


def _nothing(stream: Stream, start: int, end: int) -> None:
    return None


def zero(holds: Callable[[Stream, int], bool]) -> Terminal:
    """A terminal that takes no token, where something holds of the tokens around it."""
    return Terminal(lambda text: None, lambda stream, at: (at,) if holds(stream, at) else (), _nothing)


def one(
    holds: Callable[[Token], bool],
    build: Callable[[Stream, int, int], Any] = _nothing,
    begins: Callable[[str], bool] = _is_number,
) -> Terminal:
    """A terminal of one token of which something holds."""

    def ends(stream: Stream, at: int) -> Iterable[int]:
        return (at + 1,) if at < len(stream.tokens) and holds(stream.tokens[at]) else ()

    return Terminal(begins, ends, build)


def sees(*words: str, mark: bool = False, stop: bool = False) -> Terminal:
    """Is the next token one of these words; or any mark; or none at all?"""

    def holds(stream: Stream, at: int) -> bool:
        token = stream.tokens[at] if at < len(stream.tokens) else None
        if token is None:
            return stop
        return token.text in words or (mark and token.kind == "mark")

    return zero(holds)


def without(*words: str) -> Terminal:
    """Is the next token none of these words?"""
    return zero(lambda stream, at: at >= len(stream.tokens) or stream.tokens[at].text not in words)


def _omitted(stream: Stream, at: int) -> bool:
    """ "sc in next 4, ...": what is counted is left out."""
    token = stream.tokens[at] if at < len(stream.tokens) else None
    before = stream.tokens[at - 1] if at else None
    ends = token is None or token.kind == "mark"
    return ends and before is not None and (before.kind == "num" or before.text in CLASSES["next"])


def _glued(stream: Stream, at: int) -> bool:
    """Does the next token begin where the one before it ends? Else a dash stands for itself."""
    return 0 < at < len(stream.tokens) and stream.tokens[at].span.column <= stream.tokens[at - 1].span.end_column


def _is_own(stream: Stream, word: str) -> bool:
    """Is a word one of the names of stitches that the text defines?"""
    return any(word in parts for _, parts in stream.context.specials)


def _free_loops(stream: Stream, at: int) -> bool:
    words = [token.text for token in stream.tokens[at : at + 2]]
    return len(words) == 2 and words[0] in CLASSES["free"] and words[1] in CLASSES["loop"]


def _other_stitch_ends(stream: Stream, at: int) -> Iterable[int]:
    """A stitch that is another than the one before it: "each sc and bobble", and not "next dc and in each dc"."""
    before = at - 1
    while before > 0 and stream.tokens[before].text in CLASSES["between_places"]:
        before -= 1
    return () if stream.tokens[before].text == stream.tokens[at].text else _stitch_ends(stream, at)


def _motif_ends(stream: Stream, at: int) -> Iterable[int]:
    """A motif of which the text does not define what it is."""
    token = stream.tokens[at] if at < len(stream.tokens) else None
    return (at + 1,) if token is not None and token.text in MOTIFS and not _is_own(stream, token.text) else ()


def _special_ends(stream: Stream, at: int) -> Iterable[int]:
    for end in _stitch_ends(stream, at):
        if _stitch_at(stream, at) in {name for name, _ in stream.context.specials}:
            yield end


def _stitch_at(stream: Stream, at: int) -> str | None:
    before = stream.at
    stream.at = at
    found = stitch_word(stream)
    stream.at = before
    return found


def _special(stream: Stream, start: int, end: int) -> What:
    stream.at = start
    return What("st", stitch=stitch_word(stream) or "", span=stream.tokens[start].span.to(stream.tokens[end - 1].span))


def _nth(stream: Stream, start: int, end: int) -> Num:
    token = stream.tokens[start]
    if token.members:
        return stream.as_num(token)
    span = Span(token.span.line, token.span.column, token.span.end_column - 2)
    return plain_num(stream, int(token.text[:-2]), span)


def _row_kind(stream: Stream, start: int, end: int) -> str:
    word = stream.tokens[start].text
    return stream.context.kind if word == "r" else "Row" if word.startswith("row") else "Rnd"


def _letter(stream: Stream, start: int, end: int) -> str:
    return stream.tokens[start].text.upper()


def sees_stitch_at(stream: Stream, at: int) -> bool:
    """Does a stitch of any name come at a token?"""
    return any(True for _ in _stitch_ends(stream, at))


def by_hand(take: Callable[[Stream], Any], begins: Callable[[str], bool] = is_any) -> Terminal:
    """A terminal that a function takes from where a stream stands; its answer is what is built, None or False where
    it takes nothing."""

    def ends(stream: Stream, at: int) -> Iterable[int]:
        before, findings, totals = stream.at, len(stream.findings), len(stream.totals)
        stream.at = at
        found = take(stream)
        end = stream.at
        stream.at = before
        del stream.findings[findings:], stream.totals[totals:]
        return () if found is None or found is False else (end,)

    def build(stream: Stream, start: int, end: int) -> Any:
        stream.at = start
        return take(stream)

    return Terminal(begins, ends, build)


_BESIDE = ("beside", "near", "below", "above")


def _beside_ends(stream: Stream, at: int) -> Iterable[int]:
    """Words that say where on the surface: "beside the marker", "next to the side"."""
    at += at < len(stream.tokens) and stream.tokens[at].is_mark(",", ";")
    words = [token.text for token in stream.tokens[at : at + 2]]
    if not words or not (words[0] in _BESIDE or tuple(words) in (("next", "to"), ("close", "to"))):
        return ()
    end = at
    while end < len(stream.tokens) and stream.tokens[end].kind == "word":
        end += 1
    return (end,)


def _beside(stream: Stream, start: int, end: int) -> None:
    start += stream.tokens[start].is_mark(",", ";")
    stream.at = end
    keep(stream, start)


def _scope_ends(stream: Stream, at: int) -> Iterable[int]:
    """How far it holds that a chain counts, or does not: "here and throughout", "of each round"."""
    end = _run_of(stream, at, CLASSES["scope"], False)
    return range(end, at, -1)


TERMINALS: dict[str, Terminal] = {
    "Num": Terminal(_is_number, _number_ends, _number),
    "Idle": Terminal(_is_number, _idle_ends, idle),
    "Held": Terminal(_is_number, _number_ends, _held),
    "Set": Terminal(_is_number, _set_ends, _set),
    "Listed": Terminal(_is_number, _listed_ends, _listed),
    "Stitch": Terminal(_may_name, _stitch_ends, _stitch),
    "AtEnd": Terminal(lambda text: None, _at_end, _nothing),
    "AnyThing": Terminal(is_any, _any_thing_ends, _written),
    "Fill": Terminal(lambda text: text in CLASSES["between_totals"], _fill, _nothing),
    "When": Terminal(is_any, _remark_ends(CLASSES["when"]), idle),
    "Includes": Terminal(is_any, _remark_ends(CLASSES["includes"]), idle),
    "Counting": Terminal(is_any, _counting_ends, idle),
    "Glued": zero(_glued),
    "KnownGap": zero(lambda stream, at: stream.between is not None),
    "KnownLoops": zero(lambda stream, at: stream.free_loops is not None),
    "Omitted": zero(_omitted),
    "Plural": zero(lambda stream, at: at > 0 and stream.tokens[at - 1].text.endswith("s")),
    "NoNumber": zero(lambda stream, at: at >= len(stream.tokens) or stream.tokens[at].kind != "num"),
    "NotIn": without("in", "into"),
    "NotFrom": without("from"),
    "NotSpace": without(*CLASSES["sp"]),
    "NoLoop": without("loop", "loops", "lp", "lps", "post"),
    "Stop": sees(mark=True, stop=True),
    "EachStop": sees(".", ";", "(", "[", stop=True),
    "SeesAround": sees("around", "across"),
    "SeesEnd": sees("around", "across", "to"),
    "SeesEndOrStop": sees("across", "around", "to", "until", "all", mark=True, stop=True),
    "SeesMarker": sees("marker", "marked"),
    "SeesUpDown": sees("up", "down"),
    "NotHook": without("hook"),
    "NotFree": zero(lambda stream, at: not _free_loops(stream, at)),
    "OtherSt": Terminal(_may_name, _other_stitch_ends, _stitch),
    "AfterSpace": zero(lambda stream, at: at > 0 and stream.tokens[at - 1].text in CLASSES["sp"]),
    "Several": sees("sts", "stitches", "chs", "chains", "sps", "spaces"),
    "Nth": one(lambda token: token.kind == "ordinal", _nth),
    "FirstOne": one(lambda token: token.kind == "ordinal" and token.text == "1st", idle),
    "Third": one(lambda token: token.text == "3rd", idle),
    "Two": one(lambda token: token.kind == "num" and all(value == 2 for value, _ in token.members), idle),
    "FirstOrOne": one(lambda token: token.kind in ("num", "ordinal") and token.text[0] not in "23", idle),
    "RowWord": one(lambda token: token.text in CLASSES["row_or_r"], _row_kind, CLASSES["row_or_r"].__contains__),
    "Letter": one(lambda token: token.kind == "word" and token.text != "x", _letter, lambda text: len(text) == 1),
    "LB": one(lambda token: token.is_mark("(", "["), begins=frozenset("([").__contains__),
    "RB": one(lambda token: token.is_mark(")", "]"), begins=frozenset(")]").__contains__),
    "Special": Terminal(_may_name, _special_ends, _special),
    "Motif": Terminal(is_any, _motif_ends, _nothing),
    "Phrase": by_hand(lambda stream: keep_phrase(stream, stream.at)),
    "NearIt": Terminal(is_any, _beside_ends, _beside),
    "Scope": Terminal(is_any, _scope_ends, idle),
    "Word": Terminal(lambda text: text not in ("", "#"), _word_ends, _written),
    "Thing": Terminal(lambda text: text not in ("", "#"), _thing_ends, _written),
}
