"""The gauge lines of a text: that of plain stitches put in or rewritten, and those of some sizes ("Gauge (L): ...")."""

import re
from collections.abc import Mapping, Sequence

from rillstep.core.craft import Terms, abbreviation
from rillstep.core.gauge import HOOK_MM
from rillstep.core.lengths import GAUGE_SPAN, Units
from rillstep.core.settling import read
from rillstep.core.words.gauges import own_gauge

_GAUGE = re.compile(r"^\s*gauge\s*:", re.IGNORECASE)
_OF_SIZES = re.compile(r"^\s*(?:gauge|tension)\s*(?:\(([^()]+)\))?\s*:\s*(.*?)\s*$", re.IGNORECASE)
_HOOK = re.compile(r"^\s*hook\s*:", re.IGNORECASE)
_HEAD = re.compile(r"^\s*(?:pattern|terms|units|sizes?)\s*:", re.IGNORECASE)


def with_gauge(text: str, stitch: str, sts: float, rows: float, units: Units) -> str:
    """The text with this gauge over 10 cm or 4 in; the gauge of a stitch pattern or of a chain stays."""
    pattern = read(text).pattern
    terms: Terms = pattern.terms
    span = GAUGE_SPAN[units]
    line = f"Gauge: {abbreviation(stitch, terms)} {sts:g} sts x {rows:g} rows = {span} {units}"
    lines = text.split("\n")
    if pattern.gauges:
        for at, raw in enumerate(lines):
            if _GAUGE.match(raw):
                without = read("\n".join([*lines[:at], *lines[at + 1 :]])).pattern.gauges
                if without != pattern.gauges:  # the line that gives the gauge of plain stitches
                    return "\n".join([*lines[:at], line, *lines[at + 1 :]])
    return _in_head(lines, line)


def with_mesh_gauge(text: str, loops: float, rows: float, units: Units) -> str:
    """The text with the gauge of its mesh, counted by loops, behind that of its plain stitches."""
    line = f"Gauge: mesh {loops:g} loops x {rows:g} rows = {GAUGE_SPAN[units]} {units}"
    lines = text.split("\n")
    for at, raw in enumerate(lines):
        match = _OF_SIZES.match(raw)
        own = own_gauge(match[2]) if match is not None and not match[1] else None
        if own is not None and own.build == "mesh":
            return "\n".join([*lines[:at], line, *lines[at + 1 :]])
    last = max((at for at, raw in enumerate(lines) if _OF_SIZES.match(raw)), default=None)
    return _in_head(lines, line) if last is None else "\n".join([*lines[: last + 1], line, *lines[last + 1 :]])


def _in_head(lines: Sequence[str], line: str) -> str:
    """The text with a line behind those that name the pattern, its terms, units and sizes."""
    first = next((at for at, raw in enumerate(lines) if re.match(r"\s*(?:section|rnd|round|row)\b", raw, re.I)), 0)
    head = max((at + 1 for at, raw in enumerate(lines[:first]) if _HEAD.match(raw)), default=0)
    return "\n".join([*lines[:head], line, *lines[head:]])


def with_hook(text: str, hook_mm: float) -> str:
    """The text with this hook: what its `Hook:` line says in mm is replaced, or such a line is put in."""
    lines = text.split("\n")
    for at, raw in enumerate(lines):
        if _HOOK.match(raw):
            number = HOOK_MM.search(raw)
            if number is None:
                return "\n".join([*lines[:at], f"Hook: {hook_mm:g} mm", *lines[at + 1 :]])
            # Its letter is that of the hook before.
            rest = re.sub(r"\s*\((?:US|UK)?\s*[A-Z0-9/.-]+\)", "", raw[number.end(1) :])
            return "\n".join([*lines[:at], f"{raw[: number.start(1)]}{hook_mm:g}{rest}", *lines[at + 1 :]])
    return _in_head(lines, f"Hook: {hook_mm:g} mm")


def gauge_lines(text: str) -> tuple[str, ...]:
    """The gauge lines of a text, in order, those of stitch patterns and of some sizes too."""
    return tuple(raw.strip() for raw in text.split("\n") if _OF_SIZES.match(raw))


def gauges_in(text: str) -> tuple[str, ...]:
    """What the gauge lines of a text in one size say, in order."""
    return tuple(match[2] for raw in text.split("\n") if (match := _OF_SIZES.match(raw)) is not None)


def for_sizes(text: str, before: Sequence[str], sizes: Sequence[str], sources: Sequence[int]) -> str:
    """The text with its gauges of sizes under the names that the sizes have now; before: the names that they had. A
    text in one size has the gauges of that size, and no names."""
    lines = []
    own = any(_names(raw) & {before[sources[0]]} for raw in text.split("\n")) if len(sizes) == 1 else False
    for raw in text.split("\n"):
        match, names = _OF_SIZES.match(raw), _names(raw)
        if match is None or (not names and not own):
            lines.append(raw)
        elif len(sizes) == 1:
            if names & {before[sources[0]]}:
                lines.append(f"Gauge: {match[2]}")
        elif kept := [size for size, source in zip(sizes, sources, strict=True) if before[source] in names]:
            lines.append(raw if set(kept) == names else f"Gauge ({', '.join(kept)}): {match[2]}")
    return "\n".join(lines)


def _names(raw: str) -> set[str]:
    match = _OF_SIZES.match(raw)
    return {" ".join(name.split()) for name in match[1].split(",")} if match is not None and match[1] else set()


def with_size_gauges(text: str, gauges: Mapping[str, Sequence[str]]) -> str:
    """The text with the gauges of some sizes behind its own; sizes that share them stand in one line."""
    groups: dict[str, list[str]] = {}
    for size, own in gauges.items():
        for one in own:
            groups.setdefault(one, []).append(size)
    lines = text.split("\n")
    at = max((number for number, raw in enumerate(lines, start=1) if _OF_SIZES.match(raw)), default=0)
    return "\n".join([*lines[:at], *(f"Gauge ({', '.join(n)}): {one}" for one, n in groups.items()), *lines[at:]])


def in_gauge(text: str, gauges: Sequence[str]) -> str:
    """A text in one size with other gauges in place of its own."""
    lines = text.split("\n")
    first = next((at for at, raw in enumerate(lines) if _OF_SIZES.match(raw)), 0)
    rest = [raw for raw in lines[first:] if not _OF_SIZES.match(raw)]
    return "\n".join([*lines[:first], *(f"Gauge: {one}" for one in gauges), *rest])


def below_title(rows: Sequence[str]) -> int:
    """The line (from 0) before which lines of the head are put: below the name of the bag, where the text begins with
    it. A heading that instructions follow at once is that of a piece: a line between would take it from them."""
    first = next((at for at, raw in enumerate(rows) if raw.strip()), 0)
    name = read("\n".join(rows)).pattern.name
    return first + 1 if name and rows[first].strip() == name else first
