"""Places, ends and loops where a line names them: the forms of the language, read from where a stream stands."""

from rillstep.core.craft import BY_US, Loop
from rillstep.core.language.match import built, longest, read
from rillstep.core.tree import Into, Num, ToEnd, What
from rillstep.core.words.stream import NotUnderstood, Stream

STITCHES = What("st")


def taken(stream: Stream, category: str) -> bool:
    """Take the words of a category that only say what is so anyway; False where they do not come."""
    node = longest(stream, category)
    if node is not None:
        built(stream, node)
    return node is not None


def read_what(stream: Stream) -> What | None:
    """ "sts", "ch", "ch-3 sp", "st and ch", "corner sp", "dc", "row ends"; None when no place is named."""
    what: What | None = read(stream, "What")
    return what


def read_end(stream: Stream) -> ToEnd | None:
    """ "around", "across", "to last 3 sts", "to marker"; None when no end is named."""
    end: ToEnd | None = read(stream, "End")
    return end


def read_loop(stream: Stream) -> Loop | None:
    """ "BLO", "back loops only", "the front loop", "back bar of"; None when no loop is named."""
    loop: Loop | None = read(stream, "Loop")
    return loop


def read_into(stream: Stream) -> tuple[Into, Loop | None]:
    """What follows "in", "into", "around"; the loop too, where one is named. Raises NotUnderstood."""
    node = longest(stream, "Into")
    if node is None:
        raise NotUnderstood(stream.here(), "where to work it is missing")
    place: tuple[Into, Loop | None] = built(stream, node)
    return place


def qualifiers(stream: Stream) -> None:
    """Take all words that say whose places are meant: "of the previous round", "from Rnd 3", "just made"."""
    while taken(stream, "Qualifier"):
        pass


def read_counts(stream: Stream, length: Num | None = None) -> tuple[str | None, Num | None]:
    """ "(counts as hdc)", "(does not count)", "(counts as dc, ch 2)": the stitch that a chain counts as ("none" where
    it does not), and the chains of it that are a space beside it; nothing where the text does not say.

    length: of the chain, for "ch 3 (1 dc)", which says so only of a chain that is as high as the stitch.
    """
    counts: tuple[str, Num | None] | None = read(stream, "InBracket") or read(stream, "BehindMark")
    if counts is not None or length is None:
        return counts or (None, None)
    node = longest(stream, "StandsFor")
    start = stream.at
    stitch = None if node is None else built(stream, node)
    if stitch in BY_US and length.is_always(BY_US[stitch].turning_chain):
        stream.count(start)
        return stitch, None
    stream.at = start
    return None, None
