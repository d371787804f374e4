"""The head of a pattern: its name, terms, sizes, units, gauge, named numbers, and what is only kept."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

from rillstep.core.craft import Terms, is_post, stitch_words
from rillstep.core.findings import Finding, Span
from rillstep.core.gauge import Gauge, OwnGauge, chain_width_mm, gauge_from_counts
from rillstep.core.lengths import MM_PER, Units
from rillstep.core.notation.checks import read_check
from rillstep.core.notation.counted import stitch_named
from rillstep.core.notation.definitions import name_words, own_abbreviation, read_special, short_names
from rillstep.core.notation.name_lists import MADE_OF, defined_in, defines, explained
from rillstep.core.notation.phrases import MOST_PHRASES, abbreviation_of, read_phrase
from rillstep.core.tree import Check, Special
from rillstep.core.tree.features import stitches_worked
from rillstep.core.wordlists import word_list
from rillstep.core.words.gauges import own_gauge, sizes_of_gauge, usual_gauge
from rillstep.core.words.sizes import size_names
from rillstep.core.words.stream import Context, InBraces
from rillstep.core.words.tokens import Taught

# What published patterns call the same things.
ALIASES = {
    "size": "sizes", "tension": "gauge", "name": "pattern", "title": "pattern", "color": "colour", "colors": "colour",
    "colours": "colour", "notes": "note", "materials": "yarn", "terminology": "terms", "unit": "units",
    "abbreviations": "note", "stitch abbreviations": "note", "abbreviations used": "note", "us abbreviations": "note",
    "uk abbreviations": "note", "pattern notes": "note", "skill level": "note", "finished size": "note",
    "finished measurements": "note",
}  # fmt: skip
DEFINING = ("special stitches", "special stitch", "stitch guide", "special sts", "stitches used")
MAX_SIZES = 10

_GAUGE_REVERSED = re.compile(
    r"^\s*(?P<sts>\d{1,4}(?:\.\d{1,4})?)\s*(?:(?P<stitch>[a-z ]+?)\s*)?(?:sts?\s*)?(?:x|"
    r"×|and|by|,)\s*(?P<rows>\d{1,4}(?:\.\d{1,4})?)\s*"
    r"(?:rows?|rn?ds?|rounds?)\s*(?:=|to|over|in|per|make)\s*(?P<span>\d{1,4}(?:\.\d{1,4})?)\s*(?P<units>cm\b|"
    r"in(?:ch(?:es)?)?\b|\")(?:[^a-z]*(?:x[^a-z]*(?:cm|in)\b)?)?(?:\s*(?:in|over|of)\s+(?P<later>[a-z "
    r"]+))?",
    re.IGNORECASE,
)
_GAUGE = re.compile(
    r"^\s*(?P<stitch>[a-z ]+?)\s+(?P<sts>\d{1,4}(?:\.\d{1,4})?)\s*sts?\s*[x×]\s*(?P<rows>\d{1,4}(?:\.\d{1,4})?)\s*"
    r"(?:rows?|rnds?)\s*=\s*(?P<span>\d{1,4}(?:\.\d{1,4})?)\s*(?P<units>cm\b|in(?:ch(?:es)?)?\b|\")",
    re.IGNORECASE,
)
# "in waffle stitch": what the pattern is mostly worked in, by a name that needs not be known.
_OF_A_PATTERN = re.compile(r"\b(?:stitch|st|pattern|rib|ribbing|mesh|lace)$")
_NO_ROWS = re.compile(
    r"^\s*\d{1,4}(?:\.\d{1,4})?\s*[a-z ]+(?:=|to|over|in|per)\s*\d{1,4}(?:\.\d{1,4})?\s*(?:cm\b|"
    r"in(?:ch(?:es)?)?\b|\")\s*\.?$",
    re.IGNORECASE,
)


_WITH_HOOK = re.compile(r"\W{0,3}(?:with |using )?(?:a )?(\d{1,2}(?:\.\d{1,2})?)\s*-?\s*mm hook\W{0,3}", re.IGNORECASE)
MOST_OF_GAUGE = 200
MOST_OF_ROW = 1000


@dataclass
class Header:
    """Filled while the head is read; `parse` turns it into the frozen pattern."""

    name: str = ""
    terms: Terms = "US"
    terms_known: bool = False  # said beside the text, so that a line in it changes nothing
    sizes: tuple[str, ...] = ("One size",)
    sizes_given: bool = False  # by a "Sizes:" line
    told_sizes: tuple[str, ...] = ()  # all that were found when the whole text was looked through for them
    units: Units = "cm"
    gauges: list[Gauge] = field(default_factory=list)
    own_gauges: list[OwnGauge] = field(default_factory=list)
    unnamed_gauge: bool = False  # the first one is in the stitch that the pattern is mostly worked in
    finished: Check | None = None
    specials: list[Special] = field(default_factory=list)
    special_words: list[tuple[str, tuple[str, ...]]] = field(default_factory=list)
    renamed: list[tuple[str, tuple[str, ...]]] = field(default_factory=list)  # own abbreviations, and what for
    phrases: list[Taught] = field(default_factory=list)
    extra: list[tuple[str, str]] = field(default_factory=list)


def read(head: Header, key: str, value: str, line: int, column: int, findings: list[Finding]) -> None:
    """Take one header line into `head`; `column` is where its value starts."""
    span = Span(line, column + 1, column + 1 + max(1, len(value)))
    text = value.strip()
    match key:
        case "pattern":
            head.name = text
        case "terms":
            _read_terms(head, text, span, findings)
        case "sizes":
            _read_sizes(head, text, span, findings)
        case "units":
            if text.lower() in ("cm", "in", "inch", "inches"):
                head.units = "cm" if text.lower() == "cm" else "in"
            else:
                findings.append(Finding("units-unknown", "error", span, f"Units are cm or in, not “{text}”."))
        case "gauge":
            _read_gauge(head, text, span, findings)
        case "number":
            if "=" not in value:
                message = "A number is named like this: “wall = 9 (12, 15)”."
                findings.append(Finding("number-form", "error", span, message))
        case "finished":
            n = len(head.sizes)
            context = Context(n, tuple(range(n)), head.terms)
            head.finished, problems = read_check(" " * (column) + value, line, context, column)
            findings.extend(problems)
        case "means":
            _read_phrase(head, value, span, findings)
        case "define":
            define(head, value, line, column, findings)
        case _:
            head.extra.append((key.capitalize(), text))


_TERMS_TOLD = re.compile(
    r"\b(US|U\.S\.|American|UK|U\.K\.|British)\b[^.]*\b(?:terms?|terminology)\b|\((?=(?:US|UK)\))(?P<title>US|UK)\)",
    re.IGNORECASE,
)


_IN_TERMS = re.compile(r"\s*\((?:US|UK)(?:\s+terms)?\)", re.IGNORECASE)


def told(head: Header, text: str) -> None:
    """A line before the first row that is no instruction: the name, where none is given yet, or a note; it may tell
    the terms."""
    terms = _TERMS_TOLD.search(text)
    if terms is not None and not head.terms_known:
        head.terms = "US" if (terms[1] or terms["title"]).upper().startswith(("US", "U.S", "AM")) else "UK"
    if not head.name and len(text) <= 60 and not text.endswith((".", "!", ":")):
        head.name = _IN_TERMS.sub("", text.strip("*_# "))  # it may be printed in other terms
    else:
        head.extra.append(("Note", text))


_IN_A_ROW = re.compile(r"\((?:in\s)?(US|UK|American|British)\s(?:terms|terminology)\)", re.IGNORECASE)


def told_by_a_row(head: Header, raws: Sequence[str]) -> None:
    """The terms, where only a row tells them: "Round 1: 6 dc into ring (UK terms)."."""
    match = next(
        (found for raw in raws if " term" in raw.lower() and (found := _IN_A_ROW.search(raw[:MOST_OF_ROW]))), None
    )
    if match is not None and not head.terms_known:
        head.terms = "US" if match[1].upper() in ("US", "AMERICAN") else "UK"


def context_of(
    head: Header, active: tuple[int, ...], kind: Literal["Rnd", "Row"] = "Rnd", braces: tuple[InBraces, ...] = ()
) -> Context:
    """What the lines of the body need to know of the head."""
    return Context(
        len(head.sizes),
        active,
        head.terms,
        tuple(head.special_words),
        kind,
        head.sizes,
        tuple(head.renamed),
        phrases=tuple(head.phrases),
        braces=braces,
        chain_mm=_chain_mm(head),
    )


def _chain_mm(head: Header) -> float | None:
    """How long a chain is in every size, in mm; None where that is not known, or where it differs."""
    if any(gauge.sizes for gauge in head.gauges):
        return None
    return (chain_width_mm(head.gauges, head.own_gauges) or (None,))[0]


def define(head: Header, value: str, line: int, column: int, findings: list[Finding]) -> None:
    """ "scallop = 5 dc in same st": a stitch of the pattern's own."""
    sign = next((s for s in ("=", ":", " - ", " – ", " — ") if s in value), "")
    name = value.partition(sign)[0] if sign else value
    span = Span(line, column + 1, column + 1 + max(1, len(value)))
    words = name_words(name)
    if not sign or not words:
        findings.append(
            Finding("define-form", "error", span, "A stitch is defined like this: “scallop = 5 dc in same st”.")
        )
        return
    plain = stitch_words(head.terms).get(" ".join(words))
    if plain is not None and is_post(plain):
        head.extra.append(("Note", " ".join(value.split())))  # "FPtr: front post treble" only says what it is short for
        return
    start = column + len(name) + len(sign)
    if (short_for := own_abbreviation(name, value.partition(sign)[2], head.terms)) is not None:
        head.renamed.append((name.strip(), short_for))
        return
    context = context_of(head, tuple(range(len(head.sizes))))
    special, problems = read_special(" ".join(name.split()), " " * column + value, line, start, context)
    findings.extend(problems)
    if special.name.lower() in (stitch.lower() for stitch in stitches_worked(special.steps)):
        message = f"“{special.name}” is told by itself here: a stitch of your own needs another name."
        findings.append(Finding("define-form", "error", span, message))
        return
    head.specials.append(special)
    head.special_words.append((special.name, words))
    head.special_words += [(special.name, short) for short in short_names(name) if short != words]
    head.special_words.sort(key=lambda item: -len(item[1]))


