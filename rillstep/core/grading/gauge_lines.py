"""The gauge of plain stitches put into a text: its first `Gauge:` line rewritten, or a new one in the head."""

import re

from rillstep.core.lengths import GAUGE_SPAN, Units
from rillstep.core.settling import read
from rillstep.core.stitches import Terms, abbreviation

_GAUGE = re.compile(r"^\s*gauge\s*:", re.IGNORECASE)
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
    first = next((at for at, raw in enumerate(lines) if re.match(r"\s*(?:section|rnd|round|row)\b", raw, re.I)), 0)
    head = max((at + 1 for at, raw in enumerate(lines[:first]) if _HEAD.match(raw)), default=0)
    return "\n".join([*lines[:head], line, *lines[head:]])
