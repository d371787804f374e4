"""Finished measurements that a head tells in words: "Finished size: 18 (23) cm wide and 24 (30) cm tall"."""

import re
from collections.abc import Iterator, Sequence

from rillstep.core.findings import Span
from rillstep.core.tree.leaves import SaidMeasure

MOST_LINES = 60
_LINE = re.compile(r"^\s*(?:finished|measurements?|approximate|size)\b", re.IGNORECASE)
_NUMBER = r"\d{1,3}(?:\.\d{1,2})?"
_SET = rf"(?P<set>{_NUMBER}(?:\s*[(\[{{][\d\s.,\"”]{{1,80}}[)\]}}])?)"
_UNIT = r"(?P<unit>cm|inches|inch|in\b|\"|”)"
_SAID = re.compile(rf"{_SET}\s*{_UNIT}\s*(?P<what>wide|across|tall|high|deep)\b", re.IGNORECASE)
_KEYED = re.compile(rf"^\s*finished\s+(?P<what>width|height|depth)\s*:\s*{_SET}\s*{_UNIT}", re.IGNORECASE)
_NAMES = {
    "wide": "width", "across": "width", "width": "width", "tall": "height", "high": "height", "height": "height",
    "deep": "depth", "depth": "depth",
}  # fmt: skip


def said_measures(raws: Sequence[str], n_sizes: int) -> Iterator[SaidMeasure]:
    """The finished measurements in the lines of a head; those that are not told for every size are left out."""
    for number, raw in enumerate(raws[:MOST_LINES], start=1):
        if not _LINE.match(raw) or len(raw) > 300:
            continue
        for match in [*_KEYED.finditer(raw), *_SAID.finditer(raw)]:
            numbers = [float(one) for one in re.findall(_NUMBER, match["set"])]
            if len(numbers) not in (1, n_sizes):
                continue
            unit = 10.0 if match["unit"].lower() == "cm" else 25.4
            mm = tuple(unit * one for one in (numbers * n_sizes if len(numbers) == 1 else numbers))
            name = _NAMES[match["what"].lower()]
            yield SaidMeasure(name, mm, Span(number, match.start() + 1, match.end() + 1))  # type: ignore[arg-type]
