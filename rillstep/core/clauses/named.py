"""What the words of a row name besides the places that it works into: the chain that a round began with, by its length;
the stitch that it is joined to, or that is some rows below; an earlier row. None of it is worked, and each of it must
be there."""

from collections.abc import Iterator, Sequence

from rillstep.core.craft import BY_US, stitch_words
from rillstep.core.tree import Gesture, Named, NamedBelow, NamedChain, NamedRow, NamedStitch, Num, Step
from rillstep.core.words.lexicon import CHAIN, SPACE
from rillstep.core.words.stream import BelowNamed, Stream
from rillstep.core.words.tokens import Token

_FIRST = ("first", "1st")
_BEGINNING = ("turning", "starting", "beginning", "beg", "initial")
# "(counts as dc and ch 2)" tells what a chain is, and names none.
_COUNTS = ("count", "counts", "counted", "counting", "skipped")


def named_in(body: Stream, steps: Sequence[Step]) -> tuple[Named, ...]:
    """What a row names, in the order of its words; `body` is its stream, read to the end."""
    joins = [step.span for step in steps if isinstance(step, Gesture) and step.kind in ("join", "join into ring")]
    joined = {
        at
        for at, token in enumerate(body.tokens)
        for span in joins
        if span.line == token.span.line and span.column <= token.span.column < span.end_column
    }
    named: list[Named] = []
    for one in body.named:
        if isinstance(one, BelowNamed):
            named.append(NamedBelow(one.stitch, one.below, one.span))
        else:
            named.append(NamedRow("Row" if one.kind == "Row" else "Rnd", one.number))
    return (*named, *_chains(body, joined), *_stitches(body, joined))


def _chains(body: Stream, joined: set[int]) -> Iterator[NamedChain]:
    whole = list(_by_length(body, joined))
    yield from whole
    spans = {one.nth.span for one in whole if one.nth is not None}
    for at in sorted(joined):
        token, after = body.tokens[at], body.tokens[at + 1 : at + 3]
        names = token.kind == "ordinal" and any(one.is_word(*CHAIN) for one in after[:1])
        if names and token.span not in spans and not (len(after) > 1 and after[1].is_word(*SPACE)):
            yield NamedChain(None, _ordinal(body, token), False)


def _by_length(body: Stream, joined: set[int]) -> Iterator[NamedChain]:
    told = {at for first, last in body.counted for at in range(first, last)}
    for at in sorted(told):
        token = body.tokens[at] if at < len(body.tokens) else None
        if token is None or token.kind != "num" or token.taught:
            continue
        if len(token.members) not in (1, body.context.n_sizes, len(body.context.active)):
            continue  # a total in brackets beside it
        before = body.tokens[max(0, at - 5) : at]
        if not _is_of_chain(body.tokens, at) or any(one.is_word(*_COUNTS) or one.is_mark("(", ",") for one in before):
            continue
        here = at in joined or any(one.is_word("base") for one in before)
        nth = next((i for i in range(at - 1, max(-1, at - 8), -1) if body.tokens[i].kind == "ordinal"), None)
        if here or nth is not None or any(one.is_word("top", *_BEGINNING) for one in before):
            yield NamedChain(body.as_num(token), _which(body, nth), not here)


def _which(body: Stream, at: int | None) -> Num | None:
    """Which chain of it: the 3 of "3rd ch of beg ch-5"."""
    if at is None or not any(token.is_word("of") for token in body.tokens[at + 1 : at + 3]):
        return None
    return _ordinal(body, body.tokens[at])


def _ordinal(body: Stream, token: Token) -> Num:
    return Num(tuple(int(token.text[:-2]) for _ in range(body.context.n_sizes)), token.span)


def _is_of_chain(tokens: Sequence[Token], at: int) -> bool:
    """Is a number the length of a chain ("ch-3", "3-ch", "ch 3", "3 ch"), and of no chain space?"""
    after = [token for token in tokens[at + 1 : at + 4] if not token.is_mark("-")]
    before = [token for token in tokens[max(0, at - 2) : at] if not token.is_mark("-")]
    if after and after[0].is_word(*CHAIN):
        return not (len(after) > 1 and after[1].is_word(*SPACE))
    return bool(before) and before[-1].is_word(*CHAIN) and not (after and after[0].is_word(*SPACE))


def _stitches(body: Stream, joined: set[int]) -> Iterator[NamedStitch]:
    """The stitch named behind "first" within a join."""
    known = stitch_words(body.context.terms)
    for at in sorted(joined):
        token = body.tokens[at]
        named = token.kind == "word" and not token.taught and known.get(token.text) in BY_US
        if named and at and body.tokens[at - 1].is_word(*_FIRST):
            following = body.tokens[at + 1] if at + 1 < len(body.tokens) else None
            if following is None or not following.is_word(*SPACE):
                yield NamedStitch(known[token.text], token.span)
