"""Which chain a round is joined to, and what that says of the chain that it began with."""

from collections.abc import Sequence
from dataclasses import replace

from rillstep.core.tree import Chain, Gesture, Num, Step
from rillstep.core.tree.features import main_stitch
from rillstep.core.words.lexicon import CHAIN
from rillstep.core.words.tokens import Token


def joined_in(tokens: Sequence[Token]) -> int:
    """The 3 of "..., join in 3rd ch of beg ch-5": which chain of the one that began the round is its top; 0 where
    that is not said."""
    for at in range(len(tokens) - 1, 0, -1):
        before = {token.text for token in tokens[max(0, at - 6) : at]}
        if tokens[at].kind == "ordinal" and before & {"join", "ss", "slst", "sl", "slip"}:
            rest = [token.text for token in tokens[at + 1 : at + 7]]
            rest = rest[1:] if rest[:1] and rest[0] in CHAIN else rest
            return int(tokens[at].text[:-2]) if rest[:1] == ["of"] and set(rest) & set(CHAIN) else 0
    return 0


def with_space(steps: tuple[Step, ...], nth: int) -> tuple[Step, ...]:
    """The steps of a round whose first chain is joined to in its nth chain: that many are a stitch, and the others a
    space beside it."""
    at = next(
        (i for i, s in enumerate(steps) if not (isinstance(s, Gesture) or getattr(s, "stitch", "") == "sl st")), -1
    )
    chain = steps[at] if at >= 0 else None
    stitch = main_stitch(steps[at + 1 :]) if at >= 0 else None
    if not isinstance(chain, Chain) or chain.counts is not None or stitch is None or nth < 2:
        return steps
    if any(v is not None and v <= nth for v in chain.length.values):
        return steps
    space = Num(tuple(None if v is None else v - nth for v in chain.length.values))
    return (*steps[:at], replace(chain, counts=stitch, space=space), *steps[at + 1 :])
