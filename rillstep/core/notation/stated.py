"""The total that stands at the end of a line, told from its instructions: after a dash, in brackets, as a sentence."""

import re

from rillstep.core.findings import Finding
from rillstep.core.notation.lexer import plain
from rillstep.core.notation.stream import Context, NotUnderstood, problem_of, stream_over
from rillstep.core.notation.totals import read_totals
from rillstep.core.notation.tree import Total

_COUNTED = (
    r"(?:(?:single|half double|half treble|double|treble|triple)(?: crochets?| trebles?)?|"
    r"sts?|stitch(?:es)?|sps?|spaces?|f?scs?|f?hdcs?|f?dcs?|trs?|htrs?|dtrs?|chs?|loops?|"
    r"corners?|total|clusters?|puffs?|groups?|shells?|petals?|picots?|bobbles?|fans?|blocks?|"
    r"squares?|motifs?|increases?|sl\s*sts?|ss)"
)
_IN_WORDS = r"(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)"
_TOTAL_MARK = re.compile(
    r"(?:—|\s-{1,2}\s|(?<!otal)(?:(?<=[a-z\])])|(?<=ch[- ]\d)):\s(?=\d[^:,;(\[.]*(?:[(\[][\d\s,:;/|"
    r"]+[)\]][^:,;(\[.]*)?(?:(?:,|\sand)\s*\d[^:,;(\[.]*(?:[(\[][\d\s,:;/|]+[)\]][^:,;(\[.]*)?)*\.?\s*$)|"
    r"(?<=[a-z\])]):\s(?=[(\[]\d[\d\s,:;/|]*[)\]][^:;(\[.]*\.?\s*$)|(?<=[.;:])\s*-\s*(?=\d)|"
    r"(?<![\w(\[])=(?!\w)|\s=\s|>)(?=[^—]*$)(?=.*[\d{])"
)
_TOTAL_BRACKET = re.compile(
    r"(?P<before>\S)\s*[(\[<{](?P<inside>\s*(?:total\W*)?\d[^()\[\]<>]*(?:[(\[][\d\s,:;/|"
    r"]*[)\]][^()\[\]<>]*)*)[)\]>}]\s*\.?\s*$",
    re.IGNORECASE,
)
_TOTAL_ALONE = re.compile(r"(?<=[.)\]])\s+(?P<inside>\d{1,5}(?:\s*[(/\[{][\d\s,;/]*[)\]}]?)?)\s*\.?\s*$")
_TOTAL_SENTENCE = re.compile(
    rf"(?<=[.;)])\s+(?:you (?:should |will |now )*have\s+|there (?:are|should be|will be)\s+(?:now\s+)?|"
    rf"total:?\s*|you'll have\s+)?(?P<inside>(?:\d[\d\s,()/\[\]{{}}:]*-?|{_IN_WORDS}\s+)[a-z](?:[^.;]|"
    rf";\s(?=\d))*)\.?\s*$",
    re.IGNORECASE,
)


_THEN_REMARKS = re.compile(r"(?:\s[-–—]\s|;\s)(?=[a-z][^()]*\b(?:count|counts|counted|made|worked)\b)", re.IGNORECASE)
Stated = tuple[int, tuple[Total, ...]]


# "... - 25 (29) sts. Ch 1, turn.": a total that more follows is told within the line.
_MORE_AFTER = re.compile(
    r"[^.]*[a-z)\]]\.\s+(?:ch|chain|turn|fasten|finish|join|do not|don't|cut|break)\b", re.IGNORECASE
)


def split_totals(
    text: str, line: int, context: Context, start: int
) -> tuple[int, tuple[Total, ...], list[Finding], Stated | None]:
    """Where the instructions end, the totals stated after them, and what is wrong with these.

    The last is another (end, totals) where a bracket may be one or the other: in two sizes "x 6 (12)" is a set, or
    six times
    and twelve in all.
    """
    clean = plain(text)
    bracket = _TOTAL_BRACKET.search(clean, start)
    mark = _last_mark(clean, start)
    if mark is not None and _MORE_AFTER.match(clean, mark.end()):
        mark = None
    sentence = _last_sentence(clean, start, context)
    other: Stated | None = None
    if bracket is not None:
        remark = _THEN_REMARKS.search(bracket["inside"])  # "(28 hdc - skipped 2 ch do not count)"
        end_inside = bracket.start("inside") + remark.start() if remark is not None else bracket.end("inside")
        stated = (bracket.start("inside"), end_inside)
        if _is_total(clean, line, context, bracket):
            return bracket.end("before"), *_read(text, line, context, *stated), None
        if re.fullmatch(r"\s*\d+\s*", bracket["inside"]) and bracket["before"].isdigit():
            other = (bracket.end("before"), _read(text, line, context, *stated)[0])
    if mark is not None and sentence is not None and sentence.start() > mark.start():
        mark = None  # "repeat rows 2 - 5; 21 sts": the dash is that of a range
    if mark is not None and re.search(r"[\d{]", clean[mark.end() :]) and not re.match(r"\s*[a-z]", clean[mark.end() :]):
        return mark.start(), *_read(text, line, context, mark.end(), len(text)), None
    alone_ = _TOTAL_ALONE.search(clean, start)
    if alone_ is not None and (
        bracket is None or bracket.start("inside") > alone_.start("inside")
    ):  # "(1 sc, 1 inc) around. 18"
        return alone_.start(), *_read(text, line, context, alone_.start("inside"), alone_.end("inside")), None
    if sentence is not None:
        return sentence.start(), *_read(text, line, context, sentence.start("inside"), sentence.end("inside")), None
    return len(text), (), [], other


