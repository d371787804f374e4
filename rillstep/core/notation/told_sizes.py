"""Sizes that a text names elsewhere than after "Sizes:": under a heading, in a sentence, or not at all.

"Size" / "S (M, L)" on the next line; "Instructions are for the small pouch, with medium and large in
parentheses."; or only sets of so many numbers throughout.
"""

import re
from collections import Counter
from collections.abc import Sequence
from functools import lru_cache

from rillstep.core.findings import Edit, Finding, Repair, Span
from rillstep.core.notation.labels import starts as starts_label
from rillstep.core.notation.lexer import plain
from rillstep.core.notation.size_forms import MOST_OF_LINE, Told, spoken_names, told_at
from rillstep.core.notation.size_names import size_names

_GIVEN = re.compile(r"^\s*sizes?\s*:\s*(\S.*)$", re.IGNORECASE)
_SET = re.compile(
    r"(?<![\w.])\d+\s*[(\[{]\s*(\d+(?:\s*[,;:/|]\s*\d+)+)\s*[)\]}]|(?<![\w./])(\d+(?:\s*[/|]\s*\d+){2,})(?![\w/])"
)
_TWO = re.compile(r"\d\s{0,3}[/|(\[]\s{0,3}\d|[(\[]\s{0,3}\d{1,5}\s{0,3}[,;:]\s{0,3}\d{1,5}\s{0,3}[)\]]")

# Two numbers are a set where a number of repeats and a total cannot stand: "ch 32 (38)", "next 9 (11) sts", "Rows
# 4-16 (4-20)".
_PAIR = re.compile(
    r"(?:\b(?:ch|chain|next|first|last)\s+\d+\s*[(\[]\s*\d+\s*[)\]]|\(\d{1,5}\s?\(\d{1,5}\)\)|"
    r"(?<!\d)\d{1,6}\s{0,3}[(\[]\s{0,3}\d{1,6}\s{0,3}[)\]]\s{0,3}(?:sts?|stitches|"
    r"sc|hdc|dc|tr|chs?|sps?)\b|"
    r"(?<!\d)\d{1,6}\s{0,3}[-–]\s{0,3}\d{1,6}\s{0,3}[(\[]\s{0,3}\d{1,6}\s{0,3}[-–]\s{0,3}\d{1,6}\s{0,3}[)\]]\s{0,3}:)",
    re.IGNORECASE,
)
LEAST_PAIRS = 3
# Fewer sets than this are no sign of sizes.
LEAST_SETS = 2


def told_sizes(raws: Sequence[str]) -> Told | None:
    """The sizes that a text names, wherever it does; None when it is in one size.

    Where all its sets have another number of numbers, the names were misread, and the sets are believed.
    """
    told = _told(raws)
    begin = next((at for at, raw in enumerate(raws) if starts_label(raw) is not None), len(raws))
    rows = [raw for raw in raws[begin : begin + MOST_ROWS] if not raw.lower().startswith("note:")]
    counted = _counted(rows) if told is not None and not told.findings else None
    if told is None or counted is None or len(counted.names) == len(told.names):
        return told
    sets = [length for raw in rows for length in _sets_of(raw)[0]]
    pairs = sum(_sets_of(raw)[1] for raw in rows) if len(told.names) == 2 else 0
    enough = len(sets) >= LEAST_PAIRS or (len(counted.names) == 2 and len(told.names) == 1)
    return counted if enough and not pairs and len(told.names) not in sets else told


# So many rows show how many numbers the sets of a text have.
MOST_ROWS = 60


@lru_cache(maxsize=8192)
def _sets_of(raw: str) -> tuple[tuple[int, ...], int]:
    """The lengths of the sets of three numbers and more in a line, and how many pairs it has; remembered, as the
    others stand still while one is typed."""
    members = [
        (match[1] or match[2], match[1] is not None) for match in _SET.finditer(raw) if not _is_total_behind(match)
    ]
    return tuple(len(re.findall(r"\d+", inner)) + apart for inner, apart in members), len(_PAIR.findall(raw))


# "join to top of ch 3 (84, 100)": sizes do not differ so much.
MOST_TIMES = 5


def _is_total_behind(match: re.Match[str]) -> bool:
    first, second, *_ = (int(number) for number in re.findall(r"\d+", match[0][:40]))
    return match[1] is not None and second > MOST_TIMES * max(first, 1)


