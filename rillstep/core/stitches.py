"""Vocabulary of the craft: stitches with their heights, US and UK names and abbreviations.

Inside Rillstep a stitch is always named by its US abbreviation; UK names exist only at
the two edges, where text is read and where it is written. The same words mean different
stitches on the two sides of the ocean ("dc"), so nothing is ever guessed from one word.

A name inside Rillstep may carry a prefix: "FPdc" and "BPdc" are worked around the post, and
"ext sc" is the extended stitch.
"""

from dataclasses import dataclass
from functools import cache
from typing import Literal

Terms = Literal["US", "UK"]


@dataclass(frozen=True)
class Stitch:
    """One basic stitch.

    turning_chain: chains that match its height at the start of a row.
    height_ratio: usual row height relative to single crochet, used only to estimate a
    stitch without a swatch of its own (and shown as an estimate).
    yarn_ratio: yarn length over (width + height) of the stitch; see `core.yarn`.
    """

    us: str
    uk: str
    us_name: str
    uk_name: str
    turning_chain: int
    height_ratio: float
    yarn_ratio: float


SL_ST = Stitch("sl st", "ss", "slip stitch", "slip stitch", 0, 0.4, 3.0)
SC = Stitch("sc", "dc", "single crochet", "double crochet", 1, 1.0, 3.7)
RSC = Stitch("rsc", "rdc", "reverse single crochet", "reverse double crochet", 1, 1.0, 3.9)
ESC = Stitch("esc", "edc", "extended single crochet", "extended double crochet", 2, 1.3, 3.8)
HDC = Stitch("hdc", "htr", "half double crochet", "half treble crochet", 2, 1.5, 3.9)
DC = Stitch("dc", "tr", "double crochet", "treble crochet", 3, 2.1, 3.9)
TR = Stitch("tr", "dtr", "treble crochet", "double treble crochet", 4, 2.8, 4.0)
DTR = Stitch("dtr", "trtr", "double treble crochet", "triple treble crochet", 5, 3.5, 4.0)

STITCHES: tuple[Stitch, ...] = (SL_ST, SC, RSC, ESC, HDC, DC, TR, DTR)
BY_US = {stitch.us: stitch for stitch in STITCHES}
BY_UK = {stitch.uk: stitch for stitch in STITCHES}
POSTS = ("FP", "BP")

# Yarn in a chain, over the width of the chain: it has no height of its own.
CHAIN_YARN_RATIO = 4.0

Loop = Literal["both", "back", "front", "third"]
LOOP_ABBREVIATIONS: dict[Loop, str] = {"both": "", "back": "BLO", "front": "FLO", "third": "back bar"}

# Stitches that makers also call by a plainer name.
_GENERAL = {RSC.us: SC.us, ESC.us: SC.us}

# Special stitches that everybody knows by name: one place, one top.
GATHERED: tuple[str, ...] = ("puff", "bobble", "popcorn", "cluster")
# Worked over chains of its own; takes no place and leaves none.
PICOT = "picot"


def basic(us: str) -> Stitch:
    """The basic stitch under a name: "FPdc" is a dc. A special stitch counts as a dc, the usual stuff of them."""
    plain = us[2:] if us[:2] in POSTS else us
    return BY_US.get(plain, DC)


def is_post(us: str) -> bool:
    """Is it worked around the post?"""
    return us[:2] in POSTS and us[2:] in BY_US


def is_called(made: str, name: str) -> bool:
    """Whether a stitch that was made may be called by a name: its own, or one more general. Post stitches, extended
    and reversed ones are of their plain kind ("in each dc" on FPdc), and a cluster of any legs is a cluster."""
    if made == name or basic_of(made) == name:
        return True
    if name in GATHERED:
        return made in GATHERED or name in made.lower()
    return _GENERAL.get(made) == name


def basic_of(us: str) -> str:
    """The plain stitch that a post stitch is worked as; any other name as it is."""
    return us[2:] if is_post(us) else us


def other_side(us: str) -> str:
    """A post stitch as it looks from the other side of the work: "FPdc" for "BPdc"."""
    front, back = POSTS
    return (back if us.startswith(front) else front) + us[2:]


def abbreviation(us: str, terms: Terms) -> str:
    """The abbreviation of a stitch (named in US terms) in the given terms; special stitches keep their name."""
    if terms == "US":
        return us
    if is_post(us):
        return us[:2] + BY_US[us[2:]].uk
    return BY_US[us].uk if us in BY_US else us


def full_name(us: str, terms: Terms) -> str:
    """The full name of a stitch (named in US terms) in the given terms."""
    if is_post(us):
        side = "front" if us.startswith("FP") else "back"
        return f"{side} post {full_name(us[2:], terms)}"
    if us not in BY_US:
        return us
    return BY_US[us].us_name if terms == "US" else BY_US[us].uk_name


@cache
def stitch_words(terms: Terms) -> dict[str, str]:
    """Every accepted word for a stitch in the given terms, mapped to its US abbreviation."""
    words: dict[str, str] = {"slst": "sl st", "ss": "sl st", "sl-st": "sl st"}
    for stitch in STITCHES:
        if stitch is SL_ST:
            continue
        word = stitch.us if terms == "US" else stitch.uk
        words[word] = words[f"{word}s"] = stitch.us
        for side in ("fp", "bp"):
            words[side + word] = words[f"{side}{word}s"] = side.upper() + stitch.us
        words[f"r{word}f"], words[f"r{word}b"] = f"FP{stitch.us}", f"BP{stitch.us}"  # raised, at the front or the back
    return words


@cache
def long_names(terms: Terms) -> dict[str, list[tuple[tuple[str, ...], str]]]:
    """Names written in full by their first word, the longest first: {"half": [(("half", "double", "crochet"),
    "hdc")]}."""
    found: list[tuple[tuple[str, ...], str]] = [
        (("sl", "st"), "sl st"),
        (("sl", "sts"), "sl st"),
        (("slip", "st"), "sl st"),
    ]
    found += [
        (("slip", "stitch"), "sl st"),
        (("slip", "stitches"), "sl st"),
        (("extended", "sc" if terms == "US" else "dc"), "esc"),
    ]
    short = "sc" if terms == "US" else "dc"
    found += [((word, short), "rsc") for word in ("reverse", "rev", "crab")]
    found += [(("crab", "st"), "rsc"), (("crab", "stitch"), "rsc")]
    for stitch in STITCHES:
        if stitch is SL_ST:
            continue
        words = tuple((stitch.us_name if terms == "US" else stitch.uk_name).split())
        short = stitch.us if terms == "US" else stitch.uk
        for name in (words, (*words[:-1], words[-1] + "s")):
            found.append((name, stitch.us))
        if words[-2:] == ("treble", "crochet"):  # "1 treble", "2 half trebles"
            found += [(words[:-1], stitch.us), ((*words[:-2], "trebles"), stitch.us)]
        for side, prefix in (("front", "FP"), ("back", "BP")):
            found += [((side, "post", *words), prefix + stitch.us), ((side, "post", short), prefix + stitch.us)]
            found.append(((side[0] + "p", short), prefix + stitch.us))
    by_first: dict[str, list[tuple[tuple[str, ...], str]]] = {}
    for item in sorted(found, key=lambda item: -len(item[0])):
        by_first.setdefault(item[0][0], []).append(item)
    return by_first
