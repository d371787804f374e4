"""Names of sizes as people list them: "S, M, L", "S (M, L)", "S[M:L]", "S/M/L", "S-M-L", "Small (20 cm), Large (26
cm)"."""

import difflib
import re
from collections.abc import Sequence
from dataclasses import dataclass

from rillstep.core.findings import Finding, Span

# Names of sizes in ordinary use; letters only as capitals.
NAME = re.compile(
    r"\b(?:(?i:extra[ -]?(?:small|large)|x-(?:small|large)|small|medium|large|mini|midi|"
    r"maxi|petite|tiny|standard|regular|oversized|baby|infant|child|kids?|junior|youth|"
    r"toddler|teen|adult|sm|med|lg|lrg|sml)"
    r"|XXS|XS|S|M|L|XL|XXL|[23]XL)\b"
)
_LENGTH = r"\d{1,3}(?:\.\d)?\s?(?:cm|mm|inches|inch|in|\"|ml|l)"
_MEASURES_SET = re.compile(
    rf"({_LENGTH})\s?[(\[]({_LENGTH}(?:\s?[,;/]\s?{_LENGTH}){{0,8}})[)\]](?:\s[a-z]+)?", re.IGNORECASE
)
# "34 cm wide", "30 cm (12 in) tall", "about 20 cm across the bottom".
_ABOUT = r"(?:(?:about|approx\.?|approximately|ca\.?|roughly)\s)?"
_OF_ONE_BAG = re.compile(
    rf"{_ABOUT}{_LENGTH}(?:\s?[(/]\s?{_LENGTH}\)?)?\s(?P<way>wide|tall|high|deep|long|across|in diameter|around|square)"
    r"(?:\s(?!and\b)[a-z]+){0,4}",
    re.IGNORECASE,
)
# "..., not counting the handles"
_BESIDES = re.compile(r"\s?[,;(]\s?(?:not|without|excluding|including|plus|with)\b[^\d]{1,40}$", re.IGNORECASE)
_ALSO = re.compile(r"\s?(?:,\s?(?:and\s)?|;\s?|\sand\s|\sby\s|\sx\s)", re.IGNORECASE)
_ONE = re.compile(r"\s{0,3}one(?:[ -]size)?(?:\sonly)?\s?[,(]\s?(?:about\s|approx\.?\s)?\d", re.IGNORECASE)
ONE_SIZE = "One size"


def measures_one(text: str) -> bool:
    """Does a text tell how large one bag is, in several directions, and name no sizes? "11 in tall, 8.5 in wide"."""
    ways: list[str] = []
    at = 0
    text = text.strip().rstrip(".")
    while (match := _OF_ONE_BAG.match(text, at)) is not None:
        ways.append(match["way"].lower())
        also = _ALSO.match(text, match.end())
        if also is None or _BESIDES.match(text, match.end()) is not None:
            ended = match.end() == len(text) or also is not None
            return ended and len(ways) > 1 and len(set(ways)) == len(ways)
        at = also.end()
    return False


_MEASURED = re.compile(r"(?P<name>[A-Za-z][\w /-]{0,20}):\s*(?:about |approx\.? )?\d[^:;]{1,60}")
_MEASURE = re.compile(r"\s{0,3}\([^()]{0,60}\d[^()]*\)|\s{0,3}[–—-]\s{0,3}\d.*$|\s{0,3}:\s{0,3}\d.*$")


def size_names(text: str) -> tuple[str, ...]:
    """ "S, M, L", "S (M, L)", "S[M:L]", "S/M/L", "Small (20 cm), Large (26 cm)"."""
    if (one := re.match(r"\s*(one size)\s*(?:[;.(]|fits\b|$)", text, re.IGNORECASE)) is not None:
        return (one[1],)  # "One size; see the notes for a bigger one"
    if _ONE.match(text) is not None or measures_one(text):
        return (ONE_SIZE,)
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
        rf"{NAME.pattern}\s?\({NAME.pattern}\)\s?{NAME.pattern}(?:\s?\({NAME.pattern}\)(?:\s?{NAME.pattern})?)?", text
    )
    if turns is not None:  # "S (M) L (XL)"
        return tuple(match[0] for match in NAME.finditer(text))
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
    text = re.sub(r"^\s*to fit(?:\s+an?|\s+your)?\s+(?=[a-z])", "", text, flags=re.IGNORECASE)
    names = [" ".join(name.split()) for name in re.split(r",(?![^(]*\))", text)]
    if len(names) == 1 and re.fullmatch(r"\w+(?:-\w+)+", text) and all(map(NAME.fullmatch, text.split("-"))):
        names = text.split("-")  # "S-M-L"
    if len(names) == 1 and re.fullmatch(r"[\w/-]+(?::[\w/-]+)+", names[0]):
        names = names[0].split(":")  # "S:M:L"
    if len(names) > 1 and all(re.search(r"\d\s*(?:cm|in|mm|\")", name) for name in names):
        names = [_MEASURE.sub("", name).strip() for name in names]
    return tuple(name for name in names if name)


