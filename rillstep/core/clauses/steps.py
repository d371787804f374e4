"""The body of a line into steps: "Ch 1, sc in same st, [sc in next 2 sts, 2 sc in next st] 3 times; join."

A clause that cannot be read becomes a finding that names its words; the clauses around it
are still read. Clauses that begin alike are told apart here; what they hold is read in
`gestures`, `chains`, `works` and `brackets`.
"""

from rillstep.core.clauses import brackets, chains, endings, repeats, worked_stitches
from rillstep.core.clauses.unread_clauses import give_up_clause
from rillstep.core.craft import stitch_words
from rillstep.core.findings import Finding
from rillstep.core.language.forms.joins import names_colour
from rillstep.core.language.match import read
from rillstep.core.reading.places import STITCHES, qualifiers, read_end, read_into, read_what, taken
from rillstep.core.reading.stated_totals import stated_within
from rillstep.core.tree import (
    Chain,
    Gesture,
    Group,
    InRing,
    Last,
    Next,
    Repeat,
    Skip,
    SkipTo,
    Step,
    Together,
    TopOfChain,
    Work,
)
from rillstep.core.tree.changes import in_loop
from rillstep.core.wordlists import phrase_list, word_list
from rillstep.core.words.asides import changes_nothing, keep, keep_clause, keep_phrase, keep_strands, keep_title
from rillstep.core.words.lexicon import STITCH
from rillstep.core.words.stitch_names import how_many, sees_stitch, stitch_word
from rillstep.core.words.stream import NotUnderstood, Stream, plain_num

SEPARATORS = (",", ";", ".", ":", "-", "—", "&")
_BETWEEN = word_list("then and now working also again finally but with carefully loosely")


def read_steps(stream: Stream, closing: str | None = None) -> tuple[Step, ...]:
    """Steps up to the closing bracket, or to the end of the line when there is none."""
    steps: list[Step] = []
    told_loop: int | None = None  # the step before which the loops were told that the rest is worked in
    while (token := stream.peek()) is not None:
        if closing == "*" and repeats.inner_run(stream) is not None:
            steps.append(repeats.read_inner_run(stream, read_steps))
            continue
        if closing is not None and (token.is_mark(closing) or (closing == "*" and token.is_mark("**"))):
            return _in_told_loop(stream, steps, told_loop)
        if _is_cut_off(stream):
            message = "The line is cut off here: what is left out cannot be worked."
            stream.findings.append(Finding("not-understood", "error", token.span, message))
            stream.at = len(stream.tokens)
            continue
        if keep_title(stream) or keep_strands(stream):
            continue
        if token.is_mark(*SEPARATORS):
            stream.next()
            continue
        if token.is_word("with", "w") and (first := read(stream, "ChainAsFirst")) is not None:
            steps = _begun_with(stream, first, steps)
            continue
        if token.is_word(*_BETWEEN) and not _opens(stream):
            _between(stream)
            continue
        if closing == "*" and token.is_word("rep", "repeat"):
            return tuple(steps)
        if _says_nothing(stream, bool(steps)):
            continue
        if steps and closing is None and stated_within(stream):
            continue
        start, loop = stream.at, stream.loop
        try:
            steps += read_clause(stream, steps)
            told_loop = len(steps) if stream.loop != loop else told_loop
        except NotUnderstood as problem:
            reached = stream.at
            if keep_clause(stream, start):
                continue
            stream.at = max(reached, start + 1)
            give_up_clause(stream, start, problem, closing)
    if closing is not None and closing != "*":
        raise NotUnderstood(stream.end, f"a “{closing}” is missing")
    return _in_told_loop(stream, steps, told_loop)


def _in_told_loop(stream: Stream, steps: list[Step], told: int | None) -> tuple[Step, ...]:
    """The steps; loops that were told behind the last of them that works ("sc in each st around, in FLO, join") are
    its own."""
    if told and not any(isinstance(step, Work | Together | Repeat | Group) for step in steps[told:]):
        steps[told - 1] = in_loop(steps[told - 1], stream.loop)
    return tuple(steps)


def _begun_with(stream: Stream, first: Chain, steps: list[Step]) -> list[Step]:
    """The steps of a row with the chain that is its first stitch before them; an error where they begin with
    another."""
    begun = next((step for step in steps if not isinstance(step, Gesture)), None)
    if not isinstance(begun, Chain):
        return [first, *steps]
    if begun.length.values != first.length.values:
        message = "The row begins with another chain than the one that is its first stitch."
        stream.findings.append(Finding("chain-not-there", "error", first.length.span, message))
    return [first if step is begun else step for step in steps]


def _between(stream: Stream) -> None:
    """A word that only leads on to a clause; with the clause, where all of it is words that change nothing."""
    start, token = stream.at, stream.next()
    if token.is_word("carefully", "loosely"):
        keep(stream, start)
    elif token.is_word("with", "working") and sees_stitch(stream) is None:
        stream.at = start
        if not (_says_nothing(stream, True) or keep_clause(stream, start)):
            stream.next()


