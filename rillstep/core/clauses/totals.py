"""Stated totals, within a line and at its end: "— 24 (30, 36) sts, 4 ch-2 sps", "(24 sc)", "[18 sts total]"."""

import re
from dataclasses import replace

from rillstep.core.clauses.kinds import STITCHES, plain_num, read_counted_space
from rillstep.core.findings import Finding
from rillstep.core.tree import Gesture, Next, Num, Step, Total
from rillstep.core.words.lexicon import CHAIN, MOTIFS, SPACE, STITCH
from rillstep.core.words.stitch_names import foundation_stitch, sees_stitch, stitch_word
from rillstep.core.words.stream import Context, NotUnderstood, Stream, problem_of, stream_over
from rillstep.core.words.tokens import Token, plain

_FILLERS = (
    "and", "total", "made", "in", "all", "now", "you", "have", "should", "will", "remain", "remaining", "rem",
    "plus", "around", "around)", "both", "sizes", "each", "worked", "per", "side", "corner", "of", "a",
)  # fmt: skip


# What a chain space is called where it is one to put a hand or a strap through.
_OPENINGS = (
    "handle", "handles", "opening", "openings", "strap", "straps", "hole", "holes", "buttonhole", "buttonholes",
)  # fmt: skip


def read_totals(stream: Stream, end: str | None = None) -> list[Total]:
    """Totals up to the end of the stream, or to a closing bracket. Raises NotUnderstood."""
    found: list[Total] = []
    motifs = False  # some are counted of which the text does not define what they are
    while (token := stream.peek()) is not None:
        if end is not None and token.is_mark(end):
            break
        if found and token.is_word("a", "an") and not _one_stitch(stream):
            begin = stream.at  # "24 sc and a button loop of 8 ch"
            while (more := stream.peek()) is not None and more.kind != "mark":
                stream.next()
            _unread(stream, stream.tokens[min(begin + 1, len(stream.tokens) - 1)], begin)
            continue
        if token.is_mark(",", ".", ";", "+", "(", ")", "[", "]", "-", "—", "=", ">", "<", ":", "&") or token.is_word(
            *_FILLERS
        ):
            stream.next()
            continue
        if stream.word("after", "at"):  # "54 sts after 9th rnd", "at the end of the last row"
            _words_of(stream, _WHEN)
            continue
        if stream.word("with", "including", "incl", "counting"):  # "5 dc, with the ch-3"
            stream.mark(".")  # "incl. starting ch"
            _words_of(stream, _WITH)
            continue
        if found and found[-1].what not in ("sp", "ch") and _spaces_besides(stream):
            found.append(Total(found[-1].count, "sp"))  # "20 hdc and ch-sps": as many of both
            continue
        listed, begin = _each_round(stream), stream.at
        total = _read_total(stream, alone=not found)
        unread = stream.tokens[begin : stream.at] if total is None else ()
        motifs = motifs or any(token.text.removesuffix("s") in MOTIFS for token in unread)
        if total is not None and listed:
            total = replace(total, each=(*listed, total.count))
        found += [total] if total is not None else []
    if motifs:  # "10 shells, 10 dc": those outside of them
        return [total if total.what in ("sp", "ch", "sts") else replace(total, beside=True) for total in found]
    return found


_WHEN = (
    "end", "the", "this", "last", "final", "your", "of", "each", "row", "rows", "rnd", "rnds", "round", "rounds",
    "to", "increases", "decreases", "and", "on", "here",
)  # fmt: skip
_WITH = (
    "the", "a", "your", "ch", "chs", "chain", "chains", "starting", "start", "beginning", "beg", "turning",
    "first", "initial", "tch", "as", "st", "sts", "one",
         "counted", "of", "skipped", "at", "both", "post", "posts", "in", "each", "end", "row", "rnd", "this",
         "counting", "sp", "sps")  # fmt: skip


def _words_of(stream: Stream, words: tuple[str, ...]) -> None:
    """What a total says besides of when it holds or what it includes, up to the next mark. Raises NotUnderstood."""
    start = stream.at
    while (token := stream.peek()) is not None and (token.kind != "mark" or token.is_mark("-")):
        if not (
            token.is_word(*words)
            or token.kind in ("num", "ordinal")
            or token.is_mark("-")
            or sees_stitch(stream) is not None
        ):
            raise NotUnderstood(token.span, "what is counted besides")
        stream.next()
    stream.count(start)


def _spaces_besides(stream: Stream) -> bool:
    start = stream.at
    if stream.word(*CHAIN):
        stream.mark("-")
        if stream.word("sps", "spaces", "loops", "lps"):
            return True
    stream.at = start
    return False


def _each_round(stream: Stream) -> tuple[Num, ...]:
    """ "26, 24, 22, 20 sts" for four rounds: all but the last, which is read as any total; () when it is no such
    list."""
    start, findings = stream.at, len(stream.findings)
    numbers: list[Num] = []
    while (number := stream.number()) is not None and stream.mark(","):
        numbers.append(number)
    if len(numbers) + (number is not None) > max(2, len(stream.context.active)) and number is not None:
        stream.at -= 1
        return tuple(numbers)
    del stream.findings[findings:]
    stream.at = start
    return ()


def _bare_set(stream: Stream) -> Num | None:
    """ "16, 20 sts": one number for each size with only commas between."""
    start = stream.at
    active = stream.context.active
    numbers: list[Num] = []
    while len(numbers) < len(active):
        number = stream.number()
        if number is None or len(number.parts) != 1:
            break
        numbers.append(number)
        if len(numbers) < len(active) and not stream.mark(",", ":", "/"):
            break
    token = stream.peek()
    if len(numbers) == len(active) > 1 and (token is None or token.kind != "num"):
        return stream.set_of(numbers)
    stream.at = start
    return None


