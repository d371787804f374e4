"""Stitches on the new edge: plain ones, several in one place, special ones, several worked together."""

from dataclasses import replace

from rillstep.core.craft import is_post, other_side
from rillstep.core.fabric.cursor import Want
from rillstep.core.fabric.edge import Place, Run, pattern
from rillstep.core.fabric.hook import Hook, Stop, Trouble, counted
from rillstep.core.fabric.taking import places, taken, until
from rillstep.core.fabric.wants import has, is_chain, wanted
from rillstep.core.findings import Span
from rillstep.core.tree import (
    Chain,
    EachKind,
    Every,
    FromHook,
    Gesture,
    Group,
    InRing,
    Into,
    Next,
    Nth,
    Num,
    Repeat,
    Same,
    Skip,
    Special,
    Step,
    ToEnd,
    Together,
    What,
    Work,
)

MOST_REPEATS = 20_000
# More slip stitches than this at the end of a round are no levelling of it.
MOST_LEVELLING = 3


def work(hook: Hook, step: Work) -> None:
    """Work a stitch into the places that its step names. Raises Stop."""
    special = hook.special(step.stitch)
    if special is not None:
        _special_work(hook, step, special)
        return
    per = step.per.at(hook.size)
    if not per:
        return  # "0 (1) sc in next st": nothing is worked in this size, and no place is taken
    if step.stitch == "sl st" and _finishes(hook, step):
        hook.slip_stitches += 1
        hook.closed = True
        return
    if step.stitch == "sl st" and isinstance(step.into, Same) and hook.made and is_chain(hook.made[-1]):
        hook.slip_stitches += 1  # a loop closed where it began: it stays a loop
        return
    count = places(hook, step.into, step.span, step.loop, step.stitch)
    if step.stitch == "sl st":
        hook.slip_stitches += per * count
    if count:
        # Stitches in a ring lie side by side: none of them is the middle of a corner.
        made = (1, per * count) if isinstance(step.into, InRing) else (per, count)
        hook.make(_stitches(hook, step.stitch, *made), count)
    if isinstance(step.into, Same | InRing):
        begun_special(hook)


def _finishes(hook: Hook, step: Work) -> bool:
    """A few slip stitches when all places of a round are worked: they go into its first stitches, and level the
    round."""
    few = (
        isinstance(step.into, Next)
        and 1 <= step.into.count.at(hook.size) <= MOST_LEVELLING
        and step.into.what.kind == "st"
    )
    done = bool(hook.made) and hook.edge.closed and not hook.edge.foundation
    return few and done and not hook.cursor.rest


