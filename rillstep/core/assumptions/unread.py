"""Words of a text that are not understood: which they are, and what stands there by its position."""

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from typing import Literal

from rillstep.core.clauses.labels import starts
from rillstep.core.craft import GATHERED, stitch_words
from rillstep.core.findings import Finding
from rillstep.core.memory import remember
from rillstep.core.notation.phrases import stands_in
from rillstep.core.proof import Proof
from rillstep.core.wordlists import word_list
from rillstep.core.words.lexicon import CRAFT, HANDS, STITCH, USUAL_WORDS, WORD_NUMBERS
from rillstep.core.words.tokens import Token, tokens_of

Position = Literal["stitch", "place", "aside"]

PLACES = word_list("in into on onto over under through along around per at")
_SMALL = word_list(
    "in into on onto over under through by the a an to at is are as if or it its you your so be not do "
    "front back rs ws pm x tog nd rd th hook lp lps invdec"
)
_KNOWN = frozenset(
    (*CRAFT, *USUAL_WORDS, *WORD_NUMBERS, *HANDS, *stitch_words("US"), *stitch_words("UK"), *GATHERED, *_SMALL)
)
_ENDS = word_list(", ; . : ( ) [ ] * ** { } - — – =")
# A stitch stands behind these words, and before those.
_BEFORE_STITCH = word_list("and then work each first last next more blo flo")
_BEHIND_STITCH = (*PLACES, "across", "to", "and", "next", "st", "sts", "x", "each", "evenly")
MOST_WORDS = 12
MOST_OF_LABEL = 40


@dataclass(frozen=True)
class Unread:
    """Words that are not understood. lines: all in which they stand; finding: the first that says so."""

    words: str
    position: Position
    lines: tuple[int, ...]
    finding: Finding


def unread_in(rows: Sequence[str], proof: Proof, passed: Collection[str]) -> Unread | None:
    """The first words that are not understood and are none of those `passed`; None where there are none."""
    own = tuple(word for special in proof.pattern.specials for word in special.name.lower().split())
    open_ = {line.line for line in proof.lines if line.mark in ("not understood", "wrong", "unchecked")}
    for finding in proof.findings:
        if finding.code not in ("not-understood", "words-not-worked"):
            continue
        row = rows[finding.span.line - 1]
        found = _words_at(row, finding, own)
        if found is None or found[0].lower() in passed:
            continue
        words, position = found
        held = tuple(number for number in sorted(open_) if stands_in(rows[number - 1], words))
        return Unread(words, position, held or (finding.span.line,), finding)
    return None


@remember(2048)
def _words_at(row: str, finding: Finding, own: tuple[str, ...]) -> tuple[str, Position] | None:
    tokens = [token for token in tokens_of(row, 1, 1) if token.span.column > _body(row)]
    at = next((i for i, token in enumerate(tokens) if token.span.column >= finding.span.column), None)
    if at is None or _is_end(tokens, at):
        return None
    first, last = at, at
    while first and not _is_end(tokens, first - 1):
        first -= 1
    while last < len(tokens) and not _is_end(tokens, last):
        last += 1
    clause = tokens[first:last]
    if finding.code == "words-not-worked":
        return _shortened(row, clause[at - first :]), "aside"
    unknown = [i for i, token in enumerate(clause) if _is_unknown(token, own)]
    begin = unknown[0] if unknown else at - first
    while begin < len(clause) - 1 and clause[begin].kind != "word":
        begin += 1
    end = begin
    while end < len(clause) and end - begin < 3 and not (end > begin and _ends_name(clause[end], bool(unknown), own)):
        end += 1
    if unknown and end < len(clause) and (clause[end].is_word(*STITCH) or clause[end].text in stitch_words("US")):
        end += 1  # "lean dc", "moon stitch"
    while begin > 1 and clause[begin - 1].is_mark("-") and clause[begin - 2].kind == "word":
        begin -= 2  # "x-twist"
    if not unknown and end == begin:
        return None
    called = clause[begin:end]
    if _is_name(clause, begin, end) and (unknown or _is_made_of_names(called)):
        return _written(row, clause[begin:end]), "stitch"
    places = [i for i, token in enumerate(clause[: begin + 1]) if token.is_word(*PLACES)]
    if not unknown and not places:  # all words are known, and the place that they name is not
        places = [i for i, token in enumerate(clause) if i > begin and token.is_word(*PLACES)][:1]
    if places:
        part = bool(unknown) and end < len(clause) and clause[end].is_word("of")  # "in bb of each st"
        return _shortened(row, clause[places[-1] : end] if part else clause[places[-1] :]), "place"
    stitched = any(token.text in stitch_words("US") for token in clause[:begin])
    if not stitched:
        return _shortened(row, clause), "aside"
    while begin and clause[begin - 1].is_word("the", "a", "an"):
        begin -= 1
    placed = unknown and any(token.is_word(*PLACES) for token in clause[end:])  # "sc the comet way in each st"
    last = max(at for at in unknown if at < len(clause)) + 1 if placed else len(clause)
    after = next((at for at in range(begin, len(clause)) if clause[at].is_word(*PLACES)), len(clause))
    return _shortened(row, clause[begin : min(last, after) if placed else last]), "aside"


