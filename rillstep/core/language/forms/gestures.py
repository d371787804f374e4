"""What is done without making a stitch: turning, fastening off, rings, markers, layers, the other side, and asides."""

from collections.abc import Callable, Iterable, Sequence
from typing import Any

from rillstep.core.craft import Loop, stitch_words
from rillstep.core.findings import Span
from rillstep.core.language.classes import CLASSES
from rillstep.core.language.terminals import Terminal, by_hand, idle, is_any, one, sees, sees_stitch_at, without, zero
from rillstep.core.tree import Gesture, GestureKind, Into, Last, Loops, Next, Num, Step, TopOfChain, Total, What
from rillstep.core.words.asides import keep, keep_finish, keep_phrase
from rillstep.core.words.stream import NotUnderstood, Stream
from rillstep.core.words.tokens import Token

TABLE = """
== Gesture
s:MarkerGesture => s # move marker up
s:JoinGesture => s # join
Twist [ TwistOf ] => kept(start, end) # being careful not to twist the chain
ending/end [ with/in ] [ a ] join/joining [ with [ a ] SlSt ] k:JoinEnd => gesture(k, span) # ending with a join
ending/end [ with/in ] [ a ] SlSt k:JoinEnd => gesture(k, span) # ending with a sl st in first st
ending/end in/at/with [ LastOne ] [ Idle ] [ Stitch [ in/into ] ] p:Into => last_place(p) # ending in top of tch
BesideWork ToWhere => aside(tokens, span) # working in front of the ch
c:ColourPair SeesComma => gesture('change colour', span, c) # MC >> , sc
c:ColourLetter [ : ] => gesture('change colour', span, c) # A : >> sc in next 2 sts
turn/turning [ the/your ] [ TurnedThing ] InsideOut => aside(tokens, span) # turn the tote inside out
g:Leave => alone(g) # leaving the last 3 sts unworked
Turned [ , ] [ so that you can | so you can | in order to | so as to | and/then/to ] OtherSide => gesture('rotate', span) # turn your work and continue along the other side of the chain
turn [ work | the work | piece ] to SideRun => gesture('rotate', span) # turn to the other side
JoinNot => gesture('do not join', span) # do not join
TurnNot => gesture('do not turn', span) # without turning
turn [ [ the/your ] work ] [ ToWorkBack ] => gesture('turn', span) # turn
rotate [ [ the/your ] work/piece ] [ Idle [ degrees/deg/° ] ] [ [ the ] piece ] [ to [ work/working/crochet/go/continue ] [ %%of_a_side ] ] => gesture('rotate', span) # rotate 90 degrees
fold flat and work through both layers => gesture('both layers', span) # fold flat and work through both layers
FastenOff [ , ] [ NoLeading WhichYarn ] [ Finish ] => gesture('fasten off', span) # fasten off, leaving a long tail
break/cut [ off ] NotYarn WhichYarn [ and Letter ] => gesture('fasten off', span) # cut A and B
MakeRing => gesture('adjustable ring', span) # make a ring
r:MakeNamedRing => gesture('adjustable ring', span, r) # make a magic ring
BothLayers NotLoops [ NoStitch ToWhere ] => layers(tokens, span) # working through both layers
Facing => aside(tokens, span) # with RS facing
bring/bringing [ the ] [ Idle ] edges/sides/ends together => aside(tokens, span) # bring the two edges together
with NotFacing SeesSide Sentence => seam(tokens, span) # with right sides together, sew the sides
s:RowLoop => s # working in back loops only
picot/picots => gesture('aside', span, 'picot') # picot

== Twist
being careful not to twist => none # being careful not to twist
careful not to twist => none # careful not to twist
taking care not to twist => none # taking care not to twist
making sure not to twist => none # making sure not to twist
without twisting => none # without twisting
making sure [ that ] ( the chain/ch | it ) is not twisted => none # making sure the chain is not twisted

== TwistOf
[ the/your ] chain/ch => none # the chain
chs/it => none # it
the sts => none # the sts

== LastOne
[ the/your ] last => none # the last
a/the => none # a

== InsideOut
[ right side ] inside out => none # inside out
right side out => none # right side out

== Turned
turn/turning/rotate/rotating [ [ the/your ] work/piece ] [ round/around ] => none # turn the work round

== JoinNot
do not join => none # do not join
don't join => none # don't join
without joining => none # without joining

== TurnNot
do not turn => none # do not turn
don't/no turn => none # no turn
without turning => none # without turning

== ToWorkBack
to work back [ across ] => none # to work back
to work across [ [ the ] last row ] => none # to work across the last row

== FastenOff
fasten/finish off => none # fasten off
break yarn => none # break yarn
cut [ the ] yarn => none # cut the yarn
fo => none # fo

== MakeRing
MakeWith adjustable/slip/sliding ring => none # start with a slip ring
adjustable ring => none # adjustable ring
make a ring => none # make a ring
using an adjustable ring => none # using an adjustable ring

== MakeNamedRing
MakeWith n:RingName => n # start with a magic ring
make a mr => 'magic ring' # make a mr
magic loop => 'magic loop' # magic loop
magic ring => 'magic ring' # magic ring
magic circle => 'magic circle' # magic circle
mr => 'magic ring' # mr
using [ the/a ] magic ring [ method ] => 'magic ring' # using the magic ring method
using the magic circle method => 'magic circle' # using the magic circle method

== MakeWith
make a/an => none # make a
create/form a => none # create a
start/begin with a/an => none # start with a
starting with a => none # starting with a
start/begin in a => none # start in a

== BesideWork
working/work in front of => none # working in front of
working/work behind => none # work behind
working over => none # working over
in front of => none # in front of
behind/pushing/enclosing => none # enclosing

== BothLayers, the first that reads
[ working/work ] through both layers/thicknesses/pieces/panels => none # through both layers
working through both edges/sides/circles/squares/motifs => none # working through both circles
working through both => none # working through both
working in both layers => none # working in both layers
working through all layers => none # working through all layers

== Facing
[ with ] [ the ] right/wrong side [ of work ] facing => none # with the right side facing
[ with ] rs/ws [ of work ] facing [ you ] => none # with RS facing you

== RowLoop
[ working/work ] in/into/through p:FreeLoops SeesBreak => free_loops_row(p) # working in front loops of Rnd 6 >> ,
[ working/work ] in/into BackBumps Stop => bumps(span) # working in back bumps of ch
OtherSide => gesture('rotate', span) # working along the other side of the chain
working/work back along/down/across [ the ] [ foundation ] ch/chain => gesture('rotate', span) # working back along the chain
SeesRowLoop [ working/work ] l:Loop [ LoopScope ] LoopEnd => row_loop(l) # working in back loops only
working/work l:Loop [ LoopScope ] SeesStitch => row_loop(l) # working in BLO >> sc in next st
SeesRowLoop [ working/work ] l:Loop LoopScope SeesStitch => row_loop(l) # BLO throughout >> sc in next st

== FreeLoops
c:CountedLoops => c # each free front loop
l:Loop [ of/in ] f:LoopsOf => loops_in(f, l) # front loops of Rnd 6
[ the ] unused/unworked/free loop/loops/lps f:LoopsOf => loops_in(f, 'both') # the unused loops of Rnd 6

== LoopScope
of each st => none # of each st
of all sts => none # of all sts
for this rnd/row/round => none # for this row
throughout/again => none # throughout
this rnd/row => none # this row

== BackBumps
[ the ] back bump/bumps [ of [ the ] [ foundation ] ch/chain ] => none # back bumps of the chain

== OtherSide
[ OtherWorking ] [ back/now ] %towards [ the/back ] OtherRun => none # working along the other side of the chain

== OtherWorking
[ now ] working/work => none # now working
go [ back ] => none # go back
continue [ working ] => none # continue working
cont/continuing/crochet/crocheting => none # continuing

== Leave
[ now/and ] continue/continuing/work/working/cont on/over/across/in [ just/only ] these/those [ first/last ] [ n:Num ] %st OnlyThese => only_these(n, span) # work on these 6 sts only
leave/leaving [ the ] [ these/those ] [ Remaining ] [ the ] RestOf Unworked [ SeesWhy Phrase ] => leave(none, span) # leaving the rest unworked
leave/leaving [ the ] [ these/those ] [ Remaining ] [ the ] [ n:Num ] [ What ] Unworked [ SeesWhy Phrase ] => leave(n, span) # leaving the last 3 sts unworked

== LeaveInBracket
LB g:Leave RB => g # (leaving the last 3 sts unworked)

== Remaining
rem/remaining/last/final/other/next => none # remaining

== OnlyThese
only/alone => none # only
for [ the ] strap => none # for the strap
for first strap => none # for first strap

== RestOf
rest [ of [ the ] row/rnd ] => none # rest of the row
others => none # others

== Unworked
unworked/free/open/unjoined => none # unworked
for now => none # for now
not worked => none # not worked

== MarkerGesture
k:MarkerVerb [ n:Letter ] [ UpEachRound ] [ p:MarkerWhere ] => marker(k, n, p, span) # place marker A in next st

== MarkerVerb
pm [ MarkerWhich ] [ marker/markers ] => 'place marker' # pm
mark [ this/the/that ] [ MarkerWhich ] [ marker/markers ] => 'place marker' # mark this
place/put/insert/placing [ MarkerWhich ] MarkerWord [ marker/markers ] => 'place marker' # place a st marker
move/moving [ MarkerWhich ] MarkerWord [ marker/markers ] => 'move marker' # move the marker
remove [ MarkerWhich ] MarkerWord [ marker/markers ] => 'remove marker' # remove marker

== MarkerWhich
a st/stitch => none # a st
a SeesMarkerWord => none # a >> marker
the/st/your/each/both => none # the

== MarkerWord
marker/markers/m/sm/stitch => none # marker

== UpEachRound
up [ each round/rnd ] [ as you go ] => none # up each round as you go

== MarkerWhere, the first that reads
in/on/into/at/around/to this st/stitch/sc => none # in this st
in/on/into/at/around/to it => none # in it
in/on/into/at/around/to that st => none # in that st
in/on/into/at/around/to MadeBefore => none # in last sc made
in/on/into/at/around/to p:Into [ of [ the/this/each ] rnd/round/row | made ] => p # in next st
SeesMarkerWhere Phrase => none # at the beginning
SeesFor Phrase => none # for later
"""


