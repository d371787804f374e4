"""What words that are not understood may mean: few and ranked, by where they stand and by what they are near to.

Each meaning is a line of the head ("Means: ..."), as a designer would write it. None of them gives up a number, a
stitch or a strand that the words name.
"""

import difflib
import re
from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from rillstep.core.assumptions.unread import PLACES, Unread
from rillstep.core.craft import GATHERED, Terms, stitch_words
from rillstep.core.wordlists import phrase_list
from rillstep.core.words.asides import words_change_nothing
from rillstep.core.words.lexicon import STRANDS

Kind = Literal["near stitch", "stitch", "several", "place", "nothing", "loops", "structure", "count"]

# Ordinary words, and the words of the craft for which they are used.
_LIKE = {
    "st": "top tops v vs stitch stitches one loop-pair", "next": "coming come follow succession neighbour neighbours "
    "adjacent alongside beside after neighbouring", "last": "closing end end-most final far edge",
    "first": "opening starting initial edge", "each": "every all everything per whole", "same": "very again used",
    "ch": "link links chains chain", "sp": "gap arch hole space loop", "ring": "circle centre center hole",
    "around": "round circle right", "across": "edge along row", "rem": "left others remains",
}  # fmt: skip
_MEANT = {word: meant for meant, words in _LIKE.items() for word in words.split()}
_NUMBER = r"\d+(?:\s?\([\d,;/ ]+\))?"
_FORMS = phrase_list(
    "in each st around | in each st across | in each ch around | in each ch across | in next {n} sts | in "
    "next st | in next ch | in next {n} ch | in same st | in first st | in last st | in each rem st | in "
    "2nd ch from hook | in next ch-{n} sp | in next sp | in each ch-{n} sp | in each sp around | in ring "
    "| in each st and ch around | in marked st"
)
_TOGETHER = re.compile(r"together|gather|one top|as one|become one|narrow|decreas|over two", re.IGNORECASE)
_SEVERAL = re.compile(r"pair|side by side|same (?:spot|place|top)|one spot|becomes two|widen|increas", re.IGNORECASE)
_LEFT = re.compile(r"\brest\b|remain|others?\b|\bleft\b|further|abandon|wait|unworked", re.IGNORECASE)
_BACK, _FRONT = re.compile(r"back|far|rear|away", re.IGNORECASE), re.compile(r"front|near", re.IGNORECASE)
_LOOPS = re.compile(r"\b(?:strands?|loops?|lps?|half|ridges?|humps?|rear|skimming)\b", re.IGNORECASE)
_SPARED = re.compile(r"\b(?:letting|leaving|sparing|not|be|free|alone)\b", re.IGNORECASE)
_ENDS = re.compile(r"\b(?:ends?|flanks?|sides?|edges?|extremes?|outer(?:most)?)\b", re.IGNORECASE)


MOST_AT_AN_END = 10
MOST_OF_A_LOOP = 3


@dataclass(frozen=True)
class Meaning:
    """What some words may mean. head: the line that says so; prior: how likely it is before it is worked, up to 1."""

    kind: Kind
    words: str
    head: str
    prior: float


def meanings(unread: Unread, terms: Terms, told: str, own: Sequence[str] = ()) -> list[Meaning]:
    """What some words may mean, the likeliest first. told: what the text says of them elsewhere, if it does."""
    found: dict[str, Meaning] = {}
    for one in _all(unread, terms, told, own):
        if _keeps(unread, one, terms):
            found.setdefault(one.head, one)
    return sorted(found.values(), key=lambda one: -one.prior)


def _all(unread: Unread, terms: Terms, told: str, own: Sequence[str]) -> Iterator[Meaning]:
    if unread.position == "stitch":
        yield from _stitches(unread, terms, told)
    else:
        if unread.position == "place":
            yield from _places(unread)
            yield from _in_loops(unread)
        yield from _nothing(unread, own)
        yield from _besides(unread)


def _means(unread: Unread, meaning: str, kind: Kind, prior: float, words: str = "") -> Meaning:
    return Meaning(kind, words or meaning, f'Means: "{unread.words}" = {meaning}', prior)


def _stitches(unread: Unread, terms: Terms, told: str) -> Iterator[Meaning]:
    plain = "sc" if terms == "US" else "dc"
    names = [*stitch_words(terms), f"{plain}2tog", "inc", "dec", "picot", *GATHERED]
    for near in difflib.get_close_matches(unread.words.lower(), names, 2, 0.75):
        yield _means(unread, near, "near stitch", 0.95)
    yield _means(unread, "a stitch", "stitch", 0.9, "a stitch, one into each place")
    together = 0.5 if _TOGETHER.search(told) else 0
    several = 0.5 if _SEVERAL.search(told) else 0
    for many in (2, 3):
        words = f"{many} {plain} worked together"
        yield _means(unread, f"{plain}{many}tog", "several", 0.7 + together - many / 100, words)
    for many in (2, 3, 4, 5, 7):
        words = f"{many} stitches in one place"
        prior = (0.68 if many < 4 else 0.6) + several - many / 100
        yield _means(unread, f"a stitch: {many} {plain} in same st", "several", prior, words)


