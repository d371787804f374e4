"""Set-up lines, which work a foundation and have no label: "Ch 31 (37, 43).", "Base: make a magic ring."; fastening
off."""

import re
from dataclasses import replace

from rillstep.core.clauses.labels import starts as starts_label
from rillstep.core.clauses.steps import read_steps
from rillstep.core.findings import NOT_KNOWN, Finding, Span
from rillstep.core.memory import remember
from rillstep.core.notation.unlabelled import starts_piece
from rillstep.core.tree import Chain, Gesture, Kept, Setup, Skip, Step
from rillstep.core.words.asides import instructions, kept_among
from rillstep.core.words.stream import Context, uncounted

SETUP = re.compile(
    r"^\s*+(?:leaving (?:a |an )?[^.;,]{1,40},\s{0,3})?(?:\W*+(?:foundation(?: chain| ch)?|"
    r"set-?up|to begin|to start|begin|start)\s*+[:,]\s*+)?(?:(?:with|using)\s+(?:[^.;]|"
    r"\.(?=\d)){1,60}?,\s*)?"
    r"(?:(?:with|using)\s+(?:[^.;,]|\.(?=\d)){1,60}?(?=\s(?:make|ch|chain|work)\s))?\s*(?:make "
    r"a slip (?:knot|st)(?:\s+and|,)?(?:\s+then)?\s*)?(?:make|work|start with|begin "
    r"with|commence with|crochet|in(?:to)?\s+(?:an?|the|your)(?=\s(?:magic|adjustable|"
    r"slip|sliding)\s\w+\s?[:,.]?\s?$))?\s*(?:a\s+(?=ch|foundation))?(?:foundation\s+)?"
    r"(?P<rest>(?<=chain:\s)\d+(?:\s*[(\[][^()\[\]]*[)\]])?(?!\s*(?:ch|st|sc|[\d,(\[]))|"
    r"ch(?:ain)?\s*(?:of\s+)?(?:[\d{]|[(\[]\d|(?:twenty|thirty|forty|fifty|sixty|seventy|"
    r"eighty|ninety|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|"
    r"\w+teen|until|till|for|about|a length of)\b)|"
    r"make an adjustable ring|(?:make a |begin with a |start with a )?(?:magic|"
    r"adjustable|slip|sliding) (?:ring|circle|loop)|mr\b|fasten off\b|cut (?:the )?yarn|"
    r"(?:re)?join\b|(?:re)?attach\b|change to\b|switch to\b|turn\b|rotate\b|(?:sk|skip|"
    r"miss)\b(?=[^.]{1,80}\b(?:re)?(?:join|attach))|do not (?:turn|join|fasten)|with "
    r"rs\b|place (?:a )?marker|sl st\b|ss\b|\d+\s*(?:[(\[][\d\s,;:/|]*[)\]]\s*)?(?:ch|"
    r"chs|chain|chains)\b)",
    re.IGNORECASE,
)

# Clauses of words before a foundation, at most.
MOST_BEFORE = 3


# What may be said before a foundation, and is said by it: "Foundation chain:", "To begin, make a slip knot and".
_SETTING_UP = re.compile(
    r"\W*(?:foundation(?: chain| ch)?|set-?up|to begin|to start|begin|start)?\s*[:,]?\s*(?:make "
    r"a slip (?:knot|st)(?:\s+and|,)?(?:\s+then)?\s*)?"
    r"(?:make|work|start with|begin with|commence with|crochet|in(?:to)?\s+(?:an?|the|your))?\s*(?:a\s+)?(?:foundatio"
    r"n\s+)?(?:chain:\s*)?",
    re.IGNORECASE,
)


_SET_UP_LEAD = re.compile(
    r"\W{0,9}(?:foundation(?: chain| ch)?|set-?up|to begin|to start|begin|start)\s*[:,]", re.IGNORECASE
)
_SET_UP_TAIL = re.compile(
    r"\s{0,3}(?:make a slip (?:knot|st)(?:\s{1,3}and|,)?(?:\s{1,3}then)?\s{0,3})?(?:make|work|start with|"
    r"begin with|commence with|crochet)?\s{0,3}(?:a\s{1,3})?(?:foundation\s{1,3})?$",
    re.IGNORECASE,
)


@remember(2048)
def read_setup(text: str, line: int, context: Context) -> tuple[Setup, tuple[Finding, ...]] | None:
    """A set-up line such as "Ch 31 (37, 43)."; None when it is none."""
    match = _setup_in(text)
    if match is None:
        return None
    begin, rest = match.start("rest"), match["rest"]
    before = _before_setup(text, line, context, begin)
    if before is None and SETUP.match(text) is None:
        return None
    if rest[0].isdigit() and "ch" not in rest.lower() and text[:begin].endswith(": "):  # "Foundation chain: 25 [29]"
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
    )
    return setup, tuple(findings)


def _setup_in(text: str) -> re.Match[str] | None:
    """Where a set-up line begins: at once, or behind a few clauses of words ("With RS together; join yarn")."""
    match, at = SETUP.match(text), 0
    for _ in range(MOST_BEFORE):
        at = text.find(";", at) + 1
        if match is not None or not at or starts_label(text):
            break
        match = SETUP.match(" " * at + text[at:])
    return match


def _is_setting_up(steps: tuple[Step, ...]) -> bool:
    """Are they only chains, gestures and stitches passed over?"""
    return all(isinstance(step, Chain | Gesture | Skip) for step in steps)


def _before_setup(text: str, line: int, context: Context, end: int) -> tuple[tuple[Step, ...], tuple[Kept, ...]] | None:
    """What stands before a foundation: the colour that it is made in, and words; None where it is not understood."""
    if not text[:end].strip() or _SETTING_UP.fullmatch(text, 0, end):
        return (), ()
    told, lead = _SET_UP_TAIL.search(text, 0, end), _SET_UP_LEAD.match(text, 0, end)
    stream = instructions(
        text, line, context, lead.end() if lead is not None else 0, told.start() if told is not None else end
    )
    steps = read_steps(stream)
    if stream.findings or uncounted(stream, steps) or not all(isinstance(step, Gesture | Chain) for step in steps):
        return None
    return steps, kept_among(stream, steps)
