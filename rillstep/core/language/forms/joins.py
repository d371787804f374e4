"""Joining: a round to its beginning, a chain into a ring, a new colour; and changing colours."""

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from rillstep.core.craft import GATHERED, Loop, stitch_words
from rillstep.core.findings import Span
from rillstep.core.language.classes import CLASSES
from rillstep.core.language.terminals import Terminal, by_hand, sees_stitch_at, zero
from rillstep.core.tree import Gesture, GestureKind, Into, Loops, Nth, Step, Work
from rillstep.core.words.asides import keep_phrase
from rillstep.core.words.lexicon import CRAFT
from rillstep.core.words.stitch_names import foundation_stitch, stitch_word
from rillstep.core.words.stream import Stream, plain_num

TABLE = """
== JoinGesture
JoinWord IntoRing => gesture('join into ring', span) # join to form a ring
JoinWord SeesYarn c:Colour => colour('join colour', c, span) # join yarn in any st
JoinWord SeesAnywhere c:Colour => colour('join colour', c, span) # join with sl st in any ch-2 sp
JoinWord [ TheRound ] [ ByMeansOf SlSt ] [ SlSt ] k:JoinEnd => gesture(k, span) # join with sl st in first sc
JoinWord [ TheRound ] ByMeansOf [ a/an ] s:Stitch in/into/to p:NthPlace => closing(s, p, span) # join with dc in first sc
JoinWord [ TheRound ] ByMeansOf NoStitchOrA k:JoinEnd => gesture(k, span) # join with
NotFirst SlStHere ToJoin k:JoinEnd => gesture(k, span) # , << sl st to join
NotFirst SlStHere RoundEnds => gesture('join', span) # , << sl st .
NotFirst SlStHere IntoRing => gesture('join into ring', span) # , << sl st to form a ring
NotFirst SlStHere in/into/to [ the ] TopOfRound [ k:RingAfter ] => join_at(k, span) # , << sl st in first sc
change/switch/changing/switching [ to ] c:ColourNow => colour('change colour', c, span) # change to B
using/with/in [ the/your ] n:NthColour => gesture('change colour', span, n) # with second shade
using/with/in NamesColour c:ColourNow => colour('change colour', c, span) # with B >> , sc

== JoinWord
join/joining/attach/attaching/rejoin/reattach => none # join

== SlSt
[ a ] sl st => none # a sl st
[ a ] ss/slst => none # ss
[ a ] slip st/stitch => none # slip stitch

== SlStHere
sl st/sts => none # sl st
ss/slst => none # ss
slip st/stitch => none # slip st

== ByMeansOf
with/by => none # with
w / => none # w/

== TheRound
[ the ] rnd/round => none # the round

== ToJoin
to/and join => none # to join
to close [ [ the ] round/rnd ] => none # to close the round
join => none # join

== IntoRing
to form/make a [ RingSize ] ring/loop/circle => none # to form a ring
to form ring/loop => none # to form ring
into/in a [ RingSize ] ring/loop/circle => none # into a ring
into ring => none # into ring
to form/make Idle large ring/loop/circle => none # to form one large ring
into/in Idle large ring/loop/circle => none # into one large ring
without twisting => none # without twisting
being careful not to twist => none # being careful not to twist
taking care not to twist => none # taking care not to twist
making sure not to twist => none # making sure not to twist

== RingSize
large/big/small/long => none # large

== RingAfter
IntoRing => 'join into ring' # to form a ring

== JoinEnd, the first that reads
IntoRing => 'join into ring' # into a ring
in/into/to PlaceOfJoin IntoRing => 'join into ring' # to first ch to form a ring
in/into/to PlaceOfJoin => 'join' # in first sc
Nothing => 'join' # join <<

== TopOfRound
first NoNumber PlaceOfJoin => none # first sc
FirstOne NoNumber PlaceOfJoin => none # 1st sc
NotLastMade top of PlaceOfJoin => none # top of beg ch-3
NotLastMade beg/beginning/starting/joining PlaceOfJoin => none # beg ch-3
base of PlaceOfJoin => none # base of the first 5-ch loop
Idle of Idle PlaceOfJoin => none # 3rd of 6 ch
Idle of beg/beginning/starting/the PlaceOfJoin => none # 3rd of the beg ch
Idle %ch of PlaceOfJoin => none # 3rd ch of beg ch-3
Idle %ch ClosesRound => none # 3rd ch

== NthPlace
p:Into => p # first sc

== Colour
[ ColourWord ] n:ColourName [ with SlSt ] [ p:WhereJoined ] => named_colour(n, none, p) # yarn in any st

== ColourNow
[ ColourWord ] n:ColourName [ h:HowDone ] [ with SlSt ] [ p:WhereJoined ] => named_colour(n, h, p) # B

== ColourWord
to => none # to
new yarn/colour/color => none # new colour
[ the ] yarn => none # the yarn
colour/color => none # colour

== WhereJoined, the first that reads
in/to/at/into [ any ] p:Into => p # in any st
SeesPlace Phrase => none # at the side seam
in/to/at/into PlaceOfJoin => none # to the base

== NthColour
n:NthName colour/color/shade/yarn => n # second shade
"""


