"""What a line of text is cut into."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
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


def bracket_end(tokens: Sequence[Token], at: int) -> int | None:
    """One past the bracket that closes the one at `at`; None where none does, or none opens there."""
    if at >= len(tokens) or not tokens[at].is_mark("(", "["):
        return None
    depth = 0
    for end in range(at, len(tokens)):
        depth += tokens[end].is_mark("(", "[") - tokens[end].is_mark(")", "]")
        if not depth:
            return end + 1
    return None
