"""Words that change nothing in what is worked: the only room that may keep words.

Words are kept where they hold no number and no word of the craft, but for what a table calls harmless. Whatever else is
not read is not understood. What is kept stays in the line (`Kept`) and is printed as it was written.
"""

import difflib
import re
from collections.abc import Sequence
from dataclasses import replace

from rillstep.core.memory import remember
from rillstep.core.stitches import GATHERED, PICOT, stitch_words
from rillstep.core.tree import Kept, Step
from rillstep.core.words.lexicon import sees_stitch
from rillstep.core.words.stream import Context, Passed, Stream, stream_over
from rillstep.core.words.tokens import WORD_NUMBERS, Token, bracket_end

# Words of instructions: none of them is what was not understood by itself.
USUAL_WORDS = frozenset((
    "the", "and", "next", "each", "st", "sts", "stitch", "stitches", "around", "across", "with", "from", "into",
    "same", "last", "first", "work", "times", "more", "then", "hook", "until", "end", "row", "rnd", "round", "rows",
    "space", "spaces", "loop", "loops", "of", "for", "this", "that", "made", "place", "all", "left", "right", "side",
    "edge",
))  # fmt: skip
# Words of the craft: of these one makes a clause more than talk.
CRAFT = frozenset((
    "st", "sts", "stitch", "stitches", "ch", "chs", "chain", "chains", "sp", "sps", "space", "spaces", "loop",
    "loops", "lp", "lps", "arch", "picot", "picots", "shell", "shells", "cluster", "clusters", "fan", "fans",
    "scallop", "scallops", "group", "groups", "motif", "motifs", "eyelet", "eyelets", "corner", "corners", "post",
    "posts", "bump", "bumps", "bar", "bars", "ring", "rings", "tch", "next", "each", "every", "ea", "first", "last",
    "final", "same", "other", "others", "sk", "skip", "skips", "skipping", "skipped", "miss", "misses", "missing",
    "missed", "inc", "incs", "increase", "increases", "increased", "increasing", "dec", "decs", "decrease",
    "decreases", "decreased", "decreasing", "rep", "reps", "repeat", "repeats", "repeated", "repeating", "twice",
    "once", "thrice", "times", "time", "more", "fewer", "less", "extra", "double", "doubled", "doubles", "doubling",
    "half", "halve", "halved", "halves", "halving", "triple", "tripled", "blo", "flo", "tog", "together", "alternate",
    "alternately", "alternating", "alternated", "every", "omit", "omits", "omitting", "omitted", "except",
    "excepting", "excluding", "without", "instead", "unless", "until", "till", "only", "but", "leave", "leaves",
    "leaving", "left", "unworked", "unused", "remaining", "rem", "rest", "join", "joins", "joined", "joining", "turn",
    "turned", "turning", "rotate", "rotated", "rotating", "marker", "markers", "marked", "row", "rows", "rnd", "rnds",
    "round", "rounds", "around", "across", "along", "evenly", "even", "odd", "spaced", "both", "neither", "twisted",
    "crossed", "cross", "ending", "ends", "sc", "hdc", "dc", "tr", "dtr", "htr", "trtr", "esc", "ss", "slst",
    "crochet", "treble", "replace", "replacing", "substitute", "add", "adding", "drop", "dropping",
))  # fmt: skip
# A clause that begins so tells how a thing is done with hands and hook, whatever else it names.
_HANDS = frozenset((
    "yo", "yoh", "yarn", "insert", "pull", "pulling", "draw", "drawing", "tighten", "weave", "weaving", "tie", "sew",
    "sewing", "stuff", "slide", "pick", "hold", "fold", "flip", "secure", "wrap", "lay", "block", "steam", "thread",
    "knot", "trim", "unravel", "undo", "check", "count", "adjust", "keep", "keeping", "remember", "be", "being", "do",
    "try", "make", "making", "note", "gently", "hide", "tuck", "close", "bring", "push", "holding", "matching",
    "lining", "see", "optional", "careful", "carefully", "loosely", "cut",
))  # fmt: skip
# Of these a whole sentence tells, with its numbers: no stitch is made by weaving, sewing or tying.
_FINISHES = frozenset((
    "weave", "weaving", "thread", "threading", "tie", "tying", "sew", "sewing", "knot", "trim", "stuff", "block",
    "steam", "hide", "tuck", "pin", "glue", "iron", "lace", "run",
))  # fmt: skip
_PART = (
    r"(?:corner|handle|strap|shell|fan|scallop|cluster|picot|loop|button loop|buttonhole|"
    r"ch-? ?\d* ?sp|space|sp|v-?(?: ?st)?|"
    r"increase|inc|decrease|dec|eyelet|opening|motif|group|petal|point|ring|circle|base|"
    r"side|bottom|piece|panel|square|tab|flap|band|pocket|"
    r"front|back|body|wall|top|rim|brim|gusset|cord|tie|tassel|bobble|puff|popcorn|row|rnd|round|marker|chain)s?"
)
_WHICH = (
    r"(?:(?:the|a|an|your|this|each|every|first|second|third|fourth|1st|2nd|3rd|4th|"
    r"last|next|other|left|right|front|back|top|bottom|short|long|both|new|all) )*"
)
# What is harmless although it names things of the craft, taken out before the rest is looked at.
_HARMLESS = tuple(
    re.compile(rf"(?<![\w-])(?:{phrase})(?![\w-])")
    for phrase in (
        r"(?:working )?(?:in|into|through) the back (?:bumps?|humps?)(?: of the ch(?:ain)?)?(?: only)?",
        r"(?:place|put|insert|pm|placing) (?:a |the )?(?:stitch )?marker (?:in|on) (?:the "
        r")?(?:middle|center|centre|2nd|this|corner|first|last) (?:st|stitch|sc|ch|"
        r"one)(?: of (?:the )?\w+)?",
        rf"{_WHICH}{_PART} (?:just |is |are |now )*(?:made|formed|completed|complete|created|done|finished)",
        rf"(?:to make |to form |to begin |to start |to create |for|as|forms|forming|makes|"
        rf"making|starting|beginning) {_WHICH}(?:\w+ )?{_PART}(?: {_PART})?",
        r"(?:with )?(?:the )?(?:rs|ws|right sides?|wrong sides?)(?: of (?:the )?(?:work|"
        r"piece|bag|panel|fabric))?(?: (?:is|are))?(?: now)?(?: facing)?(?: (?:you|"
        r"up|out|outwards|in|together|towards you))?",
        r"(?:move|moving|replace|replacing|slip|slipping|remember to move|use|using|place|"
        r"placing|keep|keeping|put|carry|carrying) (?:the |a |your )?(?:stitch )?markers?(?: "
        r"up)?(?: as you go)?(?: (?:each|every|in each|in every) (?:round|rnd|row))?",
        r"(?:move|moving|remember to move) (?:the |your )?(?:stitch )?markers? (?:up |along "
        r")?(?:to|in|into) (?:the )?(?:first|last) (?:st|stitch)(?: of each (?:rnd|"
        r"round|row))?",
        r"(?:not to|do not|don't|without|to not) twist(?:ing)?(?: (?:the|your))?(?: (?:chain|"
        r"ch|sts|stitches|work|foundation|it))?",
        r"(?:the |your )?(?:chain|ch|sts|stitches) (?:is|are) not twisted",
        r"(?:pull|pulling|draw|drawing|tighten|close|closing|cinch) (?:the |your )?(?:magic "
        r"|adjustable )?ring(?: (?:closed|tight|tightly|shut))?",
        r"(?:leave|leaving) (?:a |an )?(?:very |extra )?(?:long |short )?(?:cm |mm |in "
        r"|inch |inches )?(?:yarn )?(?:tail|end|tails|ends)(?: of (?:yarn|about))?(?: "
        r"(?:cm|inches|in))?",
        r"(?:leave|leaving|left) (?:it|the yarn|the rest of the yarn|the ball)(?: (?:attached|hanging|aside|uncut))?",
        r"(?:at|by) (?:the )?(?:end|beginning|start) of (?:the |each |every |this )?(?:row|rnd|round)",
        r"(?:each|every) (?:row|rnd|round) (?:begins|starts|ends) (?:at|in) (?:the )?(?:side|back|centre|center)",
        r"count(?:ing)? (?:your |the )?(?:sts|stitches|rows|rounds|rnds)", (r"(?:the )?(?:st|"
            r"stitch) count (?:stays|remains) the same"),
        r"to (?:measure|secure|even out|shape|close|finish|tidy) (?:the )?(?:round|rnd|"
        r"row|edge|bag|top|ring|bottom|last row|opening|hole|seam|base)",
        r"(?:left|right)-hand(?:ed)?(?: side)?", r"(?:over|round|around) the (?:tail|ends?|yarn ends?)", (r"(?:to|"
            r"on|at|from) (?:the |your )(?:left|right)(?: (?:side|hand))?"),
        r"(?:seen |looking )?from the (?:front|back|right side|wrong side|outside|inside)", (r"in "
            r"(?:the )?front of (?:you|the work)"), (r"(?:at|"
            r"on) the (?:front|back)(?: of the (?:work|bag|piece))?"),
        r"(?:lay|laying|fold|folding|hold|holding) (?:\w+ )?(?:flat|double|together|in half)(?: (?:and|so that) .*)?",
        r"side by side", r"one (?:by|at a) (?:one|time)", r"in one go", r"at (?:the same|this|that) time",
        r"next to (?:you|it|each other)", (r"(?:from|"
            r"until|till) (?:now|here|then)(?: on)?"), r"once again", r"the rest of the (?:yarn|bag|piece)",
        (r"(?:with|using) (?:(?:two|three|four|2|3|4|both|all) )?(?:strands|threads|ends|"
            r"yarns)(?: of [a-z]+)?(?: held)?(?: together)?"), (r"strands(?: "
            r"of yarn)?(?: held)? together"),
        r"(?:hold|holding|place|placing|put|putting|with|lay|laying|pin|matching) (?:(?!sts?\b|"
        r"stitch|loops?\b|chs?\b|chains?\b|sps?\b|spaces?\b|rows?\b|rnds?\b)[a-z]+ "
        r"){1,5}together",
        r"(?:with )?(?:the )?(?:\w+ )?(?:side )?facing (?:you|up|in|out|down|outwards|inwards|"
        r"each other|together|towards you|away)(?: from you)?",
        r"(?:do not|don't|without) (?:fasten(?:ing)? off|cut(?:ting)? (?:the )?yarn|break(?:ing)? "
        r"(?:the )?yarn)(?: yet)?",
        r"(?:weave|weaving|sew|darn|tuck|hide|work)"
        r" in (?:all |the |any |your |both )*(?:loose |yarn )?(?:ends?|tails?)",
        r"insert(?:ing)? (?:the |your )?hook in(?:to)? (?:the )?.*\bbelow", (r"matching "
            r"(?:the )?(?:sts|stitches|edges|rows|corners)"),
        r"(?:the )?(?:yarn|working) ends?", r"back to back", r"(?:both )?(?:ends|tails)",
        r"(?:an |a )?(?:even|loose|firm|tight) tension", r"(?:take|taking) (?:your|the) time", (r"(?:carry|"
            r"carrying) (?:the |your )?(?:\w+ )?(?:yarns?|colours?|strands?|ends?) (?:along|"
            r"across|up)(?: (?:inside|on the back|the back|behind))?"),
        r"(?:each|every) time", r"first of all", r"at (?:first|last)", r"for the (?:first|last|second) time",
    )
)  # fmt: skip
_LENGTHS = (
    "cm", "mm", "in", "inch", "inches", "m", "metre", "metres", "meter", "meters", "yard", "yards", "yd", "yds",
    "g", "gram", "grams", "hook",
            "strand", "strands", "ball", "balls", "needle", "button", "buttons", "bead", "beads", "minute",
            "minutes")  # fmt: skip
