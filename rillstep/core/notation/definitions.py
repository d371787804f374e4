"""Stitches and abbreviations that a pattern defines for itself: "Define: scallop = 5 dc in same st"."""

import re
from dataclasses import replace

from rillstep.core.clauses.steps import read_steps
from rillstep.core.craft import Terms, stitch_words
from rillstep.core.findings import Finding, Span
from rillstep.core.memory import remember
from rillstep.core.tree import Next, Special, Together, Work
from rillstep.core.wordlists import word_list
from rillstep.core.words.stream import Context, Stream
from rillstep.core.words.tokens import tokens_of

# "yo forms are prose": how one stitch is made, which changes no count.
_HANDWORK = re.compile(
    r"\b(?:yo|yarn over|yoh|insert hook|draw up|pull up|pull through|draw through)\b|^(?:a|one) stitch\b", re.IGNORECASE
)

# "in the indicated st or sp": wherever the pattern works it.
_TOLD, _PLACED = (
    r"(?:indicated|specified|designated|stated|given|required)",
    r"(?:st|stitch|(?:ch-?\s?\d*\s*)?(?:sp|space))",
)
_AT_WILL = re.compile(
    rf"\b(?:all\s+)?(?:in|into)\s+(?:the\s+)?(?:same\s+|next\s+)?(?:{_TOLD}\s*{_PLACED}(?:\s+or\s+{_PLACED})?|"
    rf"{_PLACED}(?:\s+or\s+{_PLACED})?\s+{_TOLD}|{_PLACED}\s+or\s+{_PLACED})(?=\s*\.?\s*$)",
    re.IGNORECASE,
)

_WORKED = re.compile(
    r"\b(?:all\s+)?(?:worked|made)\s+(?=in(?:to)?\b)", re.IGNORECASE
)  # "3 dc worked in the same space"

# A line of notes that defines a stitch says so by its name.
_DEFINES = re.compile(
    r"^\W*+(?P<name>(?=[^:=]*\b(?:st|stitch|shell|cluster|cl|fan|v|picot|group|block|scallop|"
    r"bobble|popcorn|petal|crossed?|bean|corner)\b)"
    r"[A-Za-z][\w-]*(?: [\w-]+){0,3}(?:\s*\([^()]{1,20}\))?)(?:\s*[:=]\s*|\s+[-–—]\s+)(?=.*\b(?:in|into)\b)",
    re.IGNORECASE,
)


def defines(text: str, terms: Terms) -> int | None:
    """Where in a line of notes the name of a stitch of the pattern's own begins ("• V-st: (dc, ch 1, dc) in same
    st"); None elsewhere."""
    match = _DEFINES.match(text)
    if match is None or " ".join(match["name"].lower().split()) in stitch_words(terms):
        return None
    return match.start("name")


def name_words(name: str) -> tuple[str, ...]:
    """A name as the words and marks by which it is found again in a line, in lower case."""
    bare = re.sub(r"\([^)]*\)", " ", name)
    words = [token.text for token in tokens_of(bare, 1, 1)]
    while len(words) > 1 and words[-1] in ("st", "stitch", "-", "sts"):
        words.pop()
    return tuple(words)


def short_names(name: str) -> list[tuple[str, ...]]:
    """The other names in brackets behind a name: "Bobble (BO)"; "MB (make bobble)", of which bobbles are counted."""
    found = [words for inside in re.findall(r"\(([^()]{1,16})\)", name) if (words := name_words(inside))]
    return [*found, *(words[1:] for words in found if len(words) > 1 and words[0] in ("make", "work"))]


@remember(512)
def read_special(name: str, text: str, line: int, start: int, context: Context) -> tuple[Special, tuple[Finding, ...]]:
    """The stitch defined by text[start:]. What is only handwork is kept as words: one place in, one stitch out."""
    text = text[:start] + _WORKED.sub(lambda match: " " * len(match[0]), text[start:])
    text = text[:start] + _AT_WILL.sub("in same st", text[start:])
    words = text[start:].strip().rstrip(".")
    clean = " ".join(re.sub(r"\([^)]*\)", " ", name).split())
    if _HANDWORK.search(words) or not words:
        return Special(clean, (), words), ()
    told = re.search(
        r"\(([^()]*)\)\s*\.?\s*$", text[start:]
    )  # "5 dc in same st, joined at the top (dc5tog in same st)"
    inside = [" " * (start + told.start(1)) + told[1]] if told is not None and told.start() else []
    for body in (text, f"{text.rstrip().rstrip('.')} in same st", *inside):
        stream = Stream(tokens_of(body, line, context.n_sizes, start), context, Span(line, len(text), len(text) + 1))
        steps = read_steps(stream)
        if steps and not stream.findings:
            return Special(clean, steps, ""), ()
    stream = Stream(tokens_of(text, line, context.n_sizes, start), context, Span(line, len(text), len(text) + 1))
    read_steps(stream)
    problems = tuple(
        replace(
            f,
            code="define-not-understood",
            severity="warning",
            message=f"{f.message} So it is not known what this stitch takes and makes: one place, and one stitch.",
        )
        for f in stream.findings
    )
    return Special(clean, (), words, unread=bool(problems)), problems


_NAME = re.compile(r"[A-Za-z]{1,6}")
# Words of the language that such a list explains, too.
_KNOWN = word_list("st sts ch chs sp sps sk inc dec rep rnd row tog beg tch lp lps sl ss cl blo flo bl fl mr rs ws")
MOST_WORDS = 4


@remember(512)
def own_abbreviation(name: str, meaning: str, terms: Terms) -> tuple[str, ...] | None:
    """The words of the language that a name stands for; None where it is known already, or stands for no plain
    stitch."""
    name, meaning = name.strip(), meaning.strip().rstrip(".").lower()
    known = name.lower() in stitch_words(terms) or name.lower() in _KNOWN
    if known or not _NAME.fullmatch(name) or name == "x" or not re.fullmatch(r"[a-z]+(?: [a-z]+)*", meaning):
        return None  # "x" are times
    words = tuple(meaning.split())
    if len(words) > MOST_WORDS or words[0] in _KNOWN[:3]:
        return None
    stream = Stream(tokens_of(meaning, 1, 1), Context(1, (0,), terms), Span(1, len(meaning), len(meaning) + 1))
    steps = read_steps(stream)
    plain = len(steps) == 1 and isinstance(steps[0], Work | Together) and isinstance(steps[0].into, Next | None)
    return words if plain and not stream.findings else None
