"""The stitches of one repeat of a swatch, as its maker counts them: "hdc", "FPdc, BPdc", "sc, 3 ch"."""

import re
from dataclasses import dataclass

from rillstep.core.craft import BY_US, GATHERED, LOOP_ABBREVIATIONS, PICOT, POSTS

_PART = re.compile(r"(?:(\d{1,3})\s+)?(.+?)(?:\s+(\d{1,3}))?$")
_CHAINS = {"ch", "chs", "chain", "chains"}
_LOOPS = {words.lower(): loop for loop, words in LOOP_ABBREVIATIONS.items() if words}


class NotStitches(ValueError):
    """A word that is no stitch; it says which."""


@dataclass(frozen=True)
class StitchMix:
    """How many of each stitch one repeat holds, by its US name, in order; chains as "ch". loop: the loop that they are
    worked in."""

    stitches: tuple[tuple[str, int], ...]
    loop: str = "both"

    @property
    def total(self) -> int:
        """How many stitches and chains one repeat holds."""
        return sum(many for _, many in self.stitches)

    @property
    def plain(self) -> str | None:
        """The one basic stitch that it is, worked in both loops; None for a pattern of stitches."""
        only = self.stitches[0][0] if len(self.stitches) == 1 else None
        return only if only in BY_US and self.loop == "both" else None


def read_stitches(words: str) -> StitchMix:
    """The stitches of a repeat, in US terms. Raises NotStitches, which names the word that is none."""
    found: list[tuple[str, int]] = []
    loop = "both"
    for part in re.split(r"[,;+]|\band\b", words):
        rest = part.strip()
        match = _PART.fullmatch(rest)
        if not match:
            raise NotStitches("name the stitches of one repeat, such as “hdc”, “FPdc, BPdc” or “sc, 3 ch”")
        many, name = int(match[1] or match[3] or 1), match[2].strip()
        for word, which in _LOOPS.items():
            if re.search(rf"\b{word}\b", name, re.IGNORECASE):
                name, loop = re.sub(rf"\s*\b{word}\b\s*", "", name, flags=re.IGNORECASE), which
        stitch = _stitch_of(name)
        if stitch is None or many == 0:
            raise NotStitches(
                f"“{name or rest}” is no stitch that is known; name those of one repeat in US terms, such as “hdc”, "
                "“FPdc, BPdc” or “sc, 3 ch”"
            )
        found.append((stitch, many))
    return StitchMix(tuple(found), loop)


def _stitch_of(name: str) -> str | None:
    """The US name of a stitch, whatever its case; None for another word."""
    lower = name.lower()
    if lower in _CHAINS:
        return "ch"
    if lower in (*GATHERED, PICOT):
        return lower
    for stitch, own in BY_US.items():
        if lower in (stitch, f"{stitch}s", own.us_name, f"{own.us_name}s"):
            return stitch
        for side in POSTS:
            if lower in (side.lower() + stitch, f"{side.lower()}{stitch}s"):
                return side + stitch
    return None