# Means: "sp dc" = a stitch; = a stitch: 2 sc in same st.
_A_STITCH = re.compile(r"a stitch(?:\s*:\s*(?P<made>.+))?$", re.IGNORECASE)


def _read_phrase(head: Header, value: str, span: Span, findings: list[Finding]) -> None:
    own = tuple(part for _, parts in head.special_words for part in parts)
    phrase = read_phrase(value, span, head.terms, own)
    if isinstance(phrase, Taught) and (stitch := _A_STITCH.match(phrase.meaning)) is not None:
        made = stitch["made"] or "a stitch"
        define(head, f"{phrase.written} = {made}", span.line, span.column - 1, findings)
        return
    if isinstance(phrase, Finding):
        findings.append(phrase)
    elif any(one.words == phrase.words for one in head.phrases):
        findings.append(
            Finding("phrase-twice", "error", span, f"“{phrase.written}” is taught twice; the first meaning holds.")
        )
    elif len(head.phrases) < MOST_PHRASES:
        head.phrases.append(phrase)
    else:
        message = f"At most {MOST_PHRASES} phrases are taught in one text; this one is not used."
        findings.append(Finding("phrase-form", "error", span, message))


def _read_terms(head: Header, text: str, span: Span, findings: list[Finding]) -> None:
    word = text.upper().replace(".", "").split(" ")[0]
    said: Terms | None = "US" if word in ("US", "USA", "AMERICAN") else "UK" if word in ("UK", "BRITISH") else None
    if said is not None:
        head.terms = head.terms if head.terms_known else said
    else:
        findings.append(Finding("terms-unknown", "error", span, f"Terms are US or UK, not “{text}”."))


