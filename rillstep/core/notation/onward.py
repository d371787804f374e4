"""Rounds that go on as those before them: "Continue in this manner, working 2 more sc along each side, until there
are 15 rounds."

What each of them does is not said; how many stitches it makes is, as each grows by as much as the last one written out.
"""

import re

from rillstep.core.clauses import rows_again
from rillstep.core.craft import stitch_words
from rillstep.core.tree import Num, Onward
from rillstep.core.words.stream import Context, NotUnderstood, stream_over

_STARTS = re.compile(
    r"^\s*(?:cont(?:inue)?\.?|carry\s+on|proceed|keep\s+going|keep\s+on|go\s+on|work)\b[^.;]*?\b(?:in\s+(?:this|"
    r"the\s+same|that)\s+(?:manner|way|fashion|pattern)"
    r"|(?:as|in)\s+(?:the\s+)?(?:established|set|before)(?:\s+pattern)?|in\s+(?:the\s+)?pattern(?:\s+as\s+(?:set|"
    r"established))?|like\s+this)\b"
    r"|^\s*(?:cont(?:inue)?\.?|carry\s+on|keep|go\s+on)\s+(?:on\s+)?(?:increasing|inc|to\s+increase|"
    r"decreasing|dec|to\s+decrease)\b",
    re.IGNORECASE,
)
_UNTIL = re.compile(
    r",?\s{0,3}\b(?:until|till|for)\s+(?=(?:there\s+are|you\s+have|a\s+total|another|the\s+next|next|\d))",
    re.IGNORECASE,
)


# Rounds that grow now and then do not all do what the one before did.
_EVERY_FEW = re.compile(
    r"\b(?:every|each)\s+(?:other|second|third|fourth|\d+(?:nd|rd|th))\s+(?:rnd|round|row)", re.IGNORECASE
)


def starts(text: str) -> bool:
    """Does an instruction go on as the rounds before it?"""
    return _STARTS.match(text) is not None and _EVERY_FEW.search(text) is None


def read_onward(text: str, line: int, context: Context, start: int, end: int) -> tuple[Onward, rows_again.AgainBody]:
    """What text[start:end] says: the words that are kept, and how many rounds. Raises NotUnderstood."""
    until = _UNTIL.search(text, start, end)
    words = text[start : until.start() if until is not None else end]
    stream = stream_over(text, line, context, until.start() if until is not None else end, end)
    said = rows_again.read_how_often(stream, ())
    if stream.findings or any(not token.is_mark(".", ",", ";") for token in stream.tokens[said.rest :]):
        raise NotUnderstood(stream.here(), "how many rounds these are is not said")
    return Onward(_kept(words, context), stream_over(text, line, context, start, end).here()), said


def _kept(words: str, context: Context) -> str:
    """The words, with "sts" for names of stitches, which are called otherwise in other terms."""
    known = stitch_words(context.terms)
    plain = " ".join(words.strip(" .,;").lower().split())
    return re.sub(r"[a-z]+", lambda word: "sts" if word[0] in known else word[0], plain)


def last_of(said: rows_again.AgainBody, first: Num) -> Num | None:
    """The last of these rounds, where it is said: "until there are 15 (19) rounds", "for 10 more rounds"."""
    if said.until is not None or said.total is not None:
        return said.until or said.total
    if said.more is None:
        return None
    return first.plus(said.more, by=-1)
