"""Sizes that a text names elsewhere than after "Sizes:": under a heading, in a sentence, or not at all.

"Size" / "S (M, L)" on the next line; "Instructions are for the small pouch, with medium and large in
parentheses."; or only sets of so many numbers throughout.
"""

import re
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from rillstep.core.findings import Edit, Finding, Repair, Span
from rillstep.core.notation.labels import starts as starts_label
from rillstep.core.notation.lexer import plain

_GIVEN = re.compile(r"^\s*sizes?\s*:\s*(\S.*)$", re.IGNORECASE)
_WITHIN = re.compile(r"\b(?:\d+\s+)?sizes?\s*[:–-]\s*(?P<names>[^:]+)$", re.IGNORECASE)
_IN_SIZES = re.compile(
    r"\b(?:two|three|four|five|six|seven|eight|\d)\s+sizes\s*[:–(-]\s*(?P<names>[^.:;()\[\]]+(?:[(\[][^.:;()\[\]]+[)\]])?)",
    re.IGNORECASE,
)
_HEADING = re.compile(r"^\W*(?:finished\s+|available\s+)?sizes?\W*$", re.IGNORECASE)
_BESIDE = re.compile(
    r"^\W*(?:for\s+|in\s+)?sizes?\b(?:\s+(?:available|included|offered|given))?\s*(?:[–—-]\s*|:\s*|\s)(?P<names>.+)$",
    re.IGNORECASE,
)
_SPOKEN_OF = re.compile(
    r"\b(?:sizes|written|instructions|directions|pattern|given|parenthes[ie]s|brackets|comes in|available)\b",
    re.IGNORECASE,
)
# Names of sizes in ordinary use; letters only as capitals.
_NAME = re.compile(
    r"\b(?:(?i:extra[ -]?(?:small|large)|x-(?:small|large)|small|medium|large|mini|midi|maxi|petite|tiny|standard|regular|oversized|baby|infant|child|kids?|junior|youth|toddler|teen|adult|sm|med|lg|lrg|sml)"
    r"|XXS|XS|S|M|L|XL|XXL|[23]XL)\b"
)
# "to fit a small (medium: large) project"
_NAMES_IN_SET = re.compile(rf"{_NAME.pattern}\s*[(\[]\s*{_NAME.pattern}(?:\s*[,;:/|]\s*{_NAME.pattern})*\s*[)\]]")
_NAME_THEN = re.compile(rf"({_NAME.pattern})\s*:\s*(?!\s*(?:rnd|row|round)\b|[Cc]h\b)")
_NUMBERED = re.compile(r"\b[Ss]izes?\s+((?:(?:\d{1,2}|[A-Z])\b(?!\s*(?:cm|mm|inch))(?:\s*(?:,|and|&|or|\(|\))\s*)*)+)")
_SET = re.compile(
    r"(?<![\w.])\d+\s*[(\[{]\s*(\d+(?:\s*[,;:/|]\s*\d+)+)\s*[)\]}]|(?<![\w./])(\d+(?:\s*[/|]\s*\d+){2,})(?![\w/])"
)
_TWO = re.compile(r"\d\s{0,3}[/|(\[]\s{0,3}\d|[(\[]\s{0,3}\d{1,5}\s{0,3}[,;:]\s{0,3}\d{1,5}\s{0,3}[)\]]")
_SIZE_TOLD = re.compile(r"\s*sizes?\s+(?P<name>[A-Za-z0-9]{1,12})\s{0,3}[:=]\s{0,3}[^:;]{0,60}\d", re.IGNORECASE)
MOST_OF_LINE = 200
_LENGTH = r"\d{1,3}(?:\.\d)?\s?(?:cm|mm|inches|inch|in|\"|ml|l)"
_MEASURES_SET = re.compile(
    rf"({_LENGTH})\s?[(\[]({_LENGTH}(?:\s?[,;/]\s?{_LENGTH}){{0,8}})[)\]](?:\s[a-z]+)?", re.IGNORECASE
)
_MEASURED = re.compile(r"(?P<name>[A-Za-z][\w /-]{0,20}):\s*(?:about |approx\.? )?\d[^:;]{1,60}")
_MEASURE = re.compile(r"\s{0,3}\([^()]{0,60}\d[^()]*\)|\s{0,3}[–—-]\s{0,3}\d.*$|\s{0,3}:\s{0,3}\d.*$")