_NEAR = (
    "turn",
    "join",
    "skip",
    "repeat",
    "rotate",
    "chain",
    "increase",
    "decrease",
    "fasten",
    "together",
    *GATHERED,
    PICOT,
)
_ENDS = (",", ";", ".", ":", "]", ")", "[", "(", "*", "**", "—")
_PLAIN_MARKS = ("-", "'", '"', "/", "!", "?", "&", "%", "°")
_USED = ("in", "into", "around", "across", "twice", "once", "x", "to", "all", "over", "rep", "repeat", "times")
MOST_WORDS = 60


def changes_nothing(stream: Stream, first: int, last: int) -> bool:
    """Do tokens hold no number and no word of the craft, beyond what is harmless?"""
    tokens = stream.tokens[first:last]
    if not tokens or len(tokens) > MOST_WORDS or any(t.kind == "expr" for t in tokens):
        return False
    words: list[str] = []
    for at, token in enumerate(tokens):
        if token.kind == "mark" and token.text not in (*_PLAIN_MARKS, ",", ".", ":", ";", "—"):
            return False
        if token.kind == "num" and _measures(tokens, at):
            continue
        words.append(token.text)
    own = tuple(part for _, parts in stream.context.specials for part in parts)
    return _harmless(" ".join(words), stream.context.terms, own)