def _read_total(stream: Stream, alone: bool) -> Total | None:
    start = stream.at
    count = _bare_set(stream)
    if count is None and not alone and (token := stream.peek()) is not None and token.is_word(*CHAIN):
        count = plain_num(stream, 1)  # "18 sc + ch-12 loop"
    count = count or stream.need_number("stitches")
    spaced = read_counted_space(stream)  # "12 5ch-sps"
    if spaced is not None:
        return Total(count, "sp", spaced.length)
    if stream.word(*STITCH):
        return Total(count, "sts")
    if stream.word(*CHAIN):
        if not stream.mark("-"):
            stream.word("of")  # "2 chains of 40"
        length = stream.number()
        stream.mark("-")
        stream.word("corner", "button")
        if stream.word(*SPACE, *_OPENINGS):
            return Total(count, "sp", length)
        following = stream.peek()
        if length is not None and following is not None and not following.is_mark(",", ")", "]", ".", ";"):
            raise NotUnderstood(stream.here(), "“sps” is missing")
        if length is not None:  # "9 ch-2"
            return Total(count, "sp", length)
        return Total(count, "ch")
    stream.word("corner")
    if stream.word(*SPACE, "corners"):
        return Total(count, "sp", None)
    stitch = stitch_word(stream) or foundation_stitch(stream)
    if stitch is not None:
        stream.word(*STITCH)
        return Total(count, stitch)
    token = stream.peek()
    unread = all(finding.code == "kind-not-known" for finding in stream.findings)
    if token is not None and token.kind == "word" and unread:
        _unread(stream, token, start)
        return None
    if alone and (token is None or token.is_mark(")", "]", ".", "}")):
        return Total(count, "sts")
    raise NotUnderstood(stream.here(), "what is counted is missing, such as “sts”")


def _one_stitch(stream: Stream) -> bool:
    """ "a dc": is the thing counted once a stitch, a chain or a space?"""
    start = stream.at
    stream.next()
    known = stream.word(*STITCH, *CHAIN, *SPACE) or sees_stitch(stream) is not None
    stream.at = start
    return known


def _unread(stream: Stream, token: Token, start: int) -> None:
    """ "1 buttonhole": something is counted that the text does not define, so that it cannot be checked."""
    while (more := stream.peek()) is not None and more.kind == "word" and not more.is_word("and", "plus"):
        stream.next()
        if more.is_word("of"):
            stream.number()  # "16 shells of 7 tr": what one of them is
    stream.count(start)
    message = f"“{token.text}” is not a stitch that this text defines, so this number is not checked."
    stream.findings.append(Finding("kind-not-known", "warning", stream.since(start), message))


def read_unknown(stream: Stream) -> Total | None:
    """ "1 buttonhole": a total of something that the text does not define, by the words that are written."""
    count = _bare_set(stream) or stream.number()
    words = stream.written(stream.at, len(stream.tokens))
    return Total(count, words) if count is not None and words else None


def read_bracket_total(stream: Stream) -> list[Step] | None:
    """ "(24 sts)" within a line: its total when it is that and nothing else, or what there is so far where the line
    ends with a total."""
    start, findings = stream.at, len(stream.findings)
    opening = stream.next().text
    closing = {"[": "]", "(": ")", "{": "}"}[opening]
    first = stream.peek()
    if first is not None and (first.kind in ("num", "expr") or first.is_word("total")):
        try:
            found = read_totals(stream, closing)
        except NotUnderstood:
            found = []
        unread = any(finding.code == "kind-not-known" for finding in stream.findings[findings:])
        if (found or unread) and stream.mark(closing) and not _goes_on(stream):
            if stream.ends_with_total and len(found) == 1 and found[0].what not in ("sp", "ch") and not stream.depth:
                return [Gesture("so far", into=Next(found[0].count, STITCHES), span=stream.since(start))]
            stream.totals += found
            return []
    del stream.findings[findings:]
    stream.at = start
    return None


_AFTER_TOTAL = (
    "fasten", "finish", "cut", "break", "do", "turn", "weave", "join", "leave", "sew", "change", "place", "move",
    "continue", "ch", "chain", "sl", "ss",
)  # fmt: skip


def stated_within(stream: Stream) -> bool:
    """ "... in next 3 ch. 4 sc. Fasten off.": a sentence that is a total, with only gestures after it; taken as one."""
    before = stream.tokens[stream.at - 1] if stream.at else None
    token = stream.peek()
    if before is None or not before.is_mark(".", ":", "-", "—") or token is None or token.kind != "num":
        return False
    start, findings = stream.at, len(stream.findings)
    totals: list[Total | None] = []
    try:
        while not totals or stream.mark(",", "+", "&") or stream.word("and"):
            stream.word("and")
            totals.append(_read_total(stream, alone=False))
    except NotUnderstood:
        totals = [None]
    if (
        None not in totals
        and stream.mark(".", ";")
        and (following := stream.peek()) is not None
        and following.is_word(*_AFTER_TOTAL)
    ):
        stream.totals += [total for total in totals if total is not None]
        return True
    del stream.findings[findings:]
    stream.at = start
    return False


def _goes_on(stream: Stream) -> bool:
    """Is the bracket worked ("(2 dc) in next st", "(6 sc) twice")?"""
    token = stream.peek()
    return token is not None and (
        token.kind == "num"
        or token.is_word("in", "into", "twice", "once", "x", "around", "across", "over", "to", "all", "rep", "repeat")
    )


def same_totals(one: tuple[Total, ...], other: list[Total]) -> tuple[Total, ...]:
    """Totals stated at the end and within the line, each once."""
    seen = {(t.what, t.length) for t in one}
    return (*one, *[t for t in other if (t.what, t.length) not in seen])


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
