"""What the chains count as that are skipped at the start: "(skipped ch count as dc)", "(3 skipped chs count as dc, ch
2)"."""

from rillstep.core.notation.stream import Stream
from rillstep.core.notation.tree import Num
from rillstep.core.notation.vocabulary import stitch_word
from rillstep.core.notation.whats import CHAIN, SPACE, read_counted_space


def skipped_counts(stream: Stream) -> tuple[str | None, Num | None]:
    """ "(skipped ch count as dc)", "(3 skipped chs do not count)", "(skipped ch count as dc and ch-1 sp)": taken
    whole; the stitch
    that they count as, and the chains of the space beside it; None where there is none."""
    start = stream.at
    if not stream.mark("(", "["):
        return None, None
    counts: str | None = None
    space: Num | None = None
    said = never = False
    while (token := stream.peek()) is not None and not token.is_mark(")", "]"):
        if said and counts is None and token.kind == "word" and (stitch := stitch_word(stream)) is not None:
            counts = stitch
            continue
        if said and space is None and (space := _space_counted(stream)) is not None:
            continue
        said = said or token.is_word("count", "counts", "counted", "counting")
        never = never or token.is_word("not", "doesn't", "don't")
        if not (
            token.kind in ("num", "ordinal") or token.is_mark(",", "-", "+", "&", ".") or token.is_word(*_OF_SKIPPED)
        ):
            token = None
            break
        stream.next()
    if not said or token is None:
        stream.at = start
        return None, None
    stream.next()
    stream.count(start)
    return (None, None) if never else (counts, space)


_OF_SKIPPED = (
    "count", "counts", "counted", "counting", "not", "doesn't", "don't", "do", "does", "skipped", "sk", "missed",
    "unused", "the", "a", "as", "and", "first", "beg", "beginning",
    "starting", "st", "sts", "stitch", "stitches", "this", "these", "those", "one", "here", "throughout", "in",
    "total", "of", "row", "rnd", "round", "skip", "miss", *CHAIN, *SPACE, "will", "each", "for", "with", "plus",
    "base",
)  # fmt: skip


def _space_counted(stream: Stream) -> Num | None:
    """ "ch 1", "ch-2 sp", "2 ch sp": so many chains."""
    counted = read_counted_space(stream)
    if counted is not None:
        return counted.length
    start = stream.at
    if stream.word(*CHAIN):
        stream.mark("-")
        number = stream.number()
        if number is not None:
            stream.mark("-")
            stream.word(*SPACE)
            return number
    stream.at = start
    return None
