"""Sizes that a text names elsewhere than after "Sizes:": under a heading, in a sentence, or not at all.

"Size" / "S (M, L)" on the next line; "Instructions are for the small pouch, with medium and large in
parentheses."; or only sets of so many numbers throughout.
"""

import re
from collections import Counter
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from rillstep.core.clauses.labels import starts as starts_label
from rillstep.core.findings import Edit, Finding, Repair, Span
from rillstep.core.memory import remember
from rillstep.core.words.sizes import NAME, are_names, bare_name, size_names
from rillstep.core.words.tokens import plain

MOST_OF_LINE = 200
MOST_OF_TITLE = 60
MAX_LISTED = 12

_COUNT = r"(?:two|three|four|five|six|seven|eight|\d)"
_HEADING = re.compile(r"^\W*(?:finished\s+|available\s+)?sizes?\W*$", re.IGNORECASE)
_LETTERED = re.compile(r"\W{0,3}(?P<letter>[A-Z]|\d)\s?[).:]\s+(?P<name>[A-Za-z][\w /-]{1,24})$")
_BESIDE = re.compile(
    r"^\W*(?:for\s+|in\s+)?sizes?\b(?:\s+(?:available|included|offered|given))?\s*(?:[–—-]\s*|:\s*|\s)(?P<names>.+)$",
    re.IGNORECASE,
)
_TO_FIT = re.compile(r"^\W*to fit(?: an?| your)?\s*:\s*(?P<names>[A-Za-z][^.]{2,40}[)\]])$", re.IGNORECASE)
_IN_SIZES = re.compile(
    rf"\b{_COUNT}\s+sizes\s*[:–(-]\s*(?P<names>[^.:;()\[\]]+(?:[(\[][^.:;()\[\]]+[)\]])?)", re.IGNORECASE
)
_SO_CALLED = re.compile(
    rf"\b{_COUNT}\s+sizes,\s+(?P<names>\w+(?:,\s\w+){{0,6}},?\s+and\s+\w+)\s*(?:[(,.]|$)", re.IGNORECASE
)
_WITHIN = re.compile(r"\b(?:\d+\s+)?sizes?\s*[:–-]\s*(?P<names>[^:]+)$", re.IGNORECASE)
_SPOKEN_OF = re.compile(
    r"\b(?:sizes|written|instructions|directions|pattern|given|parenthes[ie]s|brackets|comes in|available)\b",
    re.IGNORECASE,
)
# "to fit a small (medium: large) project"
_NAMES_IN_SET = re.compile(rf"{NAME.pattern}\s*[(\[]\s*{NAME.pattern}(?:\s*[,;:/|]\s*{NAME.pattern})*\s*[)\]]")
_NAME_THEN = re.compile(rf"({NAME.pattern})\s*:\s*(?!\s*(?:rnd|row|round)\b|[Cc]h\b)")
_NUMBERED = re.compile(r"\b[Ss]izes?\s+((?:(?:\d{1,2}|[A-Z])\b(?!\s*(?:cm|mm|inch))(?:\s*(?:,|and|&|or|\(|\))\s*)*)+)")
_SIZE_TOLD = re.compile(r"\s*sizes?\s+(?P<name>[A-Za-z0-9]{1,12})\s{0,3}[:=]\s{0,3}[^:;]{0,60}\d", re.IGNORECASE)


@dataclass(frozen=True)
class Unlisted:
    """Names of sizes, the lines that name them and nothing else, and what is to be said of it."""

    names: tuple[str, ...]
    lines: tuple[int, ...] = ()
    findings: tuple[Finding, ...] = ()


# The lines before the first row, and which of them is looked at.
Form = Callable[[Sequence[str], int], Unlisted | None]


def told_at(raws: Sequence[str], at: int) -> Unlisted | None:
    """The sizes that a line names, by the first form that it has; None when it names none."""
    return next((told for form in FORMS if (told := form(raws, at)) is not None), None)


def _under_heading(raws: Sequence[str], at: int) -> Unlisted | None:
    """ "Sizes" above "S (M, L)", above a list of them, or above "Small: 18 cm" and "Large: 24 cm"."""
    if not _HEADING.match(raws[at]) or at + 1 == len(raws):
        return None
    lettered = _lettered(raws[at + 1 :])
    if len(lettered) > 1:
        return Unlisted(lettered, tuple(range(at + 1, at + 2 + len(lettered))))
    if len(names := size_names(raws[at + 1])) > 1:
        return Unlisted(names, (at + 1, at + 2))
    listed = _listed(raws[at + 1 :])
    return Unlisted(listed) if len(listed) > 1 else None


