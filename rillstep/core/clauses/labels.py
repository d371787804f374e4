"""Labels of rows and rounds: "Rnd 4:", "Rnds 18 (22)-20 (24)", "Rows 2 and 3 (WS)", "Next row", "3rd rnd"."""

import re
from dataclasses import dataclass
from typing import Literal

from rillstep.core.clauses.label_numbers import label_numbers, slash_ranges
from rillstep.core.craft import Loop, name_expression
from rillstep.core.findings import Finding
from rillstep.core.memory import remember
from rillstep.core.reading.places import read_loop
from rillstep.core.reading.stated_totals import label_totals
from rillstep.core.tree import Num, Total
from rillstep.core.tree.leaves import Coming
from rillstep.core.words.lexicon import ROWS
from rillstep.core.words.stream import NotUnderstood, Stream, plain_num
from rillstep.core.words.tokens import tokens_of

_WORD = r"(?P<word>rn?ds?|rounds?|rows?|r)"
# What may stand at the very start of a line that is a row: tried in turn.
_NUMBERED = re.compile(
    rf"^[\s*•-]*{_WORD}\.?\s*(?=[\d{{]|(?:one|two|three|four|five|six|seven|eight|nine|ten|"
    rf"eleven|twelve)\b\s*(?:[:.(-]|to\b|through\b))",
    re.IGNORECASE,
)
_ORDINAL = re.compile(
    rf"^\s*(?P<number>\d{{1,4}})(?:st|nd|rd|th)(?:\s*(?:[-–]|to|and|&)\s*(?P<upto>\d{{1,4}})(?:st|nd|rd|th))?\s+"
    rf"(?:(?P<ordered>[a-z]+(?:\s+[a-z]+)?)\s+)??{_WORD}\b(?(ordered)(?=\s*:))",  # "1st mesh round:", told by the colon
    re.IGNORECASE,
)
_NTH = r"\d{1,4}(?:st|nd|rd|th|  )"
_NTHS = rf"{_NTH}(?:\s*(?:[-–]|to)\s*{_NTH})?"
# "13th (15th, 17th) round: ...", "6th to 12th (14th, 16th) rounds: ...": a set of ordinals (blanked to "13 (15 , 17
# )" when it is read).
ORDINALS = re.compile(
    rf"^\s*(?={_NTHS}\s*[(\[]\s*{_NTHS}(?:\s*,\s*{_NTHS}){{0,9}}\s*[)\]]\s+{_WORD}\s*:)", re.IGNORECASE
)
# "2 row: ...", "3-24 (28, 32) rounds: ...": the number stands before the word.
_AFTER = re.compile(rf"^\s*(?=\d[\d\s(),/–-]*\s{_WORD}\s*:)", re.IGNORECASE)
_NAMED = re.compile(
    rf"^\s*(?P<name>next|last|final|foundation|set-?up|base|first|joining|edging)\s+{_WORD}\b", re.IGNORECASE
)
# After a full stop, an instruction must follow for what stands before it to be a label.
_BEGINS = (
    r"\s+(?=[\[(*]*\s*(?:(?:\d[\d\s(),/]*\s+)?(?:sc|hdc|dc|tr|htr|inc|dec|sl st|ss|ch|sk|blo|flo)\b|"
    rf"(?:\d[\d\s(),/]*\s+)?{name_expression()}(?=\s+(?:in|into|around|\d)\b|\s*[,;*)\]]|\s*[(\[]\d)|"
    r"(?:skip|miss) (?:next )?\d|turn[,.] ch(?:ain)? \d|chain \d|(?:(?:in|into|make) "
    r"(?:a |an )?)?(?:magic|adjustable) (?:ring|circle|loop)\b|mr\b|(?:rep|repeat|work|"
    r"make|in|start|begin|start with|begin with)\b.*\d))"
)
# "3. [sc, inc] x 6 (18)": rows that are only numbered; what follows must begin as an instruction does.
_LISTED = re.compile(r"^\s*(?P<number>\d{1,3})(?P<word>)(?:\.?\s*[-–]\s*(?P<upto>\d{1,3}))?\." + _BEGINS, re.IGNORECASE)
# "7/8/9. 36/42/48 sc": likewise, with a number for each size.
_LISTED_SET = re.compile(
    r"^\s*(?P<word>)(?=\d{1,3}(?:(?:/\d{1,3}){1,9}|\s?\(\d{1,3}(?:,\s?\d{1,3}){0,8}\))\." + _BEGINS + ")", re.IGNORECASE
)
# "1: 6 sc in ring", "2-36 (45): ch 1, turn, ...": likewise, told by the colon.
_COLON = re.compile(
    r"^\s*(?P<word>)(?=\d{1,3}(?:\s?[-–/]\s?\d{1,3}){0,5}(?:\s?\([\d\s,–-]{1,40}\))?\s?:" + _BEGINS + ")", re.IGNORECASE
)
# "7 (9)) sc around": likewise, told by the bracket.
_BRACKETED_SET = re.compile(r"^\s*(?P<word>)(?=\d{1,3}\s?\(\d{1,3}(?:,\s?\d{1,3}){0,8}\)\)\s)")
# "3) MR, 6 sc [6]", "13)-20) sc around", "13-20) ...": the bracket tells a label, where an instruction or a total
# follows.
_BRACKETED = re.compile(
    (
        r"^\s*(?P<number>\d{1,3})(?P<word>)(?:\)?\s*[-–]\s*(?P<upto>\d{1,3}))?(?P<closed>\))\s+(?=.*(?:\b(?:sc|"
        r"hdc|dc|tr|htr|inc|dec|ss|ch|sk|rep|repeat)\b|[(\[]\d+[)\]]\s*$))"
    ),
    re.IGNORECASE,
)
# "Next 10 (12) rounds: ...": so many, all alike.
_NEXT_FEW = re.compile(
    (
        rf"^\s*(?:for\s+)?(?:the\s+)?(?:next|following|last)\s+(?P<few>\d[\d\s(),/]*)\s*{_WORD}\b(?=\s*"
        rf"(?:[(\[][^()\[\]]{{1,60}}[)\]])?\s*(?:[:,]|\.{_BEGINS}))"
    ),
    re.IGNORECASE,
)
# "Eyelet rnd:", "Decrease round (handles):", "Border Rnd 2:": a row with a name of its own, told by the colon.
_TITLED = re.compile(
    r"^\s*(?!(?:rep|repeat|repeating|work|working|continue|continuing|as|same|for|after|"
    r"at|end|ends|from|to|in|the|on|before|until|"
    r"when|this|note|if|see|each|every|total|size|sizes|there|you|and|each)\b)"
    rf"(?P<title>(?:[a-z][a-z'/-]*\s+){{1,4}}){_WORD}\b(?=\s*(?:\d[\d\s(),–-]*)?(?:[(\[][^()\[\]]{{1,60}}[)\]])?\s*(?:"
    rf":|\.{_BEGINS}))",
    re.IGNORECASE,
)
# A digit after "R" and letters before it would be a word: "R3" is a label, "Rug 3" is none.

