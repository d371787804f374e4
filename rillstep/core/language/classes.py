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
scope: st sts stitch stitches each every row rows rnd rnds round rounds of in the this for rest pattern a as on at
scope: start beginning first to end sp space and or later throughout after here now below from all always following
scope: total , . ; - + & ch chs
whose: next nxt following foll each every same last first
no_name: , ; . : ( ) [ ] { } * ** - — = > & / in into of and or to the a an next each every last first same around
no_name: across join turn rep repeat from with until on at as then sk skip skipped again rem remaining st sts stitch
no_name: stitches
towards: along on in down into across up to around
of_a_side: the your other opposite second long short next side sides of foundation starting beginning initial base
of_a_side: original chain ch chs chains edge edges underside bottom loops loop along down up back free unused
of_a_side: remaining row rows ends end piece work now towards to beg panel strip left right first in on across
side_named: side chain ch edge underside loops bottom
side_turned_to: side chain ch edge underside bottom
of_beside: the a an next last same skipped sk missed previous prev first second all both these those this that each
of_beside: other of and at row rnd round rows below work piece fabric yarn tail ends end cable loop loops lp lps just
of_beside: not them it foundation strand strands handle strap cord layers layer together pieces panels motifs edges
of_beside: squares circles thicknesses behind front back
other_side: opposite other bottom underside unused free remaining second
after_join: turn ch chain fasten and into
before_chain: of beg beginning starting start turning first the in top
of_place: the a your first beg beginning starting start joining initial turning last same top base st sts stitch
of_place: stitches ch chs chain chains ch(s) sp space loop lp loops lps of at to in as rnd round row this that made
of_place: skipped previous prev next corner ring close join both back front blo flo only through marked marker where
of_place: you began started yarn was joined one real v with sl ss slst slip from begin foundation counted which counts
of_place: group motif side seam edge post around two under opening tch picot fan shell any
after_colour: in with to and at ch on for when before during as after while throughout
how_begins: on for when before during as after while in at
of_how: the last final yo yoh yarn over of st sts stitch each every row rnd round this previous before loops loop on
of_how: hook you pull through with new old colour color completing finishing joining join sl ss slst two are left
of_how: remain working end at in making it step a needed chart shown required to go as when ch
growing: decreasing increasing dec inc decrease increase
opens: ( [ { <
closes: ) ] } >
"""


def _classes() -> dict[str, frozenset[str]]:
    found: dict[str, frozenset[str]] = {
        "st": frozenset(STITCH),
        "ch": frozenset(CHAIN),
        "sp": frozenset(SPACE),
        "row": frozenset(ROWS),
        "row_or_r": frozenset((*ROWS, "r")),
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