def _places(unread: Unread) -> Iterator[Meaning]:
    words = _words(unread.words)
    number = re.search(_NUMBER, unread.words)
    for form in _FORMS:
        if "{n}" not in form or number is not None:
            meaning = form.replace("{n}", number[0] if number is not None else "")
            yield _means(unread, meaning, "place", 0.3 + 0.55 * _nearness(form, words))


def _in_loops(unread: Unread) -> Iterator[Meaning]:
    """ "in bb" of a place: one of its loops, it may be."""
    if len(_words(unread.words)) <= MOST_OF_A_LOOP:
        yield _means(unread, "in back loop", "loops", 0.5, "in the back loop")
        yield _means(unread, "in front loop", "loops", 0.49, "in the front loop")


def _nothing(unread: Unread, own: Sequence[str]) -> Iterator[Meaning]:
    if words_change_nothing(unread.words, tuple(own)):
        names_strand = bool(STRANDS & set(_words(unread.words)))
        prior = 0.3 if names_strand else 0.85 if unread.position == "aside" else 0.4
        yield _means(unread, "nothing", "nothing", prior, "nothing: these words change nothing")


def _besides(unread: Unread) -> Iterator[Meaning]:
    if _LOOPS.search(unread.words):
        back, front = bool(_BACK.search(unread.words)), bool(_FRONT.search(unread.words))
        if _SPARED.search(unread.words):  # "letting the near strand be": it is the other one that is worked
            back, front = front, back
        yield _means(unread, "in BLO", "loops", 0.6 + 0.3 * (back - front), "in the back loop")
        yield _means(unread, "in FLO", "loops", 0.59 + 0.3 * (front - back), "in the front loop")
    if _LEFT.search(unread.words):
        yield _means(unread, "leave rem sts unworked", "structure", 0.45, "the rest is left unworked")
    number = re.search(_NUMBER, unread.words)
    if number is not None:
        yield _means(unread, f"sk {number[0]} sts", "structure", 0.5)


def counted(unread: Unread, differences: Sequence[int]) -> Iterator[Meaning]:
    """What comes of a row that makes too few by so many in each size, or too many where it is less than 0: stitches
    increased or decreased."""
    if not differences or not all(differences) or len({one > 0 for one in differences}) > 1:
        return
    how = "increasing" if differences[0] > 0 else "decreasing"
    many = [abs(one) for one in differences]
    if all(one % 2 == 0 and one < MOST_AT_AN_END for one in many) and _ENDS.search(unread.words):
        each = _set([one // 2 for one in many])
        yield _means(unread, f"{how} {each} st{'s' if max(many) > 2 else ''} at each end", "count", 0.9)
    words = f"{how} {_set(many)} sts, and it is not said where"
    yield _means(unread, f"{how} {_set(many)} sts evenly", "count", 0.8, words)


def _set(numbers: Sequence[int]) -> str:
    first, *rest = numbers
    return str(first) if len(set(numbers)) == 1 else f"{first} ({', '.join(map(str, rest))})"


def _keeps(unread: Unread, meaning: Meaning, terms: Terms) -> bool:
    """Does a meaning keep every number, stitch and strand that the words name?"""
    if meaning.kind in ("near stitch", "stitch", "several"):
        return True
    _, _, new = meaning.head.rpartition("=")
    lost = _content(unread.words, terms) - _content(new, terms)
    loops = bool(STRANDS & set(_words(unread.words))) and meaning.kind not in ("loops", "nothing")
    return not lost and not loops


def _content(words: str, terms: Terms) -> Counter[str]:
    known = stitch_words(terms)
    named = (word for word in _words(words) if word in known or word in ("crochet", "inc", "dec", "sk", "skip", "miss"))
    return Counter([*re.findall(r"\d+", words), *(known.get(word, word) for word in named)])


def _words(text: str) -> list[str]:
    return re.findall(r"[a-z][\w'-]*|\d+", text.lower())


def _nearness(form: str, words: Sequence[str]) -> float:
    """How near some words are to a place, up to 1: by the words of the place that they have, less those they have
    besides."""
    wanted = [word for word in _words(form.replace("{n}", "")) if word not in (*PLACES, "from", "ch-", "nd", "2")]
    wanted = wanted or ["ring"]
    hits = sum(max((_alike(one, word) for one in words), default=0.0) for word in wanted)
    said = [one for one in words if one not in (*PLACES, "the", "a", "that", "of", "one")]
    besides = sum(not any(_alike(one, word) for word in wanted) for one in said)
    return hits / len(wanted) - 0.06 * besides


def _alike(word: str, other: str) -> float:
    if _MEANT.get(word) == other:
        return 0.9
    if word.rstrip("s") == other.rstrip("s"):
        return 1.0
    ratio = difflib.SequenceMatcher(None, word, other).ratio()
    return ratio if ratio > 0.72 and len(word) > 2 else 0.0