_NOTHING = phrase_list(
    "rotating clockwise | rotating counterclockwise | rotating the work | rotating work | rotating | "
    "turning the work | rotating the piece | turning the work clockwise | turning clockwise | as you go | "
    "work even | working even | continue even | work evenly | continue to work | continue working | "
    "continue in pattern | working in continuous rounds | working in continuous rnds | working in a "
    "spiral | working in rounds | working in rows | in continuous rounds | in a spiral | moving marker up "
    "| moving the marker up | moving marker up as you go | moving marker up each round | moving the "
    "marker up each round | at end of last row | at the end of the last row | at end of last rnd | at end "
    "of last round | at the end of the last round | on last row | at end of row | at end of rnd | at end "
    "of round | in pattern | as follows | insert hook in first st | insert hook in next st | as "
    "established | in established pattern | to work in rounds | to work in rnds | to work in the round"
)


_INCLUDING = ("including the top of the", "including the top of", "including top of", "including the", "including")
_TO_CLOSE = phrase_list(
    "to join | to close round | to close rnd | to close the round | to close the rnd | to close | to form "
    "last loop | to form last sp | to complete the round | to complete round"
)


def _tells_purpose(stream: Stream) -> bool:
    """ "To close the bottom, ...": what a line is for."""
    start = stream.at
    purpose = stream.word("to") and stream.peek() is not None and sees_stitch(stream) is None
    if purpose and keep_phrase(stream, start) and stream.mark(",", ":"):
        return True
    stream.at = start
    return False


def _says_nothing(stream: Stream, after_step: bool) -> bool:
    """ "Work even:", "..., for the button loop": words that change nothing in what is worked; they are kept."""
    start = stream.at
    if (stream.sees("using") or stream.sees("with")) and any(
        t.is_word("hook") for t in stream.tokens[start : start + 8]
    ):
        at = next(i for i in range(start, start + 8) if stream.tokens[i].is_word("hook"))
        if changes_nothing(stream, start, at + 1):  # "using a 3.5 mm hook, ..."
            stream.at = at + 1
            keep(stream, start)
            return True
    if stream.any_of(*_NOTHING) and ((token := stream.peek()) is None or token.kind == "mark" or token.is_word("and")):
        keep(stream, start)
        return True
    stream.at = start
    if stream.any_of(*_INCLUDING) and taken(stream, "BegChain"):
        stream.count(start)
        return True  # a chain that counts is one of the stitches anyway
    stream.at = start
    if not after_step and _tells_purpose(stream):
        return True
    if after_step and stream.any_of(*_TO_CLOSE):
        return True
    if after_step and _tells_of_last(stream):
        return True
    if after_step and stream.word("for", "as") and not stream.sees("a", "total") and keep_phrase(stream, start):
        return True
    stream.at = start
    return False


def _tells_of_last(stream: Stream) -> bool:
    """ "last sc goes in top of beginning ch-3", "working last dc into last st": where the last stitch goes, as it
    does anyway."""
    start = stream.at
    placed = stream.any_of("working", "placing", "making", "with")
    stream.word("the", "your")
    if stream.word("last", "final"):
        known = stitch_words(stream.context.terms)
        if (token := stream.peek()) is not None and (token.text in known or token.is_word(*STITCH)):
            stream.next()
            verb = stream.any_of(
                "goes",
                "will be",
                "should be",
                "falls",
                "lands",
                "is worked",
                "is made",
                "goes down",
                "should go",
                "will go",
            ) or stream.word("is", "worked", "made")
            stream.any_of("worked", "made", "go")
            if (verb or placed) and stream.word("in", "into", "on"):
                try:
                    into, _ = read_into(stream)
                except NotUnderstood:
                    into = None
                end = stream.peek()
                if isinstance(into, Last | TopOfChain) and (end is None or end.kind == "mark"):
                    stream.count(start)
                    return True
    stream.at = start
    return False


def _is_cut_off(stream: Stream) -> bool:
    """ "..." where instructions should stand."""
    token, second, third = stream.peek(), stream.peek(1), stream.peek(2)
    if token is not None and token.is_mark("…"):
        return True
    return all(t is not None and t.is_mark(".") for t in (token, second, third))


def _opens(stream: Stream) -> bool:
    """Does this in-between word begin a clause of its own?"""
    if names_colour(stream, stream.at + 1):
        return True
    return (
        stream.sees("working")
        or stream.sees("with", "rs")
        or stream.sees("with", "right")
        or stream.sees("now", "work")
    )


