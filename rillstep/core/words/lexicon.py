"""Word classes and phrases, as data: what stands for a stitch, a space, a row; what is of the craft; what changes
nothing.

A word of a class is added here and nowhere else. A phrase that only one construct knows stands in the table of the room
that reads it.
"""

import re

from rillstep.core.craft import GATHERED, GATHERED_SHORT, PICOT, plurals
from rillstep.core.wordlists import phrase_list, word_list

OTHER_NAMES = {
    "hk": "hook",
    "col": "colour",
    "rds": "rnds",
    "rpt": "rep",
    "reps": "rep",
    "repeating": "repeat",
    "rd": "rnd",
    "chsp": "sp",
    "foundtn": "foundation",
}
# Abbreviations with a full stop of their own: it ends no sentence.
ABBREVIATED = word_list("ea nxt foll beg prev rem cont tog")
UNITS = word_list(
    "one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen "
    "seventeen eighteen nineteen twenty"
)
TENS = {"thirty": 30, "forty": 40, "fifty": 50, "sixty": 60, "seventy": 70, "eighty": 80, "ninety": 90}
NUMBER_WORDS = (
    {word: number for number, word in enumerate(UNITS, start=1)}
    | TENS
    | {
        f"{ten}-{unit}": n + k
        for ten, n in ({"twenty": 20} | TENS).items()
        for k, unit in enumerate(UNITS[:9], start=1)
    }
)
ORDINAL_WORDS = {
    "second": "2nd", "third": "3rd", "fourth": "4th", "fifth": "5th", "sixth": "6th", "seventh": "7th",
    "eighth": "8th", "ninth": "9th",
    "tenth": "10th", "eleventh": "11th", "twelfth": "12th", "thirteenth": "13th", "fourteenth": "14th",
    "fifteenth": "15th",
    "sixteenth": "16th",
}  # fmt: skip
# Words that say a number, or which one.
WORD_NUMBERS = frozenset((*NUMBER_WORDS, *ORDINAL_WORDS))
STITCH = ("st", "sts", "stitch", "stitches", "st(s)", "stich", "stiches")
SPACE = word_list("sp sps space spaces sp(s) loop loops lp lps arch arches gap gaps")
# A chain to put a hand through is a space, too.
HANDLES = ("handle", "handles", "opening", "openings", "eyelet", "eyelets")
NEXT = ("next", "nxt", "following", "foll")
ROWS = ("row", "rows", "rnd", "rnds", "round", "rounds")
CHAIN = ("ch", "chs", "chain", "chains", "ch(s)")
GROUPS = word_list("group groups cluster clusters shell shells set sets trio trios")
# What a ring that is pulled tight is called, and keeps being called in print.
RING_NAMES = frozenset(("magic ring", "magic circle", "magic loop", "adjustable loop"))
# What a group of stitches around a space is called.
MOTIFS = word_list("block square tile shell fan group cluster motif diamond petal corner")
INCREASE = ("inc", "incs", "increase", "increases", "increasing")
DECREASE = ("dec", "decs", "decrease", "decreases", "invdec", "decreasing")
# Other words for the special stitches that everybody knows.
GATHERED_WORDS: tuple[tuple[tuple[str, ...], str], ...] = (
    *(((name, tail), name) for name in GATHERED for tail in ("st", "sts", "stitch", "stitches")),
    *(((name + plural,), name) for name in GATHERED for plural in ("", "s")),
    *(
        (tuple(one.split()), name)
        for name, short in GATHERED_SHORT.items()
        for each in sorted(short, key=len, reverse=True)
        for one in plurals(each)
    ),
)
# Words of instructions: none of them is what was not understood by itself.
USUAL_WORDS = frozenset(
    word_list(
        "the and next each st sts stitch stitches around across with from into same last first work times "
        "more then hook until end row rnd round rows space spaces loop loops of for this that made place all "
        "left right side edge"
    )
)
# Words of the craft: of these one makes a clause more than talk.
CRAFT = frozenset(
    word_list(
        "st sts stitch stitches ch chs chain chains sp sps space spaces loop loops lp lps arch picot picots "
        "shell shells cluster clusters fan fans scallop scallops group groups motif motifs eyelet eyelets "
        "corner corners post posts bump bumps bar bars ring rings tch next each every ea first last final "
        "same other others sk skip skips skipping skipped miss misses missing missed inc incs increase "
        "increases increased increasing dec decs decrease decreases decreased decreasing rep reps repeat "
        "repeats repeated repeating twice once thrice times time more fewer less extra double doubled doubles "
        "doubling half halve halved halves halving triple tripled blo flo tog together alternate alternately "
        "alternating alternated every omit omits omitting omitted except excepting excluding without instead "
        "unless until till only but leave leaves leaving left unworked unused remaining rem rest join joins "
        "joined joining turn turned turning rotate rotated rotating marker markers marked row rows rnd rnds "
        "round rounds around across along evenly even odd spaced both neither twisted crossed cross ending "
        "ends sc hdc dc tr dtr htr trtr esc ss slst crochet treble replace replacing substitute add adding "
        "drop dropping"
    )
)
# Words that turn the meaning of what stands beside them: a phrase with one of them is never said to change nothing.
TURNING_MEANING = frozenset(
    word_list(
        "not no never neither nor don't doesn't or and then before after into away any both all dozen couple "
        "pair pairs several few many single zero none half quarter"
    )
)
NEAR_CRAFT = (
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
# A clause that begins so tells how a thing is done with hands and hook, whatever else it names.
HANDS = frozenset(
    word_list(
        "yo yoh yarn insert pull pulling draw drawing tighten weave weaving tie sew sewing stuff slide pick "
        "hold fold flip secure wrap lay block steam thread knot trim unravel undo check count adjust keep "
        "keeping remember be being do try make making note gently hide tuck close bring push holding matching "
        "lining see optional careful carefully loosely cut"
    )
)
# Of these a whole sentence tells, with its numbers: no stitch is made by weaving, sewing or tying.
FINISHING = frozenset(
    word_list(
        "weave weaving thread threading tie tying sew sewing knot trim stuff block steam hide tuck pin glue "
        "iron lace run"
    )
)
# Words that an aside behind a stitch may begin with: where, with what, what for, and what hands do beside it.
ASIDE_BEGINS = frozenset(
    word_list(
        "in at on for from with using to of and or as the a an your it this that they you now then all about "
        "approx approximately leave leaving taking take changing change working work continue continuing "
        "rotating placing place moving move ending beginning starting cinch cinching drawing pulling carrying "
        "matching facing counting forming creating until if when while where by next first last each every no "
        "one two three four after before right left wrong yours turning crossing tightening securing "
        "finishing completing there these those here both that's it's so don't use beside not"
    )
)
# Words of the strands of a stitch: where they stand in an aside, it may tell where the hook goes.
STRANDS = frozenset(
    word_list(
        "strand strands ridge ridges hump humps bump bumps nub nubs leg legs horizontal vertical diagonal "
        "underneath topmost uppermost lowest"
    )
)
MEASURES = word_list(
    "cm mm in inch inches m metre metres meter meters yard yards yd yds g gram grams hook strand strands "
    "ball balls needle button buttons bead beads minute minutes"
)
TITLE_WORDS = frozenset(
    word_list(
        "front back side sides first second top bottom left right edge end of bag body piece across on along "
        "for the then next long short"
    )
)
TITLED = frozenset(["front", "back", "side", "sides", "top", "bottom", "edge"])
ALONE_IN_BRACKETS = frozenset(
    word_list("buttonhole optional handle handles strap straps opening openings flap pocket side sides gusset")
)
SAY_NOTHING = phrase_list(
    "working loosely | work loosely | working tightly | work tightly | working firmly | tightly | loosely "
    "| neatly | carefully | firmly | gently | optional | rs facing | ws facing | that is all | well done"
)
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
HARMLESS = tuple(
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
        r"count(?:ing)? (?:your |the )?(?:sts|stitches|rows|rounds|rnds)",
        (
            r"(?:the )?(?:st|"
            r"stitch) count (?:stays|remains) the same"
        ),
        r"to (?:measure|secure|even out|shape|close|finish|tidy) (?:the )?(?:round|rnd|"
        r"row|edge|bag|top|ring|bottom|last row|opening|hole|seam|base)",
        r"(?:left|right)-hand(?:ed)?(?: side)?",
        r"(?:over|round|around) the (?:tail|ends?|yarn ends?)",
        (
            r"(?:to|"
            r"on|at|from) (?:the |your )(?:left|right)(?: (?:side|hand))?"
        ),
        r"(?:seen |looking )?from the (?:front|back|right side|wrong side|outside|inside)",
        (
            r"in "
            r"(?:the )?front of (?:you|the work)"
        ),
        (
            r"(?:at|"
            r"on) the (?:front|back)(?: of the (?:work|bag|piece))?"
        ),
        r"(?:lay|laying|fold|folding|hold|holding) (?:\w+ )?(?:flat|double|together|in half)(?: (?:and|so that) .*)?",
        r"side by side",
        r"one (?:by|at a) (?:one|time)",
        r"in one go",
        r"at (?:the same|this|that) time",
        r"next to (?:you|it|each other)",
        (
            r"(?:from|"
            r"until|till) (?:now|here|then)(?: on)?"
        ),
        r"once again",
        r"the rest of the (?:yarn|bag|piece)",
        (
            r"(?:with|using) (?:(?:two|three|four|2|3|4|both|all) )?(?:strands|threads|ends|"
            r"yarns)(?: of [a-z]+)?(?: held)?(?: together)?"
        ),
        (
            r"strands(?: "
            r"of yarn)?(?: held)? together"
        ),
        r"(?:hold|holding|place|placing|put|putting|with|lay|laying|pin|matching) (?:(?!sts?\b|"
        r"stitch|loops?\b|chs?\b|chains?\b|sps?\b|spaces?\b|rows?\b|rnds?\b)[a-z]+ "
        r"){1,5}together",
        r"(?:with )?(?:the )?(?:\w+ )?(?:side )?facing (?:you|up|in|out|down|outwards|inwards|"
        r"each other|together|towards you|away)(?: from you)?",
        r"(?:do not|don't|without) (?:fasten(?:ing)? off|cut(?:ting)? (?:the )?yarn|break(?:ing)? "
        r"(?:the )?yarn)(?: yet)?",
        r"(?:weave|weaving|sew|darn|tuck|hide|work)"
        r" in (?:all |the |any |your |both )*(?:loose |yarn )?(?:ends?|tails?)",
        r"insert(?:ing)? (?:the |your )?hook in(?:to)? (?:the )?.*\bbelow",
        (
            r"matching "
            r"(?:the )?(?:sts|stitches|edges|rows|corners)"
        ),
        r"(?:the )?(?:yarn|working) ends?",
        r"back to back",
        r"(?:both )?(?:ends|tails)",
        r"(?:an |a )?(?:even|loose|firm|tight) tension",
        r"(?:take|taking) (?:your|the) time",
        (
            r"(?:carry|"
            r"carrying) (?:the |your )?(?:\w+ )?(?:yarns?|colours?|strands?|ends?) (?:along|"
            r"across|up)(?: (?:inside|on the back|the back|behind))?"
        ),
        r"(?:each|every) time",
        r"first of all",
        r"at (?:first|last)",
        r"for the (?:first|last|second) time",
    )
)