def _lettered(raws: Sequence[str]) -> tuple[str, ...]:
    """ "A) e-reader" above "B) laptop sleeve"."""
    found: list[str] = []
    for raw in raws[:MAX_LISTED]:
        match = _LETTERED.match(raw[:MOST_OF_LINE].strip())
        if match is None or match["letter"] not in ("ABCDEFGH"[len(found) : len(found) + 1], str(len(found) + 1)):
            break
        found.append(match["name"].strip())
    return tuple(found)


def _listed(raws: Sequence[str]) -> tuple[str, ...]:
    """The names of "Small: 18 cm diameter" and "Large: 24 cm diameter", one below the other."""
    found: list[str] = []
    for raw in raws[:MAX_LISTED]:
        match = re.match(rf"\W{{0,3}}({NAME.pattern})\s{{0,3}}[:=–-]\s{{0,3}}\D{{0,20}}\d", raw)
        if match is None:
            break
        found.append(match[1])
    return tuple(found) if len(set(found)) == len(found) else ()


def _beside_word(raws: Sequence[str], at: int) -> Unlisted | None:
    """ "Size S [M] {L}", "Sizes  A   B   C", "For sizes 1 (2:3)"."""
    raw = raws[at]
    beside = _BESIDE.match(raw) if len(raw) <= MOST_OF_TITLE else None
    if beside is None:
        return None
    for names in (tuple(re.split(r"\s{2,}|\t", beside["names"].strip())), size_names(beside["names"])):
        barred = "|" in beside["names"] and not re.search(r"\d", raw)  # "Size   small | big"
        if len(names) > 1 and (are_names(names) or barred):
            return Unlisted(tuple(map(bare_name, names)), (at + 1,))
    return None


def _to_fit(raws: Sequence[str], at: int) -> Unlisted | None:
    """ "To fit: phone [tablet]"."""
    fits = _TO_FIT.match(raws[at].strip()) if len(raws[at]) <= MOST_OF_TITLE else None
    names = size_names(fits["names"]) if fits is not None else ()
    return Unlisted(names, (at + 1,)) if len(names) > 1 and not any(re.search(r"\d", name) for name in names) else None


def _by_itself(raws: Sequence[str], at: int) -> Unlisted | None:
    """Names and nothing else: the head of a table, or "Small/Large"."""
    columns = tuple(re.split(r"\s{2,}|\t+", raws[at].strip()))
    for names in (columns, size_names(raws[at]) if len(raws[at]) <= MOST_OF_TITLE else ()):
        if len(names) > 1 and all(NAME.fullmatch(name) for name in names):
            return Unlisted(names, (at + 1,) if names == columns else ())
    return None


def _in_title(raws: Sequence[str], at: int) -> Unlisted | None:
    """ "Star Clutch (S/L)", and not "S (M, L)"."""
    raw = raws[at]
    titled = re.search(r"\(([^()]{3,60})\)\s*$", raw) if len(raw) <= MOST_OF_LINE else None
    if titled is None:
        return None
    ahead = raw[: titled.start()].rstrip()
    names = tuple(re.split(r"\s*[/|,]\s*|(?<=\w)-(?=\w)", titled[1].strip()))
    named_before = any(match.end() == len(ahead) for match in NAME.finditer(raw))
    return Unlisted(names) if len(names) > 1 and not named_before and all(map(NAME.fullmatch, names)) else None


def _so_many(raws: Sequence[str], at: int) -> Unlisted | None:
    """ "Three sizes: Mini - Regular - Large", "in two sizes, standard and jumbo (in parentheses)"."""
    listed = _IN_SIZES.search(raws[at]) or _SO_CALLED.search(raws[at][:MOST_OF_LINE])
    if listed is None:
        return None
    apart = r"\s*,\s*(?:and\s+)?|\s+and\s+|\s*/\s*|\s*[(\[]\s*"
    names = tuple(re.split(apart, listed["names"].strip().rstrip(")]")))
    short = all(0 < len(name) <= 20 and not re.search(r"\d{2}", name) for name in names)
    return Unlisted(names) if len(names) > 1 and short else None


def _after_word(raws: Sequence[str], at: int) -> Unlisted | None:
    """ "UK terms. Sizes: coin (card, phone)"."""
    raw = raws[at].strip()
    within = _WITHIN.search(raw) if len(raw) <= 80 else None
    measured = size_names(within["names"]) if within is not None else ()
    if len(measured) > 1 and all(_LENGTH.fullmatch(name) for name in measured) and _grow(measured):
        return Unlisted(measured)
    for text in (raw, raw.rstrip(".)")) if len(raws[at]) <= 80 else ():
        within = _WITHIN.search(text)
        names = size_names(within["names"]) if within is not None else ()
        whole = all(name.count("(") == name.count(")") for name in names)
        if len(names) > 1 and whole and not any(re.search(r"\d{2}|\s\w+\s\w+\s", name) for name in names):
            return Unlisted(names)
    return None


