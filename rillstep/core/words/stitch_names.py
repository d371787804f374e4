"""Which word stands for which stitch at a place in a line: short, long, special, or defined by the pattern."""

from rillstep.core.craft import BY_US, PICOT, long_names, plurals, stitch_words
from rillstep.core.tree import Num
from rillstep.core.words.lexicon import GATHERED_WORDS
from rillstep.core.words.stream import Stream


def stitch_word(stream: Stream) -> str | None:
    """Take the name of a stitch in the terms of the text; the answer is its name inside Rillstep."""
    token = stream.peek()
    if token is None or token.kind not in ("word", "num", "ordinal"):
        return None
    for name, words in stream.context.specials:
        if _take(stream, words):
            return name
    if token.kind == "num":
        return _counted_cluster(stream)
    if token.kind != "word":
        return None
    for words, name in long_names(stream.context.terms).get(token.text, ()):
        if stream.words(*words):
            return name
    us = stitch_words(stream.context.terms).get(token.text)
    if us is not None:
        stream.next()
        return us
    for words, name in GATHERED_WORDS:
        if words[0] == token.text and stream.words(*words):
            return name
    return None


def _counted_cluster(stream: Stream) -> str | None:
    """ "5-dc popcorn", "3 dc cluster": gathered into one stitch, however many legs it has."""
    start = stream.at
    stream.next()
    dash = stream.mark("-")
    token = stream.peek()
    if token is not None and token.kind == "word" and token.text in stitch_words(stream.context.terms):
        stream.next()
        stream.mark("-")
        for words, name in GATHERED_WORDS:
            if (dash or words != ("cl",)) and stream.words(*words):
                stream.count(start)
                return name
    stream.at = start
    return None


def _take_glued(stream: Stream, words: tuple[str, ...]) -> bool:
    """A name that is cut otherwise within a line: the 2/2 of "2/2 cable" is a set where there are two sizes."""
    first = stream.peek()
    if first is None or "/" not in first.text or "/" not in words:
        return False
    whole, text, ahead = "".join(words), "", 0
    while (token := stream.peek(ahead)) is not None and len(text) < len(whole):
        text += token.text.replace(" ", "")
        ahead += 1
    if text not in (whole, whole + "s"):
        return False
    start = stream.at
    stream.at += ahead
    stream.count(start)
    return True


def _take(stream: Stream, words: tuple[str, ...]) -> bool:
    """A defined name, token by token; a plural s at its end is allowed."""
    glued = _take_glued(stream, words)
    if glued:
        return True
    for ahead, word in enumerate(words):
        token = stream.peek(ahead)
        if token is None:
            return False
        last = ahead == len(words) - 1
        if token.text != word and not (last and token.text in (*plurals(word), word + "es")):
            return False
    start = stream.at
    stream.at += len(words)
    stream.count(start)
    if words[-1].isalpha():  # "V" may be written "V-st"
        start = stream.at
        stream.mark("-")
        if not stream.word("st", "sts", "stitch", "stitches"):
            stream.at = start
    return True


def sees_stitch(stream: Stream) -> str | None:
    """The name of the stitch that comes next, without taking it."""
    start = stream.at
    found = stitch_word(stream)
    stream.at = start
    return found


def how_many(stream: Stream) -> Num | None:
    """How many places come next; None where the number that comes is the first word of one: "next 3-dc cluster"."""
    token = stream.peek()
    if token is not None and token.kind == "num" and sees_stitch(stream) is not None:
        return None
    return stream.number()


def picot(stream: Stream) -> bool:
    """Take the word "picot"."""
    return stream.word(PICOT, "picots")


def foundation_stitch(stream: Stream) -> str | None:
    """ "fsc", "foundation single crochet": the stitch that makes its own chain below it; None (and nothing taken) for
    anything else."""
    start = stream.at
    token = stream.peek()
    if token is not None and token.kind == "word" and token.text[:1] == "f":
        stitch = stitch_words(stream.context.terms).get(token.text[1:])
        if stitch in BY_US:
            stream.next()
            return stitch
        if stream.word("foundation") and (stitch := stitch_word(stream)) in BY_US:
            return stitch
    stream.at = start
    return None