# Two numbers are a set where a number of repeats and a total cannot stand: "ch 32 (38)", "next 9 (11) sts", "Rows 4-16 (4-20)".
_PAIR = re.compile(
    r"(?:\b(?:ch|chain|next|first|last)\s+\d+\s*[(\[]\s*\d+\s*[)\]]|\(\d{1,5}\s?\(\d{1,5}\)\)|(?<!\d)\d{1,6}\s{0,3}[(\[]\s{0,3}\d{1,6}\s{0,3}[)\]]\s{0,3}(?:sts?|stitches|sc|hdc|dc|tr|chs?|sps?)\b|"
    r"(?<!\d)\d{1,6}\s{0,3}[-–]\s{0,3}\d{1,6}\s{0,3}[(\[]\s{0,3}\d{1,6}\s{0,3}[-–]\s{0,3}\d{1,6}\s{0,3}[)\]]\s{0,3}:)",
    re.IGNORECASE,
)
LEAST_PAIRS = 3
# Fewer sets than this are no sign of sizes.
LEAST_SETS = 2


@dataclass(frozen=True)
class Told:
    """Names of sizes, the lines that name them and nothing else, and what is to be said of it."""

    names: tuple[str, ...]
    lines: tuple[int, ...] = ()
    findings: tuple[Finding, ...] = ()


def size_names(text: str) -> tuple[str, ...]:
    """ "S, M, L", "S (M, L)", "S[M:L]", "S/M/L", "Small (20 cm), Large (26 cm)"."""
    if (one := re.match(r"\s*(one size)\s*(?:[;.(]|fits\b|$)", text, re.IGNORECASE)) is not None:
        return (one[1],)  # "One size; see the notes for a bigger one"
    text = re.sub(
        r"\s*[(\[](?:given|shown|written|listed|instructions)\b.*$", "", text, flags=re.IGNORECASE
    )  # "S, M, L (given as S (M, L))"
    text = re.sub(r"^\s*[(\[]([^()\[\]]+)[)\]]\s*$", r"\1", text)  # "(1, 2, 3)"
    text = re.split(r"(?<=[a-z)])\.\s+(?=[A-Z])", text.strip(), maxsplit=1)[0]
    text = re.sub(r"^.{0,40}\b(?:two|three|four|five|six|\d)\s+sizes\s*[-–:]\s*", "", text.strip(), flags=re.IGNORECASE)
    text = re.sub(
        r"^(?:two|three|four|five|six|\d)\s+sizes\s*[(\[]([^()\[\]]+)[)\]]$", r"\1", text.strip(), flags=re.IGNORECASE
    )
    measured = _MEASURES_SET.fullmatch(text)
    if measured is not None:  # "20cm [25cm, 30cm] across"
        return tuple(" ".join(part.split()) for part in (measured[1], *re.split(r"[,;/]", measured[2])))
    turns = re.fullmatch(
        rf"{_NAME.pattern}\s?\({_NAME.pattern}\)\s?{_NAME.pattern}(?:\s?\({_NAME.pattern}\)(?:\s?{_NAME.pattern})?)?",
        text,
    )
    if turns is not None:  # "S (M) L (XL)"
        return tuple(match[0] for match in _NAME.finditer(text))
    text = re.sub(r"^([^()\[\]\d]+[(\[][^()\[\]\d]+[)\]])\s+[a-z]{3,12}\.?$", r"\1", text)  # "Standard (Wide) mat"
    counted = re.fullmatch(r"(\d{1,4})\s*[(\[]\s*([\d\s,;:/]{1,40})[)\]]\s*([A-Za-z]+)", text)
    if counted is not None:  # "12 (14) loops"
        return tuple(f"{number} {counted[3]}" for number in (counted[1], *re.findall(r"\d+", counted[2])))
    told = [_MEASURED.fullmatch(part) for part in re.split(r"\s*[;,]\s+", text)]
    if len(told) > 1 and all(told):  # "A: 60 sts around; B: 72 sts around"
        return tuple(part["name"].strip() for part in told if part is not None)
    text = re.split(r"\s{2,}(?!\()|\s+\bfinished\b", text.strip(), maxsplit=1, flags=re.IGNORECASE)[0].rstrip(".")
    each = re.fullmatch(r"([^()\[\]{},]+)((?:\s*(?:\([^()]+\)|\[[^\[\]]+\]|\{[^{}]+\})){2,})", text)
    if each is not None:  # "1 [2] {3}"
        text = ",".join([each[1], *re.findall(r"[^()\[\]{}\s][^()\[\]{}]*", each[2])])
    if ";" in text and "," not in text and "(" not in text:
        text = text.replace(";", ",")
    bracket = re.match(r"^([^(\[{]+)[(\[{]([^)\]}]*)[)\]}]$", text)
    if bracket is not None and "," not in bracket[1] and not re.search(r"\d\s*(?:cm|in|mm|\")", bracket[2]):
        slash = "" if "/" in bracket[1] else "/"  # "S/M (L/XL)" are two
        text = f"{bracket[1]},{re.sub(rf'[;:{slash}|]', ',', bracket[2])}"
    elif "," not in text and re.search(r"[/|;]", text):
        text = re.sub(r"[/|;]", ",", text)
    text = (
        re.sub(r",?\s+(?:and|&)\s+(?=[^,]*$)", ", ", text)
        if "," in text or re.fullmatch(r"\S+\s+(?:and|&)\s+\S+", text)
        else text
    )
    names = [" ".join(name.split()) for name in re.split(r",(?![^(]*\))", text)]
    if len(names) == 1 and re.fullmatch(r"[\w/-]+(?::[\w/-]+)+", names[0]):
        names = names[0].split(":")  # "S:M:L"
    if len(names) > 1 and all(re.search(r"\d\s*(?:cm|in|mm|\")", name) for name in names):
        names = [_MEASURE.sub("", name).strip() for name in names]
    return tuple(name for name in names if name)