def _is_within_chain(stream: Stream) -> bool:
    """ "ch" is part of where ("top of beg ch-3") when a word of beginnings or "of" stands before it."""
    before = stream.tokens[stream.at - 1]
    at = stream.at - 1 - before.is_mark("-")
    if stream.tokens[at].kind == "num":  # "3rd ch of 5 ch", "top of 3-ch"
        before = stream.tokens[at - 1]
    return before.text in CLASSES["before_chain"] or before.kind == "ordinal"


def _place_of_join(stream: Stream) -> bool:
    """The words that say where a round is joined, as far as they are words for places; there may be none."""
    begin = stream.at
    own = {part for _, parts in stream.context.specials for part in parts}
    known = {*stitch_words(stream.context.terms), *GATHERED, *own}
    while (token := stream.peek()) is not None and not token.is_mark(",", ";", ".", "[", "(", ")", "]", "—"):
        chain = token.text in CLASSES["ch"]
        if token.text in CLASSES["after_join"] and not (chain and _is_within_chain(stream)):
            break
        if any(stream.sees("to", verb) for verb in ("form", "make", "work")):
            break
        if token.kind == "word" and (stitch_word(stream) or foundation_stitch(stream)) is not None:
            continue
        place = token.text in CLASSES["of_place"] or token.text in known or token.is_mark("-", "/", "'")
        if token.kind not in ("num", "ordinal") and not place:
            break
        stream.next()
    stream.count(begin)
    return True


def _not_last_made(stream: Stream, at: int) -> bool:
    """ "sl st in top of sc just made": a picot is closed, and no round."""
    before = stream.at
    stream.at = at
    stream.any_of("top of the", "top of")
    last = stream.word("last")
    named = stitch_word(stream) is not None or stream.word(*CLASSES["st"])
    made = named and (
        stream.any_of("just made", "just worked", "just completed") or (last and stream.word("made", "worked"))
    )
    stream.at = before
    return not made


def _closes_round(stream: Stream, at: int) -> bool:
    ends = at >= len(stream.tokens) or stream.tokens[at].is_mark(".", "(", "[")
    return stream.context.kind == "Rnd" and ends


def _leads_to(stream: Stream, at: int) -> bool:
    """Does "to" lead to a place, and not to a colour ("change to B")?"""
    return stream.texts[at] == "to" and stream.texts[at - 1] not in ("change", "switch", "changing", "switching")


def _round_ends(stream: Stream, at: int) -> tuple[int, ...]:
    """ "...; sl st." at the end of a round closes it."""
    left = stream.texts[at:-1]
    return (at + len(left),) if stream.context.kind == "Rnd" and left in ([], ["."]) else ()


def _is_letter(text: str) -> bool:
    return (len(text) == 1 and text.isalpha()) or text[:2] in ("mc", "cc")


def _sees_yarn(stream: Stream, at: int) -> bool:
    """Is a yarn joined, and no round: "join yarn", "attach the yarn", "join B in first st"?"""
    if stream.texts[at] == "the" and stream.texts[at + 1] == "yarn":
        return True
    if stream.texts[at] in ("colour", "color", "yarn", "new", "contrast"):
        return True
    after = stream.tokens[at + 1] if at + 1 < len(stream.tokens) else None
    if at >= len(stream.tokens) or not _is_letter(stream.texts[at]) or (after is not None and after.is_mark("/")):
        return False  # "join w/ sl st"
    return after is None or after.kind == "mark" or after.is_word("in", "with", "to", "at", "and")


def _sees_anywhere(stream: Stream, at: int) -> bool:
    """ "Join in any ch-2 sp", "join with sl st in any corner": where the yarn begins, and no end of a round."""
    words = " ".join(stream.texts[at : at + 6])
    for by in ("with a sl st ", "with sl st ", "with a ss ", "with ss "):
        words = words.removeprefix(by)
    return words.startswith(("in any ", "to any ", "into any ", "at any "))