_LENGTH = re.compile(r"(?P<number>\d{1,3}(?:\.\d)?)\s?(?P<unit>cm|mm|inches|inch|in|\"|ml|l)")


def _grow(names: Sequence[str]) -> bool:
    """Are these lengths in one unit, each larger than the one before, and not one in two units?"""
    lengths = [_LENGTH.fullmatch(name) for name in names]
    units = {match["unit"] for match in lengths if match is not None}
    numbers = [float(match["number"]) for match in lengths if match is not None]
    return len(units) == 1 and numbers == sorted(set(numbers))


def _each_told(raws: Sequence[str], at: int) -> Unlisted | None:
    """ "size 1: 13 squares wide; size 2: 17 squares wide"."""
    raw = raws[at]
    each = [_SIZE_TOLD.match(part) for part in raw.split(";")] if ";" in raw and len(raw) <= MOST_OF_LINE else []
    return Unlisted(tuple(part["name"] for part in each if part is not None)) if each and all(each) else None


def _with_colons(raws: Sequence[str], at: int) -> Unlisted | None:
    """ "S: up to 80 cm, M: up to 100 cm"."""
    colons = [match[1] for match in _NAME_THEN.finditer(raws[at])]
    return Unlisted(tuple(colons)) if len(set(colons)) == len(colons) > 1 else None


def _in_sentence(raws: Sequence[str], at: int) -> Unlisted | None:
    """ "Instructions are for the small pouch, with medium and large in parentheses.", "Pattern includes sizes 1, 2
    and 3."."""
    raw = raws[at]
    if (listed := _NAMES_IN_SET.search(raw)) is not None:
        return Unlisted(tuple(_capital(match[0]) for match in NAME.finditer(listed[0])))
    found = list(dict.fromkeys(match[0] for match in NAME.finditer(raw)))
    if len(found) < 2:
        numbered = (name for match in _NUMBERED.finditer(raw) for name in re.findall(r"\d+|[A-Z]\b", match[1]))
        found = list(dict.fromkeys(numbered))
    spoken = len({name.lower() for name in found}) == len(found) > 1 and _SPOKEN_OF.search(raw)
    return Unlisted(tuple(map(_capital, found))) if spoken else None


def spoken_names(given: str) -> tuple[str, ...]:
    """The names in a whole sentence after "Sizes:"; () for a plain list."""
    named = tuple(dict.fromkeys(match[0] for match in NAME.finditer(given)))
    return tuple(map(_capital, named)) if len(given) > 40 and len(named) > 1 and _SPOKEN_OF.search(given) else ()


def _capital(name: str) -> str:
    return name[0].upper() + name[1:]


FORMS: tuple[Form, ...] = (
    _under_heading,
    _beside_word,
    _to_fit,
    _by_itself,
    _in_title,
    _so_many,
    _after_word,
    _each_told,
    _with_colons,
    _in_sentence,
)


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


def told_sizes(raws: Sequence[str]) -> Unlisted | None:
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
    return _beside_words(counted, raws) if enough and not pairs and len(told.names) not in sets else told


def _beside_words(counted: Unlisted, raws: Sequence[str]) -> Unlisted:
    """Counted sizes without a line to name them where the text has one in words: that line is hers to change."""
    if not any(_SIZES_IN_WORDS.match(raw) for raw in raws):
        return counted
    return replace(counted, findings=tuple(replace(finding, repairs=()) for finding in counted.findings))


# So many rows show how many numbers the sets of a text have.
MOST_ROWS = 60


@remember(8192)
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


def _told(raws: Sequence[str]) -> Unlisted | None:
    given = next((match[1] for raw in raws if (match := _GIVEN.match(raw.split("#", 1)[0])) is not None), None)
    if given is not None:  # known from the start, so that a stitch defined before them has its numbers for each size
        names = spoken_names(given) or size_names(given)
        slashed = re.search(r"[/|:;]", given) is not None and not re.search(r"[,(\[]", given)
        one = slashed and len(names) > 1 and not any(_TWO.search(raw) for raw in raws)
        return Unlisted((given.strip(),)) if one else Unlisted(names)  # "S/M" is one size where no set stands
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


def _spoken(raws: Sequence[str], first_row: int) -> Unlisted | None:
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
    return Unlisted(("Smaller", "Larger") if larger and count == 2 else _USUAL_NAMES[count])


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


_SIZES_IN_WORDS = re.compile(r"\s*sizes?\s*:", re.IGNORECASE)


def _counted(raws: Sequence[str]) -> Unlisted | None:
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
    return Unlisted(names, (), (Finding("sizes-not-named", "warning", Span(1, 1, 2), message, repairs=(repair,)),))
