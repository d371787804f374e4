"""Chains: "ch 3", "ch 2 (counts as hdc)", "ch-3 picot", "ch 5 (counts as dc, ch 2)"."""

from dataclasses import replace

from rillstep.core.clauses.kinds import plain_num, read_counted_space
from rillstep.core.clauses.measured import chain_length, read_until
from rillstep.core.craft import BY_US
from rillstep.core.findings import Finding
from rillstep.core.tree import Chain, Gesture, Num, Step, Until
from rillstep.core.words.asides import keep
from rillstep.core.words.lexicon import CHAIN, SPACE
from rillstep.core.words.numbers import set_text
from rillstep.core.words.stitch_names import picot, stitch_word
from rillstep.core.words.stream import Stream

# Chains are held to a length within so much of it: their width is mostly an estimate.
CHAIN_TOLERANCE = 0.1

_NOT = (
    "does not count", "doesn't count", "do not count", "not counted", "does not count as a st", "not a st",
    "not a stitch",
    "never counts", "no st", "not count", "is not a st", "do not count as st", "do not count as a st",
    "does not count as st",
    "doesn't count as a st", "doesn't count as st", "not counted as a st", "not counted as st",
    "do not count as stitch",
    "do not count as a stitch", "does not count as a stitch", "does not count as stitch", "doesn't count as a stitch",
)  # fmt: skip


def read_chain(stream: Stream, start: int) -> list[Step]:
    """After "ch": its length, and whether it counts."""
    stream.mark("-")
    stream.word("of")
    until = chain_length(stream) or _until(stream)
    if until is not None:
        return [Chain(_so_long(stream, start, until), until=until, span=stream.since(start))]
    number = stream.number() or plain_num(stream, 1)
    stream.word("sts", "chs", "st", "stitches", "chains", "chain")
    (step,) = _finished(stream, start, number)
    measured = stream.at
    stream.mark(",")
    until = _until(stream) if stream.word("or") and isinstance(step, Chain) else None
    if until is None or not isinstance(step, Chain):
        stream.at = measured
        return [step]
    _hold(stream, number, until)
    return [replace(step, until=until, span=stream.since(start))]


def _until(stream: Stream) -> Until | None:
    """ "until it measures 60 cm"; None, and nothing is taken, for anything else."""
    start = stream.at
    until = read_until(stream) if stream.word("until", "till") else None
    if until is None or until.length is None:
        stream.at = start
        return None
    return until


def _so_long(stream: Stream, start: int, until: Until) -> Num:
    """The chains that come nearest to a length; one, where there is no gauge, and a warning that they are not known."""
    width = stream.context.chain_mm
    if width is None:
        message = "How many chains this is is not known without a gauge, such as “Gauge: ch 20 = 10 cm”."
        stream.findings.append(Finding("chains-not-counted", "warning", stream.since(start), message))
        return plain_num(stream, 1)
    lengths = [until.mm(size) for size in range(stream.context.n_sizes)]
    values = tuple(None if mm is None else max(1, round(mm / width)) for mm in lengths)
    made = Num(values, until.span)
    message = f"By the gauge these are {set_text(values)} chains; another tension makes more or fewer."
    stream.findings.append(Finding("rows-by-measure", "caution", stream.since(start), message))
    return made


def _hold(stream: Stream, number: Num, until: Until) -> None:
    """Says that a stated number of chains comes to another length than the text says."""
    width = stream.context.chain_mm
    for size, chains in enumerate(number.values):
        wanted = until.mm(size)
        if (
            width is None
            or chains is None
            or wanted is None
            or abs(chains * width - wanted) <= CHAIN_TOLERANCE * wanted
        ):
            continue
        message = f"{chains} chains come to about {chains * width / 10:.1f} cm, and the text says {wanted / 10:.1f} cm."
        stream.findings.append(Finding("length-differs", "warning", until.span, message, size, wanted, chains * width))
        return


def read_counted_chain(stream: Stream, start: int) -> list[Step]:
    """ "3 ch"."""
    number = stream.number() or plain_num(stream, 1)
    stream.next()
    return _finished(stream, start, number)


def _finished(stream: Stream, start: int, number: Num) -> list[Step]:
    if picot(stream):
        return [Gesture("aside", "picot", span=stream.since(start))]
    counts, space = read_counts(stream, number)
    told = stream.at
    if stream.any_of(
        "loosely", "for the handle", "for handle", "for strap", "for corner", "for button loop", "for the corner"
    ):
        keep(stream, told)
    if counts is None:
        counts, space = read_counts(stream, number)
    return [Chain(number, counts, space, stream.since(start))]