def _last_sentence(text: str, start: int, context: Context) -> re.Match[str] | None:
    """The sentence at the end that is a total and nothing else."""
    for _ in range(MOST_SENTENCES):
        match = _TOTAL_SENTENCE.search(text, start)
        if match is None or _counts_only(match["inside"], context):
            return match
        start = match.start("inside")
    return None


MOST_SENTENCES = 20
# "19 (23) scallops": whatever it counts, it is no instruction; that it cannot be checked is said.
_COUNTS_UNKNOWN = re.compile(r"\d[\d\s,()/\[\]:]{0,40}[a-z]{3,15}s(?: [a-z]{2,12})?", re.IGNORECASE)
_NO_COUNT = re.compile(r"\b(?:times|rows|rounds|rnds|inches|mins|minutes|hours|cms|more|twists?)\b", re.IGNORECASE)


def _counts_only(inside: str, context: Context) -> bool:
    """Is a sentence a total and nothing else?"""
    if inside.count("(") != inside.count(")") or "*" in inside or re.search(r"\btimes\b", inside):
        return False  # it begins within a set: "(48; 56) sts"
    if re.search(
        r"\b(?:in|into|next|each|every|around|join|across)\b", inside.replace("in total", "").replace("in all", "")
    ):
        return False
    if _COUNTS_UNKNOWN.fullmatch(inside) and not _NO_COUNT.search(inside):
        return True
    names = [*(words[0] for _, words in context.specials), *(name for name, _ in context.renamed)]
    own = any(re.search(rf"\b{re.escape(name)}", inside, re.IGNORECASE) for name in names)
    return own or re.search(rf"(?<![a-z]){_COUNTED}\b", inside, re.IGNORECASE) is not None


def _last_mark(text: str, start: int) -> re.Match[str] | None:
    found = None
    for match in _TOTAL_MARK.finditer(text, start):
        found = match
    return found


def _is_total(text: str, line: int, context: Context, bracket: re.Match[str]) -> bool:
    """Bare numbers in brackets are a total when they are one number for each size; else they must say what they
    count."""
    inside = bracket["inside"]
    numbers = re.findall(r"\d+", inside)
    if re.search(rf"\b{_COUNTED}\b", inside, re.IGNORECASE):
        return not re.search(
            r"\b(?:in|next|each|ch \d+[,;])\b", re.sub(r"\bin total\b|\bin all\b", "", inside), re.IGNORECASE
        )
    if _COUNTS_UNKNOWN.fullmatch(inside.strip()) and not _NO_COUNT.search(inside):
        return True  # "[7 (10) scallops]"
    if re.fullmatch(r"\s*\d+ [a-z][a-z'-]*(?: [a-z'-]+)?\s*", inside, re.IGNORECASE) and bracket["before"] in ".;)]":
        return True  # "(4 V's)": what is counted may not be known, and the reader is told so
    if re.search(r"[a-z]", re.sub(r"total", "", inside, flags=re.IGNORECASE), re.IGNORECASE):
        return any(
            re.search(rf"\b{re.escape(' '.join(words))}", inside, re.IGNORECASE) for _, words in context.specials
        )
    after_number = text[: bracket.start("inside") - 1].rstrip()[-1:].isdigit()  # "12 (15, 18)" is a set
    if not after_number:
        return len(numbers) in (1, len(context.active))
    before = re.search(
        r"(?:\b(?P<rows>and|rows?|rn?ds?|rounds?|x)\s*)?(\d+)\s*$", text[: bracket.start("inside") - 1].rstrip()
    )
    if before is not None and len(numbers) == len(context.active) > (1 if before["rows"] else 2):
        return len(numbers) + 1 != context.n_sizes  # "repeat rows 2 and 3 (6, 7)" in two sizes
    repeats = int(before[2]) if before is not None else 0
    far = len(numbers) == 1 and int(numbers[0]) > 3 * repeats  # "x 6 (42)" is no set: sizes do not differ so much
    return len(numbers) == 1 and (len(context.active) != 2 or far)


def _read(text: str, line: int, context: Context, first: int, last: int) -> tuple[tuple[Total, ...], list[Finding]]:
    stream = stream_over(text, line, context, first, last)
    try:
        return tuple(read_totals(stream)), stream.findings
    except NotUnderstood as problem:
        return (), [problem_of(problem, "This total is not understood")]
