"""Lines that were broken on their way here: a row that goes on in the next line of a pasted text is one row.

The pieces are read as one line; afterwards every place in what was read is put back to where it
stands in the text, so that findings and repairs point at the right line.
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from rillstep.core.clauses.labels import ORDINALS
from rillstep.core.clauses.labels import starts as starts_label
from rillstep.core.findings import Span
from rillstep.core.memory import remember
from rillstep.core.tree.changes import moved
from rillstep.core.words.stream import Context

# A row of more lines than this is no row.
MOST_PIECES = 12
_OPEN_END = re.compile(r"[,;:(\[*–—-]\s*$")
_OPEN_WORD = re.compile(r"\b(?:and|in|to|of|the|next|each|rep|from|with|st|sts|ch|sk|sc|dc|hdc|tr)\s*$", re.IGNORECASE)
_STATED = re.compile(r"(?:—|--|=|\s-\s)\s*\d[^—=]*$")  # a total after a dash ends its row
_GOES_ON = re.compile(r"^\s*[a-z0-9([*—=<]")
_ONLY_TOTAL = re.compile(
    r"^\s*(?:[—=-]{1,2}\s*\d|[(\[<]\s*(?:total\W*)?\d[^()]*(?:\([\d\s,]*\)[^()]*)?[)\]>]\s*\.?\s*$)", re.IGNORECASE
)
_OWN_LINE = re.compile(
    r"^\s*(?:section|sizes?|all sizes|notes?|check|fold:|define|pattern|terms|gauge|number|fasten off|cut\b|weave|"
    r"with rs|"
    r"make (?:an? )?(?:adjustable|magic)|ch \d[^,;]*\.\s*$|join (?:colou?r|yarn)\b|repeat "
    r"row|rep row|repeat rnd|rep rnd|"
    r"(?:you (?:should |now |will )?have )?\d[\d\s(),/]*(?:rows?|rn?ds?|rounds?)\s+(?:worked|"
    r"in total|total|completed?|in all|made|done))",
    re.IGNORECASE,
)

# A label in the middle of a line, behind what ends a sentence.
_ANOTHER = re.compile(
    (
        r"(?<=[.;!)\]])\s+(?=(?:rows?|rn?ds?|rounds?)\s*\d[\d\s,()–-]{0,30}(?:\((?:RS|"
        r"WS)[^()]{0,20}\)\s*)?:|(?:rep(?:eat)?)\s+(?:row|rnd|round)\s+\d+\s+(?:until|\d)|"
        r"next\s+(?:row|rnd|round)\s*(?:\([^()]{1,30}\)\s*)?:)"
    ),
    re.IGNORECASE,
)
# "30 cm only: Round 7: ...": a row for some sizes.
_LIMITED = re.compile(r"^[^:]{1,60}:\s*(?:rn?ds?|rounds?|rows?)\.?\s*\d", re.IGNORECASE)
_ONLY = re.compile(r"^[^.;*]{1,60}\bonly\s?:\s*$", re.IGNORECASE)
_OWN_WORDS = re.compile(r"^\s*(?:notes?|check)\b|.*#", re.IGNORECASE)


@dataclass(frozen=True)
class Fragment:
    """A piece of a joined line: from where on in the joined text (0-based), which line it is, how far in it stands."""

    start: int
    line: int
    column: int
    length: int


@dataclass(frozen=True)
class Logical:
    """A line as it is read: `number` is that of its first piece."""

    text: str
    number: int
    pieces: tuple[Fragment, ...] = ()


@dataclass
class SourceLine:
    """One line while it is read. What is found at its beginning is blanked, so that every place in it stays true."""

    text: str
    number: int
    raws: Sequence[str]  # all lines of the text, as a heading is known by what follows it
    context: Context  # the sizes, terms and numbers in force

    @property
    def span(self) -> Span:
        return Span(self.number, 1, len(self.text) + 1)


def logical_lines(raws: Sequence[str], read: Sequence[str] | None = None) -> list[Logical]:
    """The lines of a text, each row that was broken put together again.

    read: the same lines with numbers for names, by which it is known what they are.
    """
    read = raws if read is None else read
    lines: list[Logical] = []
    at = 0
    while at < len(raws):
        number, text, shown = at + 1, raws[at], read[at]
        at += 1
        several, alone = _begun(text)
        if several:
            lines += [Logical(" " * start + text[start:end], number) for start, end in several]
            continue
        if alone if shown is text else starts_label(shown) is None or "#" in text:
            lines.append(Logical(text, number))
            continue
        pieces = [Fragment(0, number, 0, len(text.rstrip()))]
        text, shown = text.rstrip(), shown.rstrip()
        while at < len(raws) and len(pieces) < MOST_PIECES and _continues(shown, read[at]):
            more = raws[at].strip()
            gap = "" if text.endswith("-") and text[-2:-1].isalpha() else " "
            text, shown = text + gap, shown + gap + read[at].strip()
            pieces.append(Fragment(len(text), at + 1, len(raws[at]) - len(raws[at].lstrip()), len(more)))
            text += more
            at += 1
        lines.append(Logical(text, number, tuple(pieces)) if len(pieces) > 1 else Logical(raws[number - 1], number))
    return lines


@remember(4096)
def _begun(text: str) -> tuple[list[tuple[int, int]], bool]:
    """Where each of several rows stands in a line, and whether no row begins with it that may go on in the next."""
    return _several(text), starts_label(text) is None or "#" in text


def _several(text: str) -> list[tuple[int, int]]:
    """Where each of several rows stands that were written in one line ("Row 1: ... (5 sts) Row 2: ..."); [] for any
    other line."""
    starts = [match.end() for match in _ANOTHER.finditer(text)] if not _OWN_WORDS.match(text) else []
    ends = [*starts, len(text)]
    return list(zip([0, *starts], ends, strict=True)) if starts else []


@remember(4096)
def _continues(text: str, raw: str) -> bool:
    """Does a line go on with the row before it?"""
    within_set = re.match(r"\s*\d+\)", raw) is not None and text.count("(") > text.count(
        ")"
    )  # "... 24 (30," and "36) sts"
    if _LIMITED.match(raw) or _ONLY.search(raw):
        return False
    if not raw.strip() or "#" in raw or (starts_label(raw) is not None and not within_set):
        return False
    ended = text.endswith((".", "!")) or bool(re.search(r"\d[^()\[\]]*[)\]>]$", text))
    if _indent(raw) >= max(2, _indent(text) + 1) and not ended:
        return True
    if _OWN_LINE.match(raw) or ("\t" in text and text[-1:].isdigit()):  # the last column of a table is its total
        return False
    if raw.partition(":")[1] and re.match(r"^\s*[A-Za-z ]{1,40}:", raw):
        return False
    if _ONLY_TOTAL.match(raw) and raw.lstrip()[:1] in "—-=" and not _STATED.search(text):
        return True
    if _ONLY_TOTAL.match(raw):
        return not re.search(r"[)\]>]\s*\.?\s*$", text) or text.rstrip(". ").endswith("times")
    if _STATED.search(text):
        return False
    unbalanced = text.count("(") > text.count(")") or text.count("[") > text.count("]")
    goes_on = bool(_GOES_ON.match(raw))
    return unbalanced or bool(_OPEN_END.search(text)) or (goes_on and (not ended or bool(_OPEN_WORD.search(text))))


def _indent(text: str) -> int:
    return len(text) - len(text.lstrip())


def put_back(node: Any, logical: Logical) -> Any:
    """What was read from a joined line, with every place where it stands in the text."""
    return moved(node, lambda span: _place(span, logical))


def _place(span: Span, logical: Logical) -> Span:
    if span.line != logical.number:
        return span
    piece = next(p for p in reversed(logical.pieces) if p.start <= span.column - 1 or p is logical.pieces[0])
    column = span.column - piece.start + piece.column
    end = min(span.end_column - 1, piece.start + piece.length) - piece.start + piece.column + 1
    return Span(piece.line, column, max(end, column))


# "R7/R8: ...", "R8-R18/R9-R21: ...": likewise.
_SLASH_WORDS = re.compile(
    r"^\s*(?:r|rn?ds?|rounds?|rows?)\.?\s*\d+(?:\s*[-–/]\s*(?:r|rn?ds?|rounds?|rows?)\.?\s*\d+){1,19}(?=\s*(?:[:.)]|"
    r"[-–]\s))",
    re.IGNORECASE,
)
# "R2-R20 [R26] [R32]:", "R10-R12 (R12-R14):"
_SET_WORDS = re.compile(
    r"^\s*(?:r|rn?ds?|rounds?|rows?)\.?\s{0,2}\d+(?:(?:[\s(),\[\]/–—-]{1,4}|\sto\s)(?:(?:r|"
    r"rn?ds?|rounds?|rows?)\.?\s{0,2})?\d+){1,39}[)\]]?(?=\s{0,3}:)",
    re.IGNORECASE,
)
# "Rnd 1 <tab> sc in each st around <tab> 24": the columns of a table.
_COLUMNS = re.compile(
    r"^(\s*(?:r|rn?ds?|rounds?|rows?)\.?\s*\d[\d\s(),/–-]*?) ?(?:\t| \|)\s*(?!\d+\s*[|:.])(?=\S)", re.IGNORECASE
)
_LAST_COLUMN = re.compile(r"(?:\t| \|)(?=\s*\d[^\t|]*$)")
# "R7 (8, 9)-R20 (22, 24):": the second word of a range says nothing; it is blanked, so that columns stay true.
_RANGE_WORD = re.compile(
    r"^(\s*(?:r|rn?ds?|rounds?|rows?)\.?\s*\d[\d\s(),]*[-–—]\s*)(?:r|rn?ds?|rounds?|rows?)\.?\s*(?=\d)", re.IGNORECASE
)


# "**24 sc**" at the end of a line: a total that is marked as bold.
_BOLD = re.compile(r"\*\*(\d[^*]{0,60})\*\*(?=\s*$)")


def usual_form(text: str) -> str:
    """A line with its label in the usual form; any other line as it is."""
    text = _BOLD.sub(r" (\1) ", _numbers(text))
    return _RANGE_WORD.sub(lambda m: m[1] + " " * (len(m[0]) - len(m[1])), _columns(_one_word(text)), count=1)


def _numbers(text: str) -> str:
    """ "13th (15th, 17th) round:": ordinals in a set are numbers as any others."""
    if ORDINALS.match(text) is None:
        return text
    colon = text.index(":")
    return re.sub(r"(?<=\d)(?:st|nd|rd|th)\b", "  ", text[:colon], flags=re.IGNORECASE) + text[colon:]


def _one_word(text: str) -> str:
    """Words for rows after the first one in a label are blanked, so that columns stay true."""
    match = _SLASH_WORDS.match(text) or _SET_WORDS.match(text)
    if match is None:
        return text
    first = re.match(r"\s*[A-Za-z]+", text)
    start = first.end() if first is not None else 0
    told = re.sub(
        r"\bto\b|[A-Za-z.]", lambda letter: letter[0] if len(letter[0]) > 1 else " ", text[start : match.end()]
    )
    return text[:start] + told + text[match.end() :]


def _columns(text: str) -> str:
    """The columns of a table as a label, instructions and a total."""
    match = _COLUMNS.match(text)
    if match is None:
        return text
    text = text[: match.end(1)] + ":" + text[match.end(1) + 1 : match.end()].replace("|", " ") + text[match.end() :]
    return _LAST_COLUMN.sub(lambda m: "—".rjust(len(m[0])), text.rstrip(" |"), count=1)
