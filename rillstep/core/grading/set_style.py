"""A written set of numbers or names for other sizes, in the style in which it stands: its brackets and separators stay.

So a size that is added and taken away again leaves each byte as it was.
"""

from collections.abc import Sequence
from itertools import pairwise

# Between the second and third of a set that had no third.
_USUAL = ", "


def in_style(raw: str, places: Sequence[tuple[int, int]], sources: Sequence[int], items: Sequence[str] = ()) -> str:
    """The set for the sizes that are wanted.

    raw: what is written; places: where in it each size's item stands, in order; sources: for each size wanted the
    index of the item that it begins with; items: what stands there instead, as for names.
    """
    wanted = list(items) or [raw[places[at][0] : places[at][1]] for at in sources]
    between = [raw[one[1] : other[0]] for one, other in pairwise(places)]
    head, tail = raw[: places[0][0]], raw[places[-1][1] :]
    closed = _closing(between, tail)
    if len(wanted) == 1:
        return head + wanted[0] + tail[len(closed) :]
    inner = between[-1] if len(between) > 1 else between[0] if between and not closed else _USUAL
    separators = [*between, *[inner] * len(wanted)][: len(wanted) - 1] if between else [_USUAL] * (len(wanted) - 1)
    made = wanted[0] + "".join(sep + item for sep, item in zip(separators, wanted[1:], strict=True))
    return head + made + tail


def _closing(between: Sequence[str], tail: str) -> str:
    """The bracket at the beginning of what follows a set that closes one opened between its first two items."""
    first = between[0].strip() if between else ""
    pairs = {"(": ")", "[": "]", "{": "}"}
    closing = pairs.get(first[-1:], "") if first else ""
    return closing if closing and tail.startswith(closing) else ""
