"""Every name of a stitch, made from its row: short and long, one and several, with what composes with it."""

from collections.abc import Iterator
from functools import cache

from rillstep.core.craft.stitches import GATHERED, GATHERED_SHORT, MODIFIERS, PLAIN, STITCHES, Stitch, Terms

# What stands before a stitch around the post: its words, and what is glued to the abbreviation.
_AROUND_THE_POST = (
    ("FP", ("front post", "fp", "f p", "front raised", "raised front"), "fp", ("r", "f")),
    ("BP", ("back post", "bp", "b p", "back raised", "raised back"), "bp", ("r", "b")),
)


def plurals(name: str) -> Iterator[str]:
    """A name for one stitch and for several: "crab st", "crab sts", "puff stitches", "leaves"."""
    yield name
    yield f"{name}s"
    if name.endswith(("ch", "sh", "s", "x")):
        yield f"{name}es"
    if name.endswith("f"):
        yield f"{name[:-1]}ves"
    if name.endswith("y"):
        yield f"{name[:-1]}ies"


def _names(stitch: Stitch, terms: Terms) -> Iterator[str]:
    """The names of a stitch in some terms, without their plurals."""
    us = terms == "US"
    name = stitch.us_name if us else stitch.uk_name
    yield stitch.us if us else stitch.uk
    yield name
    if name.endswith(" crochet") and name.split()[-2] == "treble":
        yield name.removesuffix(" crochet")  # "1 treble", "2 half trebles"
    yield from stitch.us_words if us else stitch.uk_words


@cache
def names_of(terms: Terms) -> dict[str, str]:
    """Every accepted name of a stitch in the given terms, mapped to its name inside Rillstep. What the table names
    first keeps a name that another would also have."""
    found: dict[str, str] = {}
    for stitch in STITCHES:
        for name in _names(stitch, terms):
            for one in plurals(name):
                found.setdefault(one, stitch.us)
            if stitch.us == "sl st":
                continue
            for one in plurals(name):
                found.setdefault(f"standing {one}", stitch.us)
            for prefix, words, glued, (before, after) in _AROUND_THE_POST:
                spaced = [f"{word} {one}" for word in words for one in plurals(name)]
                joined = [*(glued + one for one in plurals(name)), *plurals(before + name + after)]
                for one in (*spaced, *(joined if " " not in name else ())):
                    found.setdefault(one, prefix + stitch.us)
    return found


@cache
def stitch_words(terms: Terms) -> dict[str, str]:
    """Every name of one word in the given terms, mapped to its name inside Rillstep."""
    return {name: us for name, us in names_of(terms).items() if " " not in name}


@cache
def long_names(terms: Terms) -> dict[str, list[tuple[tuple[str, ...], str]]]:
    """Names of several words by their first word, the longest first: {"half": [(("half", "double", "crochet"),
    "hdc")]}."""
    by_first: dict[str, list[tuple[tuple[str, ...], str]]] = {}
    spaced = [(tuple(name.split()), us) for name, us in names_of(terms).items() if " " in name]
    for words, us in sorted(spaced, key=lambda item: -len(item[0])):
        by_first.setdefault(words[0], []).append((words, us))
    return by_first


@cache
def name_expression() -> str:
    """An expression for any name of a stitch, in whatever terms: what composes with names, and then a name."""
    before = {word for modifier in MODIFIERS for word in (*modifier.words, *modifier.glued)}
    before |= {word for _, words, glued, _ in _AROUND_THE_POST for word in (*words, glued)}
    names = {name for terms in _TERMS for stitch in PLAIN for name in _names(stitch, terms)}
    names |= {f"r{name}{after}" for name in names if " " not in name for _, _, _, (_, after) in _AROUND_THE_POST}
    names |= {name for modifier in MODIFIERS for name in modifier.other_words}
    names |= {*GATHERED, *(name for short in GATHERED_SHORT.values() for name in short)}
    first, second = (
        "|".join(one.replace(" ", r"\s") for one in sorted(words, key=len, reverse=True)) for words in (before, names)
    )
    return rf"(?:(?:{first})[\s-]?)?(?:{second})(?:\s(?:st|stitch))?(?:e?s)?"


_TERMS: tuple[Terms, ...] = ("US", "UK")
