"""Set-up lines, which work a foundation and have no label: "Ch 31 (37, 43).", "Base: make a magic ring."; fastening
off."""

import re
from dataclasses import dataclass, replace

from rillstep.core.clauses.labels import starts as starts_label
from rillstep.core.clauses.named import named_in
from rillstep.core.clauses.steps import read_steps
from rillstep.core.findings import NOT_KNOWN, Finding, Span
from rillstep.core.language.match import read
from rillstep.core.memory import remember
from rillstep.core.notation.unlabelled import starts_piece
from rillstep.core.tree import Chain, Gesture, Kept, Setup, Skip, Step
from rillstep.core.words.asides import instructions, kept_among
from rillstep.core.words.ledger import uncounted
from rillstep.core.words.stream import Context, stream_over

# Clauses of words before a foundation, at most.
MOST_BEFORE = 3
# So much of a line tells whether it is one.
MOST_LOOKED_AT = 300


@dataclass(frozen=True)
class SetUpOpening:
    """Where a set-up line begins to set up, and from where to where it says before with what (0-based columns).

    bare: only the number of its chains stands there, as the word for them stands before a colon.
    """

    at: int
    ahead: tuple[tuple[int, int], ...]
    bare: bool


@remember(8192)
def opening_of(text: str) -> SetUpOpening | None:
    """How a line begins that sets up; None for any other line."""
    return _opening(text, 0)


def _opening(text: str, start: int) -> SetUpOpening | None:
    stream = stream_over(text, 1, Context(1, (0,), "US"), start, min(len(text), start + MOST_LOOKED_AT))
    found = read(stream, "SetUp")
    if found is None:
        return None
    at, ahead, bare = found
    places = [(stream.tokens[a].span.column - 1, stream.tokens[b - 1].span.end_column - 1) for a, b in ahead]
    return SetUpOpening(stream.tokens[at].span.column - 1, tuple(places), bare)


@remember(2048)
def read_setup(text: str, line: int, context: Context) -> tuple[Setup, tuple[Finding, ...]] | None:
    """A set-up line such as "Ch 31 (37, 43)."; None when it is none."""
    opening, clauses = _setup_in(text)
    if opening is None:
        return None
    begin, rest = opening.at, text[opening.at :]
    before = _before_setup(text, line, context, opening)
    if before is None and clauses:
        return None
    if opening.bare:  # "Foundation chain: 25 [29]"
        begin -= 3
        text = f"{text[:begin]}ch {text[begin + 3 :]}"
    stream = instructions(text, line, context, begin, len(text))
    steps = read_steps(stream)
    span = Span(line, len(text) - len(text.lstrip()) + 1, len(text) + 1)
    findings = [*stream.findings, *uncounted(stream, (steps, tuple(stream.totals)))]
    told = bool(findings) or bool(stream.kept or stream.told)
    if before is None:
        findings.append(
            Finding(
                "not-understood",
                "error",
                Span(line, span.column, begin + 1),
                f"“{text[:begin].strip()}” is not understood.",
            )
        )
        before = ((), ())
    if (
        told
        and not re.match(r"ch(ain)?\b", rest, re.IGNORECASE)
        and (findings or not steps or not _is_setting_up(steps))
    ):
        return None
    if len(steps) == 1 and isinstance(steps[0], Gesture) and steps[0].kind in ("join", "join colour") and stream.kept:
        return None  # "Join the top edge of Front to the side of Gusset."
    short = isinstance(steps[0], Chain) and max(v or 0 for v in steps[0].length.values) <= 4 if steps else False
    short = short and not any(finding.code in NOT_KNOWN for finding in findings)
    if not steps or starts_piece(steps) or (findings and short):
        return None  # "Ch 1, sc evenly all around the piece": no foundation, whatever it is
    kept = (*before[1], *(replace(one, after=one.after + len(before[0])) for one in kept_among(stream, steps)))
    setup = Setup(
        (*before[0], *steps),
        context.active,
        span,
        any(finding.severity == "error" or finding.code in NOT_KNOWN for finding in findings),
        kept,
        tuple(stream.totals),
        named=named_in(stream, steps),
    )
    return setup, tuple(findings)


def _setup_in(text: str) -> tuple[SetUpOpening | None, int]:
    """How a set-up line begins, and behind how many clauses of words ("With RS together; join yarn")."""
    opening, at = opening_of(text), 0
    for clauses in range(MOST_BEFORE):
        if opening is not None:
            return opening, clauses
        at = text.find(";", at) + 1
        if not at or starts_label(text):
            break
        opening = _opening(text, at)
        if opening is not None:  # what stands before it is read as well
            opening = replace(opening, ahead=((0, opening.at),))
    return opening, MOST_BEFORE


def _is_setting_up(steps: tuple[Step, ...]) -> bool:
    """Are they only chains, gestures and stitches passed over?"""
    return all(isinstance(step, Chain | Gesture | Skip) for step in steps)


def _before_setup(
    text: str, line: int, context: Context, opening: SetUpOpening
) -> tuple[tuple[Step, ...], tuple[Kept, ...]] | None:
    """What stands before a foundation: the colour that it is made in, and words; None where it is not understood."""
    steps: list[Step] = []
    kept: list[Kept] = []
    for start, end in opening.ahead:
        stream = instructions(text, line, context, start, end)
        found = read_steps(stream)
        if stream.findings or uncounted(stream, found) or not all(isinstance(step, Gesture | Chain) for step in found):
            return None
        kept += [replace(one, after=one.after + len(steps)) for one in kept_among(stream, found)]
        steps += found
    return tuple(steps), tuple(kept)