def _stitches(hook: Hook, stitch: str, per: int, count: int) -> list[Run]:
    """`per` stitches in each of `count` places; the middle one of three or more is a corner, where corners are
    named."""
    place = Place("st", stitch)
    carried = hook.carried
    if carried is not None:
        hook.carried = None
        return (
            [Run(place, per * count - 1), Run(replace(place, mark=carried), 1)]
            if per * count > 1
            else [Run(replace(place, mark=carried), 1)]
        )
    if not hook.around.corners or per < 3 or per % 2 == 0:
        return [Run(place, per * count)]
    half = Run(place, per // 2)
    middle = [half, Run(replace(place, corner=True), 1), half]
    return middle if count == 1 else [pattern(middle, count)]


def _special_work(hook: Hook, step: Work, special: Special) -> None:
    """A stitch of the pattern's own: its steps in one place, or, when they take several, as they stand."""
    inner = special.steps
    if _in_one_place(inner):
        count = places(hook, step.into, step.span, step.loop)
        made = _made_in_one(hook, inner, _family(hook, special.name))
        hook.make([pattern(made * step.per.at(hook.size), count)] if made and count else [], count)
        return
    if isinstance(step.into, Every):
        one = Next(replace(step.per, values=tuple(None if v is None else 1 for v in step.per.values)), What("st"))
        hook.do_all(hook, (Repeat((replace(step, into=one),), step.into.end, step.span),))
        return
    times = step.into.count.at(hook.size) if isinstance(step.into, Next) else 1
    if isinstance(step.into, Next) and step.into.over:
        width = _width(inner, hook.size)
        if not width or times % width:
            message = f"{special.name} takes {width}, and is worked over {times}"
            raise Stop(
                Trouble(
                    "repeat-uneven",
                    step.span,
                    message,
                    -times % width if width else 0,
                    times % width if width else times,
                )
            )
        times //= width
    for _ in range(min(times, MOST_REPEATS)):
        before = len(hook.made)
        hook.do_all(hook, inner)
        hook.made[before:] = _offered(hook.made[before:], _family(hook, special.name))


def _width(steps: tuple[Step, ...], size: int) -> int:
    """How many places some steps take."""
    taken = 0
    for step in steps:
        match step:
            case Work(into=Next(count=count)) | Skip(count=count):
                taken += count.at(size)
            case Together(legs=legs, times=times):
                taken += legs.at(size) * times.at(size)
            case _:
                pass
    return taken


def _family(hook: Hook, name: str) -> str:
    """ "Beg V-st" is a V-st as well, where the pattern has both: that is what it is counted and worked into as."""
    for prefix in ("beg ", "beginning ", "starting ", "first "):
        bare = name.lower().removeprefix(prefix)
        if bare != name.lower():
            return next((s.name for s in hook.around.specials if s.name.lower() == bare), name)
    return name


def _in_one_place(steps: tuple[Step, ...]) -> bool:
    match steps:
        case (Work(into=Same()),) | (Group(),):
            return True
        case (Together(into=into),):
            return into is not None
        case _:
            return all(
                isinstance(step, Chain) or (isinstance(step, Work) and isinstance(step.into, Same)) for step in steps
            )


def _made_in_one(hook: Hook, steps: tuple[Step, ...], special: str) -> list[Run]:
    """What some steps make when all of them stand in one place."""
    if len(steps) == 1 and isinstance(steps[0], Group):
        steps = steps[0].steps
    made: list[Run] = []
    for step in steps:
        hook.spend(step.span, 1 + len(made))
        match step:
            case Work(stitch="sl st", into=FromHook() | Nth()) if made and made[-1].place.kind == "sp":
                made.pop()  # a picot: the chain is closed into a knot, and is no place
            case Work(stitch=stitch, per=per, into=into):
                inner = hook.special(stitch)
                times = per.at(hook.size) * (into.count.at(hook.size) if isinstance(into, Next) else 1)
                made += (
                    _made_in_one(hook, inner.steps, inner.name) * times if inner else [Run(Place("st", stitch), times)]
                )
            case Together(stitch=stitch):
                made.append(Run(Place("st", stitch), 1))
            case Chain(counts=str() as counts, space=space) if counts != "none" and not made:
                made.append(Run(Place("st", counts, chain=True), 1))  # "ch 4 (counts as dc, ch 1), dc in same st"
                made += [Run(Place("sp", length=space.at(hook.size)), 1)] if space is not None else []
            case Chain(length=length) if length.at(hook.size) > 0:
                hook.chains += length.at(hook.size)
                made.append(Run(Place("sp", length=length.at(hook.size)), 1))
            case Repeat(steps=again, times=Num() as number):
                made += _made_in_one(hook, again, "") * min(number.at(hook.size), MOST_REPEATS)
            case Gesture():
                pass
            case _:
                raise Stop(
                    Trouble(
                        "not-in-one-place", getattr(step, "span", Span(0, 1, 1)), "this cannot be worked in one place"
                    )
                )
    return _offered(made, special) if special else made


def _offered(made: list[Run], special: str) -> list[Run]:
    """What a special stitch offers: its first space, or else its middle stitch."""
    total = counted(made)
    spaces = [i for i, run in enumerate(made) if run.place.kind == "sp"]
    runs: list[Run] = []
    at = 0
    for index, run in enumerate(made):
        key = index == spaces[0] if spaces else at <= total // 2 < at + run.count
        # One of the pattern's own stitches within another ("corner = (cluster, ch 2, cluster)") keeps its own name.
        place = run.place if run.place.special and not key else replace(run.place, special=special)
        if not key:
            runs.append(Run(place, run.count))
        else:
            before = 0 if spaces else total // 2 - at
            after = run.count - before - 1
            runs += [Run(p, n) for p, n in ((place, before), (replace(place, key=True), 1), (place, after)) if n > 0]
        at += run.count
    return runs


def begun_special(hook: Hook) -> None:
    """A starting chain that counts, and what follows it in the same place, may together be one of the pattern's own
    stitches."""
    first = hook.made[0].place if hook.made else None
    if first is None or not first.chain or len(hook.made) > 8:
        return
    made = _single(hook.made)
    for special in hook.around.specials:
        if not special.steps or not _in_one_place(special.steps):
            continue
        chains = hook.chains
        whole = _made_in_one(hook, special.steps, special.name)
        hook.chains = chains
        if [(p.kind, p.stitch, p.length) for p in _single(whole)] == [(p.kind, p.stitch, p.length) for p in made]:
            places = _single(whole)
            hook.made[:] = [Run(replace(places[0], chain=True), 1), *(Run(place, 1) for place in places[1:])]
            return


def _single(runs: list[Run]) -> list[Place]:
    return [place for run in runs for place in ([run.place] * run.count if not run.inner else _single(list(run.inner)))]


def group(hook: Hook, steps: tuple[Step, ...], into: Into, span: Span) -> None:
    """Several stitches in one place, for each place named. Raises Stop."""
    count = places(hook, into, span)
    made = _made_in_one(hook, steps, "")
    if hook.around.corners:
        inside = range(1, len(made) - 1)
        made = [
            Run(replace(r.place, corner=True), r.count) if i in inside and is_chain(r) else r
            for i, r in enumerate(made)
        ]
        if len(made) == 3 and not any(is_chain(r) for r in made) and made[1].count == 1:
            made[1] = Run(replace(made[1].place, corner=True), 1)
    if count and made:
        hook.make([pattern(made, count)] if count > 1 else made, count)
    if isinstance(into, Same):
        begun_special(hook)


def each_kind(hook: Hook, step: EachKind) -> None:
    """Every place ahead of the kinds named, each in its own way; what else there is is passed over."""
    hook.settle()
    rules: list[tuple[Want, list[Run]]] = []
    for work in step.works:
        assert isinstance(work.into, Every)
        if isinstance(work, Work):
            if not work.per.at(hook.size):
                raise Stop(Trouble("chain-of-none", work.span, "at least 1 stitch is worked into each"))
            made = _stitches(hook, work.stitch, work.per.at(hook.size), 1)
        else:
            made = _made_in_one(hook, work.steps, "")
        rules.append((_seen(hook, work.into.what) or wanted(hook, work.into.what), made))
        hook.cursor.use(rules[-1][0])

    met: set[int] = set()  # which of the kinds there are

    def above(runs: list[Run]) -> list[Run]:
        found: list[Run] = []
        for run in runs:
            if run.inner:
                inside = above(list(run.inner))
                found += [pattern(inside, run.count)] if inside else []
                continue
            units, at = next(((n, at) for at, (want, _) in enumerate(rules) if (n := want.units(run.place))), (0, -1))
            if units:
                met.add(at)
                rule = rules[at][1]
                hook.cursor.taken += run.count
                if hook.trace is not None:
                    hook.trace.note([run])
                    hook.trace.make([pattern(rule, units)], 1)
                found.append(pattern(rule, run.count * units))  # "sc in each st and in each ch": chain by chain
        return found

    made = above(_runs_before(hook, step.end, step.span))
    if not made and step.end.word in ("around", "across"):
        raise Stop(Trouble("runs-out", step.span, "there is nothing left here to work into", missing=1))
    for at, one in enumerate(step.works):
        if (
            at not in met
            and isinstance(one.into, Every)
            and one.into.what.corner
            and step.end.word in ("around", "across")
        ):
            raise Stop(Trouble("no-such-place", one.span, f"there is no {_kind_word(one.into.what)} here to work into"))
    hook.make(made, None)


def _kind_word(what: What) -> str:
    corner = "corner " if what.corner else ""
    return f"{corner}{what.stitch or {'sp': 'space', 'ch': 'chain', 'end': 'row end'}.get(what.kind, 'stitch')}"


def _seen(hook: Hook, what: What) -> Want | None:
    """A post stitch of the row below as it looks after the turn, which is what "FPdc around each FPdc" means; None
    for anything else."""
    if not is_post(what.stitch) or not hook.around.rows:
        return None
    want = Want("st", stitch=other_side(what.stitch))
    return want if has(hook, want) else None


def _runs_before(hook: Hook, end: ToEnd, span: Span) -> list[Run]:
    """All places before an end, taken off in order."""
    found: list[Run] | None
    if end.word == "marker":
        found = hook.cursor.cut(end.marker)
    elif end.what is not None:
        stop = wanted(hook, end.what)
        last = end.last.at(hook.size) if end.last else hook.cursor.available(stop)
        found = hook.cursor.cut(stop, last) if last else None
    elif end.last is not None:
        found = hook.cursor.cut(Want("st"), end.last.at(hook.size))
    else:
        found = list(reversed(hook.cursor.rest))
        hook.cursor.rest = []
    if found is None:
        raise Stop(Trouble("no-such-place", span, "the place at which this should end is not ahead"))
    return found


def together(hook: Hook, step: Together) -> None:
    """Several places worked together into one stitch. Raises Stop."""
    legs, times = step.legs.at(hook.size), step.times.at(hook.size)
    if legs < 1:
        raise Stop(Trouble("chain-of-none", step.span, "at least 1 stitch is worked together"))
    if step.into is not None:
        count = places(hook, step.into, step.span, step.loop)
        hook.make([Run(Place("st", step.stitch), count)], count)
        return
    want = Want("st")
    if step.end is not None:
        ahead = until(hook, want, step.end, step.span)
        times, left = divmod(ahead, legs)
        if left or not times:
            message = f"{legs} stitches are worked together and do not come out even: {left} left for the last ones"
            raise Stop(Trouble("repeat-uneven", step.span, message, legs - left, left))
    if times:
        taken(hook, want, legs * times, step.span, step.loop)
        hook.make([Run(Place("st", step.stitch), times)], legs * times)