def _side(first: frozenset[str], named: frozenset[str], never: frozenset[str]) -> Terminal:
    """A run of words of which the first is one of these, one names a side, and none a stitch."""
    words = CLASSES["of_a_side"]

    def ends(stream: Stream, at: int) -> Iterable[int]:
        end = at + (stream.texts[at] in first)
        while end > at and stream.texts[end] in words:
            end += 1
        found = set(stream.texts[at:end])
        return (end,) if found & named and not found & never else ()

    return Terminal(first.__contains__, ends, idle)


def _to_where(stream: Stream) -> bool:
    """The words of an aside that tell where: stitches and chains that are there already; to a mark, or to a stitch
    that is worked after "made"."""
    start = stream.at
    known = stitch_words(stream.context.terms)
    while (token := stream.peek()) is not None:
        named = token.kind == "num" or (token.kind == "word" and token.text in known)
        named = named or token.text in CLASSES["of_beside"] or token.text in CLASSES["place"]
        after = stream.at + 1 < len(stream.tokens) and sees_stitch_at(stream, stream.at + 1)
        if token.is_word("made", "worked", "formed") or (token.is_word("st", "sts") and after):
            stream.next()
            break
        if not named and not (token.is_mark("-") and stream.at > start):
            break
        stream.next()
    stream.count(start)
    return True