def told_sizes(raws: Sequence[str]) -> Told | None:
    """The sizes that a text names, wherever it does; None when it is in one size.

    Where all its sets have another number of numbers, the names were misread, and the sets are believed.
    """
    told = _told(raws)
    begin = next((at for at, raw in enumerate(raws) if starts_label(raw) is not None), len(raws))
    rows = raws[begin : begin + MOST_ROWS]
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
    """The lengths of the sets of three numbers and more in a line, and how many pairs it has; remembered, as the others stand still while one is typed."""
    members = [(match[1] or match[2], match[1] is not None) for match in _SET.finditer(raw)]
    return tuple(len(re.findall(r"\d+", inner)) + apart for inner, apart in members), len(_PAIR.findall(raw))


def _told(raws: Sequence[str]) -> Told | None:
    given = next((match[1] for raw in raws if (match := _GIVEN.match(raw.split("#", 1)[0])) is not None), None)
    if given is not None:  # known from the start, so that a stitch defined before them has its numbers for each size
        named = tuple(dict.fromkeys(match[0] for match in _NAME.finditer(given)))
        if len(given) > 40 and len(named) > 1 and _SPOKEN_OF.search(given):
            return Told(tuple(name[0].upper() + name[1:] for name in named))  # a whole sentence
        names = size_names(given)
        slashed = (
            re.search(r"[/|:;]", given) is not None
            and "," not in given
            and not re.search(r"[(\[]", given)
            and not any(_TWO.search(raw) for raw in raws)
        )
        return (
            Told((given.strip(),)) if slashed and len(names) > 1 else Told(names)
        )  # "S/M" is one size where no set stands
    first_row = next((i for i, raw in enumerate(raws) if starts_label(raw) is not None), len(raws))
    for index, raw in enumerate(raws[:first_row]):
        if _HEADING.match(raw) and index + 1 < first_row and len(names := size_names(raws[index + 1])) > 1:
            return Told(names, (index + 1, index + 2))
        if _HEADING.match(raw) and len(listed_names := _listed(raws[index + 1 : first_row])) > 1:
            return Told(listed_names)
        beside = _BESIDE.match(raw)
        apart = re.split(r"\s{2,}|\t", beside["names"].strip()) if beside is not None and len(raw) <= 60 else []
        if len(apart) > 1 and _are_names(apart):
            return Told(tuple(map(_bare, apart)), (index + 1,))  # "Sizes  A   B   C"
        names = size_names(beside["names"]) if beside is not None and len(raw) <= 60 else ()
        if len(names) > 1 and _are_names(names):
            return Told(tuple(map(_bare, names)), (index + 1,))
    for index, raw in enumerate(raws[:first_row]):
        columns = tuple(re.split(r"\s{2,}|\t+", raw.strip()))
        if len(columns) > 1 and all(_NAME.fullmatch(name) for name in columns):
            return Told(columns, (index + 1,))  # the head of a table
        names = size_names(raw) if len(raw) <= 60 else ()
        if len(names) > 1 and all(_NAME.fullmatch(name) for name in names):
            return Told(names, (index + 1,))
        titled = re.search(r"\(([^()]{3,60})\)\s*$", raw) if len(raw) <= MOST_OF_LINE else None
        names = tuple(re.split(r"\s*[/|,]\s*", titled[1].strip())) if titled is not None else ()
        first = titled is None or not any(
            match.end() == len(raw[: titled.start()].rstrip()) for match in _NAME.finditer(raw)
        )
        if first and len(names) > 1 and all(_NAME.fullmatch(name) for name in names):
            return Told(names)  # "Star Clutch (S/L)", and not "S (M, L)"
        listed = _IN_SIZES.search(raw)
        names = (
            tuple(re.split(r"\s*,\s*(?:and\s+)?|\s+and\s+|\s*/\s*|\s*[(\[]\s*", listed["names"].strip().rstrip(")]")))
            if listed is not None
            else ()
        )
        if len(names) > 1 and all(0 < len(name) <= 20 and not re.search(r"\d{2}", name) for name in names):
            return Told(names)
        within = _WITHIN.search(raw.strip().rstrip(".)")) if len(raw) <= 80 else None
        names = size_names(within["names"]) if within is not None else ()
        if len(names) > 1 and not any(re.search(r"\d{2}|\s\w+\s\w+\s", name) for name in names):
            return Told(names)
        each = [_SIZE_TOLD.match(part) for part in raw.split(";")] if ";" in raw and len(raw) <= MOST_OF_LINE else []
        if each and all(each):
            return Told(tuple(part["name"] for part in each if part is not None))  # "size 1: 13 wide; size 2: 17 wide"
        found = list(dict.fromkeys(match[0] for match in _NAME.finditer(raw)))
        if len(found) < 2:
            found = list(
                dict.fromkeys(
                    name for match in _NUMBERED.finditer(raw) for name in re.findall(r"\d+|[A-Z]\b", match[1])
                )
            )
        colons = [match[1] for match in _NAME_THEN.finditer(raw)]
        if len(colons) > 1 and len(set(colons)) == len(colons):
            return Told(tuple(colons))  # "S: up to 80 cm, M: up to 100 cm"
        if (listed := _NAMES_IN_SET.search(raw)) is not None:
            return Told(tuple(match[0][0].upper() + match[0][1:] for match in _NAME.finditer(listed[0])))
        if len({name.lower() for name in found}) == len(found) > 1 and _SPOKEN_OF.search(raw):
            return Told(tuple(name[0].upper() + name[1:] for name in found))
    counted, spoken = _counted(raws), _spoken(raws, first_row)
    same = counted is None or (spoken is not None and len(spoken.names) == len(counted.names))
    return spoken if spoken is not None and same else counted


