"""Clauses that tell a maker what to do with her hands and take no stitch: "pull ring closed", "weave in ends", "yo, pull through".

They are kept as words. A clause that could be an instruction with a slip in it is none of these.
"""

import difflib

from rillstep.core.notation.stream import Stream
from rillstep.core.notation.tree import Gesture
from rillstep.core.notation.vocabulary import sees_stitch
from rillstep.core.stitches import GATHERED, PICOT, stitch_words

# Words of instructions: none of them is what was not understood by itself.
USUAL_WORDS = frozenset((
    "the", "and", "next", "each", "st", "sts", "stitch", "stitches", "around", "across", "with", "from", "into",
    "same", "last", "first", "work", "times", "more", "then", "hook", "until", "end", "row", "rnd", "round", "rows",
    "space", "spaces", "loop", "loops", "of", "for", "this", "that", "made", "place", "all",
))  # fmt: skip
# A clause that begins so tells how a thing is done with hands and hook, whatever else it names.
_HANDS = frozenset((
    "yo", "yoh", "yarn", "insert", "pull", "pulling", "draw", "drawing", "tighten", "weave", "weaving", "tie", "sew",
    "sewing", "stuff", "slide", "drop", "pick", "hold", "fold", "flip", "secure", "wrap", "lay", "block", "steam",
    "thread", "knot", "trim", "unravel", "undo", "check", "count", "adjust", "keep", "keeping", "remember", "be",
    "being", "do", "try", "make", "making", "leave", "note", "gently", "hide", "tuck", "close", "bring", "push",
    "holding", "placing", "matching", "lining",
))  # fmt: skip
# Of these a whole sentence tells, with its numbers: no stitch is made by weaving, sewing or tying.
_FINISHES = frozenset((
    "weave", "weaving", "thread", "threading", "tie", "tying", "sew", "sewing", "knot", "trim", "stuff", "block", "steam", "hide",
    "tuck", "pin", "glue", "iron", "lace", "run",
))  # fmt: skip
# Words of which one makes a clause more than talk.
_WORKS = frozenset((
    "st", "sts", "stitch", "stitches", "ch", "chs", "chain", "chains", "sp", "sps", "space", "spaces", "next", "each",
    "every", "sk", "skip", "miss", "inc", "dec", "increase", "decrease", "rep", "repeat", "twice", "once", "blo",
    "flo", "tog", "together", "join", "turn", "rotate", "sc", "hdc", "dc", "tr", "dtr", "htr", "ss", "marker", "row",
    "rows", "rnd", "rnds", "round", "rounds",
))  # fmt: skip
_NEAR = ("turn", "join", "skip", "repeat", "rotate", "chain", "increase", "decrease", "fasten", *GATHERED, PICOT)


def words_only(stream: Stream, start: int) -> Gesture | None:
    """The clause from token `start` on as words that are kept, when that is all it can be; nothing is taken otherwise."""
    end = start
    tokens = stream.tokens
    if tokens[start].is_word(*_FINISHES) and (not start or tokens[start - 1].is_mark(".", ";")):
        while end < len(tokens) and not tokens[end].is_mark(".", ";"):
            end += 1
        stream.at = end
        return Gesture("aside", " ".join(token.text for token in tokens[start:end]), span=stream.since(start))
    while end < len(tokens) and not tokens[end].is_mark(",", ";", ".", ":", "]", ")", "[", "(", "*", "**", "—"):
        if tokens[end].is_word("and") and end > start and _works_next(stream, end + 1):
            break  # "fold flat and sl st through both layers"
        end += 1
    clause = tokens[start:end]
    if not clause or any(token.kind in ("num", "ordinal", "expr") for token in clause):
        return None
    if any(token.kind == "mark" and token.text not in ("-", "'", '"', "/", "!", "?") for token in clause):
        return None
    words = [token.text for token in clause if token.kind == "word"]
    hands = bool(words) and words[0] in _HANDS
    known = stitch_words(stream.context.terms)
    own = {part for _, parts in stream.context.specials for part in parts}
    if not words or any(word in known or word in own for word in words):
        return None
    other = stitch_words("UK" if stream.context.terms == "US" else "US")
    if any(word in other for word in words):
        return None
    if not hands and (_WORKS & set(words) & _strict(words) or len(words) < 3 or _has_slip(words, known)):
        return None
    if words[:2] in (["to", "form"], ["to", "make"], ["to", "close"], ["to", "join"]):
        return None
    if words[0] in ("make", "making", "do", "be", "keep", "leave", "count", "pick") and _WORKS & set(words):
        return None
    stream.at = end
    return Gesture("aside", " ".join(words), span=stream.since(start))


def _works_next(stream: Stream, at: int) -> bool:
    """Does a stitch come next, worked from token `at` on?"""
    kept = stream.at
    stream.at = at
    found = sees_stitch(stream) is not None
    stream.at = kept
    return found


def tells(stream: Stream, words: list[str], least: int = 2) -> bool:
    """Do some words in brackets only tell ("(strap opening)"), and could not be an instruction with a slip in it?"""
    known = stitch_words(stream.context.terms)
    own = {part for _, parts in stream.context.specials for part in parts}
    named = {
        "handle",
        "handles",
        "strap",
        "straps",
        "opening",
        "buttonhole",
        "corner",
        "flap",
        "front",
        "back",
        "side",
        "pocket",
        "eyelets",
    }
    if not words or (len(words) < least and not named & set(words)):
        return False
    return not (_WORKS & set(words) or own & set(words) or any(w in known for w in words) or _has_slip(words, known))


def _strict(words: list[str]) -> frozenset[str] | set[str]:
    """ "to even out the round" names a round, and works nothing."""
    return _WORKS - {"round", "rnd", "row", "rounds", "rows"} if words[0] == "to" else _WORKS


def _has_slip(words: list[str], known: dict[str, str]) -> bool:
    """Could one of these words be an instruction that is misspelt?"""
    names = [*_NEAR, *(name for name in known if len(name) > 2)]
    return any(
        len(word) > 2 and word not in USUAL_WORDS and difflib.get_close_matches(word, names, 1, 0.75) for word in words
    )