def bare_name(name: str) -> str:
    """ "size S" without its first word."""
    return re.sub(r"^sizes?\s+", "", name, flags=re.IGNORECASE)


def are_names(names: Sequence[str]) -> bool:
    """Are these names of sizes, or letters or numbers in their order?"""
    bare = [bare_name(name) for name in names]
    in_order = [str(at) for at in range(1, len(bare) + 1)]
    return bare == in_order or all(
        NAME.fullmatch(part) or re.fullmatch("[A-Z]", part) for name in bare for part in name.split("/")
    )


_ALL = re.compile(r"^(?:for\s+)?(?:all|both)(?:\s+(?:the\s+)?sizes)?(?:\s+(?:again|continue))?$", re.IGNORECASE)
_BEFORE = re.compile(
    r"^(?:continue\s+(?:with|for)\s+|for\s+(?:the\s+)?|now\s+for\s+)?(?:the\s+)?(?:only\s+)?(?:sizes?\s+)?(?:only\s+)?",
    re.IGNORECASE,
)
_AFTER = re.compile(
    r"(?<!\s)\s++(?:(?:sizes?|bags?|versions?)(?:\s++|$))?(?:only(?:\s++|$))?(?:(?:continue|work|as follows)\s*+)?$",
    re.IGNORECASE,
)
# What may stand before a row and name its sizes: "Large only: Rnd 8: ...", "[L only] Rnd 8: ...".
_PREFIX = re.compile(
    r"^\s*+(?P<open>[\[(]?)(?P<names>[^:()\[\]]{1,60}?)(?:[\])]\s{0,3}:?|:|\s{1,3}[-–—])\s*+(?=(?:rn?ds?|"
    r"rounds?|rows?|r)\.?\s*\d|(?:next|last|final)\s+(?:rn?ds?|rounds?|rows?)\b)",
    re.IGNORECASE,
)
# Within the label of a row: "Rnd 8 (Large only):", "Rnd 8 - Large only:", "Rnd 8 for Large:".
_WITHIN = re.compile(
    r"^(?P<before>[^:]{1,30}?)(?P<said>\s{0,3}[(\[](?P<names>[^()\[\]:]{1,60})[)\]]|"
    r"\s{1,3}(?:[-–—]|for)\s{1,3}(?P<bare>[^():\[\]\s][^():\[\]]{0,59}?))\s{0,3}(?=[:.|]|[-–—]\s)",
    re.IGNORECASE,
)
# A set in which a dash stands for a size that has no number: "- (56, 64)", "48 (-, 64)".
_DASHED = re.compile(
    r"(?:(?<!\d)\d{1,6}|[-–—]{1,2})\s*[(\[]\s*(?:\d+|[-–—]{1,2})(?:\s*[,;/]\s*(?:\d+|[-–—]{1,2}))+\s*[)\]]"
)


@dataclass(frozen=True)
class Limited:
    """A line with the words that limit it to some sizes blanked, so that its columns stay true; and these sizes."""

    text: str
    sizes: tuple[int, ...]


# Parts joined by "and" in the name of one size.
MOST_PARTS = 4


def split_names(inner: str, known: dict[str, int]) -> list[str]:
    """ "M, L and XL" into names; a size whose own name holds "and" or a comma is kept whole."""
    if inner.strip().lower() in known:
        return [inner.strip()]
    held = {f"\x00{at}\x00": name for at, name in enumerate(known) if re.search(r"[/&]", name)}
    for mark, name in sorted(held.items(), key=lambda item: -len(item[1])):
        inner = re.sub(rf"(?<![^\s,]){re.escape(name)}(?![^\s,.:])", mark, inner, flags=re.IGNORECASE)
    names: list[str] = []
    for part in re.split(r",\s+|\s*/\s*|,", inner.replace(" & ", " and ")):
        pieces = re.split(r"\s+and\s+|^and\s+", part)
        while pieces:
            for take in range(min(len(pieces), MOST_PARTS), 0, -1):
                name = " and ".join(pieces[:take]).strip()
                if name.lower() in known or take == 1:
                    names.append(name)
                    pieces = pieces[take:]
                    break
    return [held.get(name, name) for name in names if name]


