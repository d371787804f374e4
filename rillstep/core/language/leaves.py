"""The leaves of the grammar: what one token, or a few that are one thing, may be."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Any

from rillstep.core.language.classes import CLASSES
from rillstep.core.tree import Num
from rillstep.core.words.stitch_names import foundation_stitch, stitch_word
from rillstep.core.words.stream import Stream


@dataclass(frozen=True)
class Leaf:
    """begins: whether it can begin with a word ("#" for a number, "" at the end of the line), None where it takes no
    token. ends: where it can end, from a token on. build: what it is."""

    begins: Callable[[str], bool | None]
    ends: Callable[[Stream, int], Iterable[int]]
    build: Callable[[Stream, int, int], Any]


def _is_number(text: str) -> bool:
    return text == "#"


def _is_any(text: str) -> bool:
    return text != ""


def _number_ends(stream: Stream, at: int) -> Iterable[int]:
    if at < len(stream.tokens) and stream.tokens[at].kind in ("num", "expr"):
        yield at + 1


def _number(stream: Stream, start: int, end: int) -> Num:
    return stream.as_num(stream.tokens[start])


def _idle_ends(stream: Stream, at: int) -> Iterable[int]:
    if at < len(stream.tokens) and stream.tokens[at].kind in ("num", "expr", "ordinal"):
        yield at + 1


def _idle(stream: Stream, start: int, end: int) -> None:
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


LEAVES: dict[str, Leaf] = {
    "Num": Leaf(_is_number, _number_ends, _number),
    "Idle": Leaf(_is_number, _idle_ends, _idle),
    "Set": Leaf(_is_number, _set_ends, _set),
    "Listed": Leaf(_is_number, _listed_ends, _listed),
    "Stitch": Leaf(_is_any, _stitch_ends, _stitch),
    "AtEnd": Leaf(lambda text: None, _at_end, _nothing),
    "Fill": Leaf(lambda text: text in CLASSES["between_totals"], _fill, _nothing),
    "When": Leaf(_is_any, _remark_ends(CLASSES["when"]), _idle),
    "Includes": Leaf(_is_any, _remark_ends(CLASSES["includes"]), _idle),
    "Counting": Leaf(_is_any, _counting_ends, _idle),
    "Word": Leaf(lambda text: text not in ("", "#"), _word_ends, _written),
    "Thing": Leaf(lambda text: text not in ("", "#"), _thing_ends, _written),
}