_SO_MANY = re.compile(r"\b(two|three|four|2|3|4)\s+sizes\b", re.IGNORECASE)
_LARGER = re.compile(r"\blarger\s+size", re.IGNORECASE)
_USUAL_NAMES = {2: ("Small", "Large"), 3: ("Small", "Medium", "Large"), 4: ("1", "2", "3", "4")}
_SET_OF_TWO = re.compile(r"(?<![\w.])\d{1,5}\s?[(\[{/]\s?\d{1,5}\s?[)\]}]?")


def _spoken(raws: Sequence[str], first_row: int) -> Told | None:
    """ "This pattern includes two sizes, with the larger size in brackets.": so many, under the names in ordinary use."""
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


def _listed(raws: Sequence[str]) -> tuple[str, ...]:
    """The names of "Small: 18 cm diameter" and "Large: 24 cm diameter", one below the other."""
    found: list[str] = []
    for raw in raws[:MAX_LISTED]:
        match = re.match(rf"\W{{0,3}}({_NAME.pattern})\s{{0,3}}[:=–-]\s{{0,3}}\D{{0,20}}\d", raw)
        if match is None:
            break
        found.append(match[1])
    return tuple(found) if len(set(found)) == len(found) else ()


MAX_LISTED = 12
# Lines in which names of sizes are looked for with dashes between them.
MOST_HEAD = 40


def by_slashes(raws: Sequence[str], names: Sequence[str]) -> list[str]:
    """The lines with "24 - 28 - 32" as "24 / 28 / 32", where three sizes or more are named so ("S - M - L"); columns stay true."""
    apart = " - ".join(names)
    if len(names) < 3 or not any(apart in plain(raw[:MOST_OF_LINE]) for raw in raws[:MOST_HEAD]):
        return list(raws)
    one = r"r?\d{1,4}(?:-r?\d{1,4})?"
    dashed = re.compile(rf"(?<![\d-])(?<!- ){one}(?: [-–] {one}){{{len(names) - 1}}}(?! [-–] ?\d)(?!\d)", re.IGNORECASE)
    return [dashed.sub(lambda match: re.sub(" [-–] ", " / ", match[0]), raw) for raw in raws]


def _bare(name: str) -> str:
    return re.sub(r"^sizes?\s+", "", name, flags=re.IGNORECASE)


def _are_names(names: Sequence[str]) -> bool:
    """Are these names of sizes, or letters or numbers in their order?"""
    bare = [_bare(name) for name in names]
    in_order = [str(at) for at in range(1, len(bare) + 1)]
    return bare == in_order or all(
        _NAME.fullmatch(part) or re.fullmatch("[A-Z]", part) for name in bare for part in name.split("/")
    )


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
    message = f"No sizes are named; the sets have {length} numbers, so this is read as {length} sizes. Name them: “Sizes: S, M, L”."
    return Told(names, (), (Finding("sizes-not-named", "warning", Span(1, 1, 2), message, repairs=(repair,)),))
