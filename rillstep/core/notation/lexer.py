"""One line of text into tokens with their columns; loose spelling is normalised here, once.

Number sets are single tokens ("12 (15, 18)", "12/15/18"), as they are single numbers to a
reader. A set written with bare commas is taken as one only when it has exactly one number
for each size and is followed by a word that counts something.
"""

import re
from functools import lru_cache

from rillstep.core.findings import Span
from rillstep.core.notation.loosened import loosened
from rillstep.core.notation.tokens import Token

# Typographic characters that readers' programs put in; each maps to one character, so
# that columns stay true.
_PLAIN = str.maketrans(
    {
        "–": "-",
        "‑": "-",
        "−": "-",
        "‐": "-",
        "“": '"',
        "”": '"',
        "’": "'",
        "‘": "'",
        "×": "x",
        "\u00a0": " ",
        "∗": "*",
        "•": "*",
    }
)

_NUMBER = r"\d+(?:\.\d+)?"
_NTH = r"\d{1,4}(?:st|nd|rd|th)"
_MANY = r"\d{1,6}(?:\.\d{1,4})?"
_UNITS = (
    "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve", "thirteen",
    "fourteen",
    "fifteen", "sixteen", "seventeen", "eighteen", "nineteen", "twenty",
)  # fmt: skip
_TENS = {"thirty": 30, "forty": 40, "fifty": 50, "sixty": 60, "seventy": 70, "eighty": 80, "ninety": 90}
_WORD_NUMBERS = (
    {word: number for number, word in enumerate(_UNITS, start=1)}
    | _TENS
    | {
        f"{ten}-{unit}": n + k
        for ten, n in ({"twenty": 20} | _TENS).items()
        for k, unit in enumerate(_UNITS[:9], start=1)
    }
)
_ANY_WORD = rf"(?:{'|'.join(sorted(_WORD_NUMBERS, key=len, reverse=True))})\b"
# Words that are no number, which most are: told at once, so that no other form is tried on them.
_NO_NUMBER = r"(?!on|tw|th|fo|fi|si|se|ei|ni|te|el|x\d)[^\W\d_][^\W_]*(?:'[^\W\d_]+)?(?:\(s\))?"
_TOKEN = re.compile(
    rf"""\s*(?:(?P<plain>{_NO_NUMBER})
    |(?P<ordinals>{_NTH}(?:\s?[(\[]\s?{_NTH}(?:\s?[,:;/]\s?{_NTH}){{0,9}}\s?[)\]]|(?:/{_NTH}){{1,9}}))
    |(?P<ordinal>{_NTH}\b)
    |(?P<set>{_MANY}(?:\s*[(\[]\s*{_MANY}(?:\s*[,:;/|]\s*{_MANY})*\s*[)\]]
      |\s*\{{\s*{_MANY}(?:\s*[,:;/|]\s*{_MANY})*\s*\}})+)
    |(?P<numbered>(?:twenty|{"|".join(_TENS)})-(?:{"|".join(_UNITS[:9])})\b)
    |(?P<wordset>{_ANY_WORD}(?:\s*[(\[]\s*{_ANY_WORD}(?:\s*,\s*{_ANY_WORD})*\s*[)\]]|(?:\s?/\s?{_ANY_WORD}){{1,9}}))
    |(?<![/|])(?P<slashes>{_MANY}(?:(?:\s?[/|]\s{{0,2}}|:){_MANY}){{1,9}}(?!\d|\s?[/|]\s?\d|:\d))
    |(?P<num>{_NUMBER})
    |(?P<expr>\{{[^{{}},;]{{0,200}}\}})
    |(?P<times>[xX](?=\d))
    |(?P<word>[^\W\d_][^\W_]*(?:'[^\W\d_]+)?(?:\(s\))?)
    |(?P<mark>—|\*\*|[^\s]))""",
    re.VERBOSE | re.IGNORECASE,
)
_COUNTED = r"(?:sts?|chs?|sps?|times|rn?ds?|rounds?|rows?|stitch(?:es)?)"
_WORKED = re.compile(rf"{_MANY}(?:\s*,\s*{_MANY}){{2,9}}(?=\s+(?:sc|hdc|dc|tr|dtr|htr|inc|dec)\b)", re.IGNORECASE)
_ALL_WITHIN = re.compile(rf"[(\[]\s*{_MANY}(?:\s*[,:;/|]\s*{_MANY}){{1,9}}\s*[)\]]")
# "31 (35) 39", "31 (35) 39 (43)": every second number in brackets.
_ALTERNATING = re.compile(rf"{_MANY}\s?\({_MANY}\)\s?{_MANY}(?:\s?\({_MANY}\)(?:\s?{_MANY})?){{0,4}}(?!\d|\s?\(\d)")
_COMMA = re.compile(r"\s*,")
_COMMAS = re.compile(rf"{_MANY}(?:\s*,\s*{_MANY}){{1,9}}(?=\s+(?:(?:more|further|additional)\s+)?{_COUNTED}\b)")
_GLUED_SET = re.compile(rf"(ch|chain)({_MANY}\s*[(\[]\s*{_MANY}(?:\s*[,:;/|]\s*{_MANY})*\s*[)\]])", re.IGNORECASE)
_COMMAS_ALONE = re.compile(
    rf"{_MANY}(?:\s*,\s*{_MANY}){{1,9}}(?=\s*(?:[.;]|$|,\s*[a-z]|(?:and|then|to|loosely|join)\b))", re.IGNORECASE
)
_MEMBER = re.compile(rf"{_NUMBER}|{_ANY_WORD}", re.IGNORECASE)
_WORD_ORDINALS = {
    "second": "2nd", "third": "3rd", "fourth": "4th", "fifth": "5th", "sixth": "6th", "seventh": "7th",
    "eighth": "8th", "ninth": "9th",
    "tenth": "10th", "eleventh": "11th", "twelfth": "12th", "thirteenth": "13th", "fourteenth": "14th",
    "fifteenth": "15th",
    "sixteenth": "16th",
}  # fmt: skip
# Words that say a number, or which one.
WORD_NUMBERS = frozenset((*_WORD_NUMBERS, *_WORD_ORDINALS))


