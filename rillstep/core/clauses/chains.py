"""Chains: "ch 3", "ch 2 (counts as hdc)", "ch-3 picot", "ch 5 (counts as dc, ch 2)"."""

from dataclasses import replace

from rillstep.core.clauses.measured import chain_length, read_until
from rillstep.core.findings import Finding
from rillstep.core.reading.places import read_counts
from rillstep.core.tree import Chain, Gesture, Num, Step, Until
from rillstep.core.words.asides import keep
from rillstep.core.words.numbers import set_text
from rillstep.core.words.stitch_names import picot
from rillstep.core.words.stream import Stream, plain_num

# Chains are held to a length within so much of it: their width is mostly an estimate.
CHAIN_TOLERANCE = 0.1


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