def _measures(tokens: Sequence[Token], at: int) -> bool:
    """Is a number one of centimetres, grams, hooks or the like, and none of stitches?"""
    following = next((t for t in tokens[at + 1 : at + 3] if not t.is_mark("-", "/")), None)
    return following is not None and (following.is_word(*_LENGTHS) or following.is_mark('"'))


@remember(8192)
def _harmless(text: str, terms: str, own: tuple[str, ...]) -> bool:
    for phrase in _HARMLESS:
        text = phrase.sub(" ", text)
    words = re.findall(r"[^\W_][\w'-]*", text)
    if any(word[0].isdigit() for word in words):
        return False
    names = {*stitch_words("US"), *stitch_words("UK"), *GATHERED, *own}
    parts = {part for word in words for part in (word, *word.split("-"))}
    return not (parts & CRAFT or parts & names or _has_slip(words))


# Words that turn the meaning of what stands beside them: a phrase with one of them is never said to change nothing.
_TURNS = frozenset((
    "not", "no", "never", "neither", "nor", "don't", "doesn't", "or", "and", "then", "before", "after", "into",
    "away", "any", "both", "all", "dozen", "couple", "pair", "pairs", "several", "few", "many", "single", "zero",
    "none", "half", "quarter",
))  # fmt: skip