def plain(text: str) -> str:
    """The text with typographic characters made plain, each one character for one."""
    return text.translate(_PLAIN)


def _members(text: str, line: int, start: int) -> tuple[tuple[float, Span], ...]:
    return tuple(
        (
            float(_WORD_NUMBERS.get(m.group().lower(), 0) or m.group()),
            Span(line, start + m.start() + 1, start + m.end() + 1),
        )
        for m in _MEMBER.finditer(text)
    )


# Longer lines than people write are not remembered: they would fill the memory.
MOST_REMEMBERED = 800


def tokens_of(text: str, line: int, sizes: int, start: int = 0, active: int = 0) -> tuple[Token, ...]:
    """The tokens of `text[start:]`, which is line number `line` of a pattern for `sizes` sizes, `active` of them in
    force."""
    cut = _cut if len(text) - start > MOST_REMEMBERED else _remembered
    return cut(text, line, sizes, start, active)


@lru_cache(maxsize=16384)
def _remembered(text: str, line: int, sizes: int, start: int, active: int) -> tuple[Token, ...]:
    return _cut(text, line, sizes, start, active)


def _cut(text: str, line: int, sizes: int, start: int, active: int) -> tuple[Token, ...]:
    clean = plain(text)
    found: list[Token] = []
    at = start
    while (
        match := _TOKEN.match(clean, at)
    ) is not None:  # None where only space is left: the last form takes any character
        kind, end = match.lastgroup or "mark", match.end()
        at = match.start(kind)
        if kind == "plain":
            kind = "word"
            if sizes == 1 or clean[at] not in "cC" or not _GLUED_SET.match(clean, at):
                found.append(Token("word", clean[at:end].lower(), Span(line, at + 1, end + 1)))
                at = end
                continue
        if clean[at] == "*" and end == at + 1 and _times_star(clean, start, at):
            found.append(Token("word", "x", Span(line, at + 1, end + 1)))
            at = end
            continue
        may_be_glued = kind == "word" and sizes > 1 and clean[at] in "cC"
        glued = _GLUED_SET.match(clean, at) if may_be_glued else None
        if glued is not None and len(_MEMBER.findall(glued[2])) in (sizes, active or sizes):
            end = at + len(glued[1])  # "ch4 (6)" is "ch 4 (6)"
        turns = _ALTERNATING.match(clean, at) if kind in ("num", "set") and sizes > 2 else None
        if turns is not None and len(_MEMBER.findall(turns.group())) in (sizes, active or sizes):
            kind, end = "set", turns.end()  # "31 (35) 39"
        if kind in ("num", "set") and sizes > 1:
            commas = _COMMAS.match(clean, at) if _COMMA.match(clean, end) else None
            if commas is not None and len(_MEMBER.findall(commas.group())) in (sizes, active or sizes):
                kind, end = "set", commas.end()
        if (
            kind == "num"
            and sizes > 2
            and (worked := _WORKED.match(clean, at)) is not None
            and len(_MEMBER.findall(worked.group())) == (active or sizes)
        ):
            kind, end = "set", worked.end()  # "3, 4, 5 sc"
        if kind == "num" and sizes > 1 and found and found[-1].is_word("ch", "chain"):
            commas = _COMMAS_ALONE.match(clean, at)
            if commas is not None and len(_MEMBER.findall(commas.group())) in (sizes, active or sizes):
                kind, end = "set", commas.end()
        if kind == "ordinals" and len(_MEMBER.findall(match.group())) not in (sizes, active or sizes):
            first = _MEMBER.match(clean, at)
            assert first is not None
            kind, end = "ordinal", first.end() + 2
        if kind == "slashes" and len(_MEMBER.findall(match.group())) not in (sizes, active or sizes):
            first = _MEMBER.match(clean, at)
            assert first is not None
            kind, end = "num", first.end()
        if (
            kind == "mark"
            and clean[at] in "(["
            and sizes > 1
            and (
                not found
                or found[-1].is_word(
                    "ch", "chain", "next", "first", "last", "following", "remaining", "until", "another"
                )
            )
            and (whole := _ALL_WITHIN.match(clean, at)) is not None
            and len(_MEMBER.findall(whole.group())) == (active or sizes)
        ):
            kind, end = "set", whole.end()  # "ch (15, 19, 23)"
        found.append(_token(clean[at:end], kind, Span(line, at + 1, end + 1), line, at))
        at = end
    return loosened(found)


_BY = re.compile(r"\*\s?\d+\s*(?:[(\[,;.)\]]|$)")


def _times_star(text: str, start: int, at: int) -> bool:
    """ "inc*6", "(sc, inc)*6": a star that multiplies, and closes no run."""
    glued = at > start and (text[at - 1] in ")]}" or text[at - 1].isalpha())
    return glued and _BY.match(text, at) is not None and text.count("*", start, at) % 2 == 0


def _token(piece: str, kind: str, span: Span, line: int, at: int) -> Token:
    if kind in ("num", "set", "slashes", "wordset"):
        return Token("num", piece, span, _members(piece, line, at))
    word = piece.lower()
    if kind == "ordinals":  # "18th (21st)"
        members = _members(piece, line, at)
        return Token("ordinal", word[: members[0][1].end_column - at + 1], span, members)
    if kind == "times":
        return Token("word", word, span)
    if kind in ("word", "numbered") and word in _WORD_NUMBERS:
        return Token("num", str(_WORD_NUMBERS[word]), span, ((float(_WORD_NUMBERS[word]), span),))
    if kind == "word" and word in _WORD_ORDINALS:
        return Token("ordinal", _WORD_ORDINALS[word], span)
    return Token(kind, word, span)  # type: ignore[arg-type]