_SIDES = {"rs": "RS", "ws": "WS", "right": "RS", "wrong": "WS"}


@dataclass(frozen=True)
class Label:
    """What a label says, and where the instruction after it begins (0-based column)."""

    kind: Literal["Rnd", "Row"]
    first: Num
    last: Num | None
    side: str | None
    body: int
    findings: tuple[Finding, ...] = ()
    loop: Loop = "both"
    totals: tuple[Total, ...] = ()
    name: str = ""


@remember(8192)
def starts(text: str) -> re.Match[str] | None:
    """The start of a label, if the line begins with one."""
    for pattern in (
        _LISTED,
        _LISTED_SET,
        _COLON,
        _BRACKETED_SET,
        _BRACKETED,
        ORDINALS,
        _AFTER,
        _NUMBERED,
        _ORDINAL,
        _NAMED,
        _NEXT_FEW,
        _TITLED,
    ):
        if (match := pattern.match(text)) is not None:
            return match
    return None


def title_of(text: str) -> str:
    """The name of a first row that has one ("Border" of "Border Rnd 1:"): its rows are counted by themselves; "" for
    any other."""
    ordered = _ORDINAL.match(text)
    if ordered is not None and ordered["ordered"] and ordered["number"] == "1":
        return " ".join(ordered["ordered"].split())
    match = _TITLED.match(text)
    if match is None or not re.match(r"\s*1\b", text[match.end() :]):
        return ""
    return " ".join(match["title"].split())


_SET_LABEL = re.compile(
    r"^\s*(?:r|rn?ds?|rounds?|rows?)\.?\s{0,3}\d{1,4}(?:\s{0,3}[-–]\s{0,3}\d{1,4})?(?P<others>(?:\s{0,3}[/(,]\s{0,3}\d"
    r"{1,4}(?:\s{0,3}[-–]\s{0,3}\d{1,4})?){1,9})\s{0,3}\)?\s{0,3}(?=[:.(\[–—-])",
    re.IGNORECASE,
)


def numbers_in_label(text: str) -> int:
    """For how many sizes a label has a number: 3 in "R 9 / 10 / 11:", "Rnd 9 (10, 11):"; 0 where it is one number."""
    match = _SET_LABEL.match(text)
    return 1 + len(re.findall(r"[/(,]", match["others"])) if match is not None else 0


def kind_of(word: str, usual: str) -> Literal["Rnd", "Row"]:
    """ "R3" is whatever the section is worked in."""
    if word.lower() in ("", "r"):
        return "Row" if usual == "Row" else "Rnd"
    return "Row" if word.lower().startswith("row") else "Rnd"


