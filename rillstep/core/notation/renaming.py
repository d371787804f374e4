"""Abbreviations of a text's own for stitches that have another: "X = sc", "V = sc increase"."""

import re
from functools import lru_cache

from rillstep.core.findings import Span
from rillstep.core.notation.lexer import tokens_of
from rillstep.core.notation.steps import read_steps
from rillstep.core.notation.stream import Context, Stream
from rillstep.core.notation.tree import Next, Together, Work
from rillstep.core.stitches import Terms, stitch_words

_NAME = re.compile(r"[A-Za-z]{1,6}")
# Words of the language that such a list explains, too.
_KNOWN = (
    "st", "sts", "ch", "chs", "sp", "sps", "sk", "inc", "dec", "rep", "rnd", "row", "tog", "beg", "tch", "lp",
    "lps", "sl", "ss", "cl", "blo", "flo", "bl", "fl", "mr", "rs", "ws",
)  # fmt: skip
MOST_WORDS = 4


@lru_cache(maxsize=512)
def own_abbreviation(name: str, meaning: str, terms: Terms) -> tuple[str, ...] | None:
    """The words of the language that a name stands for; None where it is known already, or stands for no plain
    stitch."""
    name, meaning = name.strip(), meaning.strip().rstrip(".").lower()
    known = name.lower() in stitch_words(terms) or name.lower() in _KNOWN
    if known or not _NAME.fullmatch(name) or name == "x" or not re.fullmatch(r"[a-z]+(?: [a-z]+)*", meaning):
        return None  # "x" are times
    words = tuple(meaning.split())
    if len(words) > MOST_WORDS or words[0] in _KNOWN[:3]:
        return None
    stream = Stream(tokens_of(meaning, 1, 1), Context(1, (0,), terms), Span(1, len(meaning), len(meaning) + 1))
    steps = read_steps(stream)
    plain = len(steps) == 1 and isinstance(steps[0], Work | Together) and isinstance(steps[0].into, Next | None)
    return words if plain and not stream.findings else None