def read_counts(stream: Stream, length: Num | None = None) -> tuple[str | None, Num | None]:
    """ "(counts as hdc)", "(does not count)", "(counts as dc, ch 2)"; nothing where the text does not say.

    length: of the chain, for "ch 3 (1 dc)", which says so only of a chain that is as high as the stitch.
    """
    start = stream.at
    bracket = stream.mark("(", "[")
    if not bracket and not (stream.mark("-", "—", ",", ".", ";") and _says_count(stream)):
        stream.at = start
        return None, None
    close = tail_of_counts if bracket else _dash
    stream.any_of("this", "now and throughout", "here and throughout")
    told = stream.at
    stream.word("the")
    if not _skipped_chains(stream):
        stream.at = told  # it was no "(first 3 chs count as dc)"
    if stream.any_of(*sorted(_NOT, key=len, reverse=True)):
        stream.any_of(
            "here and throughout", "now and throughout", "throughout", "as a st", "as a stitch", "as st", "as stitch"
        )
        if not close(stream):
            stream.at = start
            return None, None
        stream.count(start)
        return "none", None
    equals = stream.mark("=")
    if equals:
        stream.number()  # "(= 1 dc)"
    if equals or stream.any_of(
        "counts as", "count as", "counted as", "counts for", "counting as", "equals", "counts", "stands for"
    ):
        stream.any_of("the first", "first", "your first", "a", "the", "one", "1")
        token = stream.peek()
        if token is not None and token.kind in ("ordinal", "num") and not token.text.startswith(("2", "3")):
            stream.next()
        before = stream.at
        if bracket and not (stream.word("ch", "chain") and stream.number() is not None and stream.word("and")):
            stream.at = before  # it was no "(counts as ch 1 and dc)"
        counts = stitch_word(stream) or ("st" if stream.word("st", "stitch") else None)
        if counts is not None:
            space = _space(stream) if bracket else None
            if close(stream):
                stream.count(start)
                return counts, space
    stream.at = start + 1
    if bracket and length is not None and (stitch := _stands_for(stream, length)) is not None:
        return stitch, None
    stream.at = start
    return None, None


def _skipped_chains(stream: Stream) -> bool:
    """ "first 3 chs", "beg 3 skipped chs": those at the beginning of a foundation."""
    if not stream.word("first", "beg", "beginning", "skipped", "starting", "missed") or stream.number() is None:
        return False
    stream.word("skipped", "missed", "skip", "sk")
    return stream.word("ch", "chs", "chain", "chains")


def _stands_for(stream: Stream, length: Num) -> str | None:
    """ "(1 dc)", "(first dc)" behind a chain that is as high as that stitch."""
    start = stream.at
    stream.word("first", "the", "a") or stream.number()
    stitch = stitch_word(stream)
    if stitch in BY_US and length.is_always(BY_US[stitch].turning_chain) and stream.mark(")", "]"):
        stream.count(start)
        return stitch
    return None


def _space(stream: Stream) -> Num | None:
    """ ", ch 2", "+ 2 ch" or "and ch-2 sp" after the stitch that a chain counts as."""
    start = stream.at
    if stream.mark(",", "+", "&") or stream.word("and", "plus"):
        stream.word("a")
        before = stream.number()
        if stream.word("ch", "chain"):
            stream.mark("-")
            number = before or stream.number()
            if number is not None:
                return number
    stream.at = start
    return None


def _says_count(stream: Stream) -> bool:
    return any(
        stream.sees(*words.split())
        for words in (
            "counts as",
            "count as",
            "does not count",
            "counted as",
            "do not count",
            "doesn't count",
            "not counted",
            "not a st",
        )
    )


def _dash(stream: Stream) -> bool:
    """ "Ch 2 - counts as first hdc - hdc in each st": the second dash."""
    stream.any_of(*_HENCEFORTH)
    stream.mark("-", "—")
    return True


_OF_IT = (
    "st", "sts", "stitch", "stitches", "each", "every", "row", "rows", "rnd", "rnds", "round", "rounds", "of",
    "in", "the", "this", "for", "rest", "pattern",
          "a", "as", "on", "at", "start", "beginning", "first", "to", "end", "sp", "space", "and", "or", "later",
          "throughout", "after", "here", "now")  # fmt: skip
_HENCEFORTH = (
    "here and throughout", "now and throughout", "throughout", "here and in the following rounds", "here and after",
    "here and below", "from here on", "from now on",
    "now and in all rounds", "in all rounds", "in all rows", "always", "here", "now",
)  # fmt: skip


def tail_of_counts(stream: Stream) -> bool:
    """The rest of a bracket that says how a chain counts, up to its end; False (and nothing taken) where it says more
    than that."""
    start = stream.at
    while (token := stream.peek()) is not None and not token.is_mark(")", "]"):
        if not (stream.any_of(*_HENCEFORTH) or stream.word(*_OF_IT) or stream.mark(",", ".", ";", "-", "+", "&")):
            break
    if stream.mark(")", "]"):
        return True
    stream.at = start
    return False


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
        said = said or token.is_word("count", "counts", "counted", "counting") or token.is_mark("=")
        never = never or token.is_word("not", "doesn't", "don't")
        if not (
            token.kind in ("num", "ordinal")
            or token.is_mark(",", "-", "+", "&", ".", "=")
            or token.is_word(*_OF_SKIPPED)
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