def words_change_nothing(words: str, own: Sequence[str] = ()) -> bool:
    """May it be said of a phrase, anywhere in a line, that it changes nothing: is there no number and no word of the
    craft in it?

    own: names of stitches of the text's own. What the table calls harmless is not looked at: only the words
    themselves are.
    """
    found = re.findall(r"[^\W_][\w'’-]*", words.lower().replace("’", "'"))
    parts = {part for word in found for part in (word, *word.split("-"))}
    named = {*stitch_words("US"), *stitch_words("UK"), *GATHERED, *own}
    if not found or any(letter.isdigit() for letter in words) or parts & WORD_NUMBERS:
        return False
    return not (parts & (CRAFT | _TURNS | named) or _has_slip(found))


def _has_slip(words: Sequence[str]) -> bool:
    """Could one of these words be an instruction that is misspelt?"""
    return any(
        len(word) > 2
        and word not in USUAL_WORDS
        and word not in _HANDS
        and difflib.get_close_matches(word, _NEAR, 1, 0.75)
        for word in words
    )


def keep(stream: Stream, first: int, bracket: bool = False) -> None:
    """Keep the tokens from `first` up to the cursor as words."""
    last = stream.at
    inner = (first + 1, last - 1) if bracket else (first, last)
    while not bracket and inner[0] < inner[1] and stream.tokens[inner[1] - 1].is_mark(",", ";", ":"):
        inner = (inner[0], inner[1] - 1)
    words = stream.written(*inner)
    if words:
        stream.kept.append(Passed(first, last, words, bracket, stream.since(first)))