def read_label(stream: Stream, match: re.Match[str], expected: Coming, text: str) -> Label:
    """Read a label whose start was found. `expected`: the number that comes next, for each size."""
    kind = kind_of(match["word"], stream.context.kind)
    groups = match.groupdict()
    coming = expected.only(stream.context.active)
    first, last, side = coming, None, None
    loop: Loop = "both"
    findings: list[Finding] = []
    totals: tuple[Total, ...] = ()
    name = " ".join(f"{groups['title']} {match['word']}".split()) if groups.get("title") else ""
    if groups.get("name") and groups["name"].lower() in ("joining", "edging"):
        name = f"{groups['name']} {match['word']}"
    try:
        if groups.get("name"):
            if groups["name"].lower() in ("foundation", "set-up", "setup", "base") and all(
                v in (None, 1) for v in coming.values
            ):
                first = coming.all(0)
        elif groups.get("number"):
            first = plain_num(stream, int(groups["number"]))
            last = plain_num(stream, int(groups["upto"])) if groups.get("upto") else None
        elif groups.get("few"):
            last = _so_many(stream, match, coming, text)
        elif groups.get("title") and ((token := stream.peek()) is None or token.kind != "num"):
            pass
        else:
            first, last = slash_ranges(stream, text) or label_numbers(stream)
            stream.word(*ROWS)
        side = _side(stream)
        loop = _loop(stream)
        side = side or _side(stream)
        totals, told = _remarks(stream)
        name = ", ".join(filter(None, (name, told)))
        if name and not _names_a_row(name):
            raise NotUnderstood(stream.since(0) if stream.at else stream.end, f"“{name}” is no name of a row")
    except NotUnderstood as problem:
        findings.append(_problem(problem))
    body = match.end() if groups.get("closed") else _end_of_label(stream, text, findings)
    return Label(kind, first, last, side, body, (*findings, *stream.findings), loop, totals, name)


def _so_many(stream: Stream, match: re.Match[str], first: Num, text: str) -> Num:
    """The last of so many rows. Raises NotUnderstood."""
    line = stream.end.line
    tokens = tokens_of(
        text[: match.end("few")], line, stream.context.n_sizes, match.start("few"), len(stream.context.active)
    )
    few = Stream(tokens, stream.context, stream.end).need_number("rows")
    return first.plus(few, by=-1)


def _problem(problem: NotUnderstood) -> Finding:
    detail = f": {problem}." if str(problem) else "."
    return Finding(problem.code, "error", problem.span, f"This label is not understood{detail}")


def _side(stream: Stream) -> str | None:
    start = stream.at
    if stream.mark("(", "["):
        token = stream.peek()
        side = _SIDES.get(token.text) if token is not None else None
        if side is not None:
            stream.next()
            while stream.word("side", "facing", "row", "rnd", "round", "you", "is", "now", "of", "the", "work"):
                pass
            if stream.mark(")", "]"):
                return side
    stream.at = start
    token = stream.peek()
    if token is not None and token.is_word("rs", "ws"):
        return stream.next().text.upper()
    return None


def _remarks(stream: Stream) -> tuple[tuple[Total, ...], str]:
    """ "Next rnd (eyelets):", "Rnd 3 (18 sts):": what stands in brackets before the colon is the total, or what the
    row is called."""
    start, findings = stream.at, len(stream.findings)
    if (token := stream.peek()) is None or not token.is_mark("(", "["):
        return (), ""
    totals, name = label_totals(stream), ""
    if not totals:
        stream.next()
        begin = stream.at
        while (token := stream.peek()) is not None and not token.is_mark(")", "]"):
            stream.next()
        name = stream.written(begin, stream.at)
    if (totals or stream.mark(")", "]")) and (token := stream.peek()) is not None and token.is_mark(":", ".", "-", "—"):
        return totals, name
    del stream.findings[findings:]
    stream.at = start
    return (), ""


# Of these none stands in the name of a row; it would be an instruction.
_NO_NAME = re.compile(
    r"\d|\b(?:sk|skip\w*|miss\w*|tog|together|omit\w*|except\w*|leav\w+|left|unworked|every|"
    r"twice|once|repeat\w*|times|work|into|first|next|add\w*|only)\b",
    re.IGNORECASE,
)


def _names_a_row(name: str) -> bool:
    """May words be what a row is called ("decrease rnd", "eyelets")?"""
    return _NO_NAME.search(name) is None and len(name.split()) <= 6


def _loop(stream: Stream) -> Loop:
    """ "Rnd 7 (BLO)": holds for the whole row."""
    start = stream.at
    if stream.mark("(", "[") and (loop := read_loop(stream)) is not None and stream.mark(")", "]"):
        return loop
    stream.at = start
    return "both"


def _end_of_label(stream: Stream, text: str, findings: list[Finding]) -> int:
    """Where the instruction begins: after a colon, a full stop, a dash; or at once."""
    token = stream.peek()
    if token is None:
        return len(text)
    if token.is_mark(":", ".", "-", "—", ")", "=", ",", "]"):
        at = token.span.end_column - 1
        following = stream.peek(1)
        return at + 1 if following is not None and following.is_mark("-", ":") and token.is_mark(")", ".") else at
    colon = text.find(":", token.span.column - 1)
    within = text[token.span.column - 1 : colon] if colon >= 0 else ""
    if colon >= 0 and len(within) <= 40 and not any(mark in within for mark in ",;[("):
        if not findings:
            findings.append(_problem(NotUnderstood(token.span, "only numbers stand between “Rnd” and the colon")))
        return colon + 1
    return token.span.column - 1