def read_clause(stream: Stream, before: list[Step]) -> list[Step]:
    """One clause; more than one step where it names several places. Raises NotUnderstood."""
    start = stream.at
    token = stream.peek()
    assert token is not None
    ended = endings.read_ending(stream, before, read_steps)
    if ended is not None:
        return ended
    gesture: tuple[Step, ...] | None = read(stream, "Gesture")
    if gesture is not None:
        return list(gesture)
    if token.is_mark("[", "(", "{"):
        return brackets.read_bracket(stream, before, read_steps)
    if token.kind == "num" and (repeat := repeats.read_times_first(stream, read_steps)) is not None:
        return [repeat]
    if repeats.inner_run(stream) is not None:
        return [repeats.read_inner_run(stream, read_steps)]
    if token.is_mark("*", "**"):
        return repeats.read_starred(stream, read_steps)
    if stream.word("rep", "repeat"):
        return repeats.read_bare_repeat(stream, before, start)
    if stream.word("sk", "skip", "miss", "skipping", "missing"):
        return _read_skip(stream, start)
    if stream.word("ch", "chain", "chs"):
        return chains.read_chain(stream, start)
    if (
        token.kind == "num"
        and (following := stream.peek(1)) is not None
        and following.is_word("ch", "chs", "chain", "chains")
    ):
        return chains.read_counted_chain(stream, start)
    if token.is_word("make", "work") and _counts_chains(stream):
        stream.next()
        return chains.read_counted_chain(stream, start)
    if token.is_word("in", "into"):
        return [_read_place_first(stream, start)]
    if token.kind == "num" and before and isinstance(before[-1], Gesture) and before[-1].kind == "change colour":
        counted = worked_stitches.read_coloured(stream, start)
        if counted is not None:
            return [counted]
    return worked_stitches.read_works(stream, start)


def _counts_chains(stream: Stream) -> bool:
    """ "make 121 (131) ch"."""
    number, following = stream.peek(1), stream.peek(2)
    return (
        number is not None
        and number.kind == "num"
        and following is not None
        and following.is_word("ch", "chs", "chain", "chains")
    )


def _read_place_first(stream: Stream, start: int) -> Step:
    """ "In next st work (sc, hdc, dc)", "in corner, 3 sc": the place stands before what is worked in it."""
    stream.next()
    into, loop = read_into(stream)
    told = stream.mark(",", ":")
    if told and isinstance(into, InRing) and start == 0:
        return Gesture("adjustable ring", into.called, span=stream.since(start))  # "In a magic circle: ch 2, 12 dc"
    stream.word("work", "make", "place", "do")
    token = stream.peek()
    if token is not None and token.is_mark("(", "["):
        closing = {"(": ")", "[": "]"}[stream.next().text]
        steps = read_steps(stream, closing)
        stream.next()
        return brackets.in_one(steps, into, stream, start)
    found = worked_stitches.read_works(stream, stream.at)
    work = found[0] if len(found) == 1 else None
    if not isinstance(work, Work) or not isinstance(work.into, Next) or work.into.what != STITCHES:
        raise NotUnderstood(stream.since(start), "what to work there is missing")
    per = work.into.count if work.per.is_always(1) else work.per
    return Work(work.stitch, per, into, loop or work.loop, stream.since(start))


def _read_skip(stream: Stream, start: int) -> list[Step]:
    at = stream.at
    stream.any_of("all sts", "all the sts", "the next sts", "next sts", "sts", "the sts", "stitches", "all stitches")
    end = read_end(stream)
    if end is not None and end.word == "marker":
        return [SkipTo(end, stream.since(start))]
    stream.at = at
    stream.word("the")
    first = stream.word("first") or taken(stream, "FirstOne")
    stream.word("next", "following", "last", "a", "this")
    number = how_many(stream) or plain_num(stream, 1)
    what = read_what(stream) or STITCHES
    qualifiers(stream)
    taken(stream, "FromWhere")
    if what.kind in ("ch", "sp") and stream.word("that", "which"):  # "skipping the ch-1 that closes each puff"
        if (
            stream.word("closes", "closed", "close", "ends")
            and stream.word("each", "every", "the")
            and stitch_word(stream) is not None
        ):
            stream.count(start)
            return []
        raise NotUnderstood(stream.since(start))
    if stream.word("behind"):  # the stitch behind one that was worked lower down is covered by it: it is taken already
        stream.any_of("the", "each", "every", "this", "that")
        stream.number()
        if stream.peek() is not None and stitch_word(stream) is None and not stream.word("it", "them", *STITCH):
            rest = stream.peek()
            if rest is not None and rest.kind != "mark":
                raise NotUnderstood(stream.since(start))
        stream.any_of("just made", "just worked", "made", "worked")
        stream.count(start)
        return []
    skipped: list[Step] = [Skip(number, what, first, stream.since(start))]
    at = stream.at
    if stream.word("and") and (stream.word("first", "next") or stream.word("the")):  # "sk first dc and first ch-1 sp"
        stream.word("first", "next")
        other = read_what(stream)
        if other is not None:
            return [*skipped, Skip(plain_num(stream, 1), other, False, stream.since(at))]
    stream.at = at
    return skipped