def sizes_named(text: str, names: tuple[str, ...]) -> tuple[int, ...] | None:
    """The sizes that some words name and nothing else; None when they are anything else."""
    bare = " ".join(text.strip().strip("*_").split()).rstrip(":").strip()
    if _ALL.match(bare):
        return tuple(range(len(names)))
    by_name = {name.lower(): i for i, name in enumerate(names)}
    called = re.sub(r" [a-z]{3,12} only$", " only", bare)  # "Wide mat only"
    for words in (bare, inner_words(bare), inner_words(called)):
        chosen = split_names(words, by_name)
        if chosen and all(name.lower() in by_name for name in chosen):
            return tuple(sorted({by_name[name.lower()] for name in chosen}))
    return _by_place(bare, len(names))


_PLACED = re.compile(
    r"^(?:for\s+)?(?:the\s+)?(?:(?P<count>two|three|four|2|3|4)\s+)?(?:(?P<last>larger|"
    r"largest|bigger|biggest|last)|(?P<first>smaller|smallest|first))"
    r"(?:\s+(?P<more>two|three|four|2|3|4))?\s+(?:sizes?|bags?|versions?)(?:\s+only)?$",
    re.IGNORECASE,
)
_EXCEPT = re.compile(
    r"^(?:for\s+)?all\s+(?:sizes\s+)?(?:but|except|except for|apart from)\s+(?:the\s+)?(?P<which>smallest|"
    r"first|largest|last)(?:\s+size)?(?:\s+only)?$",
    re.IGNORECASE,
)
_COUNTS = {"two": 2, "three": 3, "four": 4}


def _by_place(bare: str, sizes: int) -> tuple[int, ...] | None:
    """ "Larger size only", "two largest sizes", "all sizes except the smallest": by their place among the others."""
    match = _EXCEPT.match(bare)
    if match is not None:
        return tuple(range(1, sizes)) if match["which"].lower() in ("smallest", "first") else tuple(range(sizes - 1))
    match = _PLACED.match(bare)
    if match is None:
        return None
    said = (match["count"] or match["more"] or "").lower()
    count = _COUNTS.get(said, 0) or int(said or 1)
    several = match["last"] or match["first"]
    compared = several.lower() in ("larger", "bigger", "smaller")
    if count >= sizes or (compared and not said and sizes != 2):
        return None
    return tuple(range(sizes - count, sizes)) if match["last"] else tuple(range(count))


def inner_words(bare: str) -> str:
    """Without "size", "for", "only" around the names."""
    return _AFTER.sub("", _BEFORE.sub("", bare) + " ").strip()


def is_size_line(text: str) -> bool:
    """Does a line say of itself that it names sizes ("Size XL only:"), known or not?"""
    key, colon, value = text.partition(":")
    return bool(colon) and not value.strip() and key.strip().lower().split(" ")[0] in ("size", "sizes", "all", "both")


def read_size_line(key: str, number: int, names: tuple[str, ...]) -> tuple[tuple[int, ...], list[Finding]]:
    """The sizes of "Sizes M and L only"; a name that is none is a finding. No sizes when no name is known."""
    by_name = {name.lower(): i for i, name in enumerate(names)}
    whole = re.fullmatch(r"(?:for\s+)?sizes?\s+(.+?)(?:\s+only)?", key.strip(), re.IGNORECASE)
    if whole is not None and whole[1].lower() in by_name:
        return (by_name[whole[1].lower()],), []  # "Size One size only"
    known = sizes_named(key.strip().strip("()[]"), names)
    if known is not None:
        return known, []
    findings: list[Finding] = []
    chosen: set[int] = set()
    for name in split_names(inner_words(key.strip()), by_name):
        if name.lower() in by_name:
            chosen.add(by_name[name.lower()])
            continue
        at = key.find(name) + 1
        near = difflib.get_close_matches(name, names, 1)
        hint = f" Did you mean “{near[0]}”?" if near else f" The sizes are {', '.join(names)}."
        message = f"There is no size “{name}”.{hint}"
        findings.append(Finding("size-not-defined", "error", Span(number, at, at + len(name)), message))
    return tuple(sorted(chosen)), findings


_ALL_THEN = re.compile(r"^\W*(?:for\s+)?(?:all|both)\s+(?:the\s+)?sizes\s*[,:–—-]\s*(?=[A-Za-z])", re.IGNORECASE)


def all_sizes_then(text: str) -> int:
    """Where the rest begins of "All sizes, sides: joined rounds from here."; 0 for any other line."""
    match = _ALL_THEN.match(text)
    return match.end() if match is not None else 0