def _colour_letter(stream: Stream) -> str | None:
    """A letter by itself at the start of a clause that is a colour, and no article."""
    token, second, third = stream.peek(), stream.peek(1), stream.peek(2)
    if token is None or second is None or token.kind != "word" or token.text in ("x", "r"):
        return None
    if len(token.text) > 1 and token.text not in ("mc", "cc"):
        return None
    words = stitch_words(stream.context.terms)
    begins = stream.at == 0 or stream.tokens[stream.at - 1].is_mark("(", "[", "*", ",", ";", ":", ".")
    stitch = (
        second.text in words
        or second.is_word("inc", "dec")
        or (second.kind == "num" and third is not None and third.text in words)
        or (second.is_mark("(") and token.text in ("mc", "cc"))
        # "*A 5, B 1": so many stitches in each colour, of the kind that the row names or sc.
        or (second.kind == "num" and (third is None or third.is_mark(",", ";", ".", "]", ")", "*")))
    )
    if not (second.is_mark(":") or (begins and stitch)):
        return None
    stream.next()
    return token.text.upper()


def _finish(stream: Stream) -> bool:
    """ ", leaving a long tail", "and weave in the ends": the how of fastening off is no instruction."""
    if keep_finish(stream):
        return True
    stream.mark(",")
    stream.word("and", "then")
    return any(stream.sees(word) for word in ("leaving", "weave", "darn")) and keep_phrase(stream, stream.at)


def _which_yarn(stream: Stream) -> bool:
    """ "Fasten off A", "fasten off colour B", "cut MC": which yarn, where it is named."""
    start = stream.at
    if stream.word("both", "all", "the"):
        stream.any_of("colours", "colors", "yarns", "strands", "ends", "yarn", "colour", "color")
        return True
    stream.any_of("colour", "color", "yarn")
    token = stream.peek()
    if token is None or token.kind != "word":
        return False
    if stream.at == start and len(token.text) > 1 and token.text not in ("mc", "cc"):
        return False
    stream.next()
    return True


def _not_facing(stream: Stream, at: int) -> bool:
    """ "with RS facing" tells how the work lies; "with right sides together, sew ..." is a seam."""
    return "facing" not in stream.texts[at : at + 5]


def _sentence(stream: Stream) -> bool:
    while (token := stream.peek()) is not None and not token.is_mark(".", ";"):
        stream.next()
    return True


