"""Gauges as they are written: of stitch patterns (by loops, in one loop, around posts), of a chain, in a sentence, for
some sizes."""

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


_LENGTH_FIRST = re.compile(
    r"^(?P<length>\d{1,3}(?:\.\d)?\s?(?:cm|in(?:ch(?:es)?)?|\"))(?:\s?x\s?\d{1,3}\s?(?:cm|"
    r"in(?:ch(?:es)?)?|\"))?\s?=\s?(?P<counts>\d.{3,60}?)(?P<stitch>\s(?:in|of)\s[a-z "
    r"]{2,40})?\.?$",
    re.IGNORECASE,
)


# "22 sts and 26 rows in sc = 10 cm x 10 cm"
_IN_STITCH = re.compile(
    r"^(?P<counts>\d[^=]{3,40}?)\s(?:in|of)\s(?P<stitch>[a-z ]{2,30}?)\s?=\s?(?P<length>\d{1,3}(?:\.\d)?)\s?"
    r"(?P<unit>cm|in(?:ch(?:es)?)?|\")(?:\s?x\s?(?P=length)\s?(?P=unit))?\.?$",
    re.IGNORECASE,
)


def usual_gauge(text: str) -> str:
    """A gauge that gives its length first ('4" = 15 sts x 12 rows in hdc'), or its stitch before it, with the length
    and then the stitch last."""
    within = _IN_STITCH.match(text)
    if within is not None:
        return f"{within['counts']} = {within['length']} {within['unit']} in {within['stitch']}"
    match = _LENGTH_FIRST.match(text)
    return text if match is None else f"{match['counts']} = {match['length']}{match['stitch'] or ''}"


_FOR_SIZES = re.compile(r"^(gauge|tension)\s*\(([^()]+)\)$", re.IGNORECASE)


def sizes_of_gauge(key: str) -> tuple[str, ...]:
    """The sizes that a gauge is for ("Gauge (L, XL)"); none for any other key."""
    match = _FOR_SIZES.match(key.strip())
    return tuple(" ".join(name.split()) for name in match[2].split(",")) if match is not None else ()


_GAUGE_TOLD = re.compile(
    r"\b\d{1,3}(?:\.\d)?[a-z ]{2,24}?(?:x|and|by|,)\s{0,3}\d{1,3}(?:\.\d)?\s{0,3}(?:rows?|"
    r"rn?ds?|rounds?)\s{0,3}(?:=|to|over|in|per|make)\s{0,3}\d{1,3}\s{0,3}(?:cm|in\b|"
    r"inch|\")",
    re.IGNORECASE,
)


def tells_gauge(text: str) -> int | None:
    """Where the gauge begins in a sentence that tells it ("With a 5 mm hook, 12 hdc and 9 rounds = 10 cm"); None for
    any other line."""
    match = _GAUGE_TOLD.search(text)
    return match.start() if match is not None else None
