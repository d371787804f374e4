"""One line of text into tokens with their columns; loose spelling is normalised here, once.

Number sets are single tokens ("12 (15, 18)", "12/15/18"), as they are single numbers to a
reader. A set written with bare commas is taken as one only when it has exactly one number
for each size and is followed by a word that counts something.
"""

import re
from dataclasses import dataclass
from typing import Literal

from rillstep.core.findings import Span

TokenKind = Literal["num", "ordinal", "word", "mark", "expr"]

# Typographic characters that readers' programs put in; each maps to one character, so
# that columns stay true.
_PLAIN = str.maketrans({"–": "-", "‑": "-", "−": "-", "“": '"', "”": '"', "’": "'", "‘": "'", "×": "x", "\u00a0": " "})

_NUMBER = r"\d+(?:\.\d+)?"
_TOKEN = re.compile(
    rf"""(?P<ordinal>\d{{1,4}}(?:st|nd|rd|th)\b)
    |(?P<set>{_NUMBER}\s*[(\[]\s*{_NUMBER}(?:\s*,\s*{_NUMBER})*\s*[)\]])
    |(?P<slashes>{_NUMBER}(?:/{_NUMBER})+)
    |(?P<num>{_NUMBER})
    |(?P<expr>\{{[^{{}}]*\}})
    |(?P<times>x(?=\d))
    |(?P<word>[A-Za-z][A-Za-z0-9']*(?:\(s\))?)
    |(?P<mark>—|\*\*|[^\s])""",
    re.VERBOSE,
)
_COMMAS = re.compile(
    rf"{_NUMBER}(?:\s*,\s*{_NUMBER})+(?=\s+(?:sts?|chs?|sps?|times|rnds?|rounds?|rows?|stitch(?:es)?)\b)"
)
_MEMBER = re.compile(_NUMBER)


@dataclass(frozen=True)
class Token:
    """`text` is lower case for words; `members` holds a set's numbers with their spans."""

    kind: TokenKind
    text: str
    span: Span
    members: tuple[tuple[float, Span], ...] = ()

    def is_word(self, *words: str) -> bool:
        return self.kind == "word" and self.text in words

    def is_mark(self, *marks: str) -> bool:
        return self.kind == "mark" and self.text in marks


def _members(text: str, line: int, start: int) -> tuple[tuple[float, Span], ...]:
    return tuple(
        (float(m.group()), Span(line, start + m.start() + 1, start + m.end() + 1)) for m in _MEMBER.finditer(text)
    )


def tokens_of(text: str, line: int, sizes: int, start: int = 0) -> list[Token]:
    """The tokens of `text[start:]`, which is line number `line` of a pattern for `sizes` sizes."""
    plain = text.translate(_PLAIN)
    found: list[Token] = []
    at = start
    while at < len(plain):
        if plain[at].isspace():
            at += 1
            continue
        match = _TOKEN.match(plain, at)
        assert match is not None  # the last alternative takes any character
        kind, end = match.lastgroup, match.end()
        if kind in ("num", "set") and sizes > 1:
            commas = _COMMAS.match(plain, at)
            if commas is not None and len(_MEMBER.findall(commas.group())) == sizes:
                kind, end = "set", commas.end()
        if kind == "slashes" and len(_MEMBER.findall(match.group())) != sizes:
            first = _MEMBER.match(plain, at)
            assert first is not None
            kind, end = "num", first.end()
        piece = plain[at:end]
        span = Span(line, at + 1, end + 1)
        if kind in ("num", "set", "slashes"):
            found.append(Token("num", piece, span, _members(piece, line, at)))
        elif kind in ("word", "times"):
            found.append(Token("word", piece.lower(), span))
        else:
            found.append(Token(kind, piece.lower(), span))  # type: ignore[arg-type]
        at = end
    return found