TERMINALS: dict[str, Terminal] = {
    "ToWhere": by_hand(_to_where),
    "ColourLetter": by_hand(_colour_letter, lambda key: len(key) == 1 or key[:2] in ("mc", "cc")),
    "WhichYarn": by_hand(_which_yarn),
    "Finish": by_hand(_finish),
    "Sentence": by_hand(_sentence),
    "TurnedThing": one(lambda token: token.kind == "word" and not token.is_word("inside", "right"), begins=is_any),
    "OtherRun": _side(CLASSES["other_side"], CLASSES["side_named"], frozenset(("st", "sts"))),
    "SideRun": _side(CLASSES["of_a_side"], CLASSES["side_turned_to"], frozenset()),
    "NoLeading": without("leaving", "and", "weave", "then"),
    "NotFacing": zero(_not_facing),
    "NotYarn": without("yarn"),
    "SeesMarkerWord": sees("marker", "markers", "stitch", "st"),
    "SeesRowLoop": sees("working", "work", "in", "blo", "flo", "through"),
    "SeesComma": sees(","),
    "SeesBreak": sees(",", ":", ";", "-", stop=True),
    "LoopEnd": sees(",", ":", ";", ".", "-", stop=True),
    "SeesStitch": zero(lambda stream, at: at < len(stream.tokens) and sees_stitch_at(stream, at)),
    "NoStitch": zero(lambda stream, at: at >= len(stream.tokens) or not sees_stitch_at(stream, at)),
    "SeesMarkerWhere": sees("in", "on", "into", "at", "around", "to"),
    "SeesFor": sees("for", "as"),
    "ColourPair": one(
        lambda token: token.is_word("mc", "cc"),
        lambda stream, start, end: stream.texts[start].upper(),
        frozenset(("mc", "cc")).__contains__,
    ),
    "NotLoops": without("loops", "lps"),
    "SeesSide": sees("rs", "ws", "right", "wrong"),
    "SeesWhy": sees("for", "as", "to", "at"),
}


def _words(tokens: Sequence[Token]) -> str:
    return " ".join(token.text for token in tokens)


def _kept(stream: Stream, start: int, end: int) -> tuple[Step, ...]:
    stream.at = end
    keep(stream, start)
    return ()


def _aside(stream: Stream, tokens: Sequence[Token], span: Span) -> tuple[Step, ...]:
    return (Gesture("aside", _words(tokens), span=span),)


def _layers(stream: Stream, tokens: Sequence[Token], span: Span) -> tuple[Step, ...]:
    """ "Working through both layers": words about two pieces, or one round folded flat, whichever comes out."""
    if stream.choose(2, "layers") == 1:
        return (Gesture("both layers", span=span),)
    return _aside(stream, tokens, span)


def _last_place(stream: Stream, place: tuple[Into, Loop | None]) -> tuple[Step, ...]:
    """ "... ending in top of tch": the last place, which the last stitch goes into anyway. Raises NotUnderstood."""
    if not isinstance(place[0], Last | TopOfChain):
        raise NotUnderstood(stream.here())
    return ()


def _free_loops_row(stream: Stream, loops: Loops) -> tuple[Step, ...]:
    """ "Working in the unused loops of Rnd 6, ...": the row is worked into them."""
    stream.free_loops = loops
    return ()


def _row_loop(stream: Stream, loop: Loop) -> tuple[Step, ...]:
    """ "Working in back loops only, ...": holds for the rest of the line."""
    stream.loop = loop
    return ()


def _marker(
    stream: Stream, kind: GestureKind, name: str | None, place: tuple[Into, Loop | None] | None, span: Span
) -> tuple[Step, ...]:
    return (Gesture(kind, name or "", place[0] if place else None, span),)


def _leave(stream: Stream, count: Num | None, span: Span) -> Gesture:
    return Gesture("leave rest unworked", "", Next(count, What("st")) if count else None, span)


def _only_these(stream: Stream, count: Num | None, span: Span) -> Gesture:
    """ "Continue on these 6 sts only": the others are left; how many these are is counted as a total."""
    stream.totals += [] if count is None else [Total(count, "sts")]
    return Gesture("leave rest unworked", span=span)


BUILDERS: dict[str, Callable[..., Any]] = {
    "kept": _kept,
    "aside": _aside,
    "layers": _layers,
    "leave": _leave,
    "only_these": _only_these,
    "last_place": _last_place,
    "free_loops_row": _free_loops_row,
    "row_loop": _row_loop,
    "marker": _marker,
    "bumps": lambda stream, span: (Gesture("aside", "working in back bumps of ch", span=span),),
    "gesture": lambda stream, kind, span, name=None: (Gesture(kind, name or "", span=span),),
    "seam": lambda stream, tokens, span: (Gesture("seam", _words(tokens[1:]), span=span),),
    "alone": lambda stream, gesture: (gesture,),
}
