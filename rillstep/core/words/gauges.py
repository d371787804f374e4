"""Gauges of stitch patterns and of a chain, as they are written: by loops, in one loop, around posts."""

import re

from rillstep.core.gauge import OwnGauge
from rillstep.core.lengths import MM_PER

_UNIT = r"(?P<span>\d{1,4}(?:\.\d{1,4})?)\s*(?P<units>cm\b|in(?:ch(?:es)?)?\b|\")\s*\.?\s*$"
_CHAIN = re.compile(
    r"^\s*(?:ch(?:s|ains?)?\s+(?P<a>\d{1,4}(?:\.\d{1,4})?)|(?P<b>\d{1,4}(?:\.\d{1,4})?)\s*ch(?:s|ains?)?)\s*"
    rf"(?:=|to|over|in)\s*{_UNIT}",
    re.IGNORECASE,
)
_OWN = re.compile(
    r"^\s*(?P<name>[a-z][a-z -]{1,30}?)\s+(?P<sts>\d{1,4}(?:\.\d{1,4})?)\s*"
    r"(?P<unit>loops?|sts?|sps?|spaces|meshes|squares)\s*(?:[x×]|and)\s*"
    rf"(?P<rows>\d{{1,4}}(?:\.\d{{1,4}})?)\s*(?:rows?|rnds?|rounds?)\s*=\s*{_UNIT}",
    re.IGNORECASE,
)


def own_gauge(text: str) -> OwnGauge | None:
    """ "mesh 10 loops x 12 rows = 10 cm", "hdc in back loop 14 sts x 12 rows = 10 cm", "ch 20 = 10 cm"; None for the
    gauge of a plain stitch."""
    match = _CHAIN.match(text)
    if match is not None:
        across, length = float(match["a"] or match["b"]), float(match["span"]) * _mm_of(match)
        return OwnGauge("ch", "ch", length / across, 0.0) if across > 0 and length > 0 else None
    match = _OWN.match(text)
    if match is None:
        return None
    across, up, length = float(match["sts"]), float(match["rows"]), float(match["span"]) * _mm_of(match)
    unit = "loops" if match["unit"].lower().startswith(("loop", "sp", "mesh", "square")) else "sts"
    if min(across, up, length) <= 0:
        return None
    gauge = OwnGauge(" ".join(match["name"].split()), unit, length / across, length / up)
    return gauge if gauge.build != "named" else None


def _mm_of(match: re.Match[str]) -> float:
    return MM_PER["cm" if match["units"].lower() == "cm" else "in"]