def names_colour(stream: Stream, at: int) -> bool:
    """Does the word at a token, behind one such as "with", name a colour: "B" in "With B, ...", "colour A"?"""
    if at >= len(stream.tokens):
        return False
    following, after = stream.tokens[at], stream.tokens[at + 1] if at + 1 < len(stream.tokens) else None
    if following.kind == "ordinal" and after is not None:
        return after.is_word("colour", "color", "shade", "yarn")  # "with second shade"
    if following.kind != "word":
        return False
    if following.is_word("colour", "color", "yarn") or (following.text[:2] in ("mc", "cc") and len(following.text) < 4):
        return True
    goes_on = (
        after is None
        or after.is_mark(",", ":", "-")
        or after.kind == "num"
        or after.is_word("ch", *stitch_words(stream.context.terms))
    )
    return len(following.text) == 1 and following.text != "x" and goes_on


def _colour_name(stream: Stream) -> str:
    """The name of a colour, in capitals where it is a letter or two; "" where none comes."""
    words: list[str] = []
    numbered = stream.peek()
    if (
        numbered is not None
        and numbered.kind == "num"
        and stream.at
        and stream.tokens[stream.at - 1].is_word("colour", "color")
    ):
        words.append(f"colour {numbered.text}")
        stream.next()
        stream.count(stream.at - 1)
    stitches = stitch_words(stream.context.terms)
    while (token := stream.peek()) is not None and token.kind == "word" and token.text not in CLASSES["after_colour"]:
        if words and (token.text in stitches or token.text in CRAFT):
            break
        words.append(token.text)
        stream.next()
    name = " ".join(words)
    return name.upper() if len(name) <= 2 else name


def _how_done(stream: Stream) -> str | None:
    """ "on last yo of last st", "when 2 loops are left on the hook": how a colour is changed, in words; None where
    nothing is said of it, and "" where it is kept otherwise."""
    start = stream.at
    if not stream.word(*CLASSES["how_begins"]):
        return None
    while True:
        token = stream.peek()
        two = token is not None and token.kind == "num" and token.text in ("2", "two")
        if two:
            stream.next()
        elif not (stream.word(*CLASSES["of_how"]) or stream.mark("-") or stitch_word(stream) is not None):
            break
        if stream.tokens[stream.at - 1].is_word("row", "rnd", "round"):
            stream.number()
    token = stream.peek()
    if token is None or token.kind == "mark":
        stream.count(start)
        return stream.written(start, stream.at)
    stream.at = start
    return "" if keep_phrase(stream, start) else None


def _nth_name(stream: Stream) -> str | None:
    token = stream.peek()
    if token is None or not (token.kind == "ordinal" or token.is_word("first")):
        return None
    stream.next()
    stream.count(stream.at - 1)
    return f"colour {token.text[:-2] if token.kind == 'ordinal' else 1}"


TERMINALS: dict[str, Terminal] = {
    "PlaceOfJoin": by_hand(_place_of_join, lambda text: True),
    "ColourName": by_hand(_colour_name, lambda text: True),
    "HowDone": by_hand(_how_done, CLASSES["how_begins"].__contains__),
    "NotFirst": zero(lambda stream, at: at > 0),
    "Nothing": zero(lambda stream, at: True),
    "NotLastMade": zero(_not_last_made),
    "ClosesRound": zero(_closes_round),
    "RoundEnds": Terminal(lambda text: None, _round_ends, lambda stream, start, end: None),
    "SeesYarn": zero(_sees_yarn),
    "SeesAnywhere": zero(_sees_anywhere),
    "NamesColour": zero(names_colour),
    "SeesPlace": zero(lambda stream, at: stream.texts[at] in ("in", "at", "into") or _leads_to(stream, at)),
    "NoStitchOrA": zero(
        lambda stream, at: stream.texts[at] != "a" and not (stream.texts[at] and sees_stitch_at(stream, at))
    ),
    "NthName": by_hand(_nth_name),
}


Named = tuple[str, str, Into | None]


def _named_colour(stream: Stream, name: str, how: str | None, place: tuple[Into, Loop | None] | None) -> Named:
    into = place[0] if place else None
    if isinstance(into, Loops):  # "join yarn in first free front loop of Rnd 16": what is worked there names them
        stream.free_loops, into = replace(into, count=None), None
    return name, how or "", into


def _colour(stream: Stream, kind: GestureKind, named: Named, span: Span) -> tuple[Step, ...]:
    name, how, into = named
    return (Gesture(kind, name, into, span, how),)


def _closing(stream: Stream, stitch: str, place: tuple[Into, Loop | None], span: Span) -> tuple[Step, ...]:
    """ "..., ch 2, join with dc in first sc": the stitch that closes the last loop of a round."""
    if isinstance(place[0], Nth):
        return (Work(stitch, plain_num(stream, 1), place[0], "both", span),)
    return (Gesture("join", span=span),)


BUILDERS: dict[str, Callable[..., Any]] = {
    "named_colour": _named_colour,
    "colour": _colour,
    "closing": _closing,
    "join_at": lambda stream, kind, span: (Gesture(kind or "join", span=span),),
}
