"""Markers placed, moved and removed: "place marker A in this st", "move marker up"."""

from rillstep.core.reading.named_places import read_into, taken
from rillstep.core.tree import Gesture, GestureKind, Into, Step
from rillstep.core.words.asides import keep_phrase
from rillstep.core.words.stream import NotUnderstood, Stream


def read_marker_gesture(stream: Stream, start: int) -> list[Step] | None:
    """A marker placed, moved or removed; None where none is named."""
    kind: GestureKind = "place marker"
    token = stream.next()
    if token.text in ("move", "moving"):
        kind = "move marker"
    elif token.text == "remove":
        kind = "remove marker"
    if token.text == "mark":
        stream.any_of("this", "the", "that")
    if not (stream.sees("a", "marker") or stream.sees("a", "stitch")) and stream.word(
        "the", "st", "your", "each", "both"
    ):
        pass
    elif stream.sees("a", "marker") or stream.sees("a", "stitch") or stream.sees("a", "st"):
        stream.word("a")
        stream.word("st", "stitch")
    if token.text not in ("pm", "mark") and not stream.word("marker", "markers", "m", "sm", "stitch"):
        stream.at = start
        return None
    stream.word("marker", "markers")
    name = ""
    here = stream.peek()
    if here is not None and here.kind == "word" and len(here.text) == 1 and here.text != "x":
        name = stream.next().text.upper()
    into: Into | None = None
    stream.any_of(
        "up each round as you go", "up each rnd as you go", "up as you go", "up each round", "up each rnd", "up"
    )
    if stream.word("in", "on", "into", "at", "around", "to"):
        before = stream.at
        try:
            if stream.any_of("this st", "this stitch", "this sc", "it", "that st") or taken(stream, "MadeBefore"):
                into = None
            else:
                into, _ = read_into(stream)
                stream.any_of("of rnd", "of round", "of row", "of the rnd", "of this rnd", "made", "of each rnd")
        except NotUnderstood:
            stream.at = before
            if not keep_phrase(stream, before - 1):
                raise
    elif stream.sees("for") or stream.sees("as"):
        keep_phrase(stream, stream.at)
    return [Gesture(kind, name, into, stream.since(start))]
