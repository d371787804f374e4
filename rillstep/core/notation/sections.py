"""Section lines: "Section: Flap (rows, panel), continue from Wall, in free front loops of Rnd 6"; and bare headings."""

import difflib
import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from rillstep.core.clauses.labels import starts as starts_label
from rillstep.core.findings import Finding, Span
from rillstep.core.tree import ROLES, WORKED, Again, Along, Chain, Num, Row, Section, Setup
from rillstep.core.wordlists import word_list

_MAKE = re.compile(r"^make\s+(\d{1,3}(?:/\d{1,3})*|two|both)$")
_MAKE_WORDS = {"both": 2} | {
    word: n
    for n, word in enumerate(
        ["one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"], 1
    )
}
_MADE = re.compile(
    rf"(?:[(\[]\s{{0,3}})?(?:[,–—-]\s{{0,3}})?\bmake\s{{1,3}}(\d{{1,3}}(?:\s*[(\[]\s*\d{{1,3}}(?:\s*[,:;/|"
    rf"]\s*\d{{1,3}})*\s*[)\]]|(?:\s*[/|,]\s*\d{{1,3}})+|\b)|(?:{'|'.join(_MAKE_WORDS)})\b)[^)\]:]*[)\]]?",
    re.IGNORECASE,
)
_ON = re.compile(
    r"in (?:the )?(?:free |unworked |remaining )?(front|back) loops? (?:of|from) (?:the )?(rnd|round|row)\s+(\d{1,5})",
    re.IGNORECASE,
)
_ALONG = re.compile(
    r"^(?:,\s*)?(?:work(?:ed|ing)? )?(?:along|on) (?:the )?(?P<edge>foundation (?:chain|"
    r"ch|edge)|row ends|side|edge|last row|top) of (?P<title>.+)$",
    re.IGNORECASE,
)
# Words of a bare heading that say what the piece is.
_ROLE_WORDS = (
    ("strap", "strip"), ("handle", "strip"), ("tie", "strip"), ("cord", "strip"), ("band", "strip"),
    ("gusset", "strip"),
    ("base", "oval"), ("bottom", "oval"), ("flap", "panel"), ("panel", "panel"), ("front", "panel"), ("back", "panel"),
    ("trim", "trim"), ("edging", "trim"), ("border", "trim"), ("square", "square"), ("motif", "square"),
    ("pocket", "panel"),
)  # fmt: skip
_ALSO_WORKED = {"round": "joined rounds", "rounds": "joined rounds", "spiral": "spiral rounds", "row": "rows",
                "flat": "rows",
                "joined": "joined rounds", "in the round": "joined rounds", "continuous rounds": "spiral rounds",
                "joined rounds, turned": "joined and turned rounds",
                "turned rounds": "joined and turned rounds"}  # fmt: skip

# A piece that begins so is worked on another one.
_JOINS = re.compile(
    r"^\s*(?:with (?:rs|ws|the right side|right side)[^,.]*,\s*)?(?:join|attach|rejoin|"
    r"using [^,.]{1,30}, join|with [^,.]{1,30}, join|(?:sk|skip|miss)\b[^.]{1,80}\b(?:re)?(?:join|"
    r"attach))\b",
    re.IGNORECASE,
)

# What a section declares of its sides.
_ALIKE: dict[str, Literal["mirrored", "halves"]] = {
    "mirrored": "mirrored", "symmetrical": "mirrored", "left and right alike": "mirrored", "halves": "halves",
    "front and back alike": "halves", "halves alike": "halves", "both halves alike": "halves",
}  # fmt: skip

# A section that would go on from the one before by its kind, and does not.
APART = (
    "from nothing", "new piece", "made apart", "worked apart", "worked separately", "made separately",
    "separate piece",
)  # fmt: skip


@dataclass(frozen=True)
class Heading:
    section: Section
    findings: tuple[Finding, ...] = ()