def keep_phrase(stream: Stream, first: int) -> bool:
    """Keep the tokens from `first` up to the next mark, where they change nothing; else the cursor is put back to
    `first`."""
    end = first
    while end < len(stream.tokens) and not stream.tokens[end].is_mark(*_ENDS):
        end += 1
    if changes_nothing(stream, first, end):
        stream.at = end
        keep(stream, first)
        return True
    stream.at = first
    return False


_TITLES = frozenset((
    "front", "back", "side", "sides", "first", "second", "top", "bottom", "left", "right", "edge", "end", "of", "bag",
    "body", "piece", "across", "on", "along", "for", "the", "then", "next", "long", "short",
))  # fmt: skip
_TITLED = frozenset(["front", "back", "side", "sides", "top", "bottom", "edge"])


def keep_title(stream: Stream) -> bool:
    """Keep "Front:" or "Across the back:" within a row, which tells where its part lies and changes nothing; nothing
    else is taken."""
    tokens, start = stream.tokens, stream.at
    end = start
    while (
        end < len(tokens) and end - start < MOST_OF_TITLE and tokens[end].kind == "word" and tokens[end].text in _TITLES
    ):
        end += 1
    named = any(token.text in _TITLED for token in tokens[start:end])
    if not named or end >= len(tokens) or not tokens[end].is_mark(":"):
        return False
    stream.at = end
    keep(stream, start)
    stream.at = end + 1
    return True


MOST_OF_TITLE = 6


def keep_strands(stream: Stream) -> bool:
    """Keep "with one yarn", "using two strands held together": how many strands are held, which makes no stitch;
    nothing else is taken."""
    start = stream.at
    if stream.word("with", "using", "holding"):
        number = stream.peek()
        if number is not None and number.kind == "num":
            stream.next()
        if number is not None and number.kind == "num" and stream.word("yarn", "yarns", "strand", "strands", "threads"):
            stream.any_of("of yarn", "of the yarn")
            stream.any_of("held together", "held double", "together")
            keep(stream, start)
            stream.mark(",")
            return True
    stream.at = start
    return False


def keep_clause(stream: Stream, start: int) -> bool:
    """Keep the clause from token `start` on, when words that change nothing are all it can be; nothing is taken
    otherwise.

    The cursor may stand further on, where reading the clause failed.
    """
    tokens, end = stream.tokens, start
    if tokens[start].is_word(*_FINISHES) and (not start or tokens[start - 1].is_mark(".", ";", ":")):
        while end < len(tokens) and not tokens[end].is_mark(".", ";"):
            end += 1
        stream.at = start
        stream.at = end
        keep(stream, start)
        return True
    while end < len(tokens) and not tokens[end].is_mark(*_ENDS):
        if tokens[end].is_word("and") and end > start and (_works_next(stream, end + 1) or _goes_on(tokens, end + 1)):
            break  # "fold flat and sl st through both layers"
        end += 1
    words = [token.text for token in tokens[start:end] if token.kind == "word"]
    hands = bool(words) and words[0] in _HANDS
    if not words or not changes_nothing(stream, start, end) or (not hands and len(words) < 3 and not _is_known(words)):
        return False
    stream.at = start
    stream.at = end
    keep(stream, start)
    return True


_KNOWN = (
    "working loosely", "work loosely", "working tightly", "work tightly", "working firmly", "tightly", "loosely",
    "neatly", "carefully", "firmly", "gently", "optional", "rs facing", "ws facing", "that is all", "well done",
)  # fmt: skip


def _is_known(words: list[str]) -> bool:
    """Is so short a clause one that is known to say nothing? A word or two may be the name of a stitch."""
    return any(pattern.fullmatch(" ".join(words)) for pattern in _HARMLESS) or " ".join(words) in _KNOWN


