"""What a line of text is cut into."""

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