def read_section(value: str, span: Span, before: list[Section], n_sizes: int) -> Heading:
    """The line after "Section:"."""
    title, _, rest = value.strip().partition("(")
    inside, _, after = rest.partition(")")
    tail = after.strip(" ,.")
    if not rest:
        title, comma, tail = value.strip().partition(", continue from ")
        tail = "continue from " + tail if comma else ""
    findings: list[Finding] = []
    worked, role = None, None
    tail, make = _made_behind(tail, n_sizes)
    if not rest:
        title, made_alike = _made_behind(title, n_sizes)
        make = made_alike if make == (1,) else make
    alike: Literal["", "mirrored", "halves"] = ""
    for word in [word.strip().lower() for word in inside.split(",") if word.strip()]:
        made = _MAKE.match(word)
        if word in WORKED or word in _ALSO_WORKED:
            worked = _ALSO_WORKED.get(word, word)
        elif word in ROLES:
            role = word
        elif word in _ALIKE:
            alike = _ALIKE[word]
        elif made is not None:
            make = _made(made[1], n_sizes) or (1,)
        else:
            findings.append(_unknown_word(word, span))
    tail = re.sub(r"^continues(?: from)? ", "continue from ", tail, flags=re.IGNORECASE)
    apart = tail.lower() in APART
    tail = "" if apart else tail
    elsewhere = tail.lower() == "on a piece of another part"
    tail = "" if elsewhere else tail
    titles = {section.title.lower(): section.title for section in before}
    continues, on, problem = _continues(tail, titles, span, n_sizes)
    if problem is not None:
        findings.append(problem)
    elif tail and continues is None and on is None:
        findings.append(_unknown_word(tail, span))
    role = role or "wall"
    if elsewhere:
        on = Along("elsewhere")
    elif continues is None and problem is None and not apart:
        continues = usually_continues(role, before)
    section = Section(title.strip(), worked or _usual_way(role), role, (), continues, on, make, alike, span)
    return Heading(section, tuple(findings))


_MADE_BEHIND = re.compile(
    r"(?:^|\s*,)\s*make\s+(\d{1,3}(?:\s*\(\s*\d{1,3}(?:\s*,\s*\d{1,3})*\s*\)|(?:/\d{1,3})+)?|two|both)\s*$",
    re.IGNORECASE,
)


def _made_behind(words: str, n_sizes: int) -> tuple[str, tuple[int, ...]]:
    """Words of a heading without "make 12 (20, 36)" at their end, and how many are made."""
    match = _MADE_BEHIND.search(words)
    made = _made(match[1], n_sizes) if match is not None else None
    return (words[: match.start()], made) if match is not None and made is not None else (words, (1,))


def worked_as_told(section: Section, value: str, following: Sequence[str]) -> Section:
    """A section of which nothing is told but its title, worked as its first row says; following: the lines after it."""
    if "(" in value or (section.continues is not None and "continue" in value.lower()):
        return section
    ends = (at for at, raw in enumerate(following) if raw.lower().lstrip().startswith("section:"))
    lines = following[: next(ends, len(following))]
    label = next((label for raw in lines if (label := starts_label(raw)) is not None), None)
    if label is None or not label["word"].lower().startswith("row"):
        return section
    role = next((role for word, role in _ROLE_WORDS if word in section.title.lower()), "panel")
    role = role if _usual_way(role) == "rows" else "panel"
    return replace(section, worked="rows", role=role, continues=None)


def _last_piece(before: list[Section]) -> str | None:
    """The piece that a heading without a foundation of its own goes on with: not a cord or another thing made apart
    in between."""
    worked = [s for s in reversed(before) if s.make == (1,) and any(isinstance(line, Row | Again) for line in s.lines)]
    bodies = [s for s in worked if s.role != "strip"]
    return next((s.title for s in [*bodies, *worked, *before[-1:]]), None) or None


def _counted_on(before: list[Section], following: str) -> str | None:
    """The section just before, whatever it is, where the rows are counted on from it: "Rnd 21" after its Rnd 20."""
    label = starts_label(following)
    last = (
        next((line for line in reversed(before[-1].lines) if isinstance(line, Row | Again)), None) if before else None
    )
    number = re.match(r"\s*(\d{1,4})", following[label.end() :]) if label is not None else None
    if last is None or number is None or (first := min(last.sizes)) != 0 or int(number[1]) < 3:
        return None
    return before[-1].title if int(number[1]) == (last.last or last.first).at(first) + 1 else None


def usually_continues(role: str, before: list[Section]) -> str | None:
    """The section that a wall or a trim goes on from where nothing is said: the base or wall before it."""
    goes_on = role in ("wall", "trim") and before and before[-1].role in ("disc", "oval", "wall")
    return before[-1].title if goes_on else None


