"""A line of text as tokens with their columns; loose spelling is normalised here, once.

Number sets are single tokens ("12 (15, 18)", "12/15/18"), as they are single numbers to a
reader. A set written with bare commas is taken as one only when it has exactly one number
for each size and is followed by a word that counts something.
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from rillstep.core.findings import Span
from rillstep.core.memory import remember
from rillstep.core.wordlists import word_list
from rillstep.core.words.lexicon import ABBREVIATED, NUMBER_WORDS, ORDINAL_WORDS, OTHER_NAMES, ROWS, TENS, UNITS

TokenKind = Literal["num", "ordinal", "word", "mark", "expr"]


@dataclass(frozen=True, slots=True)
class Token:
    """`text` is lower case for words; `members` holds a set's numbers with their spans."""

    kind: TokenKind
    text: str
    span: Span
    members: tuple[tuple[float, Span], ...] = ()
    taught: bool = False  # it comes from what a phrase means, and stands itself nowhere in the line

    def is_word(self, *words: str) -> bool:
        return self.kind == "word" and self.text in words

    def is_mark(self, *marks: str) -> bool:
        return self.kind == "mark" and self.text in marks


def renamed(tokens: Sequence[Token], text: str, names: Sequence[tuple[str, tuple[str, ...]]]) -> Sequence[Token]:
    """The tokens of a text with its own abbreviations as what they stand for; a single letter must be written alike."""
    exact = dict(names)
    long = {name.lower(): words for name, words in names if len(name) > 1}
    found: list[Token] = []
    for token in tokens:
        written = text[token.span.column - 1 : token.span.end_column - 1]
        words = (exact.get(written) or long.get(token.text)) if token.kind == "word" else None
        found += [Token("word", word, token.span) for word in words] if words else [token]
    return found


@dataclass(frozen=True)
class Taught:
    """A phrase of the text's own: as it is written, its tokens, and what is meant by it; no meaning where it changes
    nothing."""

    written: str
    words: tuple[str, ...]
    meaning: str
    tokens: tuple[Token, ...]
    listed: bool = False  # it stands in a list of abbreviations, as any text has one
    vouched: bool = False  # the designer vouches for the lines that hold it


def places_of(tokens: Sequence[Token], taught: Sequence[Taught]) -> list[tuple[int, int, Taught]]:
    """Where phrases stand among tokens, first and one past the last; of several the longest is meant."""
    found: list[tuple[int, int, Taught]] = []
    at = 0
    texts = [token.text for token in tokens]
    ranked = sorted(taught, key=lambda one: -len(one.words))
    while at < len(tokens):
        one = next((p for p in ranked if tuple(texts[at : at + len(p.words)]) == p.words), None)
        if one is not None:
            found.append((at, at + len(one.words), one))
        at += len(one.words) if one is not None else 1
    return found


def meant(tokens: Sequence[Token], places: Sequence[tuple[int, int, Taught]]) -> list[Token]:
    """The tokens with phrases as what they mean; each of those has the place of the whole phrase."""
    found: list[Token] = []
    at = 0
    for first, last, one in places:
        span = tokens[first].span.to(tokens[last - 1].span)
        found += tokens[at:first]
        found += [
            replace(t, span=span, members=tuple((v, span) for v, _ in t.members), taught=True) for t in one.tokens
        ]
        at = last
    return [*found, *tokens[at:]]


# Brackets that hold more within each other are not looked through.
MOST_NESTED = 60


def bracket_end(tokens: Sequence[Token], at: int) -> int | None:
    """One past the bracket that closes the one at `at`; None where none does, or none opens there."""
    if at >= len(tokens) or not tokens[at].is_mark("(", "["):
        return None
    depth = 0
    for end in range(at, len(tokens)):
        depth += tokens[end].is_mark("(", "[") - tokens[end].is_mark(")", "]")
        if not depth:
            return end + 1
        if depth > MOST_NESTED:
            return None
    return None


_GLUED_CHAIN = re.compile(r"^(ch)(\d{1,3})(sps?|spaces?|lps?|loops?)?$")
_GLUED_SKIP = re.compile(r"^(sk|skip|miss)(\d{1,3})$")
_GLUED_ROW = re.compile(r"^(r|rnd|row|round)(\d{1,4})$")
_GLUED_UNITS = word_list("st sts ch chs sp sps rnd row sc dc hdc htr tr dtr trtr ss")
_GOES_ON = word_list("around across of to from and in into on sp sps space spaces loop loops throughout")
# Abbreviations as old booklets print them, with a stop behind each letter: "d.c.", "h.tr.", "s.s.".
_LETTERED = frozenset(word_list("sc dc hdc htr tr dtr trtr ss"))