MOST_OF_STOP = 160
_STOPS = re.compile(
    r"^stop here for (?P<names>.+?)(?:[,;.]\s*[^,;.]+?\s+(?:go|goes|continue|continues|carry|keep)\b.*)?\s*[.!]?\s*$",
    re.IGNORECASE,
)
_NAMES_STOP = re.compile(
    r"^(?:for )?(?P<names>[^:;.]{1,60}?) ?[:,;–—-]? (?:you )?"
    r"(?:(?:stop|end|finish)s?\s+(?:the\s+\w+\s+)?here\b"
    r"|(?:go|skip|jump|move|proceed)s?\s+(?:straight\s+|on\s+|ahead\s+)?to\s+(?:the\s+)?[A-Za-z]+\s*[.!]?$)",
    re.IGNORECASE,
)


def stops_here(text: str, names: tuple[str, ...]) -> tuple[int, ...] | None:
    """ "Stop here for Small; the others go on.", "Size S: stop here, go to Body.", "S: go to Sides.": the sizes for
    which a piece is done."""
    bare = " ".join(text.split())  # a line may be padded with any number of spaces
    if len(names) < 2 or len(bare) > MOST_OF_STOP or not re.search(r" (?:here|to)\b", bare, re.IGNORECASE):
        return None
    match = _STOPS.match(bare) or _NAMES_STOP.match(bare)
    return sizes_named(match["names"], names) if match is not None else None


def limited(text: str, names: tuple[str, ...]) -> Limited | None:
    """A row that says for which sizes it holds: before its label, within it, or by a dash for a number. None for any
    other line."""
    if len(names) < 2:
        return None
    said = _said_with_label(text, names)
    dashed = _dashed(said.text if said is not None else text, len(names))
    if said is None or dashed is None:
        return said or dashed
    return Limited(dashed.text, tuple(sorted(set(said.sizes) & set(dashed.sizes))) or said.sizes)


# "8. (M, L) (1 sc, 2 sc in next st) 6 times", "Rnd 8 (L) sc around": no colon tells the label.
_BEHIND = re.compile(
    r"^\s*(?:(?:rn?ds?|rounds?|rows?|r)\.?\s{0,2})?\d{1,3}[.)]?\s{0,2}(?P<said>[(\[](?P<names>[^()\[\]:]{1,60})[)\]])"
    r"\s{0,3}(?=\S)",
    re.IGNORECASE,
)


def _said_with_label(text: str, names: tuple[str, ...]) -> Limited | None:
    prefix = _PREFIX.match(text)
    if prefix is not None:
        chosen = sizes_named(prefix["names"], names)
        return None if chosen is None else Limited(" " * prefix.end() + text[prefix.end() :], chosen)
    behind = _BEHIND.match(text)
    if behind is not None and re.search(r"[A-Za-z]", behind["names"]):
        chosen = sizes_named(behind["names"], names)
        if chosen is not None and not _ALL.match(behind["names"].strip()):
            start, end = behind.span("said")
            return Limited(text[:start] + " " * (end - start) + text[end:], chosen)
    within = _WITHIN.match(text)
    if within is not None:
        said = within["names"] or within["bare"]
        # "Rnd 3 (2):" is a set, even where a size is called 2.
        chosen = sizes_named(said, names) if re.search(r"[A-Za-z]", said) else None
        if chosen is not None:
            start, end = within.start("said"), within.end("said")
            return Limited(text[:start] + " " * (end - start) + text[end:], chosen)
    return None


def _dashed(text: str, n_sizes: int) -> Limited | None:
    """ "- (56, 64) sts": no number for the first size, so the row is not worked in it. Dashes become noughts, which
    are read for no size."""
    holds = set(range(n_sizes))
    pieces: list[str] = []
    at = 0
    for match in _DASHED.finditer(text):
        members = re.findall(r"\d+|[-–—]{1,2}", match[0])
        if len(members) != n_sizes or all(m.isdigit() for m in members) or not any(m.isdigit() for m in members):
            continue
        holds &= {i for i, member in enumerate(members) if member.isdigit()}
        pieces += [text[at : match.start()], re.sub(r"[-–—]", "0", match[0])]
        at = match.end()
    if not pieces or not holds:
        return None
    return Limited("".join(pieces) + text[at:], tuple(sorted(holds)))


MOST_OF_NAMES = 40


def names_sizes(text: str, sizes: tuple[str, ...]) -> bool:
    """ "Medium and Large only:", "(Large only)", "M and L", "All sizes:": a line of its own that names sizes and
    nothing else."""
    bare = text.strip().strip("()[]*_").strip()
    lowered = bare.lower()
    marked = bare.endswith(":") or lowered.rstrip(".").endswith((" only", "all sizes", "both sizes"))
    marked = marked or lowered.startswith(("size ", "sizes ", "for size ", "for sizes "))
    marked = marked or (len(bare) <= MOST_OF_NAMES and not _ALL.match(bare) and re.search("[A-Za-z]", bare) is not None)
    return len(sizes) > 1 and marked and sizes_named(bare.rstrip("."), sizes) is not None
