"""Lengths to work to: "until the wall measures 20 (24) cm from the base", "until it covers a third of the front"."""

import re
from fractions import Fraction

from rillstep.core.findings import Finding
from rillstep.core.tree import Num, Until
from rillstep.core.wordlists import word_list
from rillstep.core.words.stream import Context, Stream, stream_over

_UNITS = {"mm": "mm", "cm": "cm", "in": "in", "inch": "in", "inches": "in"}
_PIECES = word_list(
    "it piece wall walls work panel body strap bag section the this your chain side sides flap handle "
    "pocket gusset base cord tube total height length"
)
_MEASURES = word_list("measures measure is are reaches reach has about approximately approx tall high long wide")
_SHARES = {
    "half": Fraction(1, 2), "third": Fraction(1, 3), "3rd": Fraction(1, 3), "quarter": Fraction(1, 4),
    "fourth": Fraction(1, 4), "4th": Fraction(1, 4),
    "thirds": Fraction(1, 3), "quarters": Fraction(1, 4), "fourths": Fraction(1, 4),
}  # fmt: skip
_MOST_WORDS = 8
_UNTIL = re.compile(r"[,;]?\s*\b(?:until|till)\b", re.IGNORECASE)
_ON = re.compile(
    r"^(\s*(?:rn?ds?|rounds?|rows?)\.?\s*\d+)(\s*(?:and\s+)?(?:on(?:wards?)?|up))(?=\s*:.*\b(?:until|till)\b)",
    re.IGNORECASE,
)


def read_until(stream: Stream) -> Until | None:
    """The length behind "until", which was taken; None, and nothing is taken, for any other words."""
    return _length(stream) or _share(stream)


def _length(stream: Stream) -> Until | None:
    tokens = stream.tokens[stream.at :]
    at = next((i for i, token in enumerate(tokens) if token.kind == "num"), None)
    if at is None or not 2 <= at <= _MOST_WORDS or at + 1 >= len(tokens) or tokens[at + 1].text not in _UNITS:
        return None
    words = tokens[:at]
    if not all(token.is_word(*_PIECES, *_MEASURES) for token in words):
        return None
    if not any(token.is_word("measures", "measure", "is", "are", "reaches", "has") for token in words):
        return None
    if len(tokens[at].members) not in (1, stream.context.n_sizes, len(stream.context.active)):
        return None
    start = stream.at
    said = stream.written(start, start + at)
    length, unit = stream.as_decimals(tokens[at]), _UNITS[tokens[at + 1].text]
    stream.at = start + at + 2
    rest = _rest(stream)
    stream.count(start)
    return Until(said, length, unit, rest, span=stream.since(start))


def _share(stream: Stream) -> Until | None:
    """ "the flap covers a third of the front", "it covers two thirds of the panel"."""
    start = stream.at
    while stream.word(*_PIECES):
        pass
    if stream.at == start or not stream.word("covers", "cover", "reaches"):
        stream.at = start
        return None
    said = stream.written(start, stream.at)
    begin = stream.at
    times = 2 if stream.word("two") else 3 if stream.word("three") else 1
    if times == 1:
        stream.word("a", "one")
    token = stream.peek()
    part = _SHARES.get(token.text) if token is not None else None
    if part is not None:
        stream.next()
        stream.word("of")
        stream.word("the")
        of = stream.peek()
        if of is not None and of.kind == "word":
            stream.next()
            rest = stream.written(begin, stream.at)
            stream.count(start)
            return Until(said, None, "", rest, times * part, of.text, stream.since(start))
    stream.at = start
    return None


def _rest(stream: Stream) -> str:
    """What is said of where the length is measured from: "from the base", "in height"."""
    start = stream.at
    if not stream.word("from", "in", "tall", "high", "long", "above", "altogether", "total"):
        return ""
    while (token := stream.peek()) is not None and token.kind == "word" and stream.at - start < _MOST_WORDS:
        stream.next()
    return stream.written(start, stream.at)


def chain_length(stream: Stream) -> Until | None:
    """The length of a chain: "60 (70) cm", "a length of 60 cm long"; None, and nothing is taken, where it is told by
    its chains."""
    start = stream.at
    stream.any_of("a length of", "for about", "about", "for", "to measure", "approximately")
    token, unit = stream.peek(), stream.peek(1)
    told = token is not None and token.kind == "num" and unit is not None and unit.text in _UNITS
    if not told or token is None or unit is None:
        stream.at = start
        return None
    length = stream.as_decimals(token)
    stream.at += 2
    stream.word("long")
    stream.count(start)
    return Until("it measures", length, _UNITS[unit.text], span=stream.since(start))


def split_until(text: str, line: int, context: Context, start: int, end: int) -> tuple[str, Until | None]:
    """The text of a row without "until the wall measures 20 cm", with blanks in its place, and the length."""
    for match in _UNTIL.finditer(text, start, end):
        stream = stream_over(text, line, context, match.end(), end)
        until = read_until(stream)
        after = stream.peek()
        if until is not None and (after is None or after.kind not in ("word", "num")):
            upto = after.span.column - 1 if after is not None else end
            if text[upto : upto + 1] == ",":
                upto += 1
            return text[: match.start()] + " " * (upto - match.start()) + text[upto:], until
    return text, None


def not_counted(until: Until | None, last: Num | None) -> list[Finding]:
    """What is to be said of rows by measure of which nothing else tells how many they are."""
    if until is None or last is not None:
        return []
    message = (
        "How many rows this makes is not said as a number; say “until there are … rows”, or add a gauge, such as "
        "“Gauge: hdc 15 sts x 12 rows = 10 cm”, to have it proved."
    )
    return [Finding("rows-not-counted", "warning", until.span, message)]


def open_label(text: str) -> str:
    """ "Rnd 2 on: ... until it measures 20 cm": the line with a plain label."""
    match = _ON.match(text)
    return text if match is None else match[1] + " " * len(match[2]) + text[match.end() :]