def _usual_way(role: str) -> str:
    return "rows" if role in ("panel", "strip", "fan", "trim") else "joined rounds"


def _unknown_word(word: str, span: Span) -> Finding:
    near = difflib.get_close_matches(word, [*WORKED, *ROLES], 1)
    hint = (
        f" Did you mean “{near[0]}”?"
        if near
        else f" Known are: {', '.join([*WORKED, *ROLES])}, mirrored, halves alike, make 2."
    )
    message = f"“{word}” does not say how a section is worked, nor what it is.{hint}"
    return Finding("section-kind", "error", span, message)


def _continues(
    tail: str, titles: dict[str, str], span: Span, n_sizes: int
) -> tuple[str | None, Along | None, Finding | None]:
    along = _ALONG.match(tail)
    if along is not None:
        title = along["title"].strip(" .")
        edge = along["edge"].lower()
        on = (
            Along("foundation" if edge.startswith("foundation") else "row ends")
            if not edge.startswith(("last", "top"))
            else None
        )
        if title.lower() in titles:
            return titles[title.lower()], on, None
        return None, None, _not_found(title, span)
    if not tail.lower().startswith("continue from "):
        return None, None, None
    rest = tail[len("continue from ") :]
    title, _, more = rest.partition(",")
    for known in sorted(titles, key=len, reverse=True):  # a title may hold a comma itself
        if rest.lower() == known or rest.lower().startswith(f"{known},"):
            title, more = known, rest[len(known) + 1 :]
            break
    loops = _ON.search(more)
    on = None
    if loops is not None:
        kind = "Row" if loops[2].lower() == "row" else "Rnd"
        on = Along("free loops", loops[1].lower(), kind, Num((int(loops[3]),) * n_sizes))  # type: ignore[arg-type]
    elif "foundation" in more:
        on = Along("foundation")
    elif "joined pieces" in more:
        on = Along("joined pieces")
    elif "side by side" in more:
        on = Along("side by side")
    elif "row ends" in more or "side" in more:
        on = Along("row ends")
    if title.strip().lower() not in titles:
        return None, None, _not_found(title.strip(), span)
    return titles[title.strip().lower()], on, None


def _not_found(title: str, span: Span) -> Finding:
    message = f"There is no section “{title}” before this one to continue from."
    return Finding("section-not-found", "error", span, message)


def is_heading(text: str, following: str | None) -> bool:
    """A short line of its own before a row or a set-up line, in capitals or with a colon: a heading without
    "Section:"."""
    bare = text.strip().strip("*_#[]~=-").strip()
    bare = re.sub(r"\s*\([^()]*\)\s*:?$", lambda m: ":" if m[0].endswith(":") else "", bare)  # "Hexagon (make 7)"
    bare = _MADE.sub("", bare).strip()  # "Circles - make two"
    if bare.lower().rstrip(":") in ("size", "sizes"):
        return False
    if not bare or len(bare) > 48 or starts_label(bare) or following is None or bare.endswith((",", ";")):
        return False
    if bare.endswith("."):  # "Bottom."
        bare = bare[:-1]
        if len(bare.split()) > 2 or not any(word in bare.lower() for word, _ in _ROLE_WORDS):
            return False
    letters = [c for c in bare if c.isalpha()]
    if (
        not letters
        or not bare[0].isalpha()
        or re.match(
            r"(?:now|change|work|working|continue|then|next|begin|using|repeat|with|in (?:a|an|your)|into)\b",
            bare,
            re.IGNORECASE,
        )
    ):
        return False
    role = any(
        word in bare.lower()
        for word in (*(word for word, _ in _ROLE_WORDS), "piece", "body", "wall", "bag", "side", "top", "round", "body")
    )
    plain = role and bare[0].isupper() and len(bare.split()) <= 4
    plain = plain or re.fullmatch(r"(?:First|Second|Third|Left|Right|Other) [a-z]+(?: [a-z]+)?", bare) is not None
    shaped = (
        bare.endswith(":") or bare.upper() == bare or text.strip().startswith(("**", "[")) or bare.istitle() or plain
    )
    return shaped and len(bare.split()) <= 6


