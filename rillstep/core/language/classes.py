"""Classes of words that stand for each other in a form: `%st` is any word for a stitch."""

from rillstep.core.words.lexicon import CHAIN, GROUPS, HANDLES, MOTIFS, NEXT, ROWS, SPACE, STITCH

# A class by line: its name, and its words. What only one table of forms knows of stands here too.
_TABLE = """
between_totals: ( [ ) ] - — = > < : + , . ; & and plus
when: end the this last final your of each row rows rnd rnds round rounds to increases decreases and on here
includes: the a your ch chs chain chains starting start beginning beg turning first initial tch as st sts one counted
includes: of skipped at both post posts in each end row rnd this counting sp sps -
thing: inc dec increase decrease loop buttonhole hole handle opening strap picot bobble puff
opening: strap straps hole holes buttonhole buttonholes
instructs: in into next each every around join across times time rows rounds rnds row rnd round inches mins minutes
instructs: hours cms cm mm more twist twists
and: and or & /
each: each every ea
corner: corner corners tip
beginning: turning starting beginning beg start initial first
until: to until till
reach: reach reaching
remain: remain remains rem remaining
free: free unused unworked
loop: loop loops lp lps
between_places: and or & / in into each every ea st sts stitch stitches
scope: st sts stitch stitches each every row rows rnd rnds round rounds of in the this for rest pattern a as on at start
scope: beginning first to end sp space and or later throughout after here now below from all always following total
scope: , . ; - + & ch chs
whose: next nxt following foll each every same last first
no_name: , ; . : ( ) [ ] { } * ** - — = > & / in into of and or to the a an next each every last first same
no_name: around across join turn rep repeat from with until on at as then sk skip skipped again rem remaining
no_name: st sts stitch stitches
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
        "handle": frozenset(HANDLES),
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
