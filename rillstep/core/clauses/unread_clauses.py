"""A clause that is not understood: what is said of it, and what it may have meant."""

import difflib

from rillstep.core.craft import GATHERED, PICOT, Terms, stitch_words
from rillstep.core.findings import Finding
from rillstep.core.memory import remember
from rillstep.core.words.lexicon import USUAL_WORDS
from rillstep.core.words.stream import NotUnderstood, Stream
from rillstep.core.words.tokens import Token


def give_up_clause(stream: Stream, start: int, problem: NotUnderstood, closing: str | None) -> None:
    """Step over a clause that was not understood, and say so, naming its words."""
    while (token := stream.peek()) is not None and not token.is_mark(",", ";", ".", "]", ")"):
        stream.next()
    if closing is None and (token := stream.peek()) is not None and token.is_mark("]", ")"):
        stream.next()
    stream.count(start)  # said to be not understood
    span = stream.since(start)
    words = " ".join(token.text for token in stream.tokens[start : stream.at])
    foreign = _foreign_word(stream, start)
    if foreign is not None:
        other = "UK" if stream.context.terms == "US" else "US"
        message = (
            f"“{foreign}” is a {other} name, and this text is in {stream.context.terms} "
            f"terms: “{words}” is not understood."
        )
        stream.findings.append(Finding("terms-mixed", "error", span, message))
        return
    detail = f": {problem.message}" if problem.message else ""
    message = f"“{words}” is not understood{detail}.{_did_you_mean(stream, start)}"
    stream.findings.append(Finding(problem.code, "error", span, message))


def _foreign_word(stream: Stream, start: int) -> str | None:
    """A stitch that has this name only on the other side of the ocean."""
    other = stitch_words("UK" if stream.context.terms == "US" else "US")
    mine = stitch_words(stream.context.terms)
    found = (
        t.text for t in stream.tokens[start : stream.at] if t.kind == "word" and t.text in other and t.text not in mine
    )
    return next(found, None)


def _stands_as_stitch(stream: Stream, token: Token) -> bool:
    """Does an unknown word stand where a stitch would: before "in next st"?"""
    at = stream.tokens.index(token) + 1
    while at < len(stream.tokens) and (
        stream.tokens[at].is_mark("-") or stream.tokens[at].is_word("st", "sts", "stitch")
    ):
        at += 1
    return (
        at + 1 < len(stream.tokens) and stream.tokens[at].is_word("in", "into") and stream.tokens[at + 1].kind == "word"
    )


@remember(4096)
def _nearest_word(word: str, terms: Terms, names: tuple[str, ...]) -> str:
    """The word of the language that is nearest to this one, itself if it is one; nothing when none is near."""
    stitches = stitch_words(terms)
    known = [*stitches, *GATHERED, PICOT, "ch", "sk", "inc", "dec", "join", "turn", "rotate", "repeat", *names]
    if word in known:
        return word
    # A slip of the pen keeps the first letter, or changes two for each other.
    likely = [
        name
        for name in known
        if (name[:1] == word[:1] or sorted(name) == sorted(word)) and not (name[-1:] == "s" and name[:-1] in stitches)
    ]
    return next(iter(difflib.get_close_matches(word, likely, 1, 0.6 if len(word) < 5 else 0.75)), "")


def _did_you_mean(stream: Stream, start: int) -> str:
    names = tuple(name for name, _ in stream.context.specials)
    for token in stream.tokens[start : stream.at]:
        if token.kind != "word" or len(token.text) < 3 or token.text in USUAL_WORDS:
            continue
        near = _nearest_word(token.text, stream.context.terms, names)
        if near == token.text:
            continue
        if near:
            return f" Did you mean “{near}”?"
        if _stands_as_stitch(stream, token):
            return f" If “{token.text}” is a stitch of your own, say what it is: “Define: {token.text} = ...”."
    return ""
