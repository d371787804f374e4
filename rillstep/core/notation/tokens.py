"""What a line of text is cut into."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from rillstep.core.findings import Span

TokenKind = Literal["num", "ordinal", "word", "mark", "expr"]


@dataclass(frozen=True, slots=True)
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
