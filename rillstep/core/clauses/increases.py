"""Increases: \"inc\", \"inc in next st\", \"inc in each st around\", \"inc 3 times\"."""

from rillstep.core.clauses.place_lists import in_places
from rillstep.core.clauses.repeats import read_times
from rillstep.core.craft import Loop
from rillstep.core.reading.places import STITCHES, read_end
from rillstep.core.tree import Every, Next, Num, Step, Work
from rillstep.core.words.lexicon import NEXT, STITCH
from rillstep.core.words.stitch_names import stitch_word
from rillstep.core.words.stream import Stream, plain_num


def read_increase(stream: Stream, start: int, stitch: str, leading: Num | None, loop: Loop) -> list[Step]:
    """ "inc", "inc in next st", "inc in each st around", "inc 3 times"."""
    two = plain_num(stream, 2)
    _explained(stream, stitch)
    token = stream.peek()
    if token is not None and (token.is_word("in", "into", "each", "every") or token.is_word(*NEXT)):
        return in_places(stream, start, stitch, two, loop)
    end = read_end(stream)
    if end is not None:
        return [Work(stitch, two, Every(STITCHES, end), loop, stream.since(start))]
    times = read_times(stream) or stream.number()
    return [Work(stitch, two, Next(leading or times or plain_num(stream, 1), STITCHES), loop, stream.since(start))]


def _explained(stream: Stream, stitch: str) -> None:
    """ "inc (2 sc in same st)": what it is, said once more; taken where it is that and nothing else."""
    start = stream.at
    if stream.mark("("):
        number = stream.number()
        if number is not None and number.is_always(2) and stitch_word(stream) == stitch:
            if stream.word("in", "into"):
                stream.word("the", "same", "next", "one", "each", "a") and stream.word("same", "next", "one")
                stream.number()
                stream.word(*STITCH)
            if stream.mark(")"):
                stream.count(start)
                return
    stream.at = start