def _told(raws: Sequence[str]) -> Told | None:
    given = next((match[1] for raw in raws if (match := _GIVEN.match(raw.split("#", 1)[0])) is not None), None)
    if given is not None:  # known from the start, so that a stitch defined before them has its numbers for each size
        names = spoken_names(given) or size_names(given)
        slashed = re.search(r"[/|:;]", given) is not None and not re.search(r"[,(\[]", given)
        one = slashed and len(names) > 1 and not any(_TWO.search(raw) for raw in raws)
        return Told((given.strip(),)) if one else Told(names)  # "S/M" is one size where no set stands
    first_row = next((i for i, raw in enumerate(raws) if starts_label(raw) is not None), len(raws))
    head = raws[:first_row]
    for at in range(first_row):
        if (told := told_at(head, at)) is not None:
            return told
    counted, spoken = _counted(raws), _spoken(raws, first_row)
    same = counted is None or (spoken is not None and len(spoken.names) == len(counted.names))
    return spoken if spoken is not None and same else counted


_SO_MANY = re.compile(r"\b(two|three|four|2|3|4)\s+sizes\b", re.IGNORECASE)
_LARGER = re.compile(r"\blarger\s+size", re.IGNORECASE)
_USUAL_NAMES = {2: ("Small", "Large"), 3: ("Small", "Medium", "Large"), 4: ("1", "2", "3", "4")}
_SET_OF_TWO = re.compile(r"(?<![\w.])\d{1,5}\s?[(\[{/]\s?\d{1,5}\s?[)\]}]?")


def _spoken(raws: Sequence[str], first_row: int) -> Told | None:
    """ "This pattern includes two sizes, with the larger size in brackets.": so many, under the names in ordinary
    use."""
    said = " ".join(raw[:MOST_OF_LINE] for raw in raws[: min(first_row, MOST_HEAD)])
    many = _SO_MANY.search(said)
    larger = any(_LARGER.search(raw[:MOST_OF_LINE]) for raw in raws)
    if many is None and not larger:
        return None
    count = {"two": 2, "three": 3, "four": 4}.get(many[1].lower(), 0) or int(many[1]) if many is not None else 2
    sets = _SET_OF_TWO if count == 2 else _SET
    if sum(sets.search(raw) is not None for raw in raws[first_row:]) < LEAST_SETS:
        return None
    return Told(("Smaller", "Larger") if larger and count == 2 else _USUAL_NAMES[count])


# Lines in which names of sizes are looked for with dashes between them.
MOST_HEAD = 40


def by_slashes(raws: Sequence[str], names: Sequence[str]) -> list[str]:
    """The lines with "24 - 28 - 32" as "24 / 28 / 32", where three sizes or more are named so ("S - M - L"); columns
    stay true."""
    head = [plain(raw[:MOST_OF_LINE]) for raw in raws[:MOST_HEAD]] if len(names) > 2 else []
    if any(" - ".join(names) in raw for raw in head):
        one = r"r?\d{1,4}(?:-r?\d{1,4})?"
        dashed = re.compile(
            rf"(?<![\d-])(?<!- ){one}(?: [-–] {one}){{{len(names) - 1}}}(?! [-–] ?\d)(?!\d)", re.IGNORECASE
        )
        return [dashed.sub(lambda match: re.sub(" [-–] ", " / ", match[0]), raw) for raw in raws]
    if any("-".join(names) in raw for raw in head):  # "S-M-L"
        dashed = re.compile(rf"(?<![\d-])\d{{1,4}}(?:-\d{{1,4}}){{{len(names) - 1}}}(?![\d-])")
        return [dashed.sub(lambda match: match[0].replace("-", "/"), raw) for raw in raws]
    return list(raws)


def _counted(raws: Sequence[str]) -> Told | None:
    """Sets of three or more numbers throughout, and no names: so many sizes, which are only numbered."""
    lengths = Counter(length for raw in raws for length in _sets_of(raw)[0])
    pairs = sum(_sets_of(raw)[1] for raw in raws)
    if pairs >= LEAST_PAIRS and not lengths:
        lengths[2] = pairs
    if not lengths:
        return None
    length, times = lengths.most_common(1)[0]
    if length < (2 if pairs >= LEAST_PAIRS else 3) or times < LEAST_SETS or times < 0.8 * lengths.total():
        return None
    names = tuple(str(number + 1) for number in range(length))
    repair = Repair("Name the sizes", (Edit(Span(1, 1, 1), f"Sizes: {', '.join(names)}\n"),))
    message = (
        f"No sizes are named; the sets have {length} numbers, so this is read as "
        f"{length} sizes. Name them: “Sizes: S, M, L”."
    )
    return Told(names, (), (Finding("sizes-not-named", "warning", Span(1, 1, 2), message, repairs=(repair,)),))