def keep_bracket(stream: Stream) -> bool:
    """Keep the bracket that comes next, when it only tells: "(picot made)", "(for the strap)"; nothing is taken
    otherwise."""
    end = bracket_end(stream.tokens, stream.at)
    if end is None or end - stream.at < 3:
        return False
    following = stream.tokens[end] if end < len(stream.tokens) else None
    if following is not None and (following.kind == "num" or following.is_word(*_USED)):
        return False
    words = [token.text for token in stream.tokens[stream.at + 1 : end - 1]]
    if _COUNTS & set(words) and words[0] not in _HANDS:
        return False  # "(does not count)"
    least = 2 if not (words[0] in _HANDS or _is_known(words) or words[0] in _TOLD_ALONE) else 1
    letter = (
        len(words) == 1
        and words[0] != "x"
        and (words[0] in ("mc", "cc") or (len(words[0]) == 1 and words[0].isalpha()))
    )
    if not letter and (len(words) < least or not changes_nothing(stream, stream.at + 1, end - 1)):
        return False
    start, stream.at = stream.at, end
    keep(stream, start, bracket=True)
    return True


_COUNTS = frozenset(["count", "counts", "counted", "counting"])
_TOLD_ALONE = frozenset((
    "buttonhole", "optional", "handle", "handles", "strap", "straps", "opening", "openings", "flap", "pocket", "side",
    "sides", "gusset",
))  # fmt: skip


def keep_finish(stream: Stream) -> bool:
    """ "... and weave in the ends", "..., then sew to the back": what is done when the yarn is off the hook; kept to
    the end of the sentence."""
    start = stream.at
    stream.mark(",")
    stream.word("and", "then", "to") and stream.word("then")
    token = stream.peek()
    if token is None or not token.is_word(*_FINISHES):
        stream.at = start
        return False
    begin = stream.at
    while (token := stream.peek()) is not None and not token.is_mark(".", ";"):
        stream.next()
    keep(stream, begin)
    return True


def _goes_on(tokens: Sequence[Token], at: int) -> bool:
    return (
        at + 1 < len(tokens)
        and tokens[at].is_word("working", "work")
        and tokens[at + 1].is_word("through", "in", "into")
    )


def _works_next(stream: Stream, at: int) -> bool:
    """Does a stitch come next, worked from token `at` on?"""
    kept = stream._at
    stream._at = at  # looked at only: nothing that is kept may be given up for it
    found = sees_stitch(stream) is not None
    stream._at = kept
    return found


def _holds(kept: Passed, told: Passed) -> bool:
    return not kept.bracket and kept.span.column <= told.span.column < kept.span.end_column


def kept_among(stream: Stream, steps: Sequence[Step]) -> tuple[Kept, ...]:
    """What the ledger of a stream keeps, each with how many of the steps begin before it."""
    columns = [step.span.column for step in steps]
    return tuple(
        Kept(one.words, sum(column < one.span.column for column in columns), one.bracket, one.span)
        for one in sorted(
            [*stream.kept, *(t for t in stream.told if not any(_holds(k, t) for k in stream.kept))],
            key=lambda one: one.span,
        )
    )


def instructions(text: str, line: int, context: Context, start: int, end: int) -> Stream:
    """A stream over the instructions text[start:end]; brackets that only tell, wherever they stand, are in its
    ledger."""
    stream = stream_over(text, line, context, start, end)
    if not any(token.is_mark("(", "[") for token in stream.tokens):
        return stream
    rest: list[Token] = []
    at = 0
    while at < len(stream.tokens):
        close = bracket_end(stream.tokens, at) if stream.tokens[at].is_mark("(", "[") else None
        if close is not None and close - at > 3 and not stream.tokens[at + 1].is_word("rs", "ws", "right", "wrong"):
            stream.at = at
            if keep_bracket(stream):
                told = stream.kept.pop()
                stream.told.append(replace(told, first=len(rest), last=len(rest)))
                at = close
                continue
        rest.append(stream.tokens[at])
        at += 1
    stream.at = 0
    stream.tokens = rest
    return stream
