"""What a text is asked for beside its gauge: the stitches that it is worked in, whether it is a mesh, and a sentence
that may be its gauge and is not read as one."""

import re
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

from rillstep.core.craft import BY_US, STITCHES, Terms, basic_of
from rillstep.core.fabric import SizeWork
from rillstep.core.lengths import GAUGE_SPAN, MM_PER, Units
from rillstep.core.tree import Again, Pattern, Row, Setup

_USUAL = ("sc", "hdc", "dc")
_NUMBER = r"(\d{1,3}(?:[.,]\d)?)"
_SAYS = re.compile(r"\b(?:gauge|tension)\b", re.IGNORECASE)
_ROWS = re.compile(rf"{_NUMBER}\s?(?:rows?|rnds?|rounds?)\b", re.IGNORECASE)
_SPAN = re.compile(rf"{_NUMBER}\s?-?(cm\b|in(?:ch(?:es)?)?\b|\")", re.IGNORECASE)
# A round is of a mesh that has so many chain spaces for each stitch.
_MESH = 0.5


@dataclass(frozen=True)
class GaugeSaid:
    """A line that may tell a gauge. line: its number; stitch: in US terms; sts, rows: over 10 cm or 4 in; None where it
    does not tell them."""

    line: int
    words: str
    stitch: str | None
    sts: float | None
    rows: float | None


def stitches_of(works: Sequence[SizeWork]) -> tuple[str, ...]:
    """The plain stitches that a text is mostly worked in, the most first, then the usual ones, in US terms."""
    counted: Counter[str] = Counter()
    for line in works[0].lines if works else ():
        main = basic_of(line.main_stitch) if line.main_stitch else ""
        if main in BY_US and main != "sl st":
            counted[main] += sum(counts.sts for counts in line.rounds)
    found = [stitch for stitch, _ in counted.most_common()]
    return tuple(dict.fromkeys([*found, *_USUAL]))


def is_mesh(works: Sequence[SizeWork]) -> bool:
    """Whether the first size is mostly a mesh, by the stitches and chains of its rounds."""
    net = plain = 0
    for counts in (counts for line in (works[0].lines if works else ()) for counts in line.rounds):
        chains = sum(length * many for length, many in counts.spaces)
        if sum(many for _, many in counts.spaces) >= _MESH * max(counts.sts, 1):
            net += counts.sts + chains
        else:
            plain += counts.sts + chains
    return net > plain


def gauge_said(text: str, pattern: Pattern, units: Units) -> GaugeSaid | None:
    """The first line of the head that may tell the gauge of a text that has none; None where there is no such line."""
    if pattern.gauges:
        return None
    worked = [line.span.line for _, line in pattern.lines() if isinstance(line, Row | Again | Setup)]
    for number, raw in enumerate(text.split("\n")[: min(worked, default=1) - 1], start=1):
        rows = _ROWS.search(raw)
        stitch, sts = _stitches(raw, pattern.terms)
        tells = sts is not None and rows is not None and _SPAN.search(raw) is not None
        if not tells and not (_SAYS.search(raw) and (sts is not None or rows is not None)):
            continue
        spans = {_mm(*one) for one in _SPAN.findall(raw)}
        spans = {spans.pop()} if len(spans) > 1 and max(spans) - min(spans) < 2 else spans  # 4" and 10 cm
        if len(spans) != 1:
            return GaugeSaid(number, raw.strip(), stitch, None, None)
        times = GAUGE_SPAN[units] * MM_PER[units] / spans.pop()
        return GaugeSaid(
            number,
            raw.strip(),
            stitch,
            None if sts is None else round(sts * times, 2),
            None if rows is None else round(_value(rows[1]) * times, 2),
        )
    return None


def _stitches(raw: str, terms: Terms) -> tuple[str | None, float | None]:
    """The stitch that a line names, in US terms, and how many it counts."""
    names = {
        **{(one.us if terms == "US" else one.uk): one.us for one in STITCHES},
        **{(one.us_name if terms == "US" else one.uk_name): one.us for one in STITCHES},
    }
    longest = sorted(names, key=len, reverse=True)
    named = re.search(rf"\b({'|'.join(map(re.escape, longest))})s?\b", raw, re.IGNORECASE)
    counted = re.search(
        rf"{_NUMBER}\s?(?:sts?\b|stitch(?:es)?\b|(?:{'|'.join(map(re.escape, longest))})s?\b)", raw, re.IGNORECASE
    )
    return (names[named[1].lower()] if named else None), (_value(counted[1]) if counted else None)


def _mm(number: str, unit: str) -> float:
    return _value(number) * MM_PER["cm" if unit.lower() == "cm" else "in"]


def _value(words: str) -> float:
    return float(words.replace(",", "."))
