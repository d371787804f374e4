"""Lengths told of a piece: "the wall measures 20 (24) cm"."""

from dataclasses import replace

from rillstep.core.tree import Decimals
from rillstep.core.words.stream import Stream

_MM = {"mm": 1.0, "cm": 10.0, "in": 25.4, "inch": 25.4, "inches": 25.4}
_OF_A_PIECE = ("it", "piece", "wall", "work", "panel", "body", "strap", "bag", "section", "the", "this", "your")
_MEASURES = (
    "measures",
    "measure",
    "is",
    "are",
    "reaches",
    "has",
    "about",
    "approximately",
    "approx",
    "tall",
    "high",
    "long",
)


def length_in(stream: Stream) -> Decimals | None:
    """The length of "the wall measures 20 (24) cm", in mm; None for any other words. Nothing is taken."""
    tokens = stream.tokens[stream.at :]
    before = [token for token in tokens[:8] if token.kind == "word"]
    at = next((i for i, token in enumerate(tokens) if token.kind == "num"), None)
    if at is None or at + 1 >= len(tokens) or tokens[at + 1].text not in _MM:
        return None
    if not all(token.is_word(*_OF_A_PIECE, *_MEASURES) for token in before[:at]) or at < 2:
        return None
    if len(tokens[at].members) not in (1, stream.context.n_sizes, len(stream.context.active)):
        return None
    measured = stream.as_decimals(tokens[at])
    factor = _MM[tokens[at + 1].text]
    return replace(measured, values=tuple(None if v is None else v * factor for v in measured.values))
