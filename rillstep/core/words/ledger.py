"""What of a line was taken into account: a number that stands in no step and no total, and is held to nothing else, is
not understood."""

from collections.abc import Iterable

from rillstep.core.craft import stitch_words
from rillstep.core.findings import Finding, Span
from rillstep.core.words.numbers import every_number, numbers_in
from rillstep.core.words.stream import Stream
from rillstep.core.words.tokens import Token


def uncounted(stream: Stream, nodes: object) -> list[Finding]:
    """A finding for each number that the cursor passed and that nothing was made of."""
    meant = [(number.span, number.values) for number in every_number(nodes) if not number.parts]
    taken = {(part.line, part.column) for number in numbers_in(nodes) for part in (number.span, *number.parts)}
    ranges = [*stream.counted, *((one.first, one.last) for one in stream.kept)]
    found: list[Finding] = []
    for at, token in enumerate(stream.tokens[: stream.at]):
        if token.kind not in ("num", "ordinal", "expr"):
            continue
        if any(first <= at < last for first, last in ranges):
            continue
        if token.taught and token.kind == "num" and (place := _meant(stream, token, meant)) is not None:
            del meant[place]  # a number of a meaning stands for one number, as any other
            continue
        if any((span.line, span.column) in taken for span in (token.span, *(member for _, member in token.members))):
            continue
        if _is_found(token.span, stream.findings) or _is_only_one(stream, at):
            continue
        message = f"“{token.text}” is not understood here: nothing is worked or checked by this number."
        found.append(Finding("not-understood", "error", token.span, message))
    return found


def _meant(stream: Stream, token: Token, numbers: list[tuple[Span, tuple[int | None, ...]]]) -> int | None:
    """Which of the numbers in the place of a phrase is this one of what it means."""
    values = stream.as_num(token).values
    return next((at for at, (span, held) in enumerate(numbers) if span == token.span and held == values), None)


def _is_only_one(stream: Stream, at: int) -> bool:
    """The 1 of "1 tr" says no more than the stitch alone."""
    token, following = stream.tokens[at], stream.tokens[at + 1] if at + 1 < len(stream.tokens) else None
    known = stitch_words(stream.context.terms)
    return (
        token.text in ("1", "one")
        and following is not None
        and (following.text in known or following.is_word("inc", "dec"))
    )


def _is_found(span: Span, findings: Iterable[Finding]) -> bool:
    """Does a finding say of these words already that they are not understood?"""
    return any(
        one.span.line == span.line and one.span.column <= span.column and span.end_column <= one.span.end_column
        for one in findings
    )