def part_title(text: str) -> str:
    """The title that a line of words gives to the rows after it: what stands before its colon, or a few words without
    a full stop; "" for talk."""
    title, colon, _ = text.strip().partition(":")
    if not colon:
        title = "" if text.rstrip().endswith((".", ",", ";", "!")) else text
    if text.rstrip().endswith(":") and len(title.split()) > 6:
        title = re.split(r"[.,;]\s*", title)[-1]  # "Sk 23 sts, join yarn in next st, make second strap end:"
    title = title.strip("*_#[] ")
    return title if 0 < len(title.split()) <= 6 and len(title) <= 48 and title[0].isalpha() else ""


_JOINS_TO = re.compile(
    r"\b(?:re)?(?:join|attach)\b[^.;]{0,60}?\b(?:to|in|at|into)\b[^.;]{0,40}?\b(?:of|on|"
    r"along)\s+(?:the\s+)?(?P<piece>[A-Za-z][\w ]{1,40})",
    re.IGNORECASE,
)


def piece_joined(text: str, before: Sequence[Section]) -> str | None:
    """The piece that a yarn is joined to: "rejoin yarn to top right corner of Back"; None where none is named."""
    match = _JOINS_TO.search(text)
    names = _names_of(before) if match is not None else {}
    for name in sorted(names, key=len, reverse=True):
        if match is not None and re.match(rf"{re.escape(name)}\b", match["piece"], re.IGNORECASE):
            return names[name]
    return None


def _names_of(sections: Sequence[Section]) -> dict[str, str]:
    """What pieces are called, and parts of a title that names several ("Front and back"), with their titles."""
    return {
        part.strip().lower(): section.title
        for section in sections
        for part in [section.title, *re.split(r"\s+and\s+|\s*[&/+]\s*", section.title)]
        if part.strip()
    }


def piece_named(words: Sequence[str], before: Sequence[Section]) -> str | None:
    """The piece of which words say that it faces the maker: "with the front facing you"; one of "Front and back"
    too."""
    names = _names_of(before)
    for name in sorted(names, key=len, reverse=True):
        shape = rf"\b(?:with|holding|hold)\b[^.;]{{0,30}}\b{re.escape(name)}\b[^.;]{{0,20}}\b(?:facing|towards? you)\b"
        if any(re.search(shape, text, re.IGNORECASE) for text in words):
            return names[name]
    return None


def read_heading(text: str, span: Span, before: list[Section], following: str, n_sizes: int = 1) -> Section:
    """A bare heading as a section: how it is worked is taken from the first label after it."""
    bare = text.strip().strip("*_#[]~=-").strip().rstrip(":.").strip()
    if re.fullmatch(r"(?:\w )+\w", bare):
        bare = bare.replace(" ", "").capitalize()  # "B A S E"
    made = _MADE.search(bare)
    make = (_made(made[1], n_sizes) if made else None) or (1,)
    made = made if made is not None and _made(made[1], n_sizes) else None  # what cannot be read stays in the title
    title = f"{bare[: made.start()].rstrip()} {bare[made.end() :].lstrip()}".strip() if made else bare
    title = _IN_COLOUR.sub("", title).strip(" ,-–—") if colour_of(text) else title.strip(" ,-–—")
    dashed = re.search(
        r"\s[-–—]\s(?=[^-–—]*(?:rounds?|rnds?|rows?|spiral|flat|worked)\b[^-–—]*$)", title, re.IGNORECASE
    )
    if dashed is not None:
        title = title[: dashed.start()]  # "Wall - joined rounds"
    told = re.search(r"\(([^()]*)\)$", title)
    if told is not None and re.search(r"spiral|rounds?|rows?|flat|work", told[1], re.IGNORECASE):
        title = title[: told.start()].strip()  # "Base (worked in a spiral)"
    title = re.sub(r"\s*\([^()]*\)", "", title).strip(" ()") or title.strip("()")  # "Base (A)"
    label = starts_label(following)
    rows = label is not None and (
        label["word"].lower().startswith("row")
        or (
            label["word"].lower() in ("", "r")
            and re.search(r"\b(?:turn|across)\b", following, re.IGNORECASE) is not None
        )
    )
    role = next((role for word, role in _ROLE_WORDS if word in title.lower()), "wall")
    if role == "oval" and rows:
        role = "panel"  # a base of rows is a rectangle
    if role == "oval" and re.search(r"\bring\b|\bch 2\b.*2nd ch from hook", following, re.IGNORECASE):
        role = "disc"
    works_on = _JOINS.match(following) or _WORKS_ON.search(title)
    anew = (label is None and not works_on) or re.search(
        r"\bfrom (?:the |your )?hook\b|\b(?:in|into|a|magic|adjustable) (?:the |a )?ring\b|"
        r"\bmr\b|\bmagic\b|\bf(?:sc|hdc|dc)\b|\bfoundation (?:sc|hdc|dc|single|half|"
        r"double)\b",
        following,
        re.IGNORECASE,
    )
    continues = (_counted_on(before, following) or _last_piece(before)) if not anew and make == (1,) else None
    if anew and make == (1,) and label is not None and before and _only_founded(before[-1]):
        continues = before[-1].title  # "Handle (make 2)", "Ch 9.", and then "First flat end" with its rows
    return Section(
        title, "rows" if rows else "joined rounds", role, (), continues, _on_many(continues, before), make, span=span
    )