def _body(row: str) -> int:
    """The column, from 0, behind the label of a row."""
    label = starts(row)
    if label is None:
        return 0
    colon = row.find(":", label.end())
    return colon + 1 if 0 <= colon < label.end() + MOST_OF_LABEL else label.end()


def _is_end(tokens: Sequence[Token], at: int) -> bool:
    """Does a clause end at this mark? A hyphen within a word ends none."""
    token = tokens[at]
    if token.is_mark("-") and 0 < at < len(tokens) - 1:
        return tokens[at - 1].span.end_column != token.span.column
    return token.is_mark(*_ENDS)


def _is_unknown(token: Token, own: tuple[str, ...]) -> bool:
    if token.kind != "word" or token.taught:
        return False
    return not all(
        part in _KNOWN or part.rstrip("s") in _KNOWN or part in own or part.rstrip("s") in own or len(part) == 1
        for part in token.text.split("-")
    )


def _ends_name(token: Token, by_words: bool, own: tuple[str, ...]) -> bool:
    """Does the name of a stitch end before this token? One of unknown words ends with them."""
    return token.kind != "word" or token.is_word(*_BEHIND_STITCH) or (by_words and not _is_unknown(token, own))


def _is_name(clause: Sequence[Token], begin: int, end: int) -> bool:
    """Do some words stand where a stitch does: behind a number or at the start, and before a place or the end?"""
    words = sum(token.kind == "word" for token in clause[begin:end])
    if not 0 < words <= 2 or not clause[begin].text[0].isalpha():
        return False
    if begin == 0 and clause[0].text.endswith("ing"):
        return False  # "doubling up after every 2" tells how something is done
    before = clause[begin - 1] if begin else None
    if before is not None and before.kind == "num" and any(one.is_word(*PLACES) for one in clause[:begin]):
        return False  # "into the 5 neighbours"
    behind = clause[end] if end < len(clause) else None
    led = before is None or before.kind == "num" or before.is_word(*_BEFORE_STITCH)
    return led and (behind is None or behind.kind == "num" or behind.is_word(*_BEHIND_STITCH))


def _is_made_of_names(tokens: Sequence[Token]) -> bool:
    """Are known words a name of their own together: "sp dc"? One of them alone is what it is."""
    return len(tokens) == 2 and tokens[-1].text in stitch_words("US") and not tokens[0].is_word(*_SMALL, *PLACES)


def _written(row: str, tokens: Sequence[Token]) -> str:
    return " ".join(row[tokens[0].span.column - 1 : tokens[-1].span.end_column - 1].split()) if tokens else ""


def _shortened(row: str, tokens: Sequence[Token]) -> str:
    return _written(row, tokens[:MOST_WORDS])
