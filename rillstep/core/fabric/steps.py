"""What each step of a row takes from the edge below and puts on the edge above."""

from dataclasses import replace

from rillstep.core.fabric.cursor import TAKES, Want, want_of
from rillstep.core.fabric.edge import Place, Run, leaves, pattern, reversed_runs
from rillstep.core.fabric.hook import Hook, Stop, Trouble, counted, places_word
from rillstep.core.fabric.repeating import Turns
from rillstep.core.findings import Span
from rillstep.core.notation.tree import (
    Chain,
    EachKind,
    Evenly,
    Every,
    FromHook,
    Gesture,
    Group,
    InRing,
    Into,
    Last,
    Loops,
    Marked,
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
from rillstep.core.stitches import basic

MOST_REPEATS = 20_000
# An uneven repeat is walked turn by turn when nothing in it can be counted at once.
MOST_TURNS = 5_000


def do_all(hook: Hook, steps: tuple[Step, ...]) -> None:
    """Work steps one after another."""
    for index, step in enumerate(steps):
        step_of(hook, step, steps[index + 1] if index + 1 < len(steps) else None)


def step_of(hook: Hook, step: Step, following: Step | None) -> None:
    """Work one step; `following` is the one after it. Raises Stop."""
    match step:
        case Work():
            _work(hook, step)
        case Together():
            _together(hook, step)
        case Skip(count, what):
            hook.take(want_of(what, hook.size), count.at(hook.size), step.span)
        case Chain():
            _chain(hook, step, following)
        case Group(steps, into):
            _group(hook, steps, into, step.span)
        case EachKind():
            _each_kind(hook, step)
        case Evenly():
            _evenly(hook, step)
        case Repeat():
            _repeat(hook, step)
        case Gesture():
            _gesture(hook, step)
    hook.started = hook.started or not isinstance(step, Gesture)


# --- places ------------------------------------------------------------------------


def places(hook: Hook, into: Into, span: Span, loop: str = "both") -> int:
    """Take the places that `into` names; the answer is how many there are. Raises Stop."""
    size = hook.size
    match into:
        case Next(number, what):
            return _taken(hook, _wanted(hook, what), number.at(size), span, loop)
        case Every(what, end):
            return _every(hook, what, end, span, loop)
        case Same(what):
            _same(hook, what, span, loop)
            return 1
        case Last(what):
            return _last(hook, what, span, loop)
        case Nth(nth, what):
            want = _wanted(hook, what)
            if nth.at(size) > 1:
                hook.take(want, nth.at(size) - 1, span)
            elif hook.standing is not None or (hook.made and not hook.cursor.taken):
                _same(hook, what, span, loop)
                return 1
            return _taken(hook, want, 1, span, loop)
        case FromHook():
            return _from_hook(hook, into, span)
        case InRing():
            ring = not hook.edge.runs or any(run.place.kind == "ring" for run in hook.edge.runs)
            if not ring and not (hook.edge.foundation and hook.edge.closed):
                raise Stop(Trouble("no-such-place", span, "there is no ring here to work into"))
            hook.cursor.rest = []
            return 1
        case Marked(marker):
            return _marked(hook, marker, span)
        case Loops():
            return _loops(hook, into, span)


def _wanted(hook: Hook, what: What) -> Want:
    """What is named; a stitch that the edge has none of means any stitch, as a corner does where none is marked."""
    want = want_of(what, hook.size)
    if want.stitch and not hook.cursor.available(want) and not _has(hook, want):
        want = replace(want, stitch="")
    if want.corner and want.kind == "st and sp":  # a bare "corner": its space, where corners have one
        spaces = replace(want, kind="sp")
        want = spaces if _has(hook, spaces) else replace(want, kind="st")
    if want.corner and not _has(hook, want):
        want = replace(want, corner=False)
    return want


def _has(hook: Hook, want: Want) -> bool:
    return any(want.units(place) for place, _ in leaves(hook.edge.runs))


def _taken(hook: Hook, want: Want, count: int, span: Span, loop: str) -> int:
    taken = hook.take(want, count, span)
    if loop == "back":
        hook.freed_front += taken
    elif loop == "front":
        hook.freed_back += taken
    if hook.moving:
        _carry_marks(hook, taken)
    return counted(taken)


def _carry_marks(hook: Hook, taken: list[Run]) -> None:
    """Markers are moved up: the next stitch made carries the mark of the place that it goes into."""
    marks = [place.mark for place, _ in leaves(taken) if place.mark is not None]
    if marks:
        hook.carried = marks[-1]


def _every(hook: Hook, what: What, end: ToEnd, span: Span, loop: str) -> int:
    want = _wanted(hook, what)
    if hook.edge.foundation and want.kind == "st":
        want = replace(want, kind="ch", stitch="")
    if hook.on_side or (want.kind == "end" and not _has(hook, want)):
        return _along_side(hook, want, end, span)
    count = _until(hook, want, end, span)
    hook.cursor.use(want)
    if count < 1:
        if count == 0 and end.word in ("last", "marker"):
            return 0
        raise Stop(Trouble("runs-out", span, "there is nothing left here to work into", missing=1 - count))
    return _taken(hook, want, count, span, loop)


def _until(hook: Hook, want: Want, end: ToEnd, span: Span) -> int:
    """How many of the wanted places stand before an end."""
    hook.settle()
    if end.word == "marker":
        found = hook.cursor.before(want, end.marker)
        if found is None:
            name = f" {end.marker}" if end.marker else ""
            raise Stop(Trouble("marker-missing", span, f"there is no marker{name} ahead"))
        return found
    if end.what is not None:
        stop = _wanted(hook, end.what)
        last = end.last.at(hook.size) if end.last else 0
        found = hook.cursor.before(want, stop, last) if last else _to_next(hook, want, stop)
        if found is None:
            raise Stop(Trouble("no-such-place", span, "the place at which this should end is not ahead"))
        return found
    return hook.cursor.available(want) - (end.last.at(hook.size) if end.last else 0)


def _to_next(hook: Hook, want: Want, stop: Want) -> int | None:
    """How many of the wanted stand before the next place of a kind."""
    ahead = hook.cursor.available(stop)
    return hook.cursor.before(want, stop, ahead) if ahead else None


def _along_side(hook: Hook, want: Want, end: ToEnd, span: Span) -> int:
    """Along a side of the piece: row ends or the foundation chain."""
    if not hook.on_side:
        left = hook.cursor.left()
        if left and not hook.unworked:
            message = f"{left} {places_word(hook.cursor.kinds, left)} left over before the row ends"
            raise Stop(Trouble("left-over", span, message, left=left))
        hook.on_side = True
        hook.cursor.rest = []
        hook.cursor.uses.clear()
    if not hook.cursor.rest:
        hook.next_side(want)
    if not hook.cursor.rest:
        raise Stop(Trouble("no-such-place", span, "there are no row ends here to work into", missing=1))
    kind = hook.cursor.rest[-1].place.kind
    side = Want(kind)  # type: ignore[arg-type]
    count = hook.cursor.available(side) - (end.last.at(hook.size) if end.last else 0)
    return counted(hook.take(side, max(0, count), span))


def _same(hook: Hook, what: What, span: Span, loop: str) -> None:
    if hook.standing is not None:
        hook.standing = None
    elif hook.cursor.taken == 0 and not hook.on_side:
        _taken(hook, _wanted(hook, what), 1, span, loop)


def _last(hook: Hook, what: What, span: Span, loop: str) -> int:
    want = _wanted(hook, what)
    if hook.edge.foundation and want.kind == "st":
        want = replace(want, kind="ch", stitch="")
    if hook.on_side and hook.cursor.rest:
        want = Want(hook.side_kind())
    ahead = hook.cursor.available(want)
    if ahead > 1:
        message = f"{ahead - 1} {places_word(set(TAKES[want.kind]), ahead - 1)} left over before the last one"
        raise Stop(Trouble("left-over", span, message, left=ahead - 1))
    return _taken(hook, want, 1, span, loop)


def _from_hook(hook: Hook, into: FromHook, span: Span) -> int:
    nth = into.nth.at(hook.size)
    if hook.made and hook.cursor.taken and _is_chain(hook.made[-1]):
        return 0  # a stitch back into a chain just made closes a picot
    if not hook.edge.foundation or hook.cursor.taken:
        raise Stop(Trouble("no-such-place", span, "there is no new foundation chain here"))
    if nth < 2:
        raise Stop(Trouble("no-such-place", span, "the chain on the hook itself cannot be worked into"))
    hook.take(Want("ch"), nth, span)
    # The chains skipped at the start are not places; the walk back along the underside
    # ends at the chain first worked into.
    hook.cursor.taken -= nth - 1
    hook.cursor.worked_chains -= nth - 1
    if into.counts_as:
        hook.make([Run(Place("st", into.counts_as), 1)])
    return 1


def _is_chain(run: Run) -> bool:
    return run.place.kind == "sp" and not run.inner


def _marked(hook: Hook, marker: str, span: Span) -> int:
    ahead = hook.cursor.before(Want("st"), marker)
    if ahead is None:
        name = f" {marker}" if marker else ""
        raise Stop(Trouble("marker-missing", span, f"there is no marker{name} ahead"))
    if ahead and hook.started and hook.cursor.taken:
        message = f"{ahead} {places_word({'st'}, ahead)} left over before the marked one"
        raise Stop(Trouble("left-over", span, message, left=ahead))
    if ahead:
        hook.take(Want("st"), ahead, span)
    return _taken(hook, Want("st"), 1, span, "both")


def _loops(hook: Hook, into: Loops, span: Span) -> int:
    """Loops that an earlier row left free."""
    number = into.number.at(hook.size)
    free = dict(hook.around.loops).get((into.kind, number))
    runs = () if free is None else free.front if into.loop == "front" else free.back
    total = counted(list(runs))
    key = (into.kind, number, into.loop)
    if not total or key in hook.used_loops:
        why = "are worked already" if key in hook.used_loops else "are not free"
        raise Stop(Trouble("no-such-place", span, f"the {into.loop} loops of {into.kind} {number} {why}"))
    count = into.count.at(hook.size) if into.count is not None else total
    if count > total:
        missing = count - total
        raise Stop(Trouble("runs-out", span, f"runs out of free loops: {missing} missing", missing=missing))
    if into.count is None or count == total:
        hook.used_loops.append(key)
    hook.cursor.rest = []
    hook.cursor.taken += count
    return count


# --- stitches ----------------------------------------------------------------------


def _special(hook: Hook, name: str) -> Special | None:
    return next((s for s in hook.around.specials if s.name == name and s.steps), None)


def _work(hook: Hook, step: Work) -> None:
    special = _special(hook, step.stitch)
    if special is not None:
        _special_work(hook, step, special)
        return
    per = step.per.at(hook.size)
    count = places(hook, step.into, step.span, step.loop)
    if step.stitch == "sl st":
        hook.slip_stitches += per * count
        if isinstance(step.into, FromHook):
            return
    if count and per:
        hook.make(_stitches(hook, step.stitch, per, count))


def _stitches(hook: Hook, stitch: str, per: int, count: int) -> list[Run]:
    """`per` stitches in each of `count` places; the middle one of three or more is a corner, where corners are named."""
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
        made = _made_in_one(hook, inner, special.name)
        hook.make([pattern(made * step.per.at(hook.size), count)] if made and count else [])
        return
    times = step.into.count.at(hook.size) if isinstance(step.into, Next) else 1
    for _ in range(min(times, MOST_REPEATS)):
        do_all(hook, inner)


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
        match step:
            case Work(stitch=stitch, per=per, into=into):
                inner = _special(hook, stitch)
                times = per.at(hook.size) * (into.count.at(hook.size) if isinstance(into, Next) else 1)
                made += (
                    _made_in_one(hook, inner.steps, inner.name) * times if inner else [Run(Place("st", stitch), times)]
                )
            case Together(stitch=stitch):
                made.append(Run(Place("st", stitch), 1))
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
        place = replace(run.place, special=special)
        key = index == spaces[0] if spaces else at <= total // 2 < at + run.count
        if not key:
            runs.append(Run(place, run.count))
        else:
            before = 0 if spaces else total // 2 - at
            after = run.count - before - 1
            runs += [Run(p, n) for p, n in ((place, before), (replace(place, key=True), 1), (place, after)) if n > 0]
        at += run.count
    return runs


def _group(hook: Hook, steps: tuple[Step, ...], into: Into, span: Span) -> None:
    count = places(hook, into, span)
    made = _made_in_one(hook, steps, "")
    if hook.around.corners:
        inside = range(1, len(made) - 1)
        made = [
            Run(replace(r.place, corner=True), r.count) if i in inside and _is_chain(r) else r
            for i, r in enumerate(made)
        ]
        if len(made) == 3 and not any(_is_chain(r) for r in made) and made[1].count == 1:
            made[1] = Run(replace(made[1].place, corner=True), 1)
    if count and made:
        hook.make([pattern(made, count)] if count > 1 else made)


def _each_kind(hook: Hook, step: EachKind) -> None:
    """Every place ahead of the kinds named, each in its own way; what else there is is passed over."""
    hook.settle()
    rules: list[tuple[Want, list[Run]]] = []
    for work in step.works:
        assert isinstance(work.into, Every)
        if isinstance(work, Work):
            made = _stitches(hook, work.stitch, work.per.at(hook.size), 1)
        else:
            made = _made_in_one(hook, work.steps, "")
        rules.append((_wanted(hook, work.into.what), made))
        hook.cursor.use(rules[-1][0])

    def above(runs: list[Run]) -> list[Run]:
        found: list[Run] = []
        for run in runs:
            if run.inner:
                inside = above(list(run.inner))
                found += [pattern(inside, run.count)] if inside else []
                continue
            rule = next((made for want, made in rules if want.units(run.place)), None)
            if rule is not None:
                hook.cursor.taken += run.count
                found.append(pattern(rule, run.count))
        return found

    made = above(_runs_before(hook, step.end, step.span))
    if not made and step.end.word in ("around", "across"):
        raise Stop(Trouble("runs-out", step.span, "there is nothing left here to work into", missing=1))
    hook.make(made)


def _runs_before(hook: Hook, end: ToEnd, span: Span) -> list[Run]:
    """All places before an end, taken off in order."""
    found: list[Run] | None
    if end.word == "marker":
        found = hook.cursor.cut(end.marker)
    elif end.what is not None:
        stop = _wanted(hook, end.what)
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


def _evenly(hook: Hook, step: Evenly) -> None:
    """So many stitches over a whole edge, whatever it has."""
    if step.along in ("row ends", "foundation"):
        want = Want("end" if step.along == "row ends" else "ch")
        if not _has(hook, want):
            _along_side(hook, want, ToEnd("across"), step.span)
        else:
            hook.take(want, hook.cursor.available(want), step.span)
    else:
        want = Want("st and ch")
        count = hook.cursor.available(want)
        if count:
            hook.take(want, count, step.span)
        hook.cursor.rest = []
    hook.make([Run(Place("st", step.stitch), step.count.at(hook.size))])


def _together(hook: Hook, step: Together) -> None:
    legs, times = step.legs.at(hook.size), step.times.at(hook.size)
    if legs < 1:
        raise Stop(Trouble("chain-of-none", step.span, "at least 1 stitch is worked together"))
    if step.into is not None:
        count = places(hook, step.into, step.span, step.loop)
        hook.make([Run(Place("st", step.stitch), count)])
        return
    want = Want("st")
    if step.end is not None:
        ahead = _until(hook, want, step.end, step.span)
        times, left = divmod(ahead, legs)
        if left or not times:
            message = f"{legs} stitches are worked together and do not come out even: {left} left for the last ones"
            raise Stop(Trouble("repeat-uneven", step.span, message, legs - left, left))
    if times:
        _taken(hook, want, legs * times, step.span, step.loop)
        hook.make([Run(Place("st", step.stitch), times)])


# --- chains ------------------------------------------------------------------------


def _chain(hook: Hook, step: Chain, following: Step | None) -> None:
    length = step.length.at(hook.size)
    if length < 1:
        raise Stop(Trouble("chain-of-none", step.span, "a chain has at least 1 stitch"))
    hook.chains += length
    if not hook.started:
        counts = _starting_chain(hook, step, length, following)
        if counts == "none":
            return
        if counts is not None:
            if hook.standing is not None:
                hook.standing = None
            elif (
                not any(run.place.kind == "ring" for run in hook.edge.runs)
                and hook.edge.runs
                and not _first_is_ring(following)
            ):
                hook.take(Want("st"), 1, step.span)
            hook.make([Run(Place("st", counts), 1)])
            if step.space is not None:
                hook.make([Run(Place("sp", length=step.space.at(hook.size)), 1)])
            return
    hook.make([Run(Place("sp", length=length), 1)])


def _first_is_ring(following: Step | None) -> bool:
    return isinstance(getattr(following, "into", None), InRing)


def _starting_chain(hook: Hook, step: Chain, length: int, following: Step | None) -> str | None:
    """What a chain at the very start of a row is: "none", a stitch, or None for a chain loop."""
    first = _first_stitch(following)
    height = basic(first).turning_chain if first else 0
    counts = step.counts or hook.says.get(length)
    if counts is not None:
        if step.counts is not None:
            hook.says[length] = counts
        if counts == "st":
            return first or "sc"
        standard = basic(counts).turning_chain if counts != "none" else height
        extra = step.space.at(hook.size) if step.space is not None else 0
        if length > 1 and first is not None and abs(length - extra - standard) > (0 if counts == "none" else 1):
            message = f"ch {length} does not reach the height of {counts if counts != 'none' else first}"
            hook.warnings.append(Trouble("turning-chain", step.span, message))
        return counts
    if length == 1:
        return "none"
    if length == height:
        message = f"the text does not say whether ch {length} counts as a stitch"
        hook.warnings.append(Trouble("chain-unsaid", step.span, message))
        return "none"
    return None


def _first_stitch(step: Step | None) -> str | None:
    match step:
        case Work(stitch=stitch) | Together(stitch=stitch):
            return stitch
        case Repeat(steps=steps) | Group(steps=steps):
            return next((found for found in map(_first_stitch, steps) if found is not None), None)
        case EachKind(works=works):
            return _first_stitch(works[0])
        case _:
            return None


# --- gestures ----------------------------------------------------------------------


def _gesture(hook: Hook, step: Gesture) -> None:
    match step.kind:
        case "join" | "join into ring":
            hook.closed = True
        case "turn":
            if hook.started:
                hook.turned = True
            else:
                hook.cursor.rest = list(reversed_runs(tuple(hook.cursor.rest)))
        case "rotate":
            hook.rotate(step.span)
        case "leave rest unworked":
            hook.unworked = True
        case "place marker":
            _place_marker(hook, step)
        case "join colour" if step.into is not None and not hook.started:
            _join_at(hook, step)
        case _:
            pass


def _join_at(hook: Hook, step: Gesture) -> None:
    """A yarn joined in a named place: the row begins there."""
    into = step.into
    if isinstance(into, Nth) and into.nth.at(hook.size) > 1:
        hook.take(_wanted(hook, into.what), into.nth.at(hook.size) - 1, step.span)


def _place_marker(hook: Hook, step: Gesture) -> None:
    """A marker in the stitch just made, or in the first one of the row."""
    if not hook.made:
        return
    first = isinstance(step.into, Nth) and step.into.nth.at(hook.size) == 1
    index = 0 if first else -1
    run = hook.made[index]
    while run.inner:  # open the pattern at its end
        rest = [Run(run.place, run.count - 1, run.inner)] if run.count > 1 else []
        hook.made[index:] = [*rest, *run.inner] if not first else [*run.inner, *rest, *hook.made[1:]]
        run = hook.made[index]
    marked = Run(replace(run.place, mark=step.name), 1)
    rest = [Run(run.place, run.count - 1)] if run.count > 1 else []
    hook.made[index : index + 1 if first else None] = [marked, *rest] if first else [*rest, marked]


# --- moving and repeating ----------------------------------------------------------


def move_along(hook: Hook, steps: tuple[Step, ...]) -> None:
    """Slip stitches that only move the hook: in a round the places passed come last, in a row they are left behind."""
    passed: list[Run] = []
    if not steps:
        return
    for step in steps:
        assert isinstance(step, Work)
        before = list(hook.cursor.rest)
        count = places(hook, step.into, step.span)
        hook.slip_stitches += count
        passed += _between(before, hook.cursor.rest)
    hook.cursor.taken = 1  # "same st" is now where the hook has moved to
    hook.cursor.uses.clear()
    if passed:
        last = passed.pop()
        if last.count > 1:
            passed.append(Run(last.place, last.count - 1))
        hook.standing = Run(last.place, 1)
    if hook.edge.closed:
        hook.cursor.rest[:0] = list(reversed(passed))


def _between(before: list[Run], after: list[Run]) -> list[Run]:
    """The single places that stood on `before` and do not stand on `after`, in working order."""
    old, new = _flat(before), _flat(after)
    return old[: len(old) - len(new)]


def _flat(stack: list[Run]) -> list[Run]:
    flat: list[Run] = []
    for run in reversed(stack):
        if run.inner:
            for _ in range(run.count):
                flat += _flat(list(reversed(run.inner)))
        else:
            flat += [Run(run.place, 1)] * run.count
    return flat


def _repeat(hook: Hook, step: Repeat) -> None:
    if isinstance(step.times, Num):
        times = step.times.at(hook.size)
        if times > MOST_REPEATS:
            raise Stop(Trouble("too-large", step.span, f"more than {MOST_REPEATS:,} repeats are not worked"))
        _repeat_times(hook, step.steps, times)
        return
    _repeat_to_end(hook, step, step.times)


def _repeat_times(hook: Hook, steps: tuple[Step, ...], times: int) -> None:
    turns = Turns()
    done = 0
    while done < times:
        do_all(hook, steps)
        done += 1
        done += _skip(hook, turns, done, times - done)


def _skip(hook: Hook, turns: Turns, done: int, most: int | None) -> int:
    skipped = turns.skip(hook.cursor.rest, hook.made, _freed(hook), hook.tally, done, most)
    if skipped is None:
        return 0
    hook.add(skipped.tally)
    return skipped.turns


def _freed(hook: Hook) -> list[Run]:
    """The loops being freed by this row: a row frees front loops or back loops, hardly ever both."""
    return hook.freed_front if hook.freed_front else hook.freed_back


def _repeat_to_end(hook: Hook, step: Repeat, end: ToEnd) -> None:
    """Work the brackets until exactly `last` places are left; anything else is an error with its remainder."""
    hook.settle()
    for what in _whats(step.steps):
        hook.cursor.use(_wanted(hook, what) if what.stitch or what.corner else want_of(what, hook.size))

    def left() -> int:
        return _left_before(hook, end, step.span)

    here = left()
    takes = done = 0
    turns = Turns()
    while here > 0:
        before = here
        try:
            do_all(hook, step.steps)
        except Stop as stop:
            if stop.trouble.code != "runs-out" or not takes:
                raise
            message = f"the repeat takes {takes} and does not come out even: {before} left for its last turn"
            raise Stop(Trouble("repeat-uneven", step.span, message, takes - before, before)) from None
        done += 1
        done += _skip(hook, turns, done, None)
        now = left()
        takes = takes or before - now
        if now >= before:
            raise Stop(Trouble("repeat-stuck", step.span, "the repeat takes no stitch, so it never ends"))
        if done > MOST_TURNS * 40:
            raise Stop(Trouble("too-large", step.span, "more repeats than Rillstep works in one row"))
        here = now
    if here < 0:
        message = f"the repeat takes {takes} and does not come out even"
        raise Stop(Trouble("repeat-uneven", step.span, message, -here, takes + here))


def _left_before(hook: Hook, end: ToEnd, span: Span) -> int:
    """Places of the kinds of this row that are left before the end of a repeat; negative when it has been passed."""
    if end.word == "marker":
        return _until(hook, Want("st"), end, span)
    if end.what is not None:
        want = _wanted(hook, end.what)
        last = end.last.at(hook.size) if end.last else 1
        ahead = hook.cursor.available(want)
        if ahead < last:
            return ahead - last
        used = [Want(kind, None, stitch, corner) for kind, stitch, corner in hook.cursor.uses]  # type: ignore[arg-type]
        return sum(hook.cursor.before(use, want, last) or 0 for use in used)
    return hook.cursor.left() - (end.last.at(hook.size) if end.last else 0)


def _whats(steps: tuple[Step, ...]) -> list[What]:
    found: list[What] = []
    for step in steps:
        match step:
            case Work(into=into) | Group(into=into):
                what = getattr(into, "what", None)
                if what is not None:
                    found.append(what)
            case Skip(what=what):
                found.append(what)
            case Together(into=into):
                found.append(getattr(into, "what", None) or What("st"))
            case Repeat(steps=inner):
                found += _whats(inner)
            case EachKind(works=works):
                found += _whats(works)
            case _:
                pass
    return found