def _read_sizes(head: Header, text: str, span: Span, findings: list[Finding]) -> None:
    if head.sizes_given:
        findings.append(
            Finding("size-twice", "error", span, "The sizes are named once, in the head; this line is not used.")
        )
        return
    head.sizes_given = True
    names = head.told_sizes or size_names(text)
    if not names or len(names) > MAX_SIZES:
        message = f"A pattern has 1 to {MAX_SIZES} sizes; {len(names)} are named here."
        findings.append(Finding("sizes-count", "error", span, message, expected=MAX_SIZES, found=len(names)))
    if len({name.lower() for name in names}) < len(names):
        findings.append(Finding("size-twice", "error", span, "Two sizes have the same name."))
    head.sizes = names[:MAX_SIZES] or head.sizes
    keep_measures(head, f"{'Sizes' if len(head.sizes) > 1 else 'Size'}: {text}")


_WORD = re.compile(r"\d+(?:\.\d+)?|[a-z]{3,}")
_OF_SIZES = frozenset(
    word_list(
        "size sizes the with and for pattern written this are given numbers number one two three four both "
        "other others only where shown follows instructions brackets parentheses title name"
    )
)


def keep_measures(head: Header, text: str) -> None:
    """Keep a line that names sizes as a note where it says more than their names, such as a measure."""
    held = {*_OF_SIZES, *(word for name in head.sizes for word in _WORD.findall(name.lower()))}
    if any(word not in held for word in _WORD.findall(text.lower())):
        head.extra.append(("Note", " ".join(text.split())))


def read_gauge_of_sizes(
    head: Header, sizes: Sequence[str], value: str, line: int, column: int, findings: list[Finding]
) -> None:
    """Takes a gauge that is for some sizes. One of a stitch pattern is for all."""
    plain, own = len(head.gauges), len(head.own_gauges)
    read(head, "gauge", value, line, column, findings)
    if len(head.gauges) > plain:
        head.gauges[-1] = replace(head.gauges[-1], sizes=tuple(sizes))
    elif len(head.own_gauges) > own:
        del head.own_gauges[own:]
        message = "A gauge of a stitch pattern is for all sizes; that of a plain stitch may be for some."
        findings.append(Finding("gauge-form", "warning", Span(line, 1, column + len(value) + 1), message))
        head.extra.append(("Note", f"Gauge ({', '.join(sizes)}): {value.strip()}"))