def _only_founded(section: Section) -> bool:
    """Is a chain made in a section, and nothing worked on it yet?"""
    worked = [line for line in section.lines if isinstance(line, Row | Again | Setup)]
    made = [line for line in worked if isinstance(line, Setup) and not line.broken]
    return len(made) == len(worked) and any(isinstance(step, Chain) for line in made for step in line.steps)


# What a heading says of how its piece is worked, which the kind of the section says as well.
_WAY = frozenset(
    word_list(
        "make made worked work working in a as the spiral continuous joined joining rounds rnds rnd round row "
        "rows flat and of"
    )
)


_COLOUR = r"([A-F]|MC|CC\d?)\b"
# "(A)", "(in colour A)", ", colour A", "in A"; and within what says how many: "(make 2, in colour A)".
_IN_COLOUR = re.compile(
    rf"(?:\(\s*(?:in\s+)?(?:(?:colou?r|yarn)\s+)?{_COLOUR}\s*\)|[,–—-]\s*(?:in\s+)?(?:colou?r|yarn)\s+{_COLOUR}"
    rf"|\bin\s+(?:(?:colou?r|yarn)\s+)?{_COLOUR})\W*$"
)
_MADE_IN_COLOUR = re.compile(rf"\bmake\s+\w+\s*,?\s+in\s+(?:(?:colou?r|yarn)\s+)?{_COLOUR}")


def colour_of(text: str) -> str:
    """The colour that a heading names: the A of "BASE (A)", of "STRAP (make 2), colour A" or of "STRAP in A"; "" for
    none."""
    match = _IN_COLOUR.search(_MADE.sub("", text)) or _MADE_IN_COLOUR.search(text)
    return next((colour for colour in match.groups() if colour), "") if match is not None else ""


def says_more(text: str, section: Section) -> bool:
    """Does a heading hold a word or a number that its section does not: "Base (colour A)"?"""
    words = re.findall(r"[a-z]+|\d+", text.lower())
    held = {*re.findall(r"[a-z]+|\d+", section.title.lower()), *map(str, section.make), *_WAY, *_MAKE_WORDS}
    spaced = "".join(words) == "".join(section.title.lower().split())  # "B A S E"
    return not spaced and any(word not in held for word in words)


# A piece that is called so is worked on what was made before.
_WORKS_ON = re.compile(r"\b(?:join|joining|seam|seams|assembly|edging|border|finishing)\b", re.IGNORECASE)


def _made(words: str, n_sizes: int) -> tuple[int, ...] | None:
    """How many of a piece are made: one number, or one for each size; None when it is another number of them."""
    if words.lower() in _MAKE_WORDS:
        return (_MAKE_WORDS[words.lower()],)
    numbers = tuple(int(number) for number in re.findall(r"\d+", words))
    return numbers if len(numbers) in (1, n_sizes) and all(numbers) else None


def _on_many(continues: str | None, before: list[Section]) -> Along | None:
    """Goes on from a piece of which many are made: they are joined before."""
    piece = next((s for s in reversed(before) if s.title == continues), None)
    return Along("joined pieces") if piece is not None and max(piece.make) > 2 and piece.role == "square" else None