def loosened(tokens: Sequence[Token]) -> tuple[Token, ...]:
    """The tokens of a line as the reader expects them."""
    found: list[Token] = []
    at = 0
    while at < len(tokens):
        token = tokens[at]
        before = found[-1] if found else None
        following = tokens[at + 1] if at + 1 < len(tokens) else None
        if before is not None and token.is_mark("."):
            lettered = _lettered(before, token, following)
            if lettered is not None:
                found[-1] = lettered
                at += 2
                continue
            if _no_stop(before, following):
                at += 1
                continue
        if token.is_word("very") and following is not None and following.is_word("first", "next", "last", "same"):
            at += 1  # "the very first st"
            continue
        if token.is_word("keep") and following is not None and following.is_word("repeating"):
            at += 1  # "keep repeating from *"
            continue
        if token.kind == "word":
            found += _cut_apart(token)
        else:
            found.append(token)
        at += 1
    return tuple(found)


def _lettered(before: Token, stop: Token, following: Token | None) -> Token | None:
    """ "d.c" as the word that it is; its last stop is left to be looked at as that of any abbreviation."""
    if following is None or before.kind != "word" or following.kind != "word":
        return None
    joined = before.text + following.text
    close = before.span.end_column == stop.span.column and stop.span.end_column == following.span.column
    return Token("word", joined, before.span.to(following.span)) if close and joined in _LETTERED else None


def _no_stop(before: Token, following: Token | None) -> bool:
    if following is not None and following.is_mark(",", ";", ")", "]") and before.is_word(*_GLUED_UNITS):
        return True  # "2 tr. into next tr.; repeat"
    if following is None or following.kind not in ("word", "num"):
        return False
    if before.is_word("rep"):
        return following.is_word("from", "between", "to", *ROWS)
    return before.is_word(*ABBREVIATED) or (before.is_word(*_GLUED_UNITS) and following.is_word(*_GOES_ON))


def _cut_apart(token: Token) -> list[Token]:
    """ "ch3" is "ch 3", "ch1sp" is "ch 1 sp"; other names become the usual one."""
    row = _GLUED_ROW.match(token.text) or _GLUED_SKIP.match(token.text)
    if row is not None:
        return _two(token, row[1], row[2])
    glued = _GLUED_CHAIN.match(token.text)
    if glued is None:
        name = OTHER_NAMES.get(token.text)
        return [token if name is None else Token("word", name, token.span)]
    line, column = token.span.line, token.span.column
    word, number, space = glued.groups()
    middle = column + len(word)
    digits = Span(line, middle, middle + len(number))
    pieces = [Token("word", word, Span(line, column, middle)), Token("num", number, digits, ((float(number), digits),))]
    if space:
        pieces.append(Token("word", "sp", Span(line, digits.end_column, token.span.end_column)))
    return pieces


def _two(token: Token, word: str, number: str) -> list[Token]:
    line, column = token.span.line, token.span.column
    digits = Span(line, column + len(word), token.span.end_column)
    return [
        Token("word", word, Span(line, column, column + len(word))),
        Token("num", number, digits, ((float(number), digits),)),
    ]


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
_ANY_WORD = rf"(?:{'|'.join(sorted(NUMBER_WORDS, key=len, reverse=True))})\b"
# Words that are no number, which most are: told at once, so that no other form is tried on them.
_NO_NUMBER = r"(?!on|tw|th|fo|fi|si|se|ei|ni|te|el|x\d)[^\W\d_][^\W_]*(?:'[^\W\d_]+)?(?:\(s\))?"
_TOKEN = re.compile(
    rf"""\s*(?:(?P<plain>{_NO_NUMBER})
    |(?P<ordinals>{_NTH}(?:\s?[(\[]\s?{_NTH}(?:\s?[,:;/]\s?{_NTH}){{0,9}}\s?[)\]]|(?:/{_NTH}){{1,9}}))
    |(?P<ordinal>{_NTH}\b)
    |(?P<set>{_MANY}(?:\s*[(\[]\s*{_MANY}(?:\s*[,:;/|]\s*{_MANY})*\s*[)\]]
      |\s*\{{\s*{_MANY}(?:\s*[,:;/|]\s*{_MANY})*\s*\}})+)
    |(?P<numbered>(?:twenty|{"|".join(TENS)})-(?:{"|".join(UNITS[:9])})\b)
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


def plain(text: str) -> str:
    """The text with typographic characters made plain, each one character for one."""
    return text.translate(_PLAIN)


def _members(text: str, line: int, start: int) -> tuple[tuple[float, Span], ...]:
    return tuple(
        (
            float(NUMBER_WORDS.get(m.group().lower(), 0) or m.group()),
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


@remember(16_384)
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
    if kind in ("word", "numbered") and word in NUMBER_WORDS:
        return Token("num", str(NUMBER_WORDS[word]), span, ((float(NUMBER_WORDS[word]), span),))
    if kind == "word" and word in ORDINAL_WORDS:
        return Token("ordinal", ORDINAL_WORDS[word], span)
    return Token(kind, word, span)  # type: ignore[arg-type]