def gauge_findings(head: Header, lines: Sequence[str]) -> list[Finding]:
    """Gauges for sizes that are none, and sizes that no gauge is for."""
    told = [name for gauge in head.gauges for name in gauge.sizes]
    if not told:
        return []
    at = next((n for n, raw in enumerate(lines, start=1) if sizes_of_gauge(raw.partition(":")[0])), 1)
    span = Span(at, 1, len(lines[at - 1]) + 1)
    unknown = [name for name in told if name not in head.sizes]
    if unknown:
        message = f"There is no size “{unknown[0]}”. The sizes are {', '.join(head.sizes)}."
        return [Finding("size-not-defined", "error", span, message)]
    without = [name for name in head.sizes if name not in told]
    if without and all(gauge.sizes for gauge in head.gauges):
        message = f"There is no gauge for {', '.join(without)}: write “Gauge:” for all other sizes, or one for each."
        return [Finding("gauge-missing", "error", span, message)]
    return []


def _read_gauge(head: Header, text: str, span: Span, findings: list[Finding]) -> None:
    text = usual_gauge(" ".join(text.split())[:MOST_OF_GAUGE])
    if (own := own_gauge(text)) is not None:
        head.own_gauges.append(own)
        return
    match = _GAUGE.match(text) or _GAUGE_REVERSED.match(text)
    groups = match.groupdict() if match else {}
    named = (groups.get("later") or groups.get("stitch") or "").strip().lower()
    unnamed = named in ("", "st", "sts", "stitches", "pattern", "the pattern", "pattern stitch", "stitch pattern")
    other: Terms = "UK" if head.terms == "US" else "US"  # the terms may be told only below
    known = _stitch_of(named, head.terms) or _stitch_of(named, other)
    unnamed = unnamed or (known is None and _OF_A_PATTERN.search(named) is not None)
    stitch = "sc" if unnamed else known
    if match is None and _NO_ROWS.match(text):
        message = (
            "This gauge gives no rows, so the sizes are not measured. It is written "
            "like this: “sc 20 sts x 22 rows = 10 cm”."
        )
        findings.append(Finding("gauge-rows", "warning", span, message))
        head.extra.append(("Note", f"Gauge: {text}"))
        return
    if match is None or stitch is None:
        message = (
            "This gauge is kept as words, and nothing is measured by it; it is measured "
            "when it is written like this: “sc 20 sts x 22 rows = 10 cm”."
        )
        findings.append(Finding("gauge-form", "warning", span, message))
        head.extra.append(("Note", f"Gauge: {text}"))
        return
    across, up, length = float(match["sts"]), float(match["rows"]), float(match["span"])
    if min(across, up, length) <= 0:
        findings.append(Finding("gauge-zero", "error", span, "Stitches, rows and length of a gauge are above zero."))
        return
    told = _WITH_HOOK.fullmatch(text[match.end() :])
    if told is None and len(text[match.end() :].strip(" .;,")) > 1:
        head.extra.append(("Note", f"Gauge: {text}"))  # it says more than stitches and rows
    unit: Units = "cm" if match["units"].lower() == "cm" else "in"
    head.unnamed_gauge = head.unnamed_gauge or (unnamed and not head.gauges)
    hook = f"{float(told[1]):g}" if told is not None else ""
    head.gauges.append(replace(gauge_from_counts(stitch, across, up, length * MM_PER[unit]), hook=hook))


def _stitch_of(named: str, terms: Terms) -> str | None:
    """A stitch by its short or its long name."""
    found = stitch_words(terms).get(named) or (stitch_named(named.split(), terms) if named else None)
    return None if found == "st" else found


_OPENS = re.compile(r"\s{0,8}(?:[A-Za-z]{1,20} )?(?:abbreviations|stitches|key)(?: used)?\s{0,3}:", re.IGNORECASE)


def take_definitions(head: Header, text: str, number: int, findings: list[Finding]) -> str:
    """A line of the head without what its list defines, which `head` takes: "sc: single crochet, V-st: (dc, ch 1, dc)
    in same st"."""
    opening = _OPENS.match(text)
    begin = opening.end() if opening is not None else 0
    rest, kept = begin, text[:begin]
    items = explained(text, begin)
    for name, meaning in items:
        if defines(name, meaning, len(items), head.terms) or MADE_OF.match(meaning) is not None:
            continue
        if (short := abbreviation_of(name, meaning, head.terms)) is not None:
            head.phrases.append(short)
    for first, last in defined_in(text, begin, head.terms):
        define(head, text[first:last], number, first, findings)
        kept, rest = kept + text[rest:first].rstrip(" ,;"), last
    return kept + text[rest:]
