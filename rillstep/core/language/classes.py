"""Classes of words that stand for each other in a form: `%st` is any word for a stitch."""

from rillstep.core.words.lexicon import CHAIN, GROUPS, HANDLES, MOTIFS, NEXT, ROWS, SPACE, STITCH

# A class by line: its name, and its words. What only one table of forms knows of stands here too.
_TABLE = """
between_totals: ( [ ) ] - — = > < : + , . ; & and plus
when: end the this last final your of each row rows rnd rnds round rounds to increases decreases and on here
includes: the a your ch chs chain chains starting start beginning beg turning first initial tch as st sts one counted
includes: of skipped at both post posts in each end row rnd this counting sp sps -
thing: loop buttonhole hole handle opening strap picot bobble puff
opening: strap straps hole holes buttonhole buttonholes
instructs: in into next each every around join across times time rows rounds rnds row rnd round inches mins minutes
instructs: hours cms cm mm more twist twists
opens: ( [ { <
closes: ) ] } >
"""


def _classes() -> dict[str, frozenset[str]]:
    found: dict[str, frozenset[str]] = {
        "st": frozenset(STITCH),
        "ch": frozenset(CHAIN),
        "sp": frozenset(SPACE),
        "row": frozenset(ROWS),
        "next": frozenset(NEXT),
        "group": frozenset(GROUPS),
        "opening": frozenset(HANDLES),
        "thing": frozenset(MOTIFS),
        "place": frozenset((*STITCH, *CHAIN, *SPACE)),
        "motif": frozenset((*MOTIFS, *(f"{motif}s" for motif in MOTIFS))),
    }
    for line in _TABLE.strip().splitlines():
        name, _, words = line.partition(": ")
        found[name] = found.get(name, frozenset()) | frozenset(words.split())
    return found


CLASSES = _classes()
