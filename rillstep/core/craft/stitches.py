"""The stitches of the craft, one row each, and what composes with them.

Inside Rillstep a stitch is always named by its US abbreviation; UK names exist only at
the two edges, where text is read and where it is written. The same words mean different
stitches on the two sides of the ocean ("dc"), so nothing is ever guessed from one word.

A name inside Rillstep may carry a prefix: "FPdc" and "BPdc" are worked around the post, and
"spike sc" is the sc that reaches down.
"""

from dataclasses import dataclass, replace
from typing import Literal

from rillstep.core.craft.chart_symbol import Symbol

Terms = Literal["US", "UK"]


@dataclass(frozen=True)
class Stitch:
    """One stitch.

    turning_chain: chains that match its height at the start of a row.
    height_ratio: usual row height relative to single crochet, used only to estimate a
    stitch without a swatch of its own (and shown as an estimate).
    general: the plainer name that makers may also call it by (US), "" for none. below: how many rows below its place it
    goes into, where nothing else is said.
    us_words, uk_words: other names, beside the abbreviation and the full one.
    """

    us: str
    uk: str
    us_name: str
    uk_name: str
    turning_chain: int
    height_ratio: float
    symbol: Symbol
    general: str = ""
    below: int = 0
    us_words: tuple[str, ...] = ()
    uk_words: tuple[str, ...] = ()


@dataclass(frozen=True)
class Modifier:
    """What changes how a stitch is worked. It stands before the name of any stitch that it composes with.

    written: how the abbreviation is written. words: what stands before a name, the first of them in the full name.
    glued: what stands before an abbreviation without a space. of: the stitches that it composes with. taller: how many
    stitches further down the table its turning chain is found; height, slashes, wave: what it adds to the row of
    the stitch. other_words: names that stand alone. below: as in `Stitch`.
    """

    written: str
    words: tuple[str, ...]
    glued: tuple[str, ...]
    of: tuple[str, ...]
    taller: int = 0
    height: float = 0.0
    other_words: tuple[str, ...] = ()
    slashes: int = 0
    wave: bool = False
    below: int = 0


SL_ST = Stitch(
    "sl st",
    "ss",
    "slip stitch",
    "slip stitch",
    0,
    0.4,
    Symbol(0.3, "dot"),
    us_words=("slst", "ss", "sl-st", "sl st", "slip st"),
    uk_words=("slst", "sl-st", "sl st", "slip st"),
)
SC = Stitch("sc", "dc", "single crochet", "double crochet", 1, 1.0, Symbol(0.9, "cross"))
PLAIN: tuple[Stitch, ...] = (
    SL_ST,
    SC,
    Stitch("hdc", "htr", "half double crochet", "half treble crochet", 2, 1.5, Symbol(1.35, "bar")),
    Stitch("dc", "tr", "double crochet", "treble crochet", 3, 2.1, Symbol(1.9, "bar", slashes=1)),
    Stitch(
        "tr", "dtr", "treble crochet", "double treble crochet", 4, 2.8, Symbol(2.5, "bar", slashes=2),
        us_words=("trc", "triple crochet", "triple"),
    ),
    Stitch(
        "dtr", "trtr", "double treble crochet", "triple treble crochet", 5, 3.5, Symbol(3.1, "bar", slashes=3),
        us_words=("double triple crochet",),
    ),
    Stitch(
        "trtr", "qtr", "triple treble crochet", "quadruple treble crochet", 6, 4.2,
        Symbol(3.7, "bar", slashes=4), us_words=("triple triple crochet",),
    ),
)  # fmt: skip

MODIFIERS: tuple[Modifier, ...] = (
    Modifier("e{}", ("extended", "ext"), ("e", "ext"), ("sc", "hdc", "dc", "tr"), 1, 0.3, slashes=1),
    Modifier(
        "r{}", ("reverse", "rev", "crab"), ("r",), ("sc",), 0, 0.0, ("crab st", "crab stitch"), wave=True
    ),
    Modifier(
        "spike {}", ("spike", "spiked", "deep", "long"), (), ("sc", "hdc", "dc", "tr"), 0, 0.0,
        ("spike st", "spike stitch", "spike"), below=1,
    ),
    Modifier("linked {}", ("linked",), (), ("hdc", "dc", "tr", "dtr")),
)  # fmt: skip


def _composed(modifier: Modifier, stitch: Stitch) -> Stitch:
    """A stitch worked in another way: a row of its own."""
    at = PLAIN.index(stitch)
    chain = PLAIN[min(at + modifier.taller, len(PLAIN) - 1)].turning_chain
    drawn = replace(stitch.symbol, slashes=stitch.symbol.slashes + modifier.slashes, wave=modifier.wave)
    return Stitch(
        modifier.written.format(stitch.us),
        modifier.written.format(stitch.uk),
        f"{modifier.words[0]} {stitch.us_name}",
        f"{modifier.words[0]} {stitch.uk_name}",
        chain,
        round(stitch.height_ratio + modifier.height, 2),
        drawn if not modifier.height else replace(drawn, height=round(drawn.height + modifier.height, 2)),
        stitch.us,
        modifier.below,
        _words_of(modifier, stitch.us, stitch.us_name),
        _words_of(modifier, stitch.uk, stitch.uk_name),
    )


def _words_of(modifier: Modifier, short: str, name: str) -> tuple[str, ...]:
    """Its other names: each word of the modifier before the short and the full name, and what is glued."""
    glued = (before + short for before in modifier.glued)
    spaced = (f"{word} {one}" for word in modifier.words for one in (short, name))
    return (*glued, *spaced, *modifier.other_words)


COMPOSED: tuple[Stitch, ...] = tuple(
    _composed(modifier, stitch) for modifier in MODIFIERS for stitch in PLAIN if stitch.us in modifier.of
)
STITCHES: tuple[Stitch, ...] = (*PLAIN, *COMPOSED)
BY_US = {stitch.us: stitch for stitch in STITCHES}
RSC, ESC, HDC, DC = BY_US["rsc"], BY_US["esc"], BY_US["hdc"], BY_US["dc"]
POSTS: tuple[Literal["FP"], Literal["BP"]] = ("FP", "BP")

Loop = Literal["both", "back", "front", "third"]
LOOP_ABBREVIATIONS: dict[Loop, str] = {"both": "", "back": "BLO", "front": "FLO", "third": "back bar"}

# Special stitches that everybody knows by name: one place, one top.
GATHERED_SYMBOLS: dict[str, Symbol] = {
    "puff": Symbol(1.7, "oval", strands=3),
    "bobble": Symbol(1.8, "bar", slashes=1, strands=3),
    "popcorn": Symbol(1.8, "oval", slashes=1, strands=3),
    "cluster": Symbol(1.8, "bar", slashes=1, strands=3),
}
GATHERED: tuple[str, ...] = tuple(GATHERED_SYMBOLS)
# Their other names.
GATHERED_SHORT: dict[str, tuple[str, ...]] = {"popcorn": ("pc", "pc st"), "cluster": ("cl",), "bobble": ("bo",)}
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
    return made in BY_US and BY_US[made].general == name


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
