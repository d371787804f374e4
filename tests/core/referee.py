"""The referee: a plain walker that works a row stitch by stitch over a list of single places.

Written apart from `core.fabric` on purpose, with no runs and no counting ahead: both must agree.
A row that cannot be worked to its end gives None.
"""

from dataclasses import replace
from itertools import takewhile

from rillstep.core.fabric import Edge, Surroundings
from rillstep.core.tree import (
    Chain,
    Closing,
    EachKind,
    Every,
    Gesture,
    Group,
    Into,
    Last,
    Next,
    Nth,
    Num,
    Onward,
    Repeat,
    Row,
    Same,
    Skip,
    Skipped,
    Special,
    Step,
    ToEnd,
    Together,
    What,
    Work,
)
from tests.core.referee_places import (
    HEIGHTS,
    KINDS,
    PASSED,
    Fails,
    P,
    Want,
    first_stitch,
    height_of,
    low_of,
    offered,
    spanned,
    takes_several,
    unrolled,
    whats,
)

__all__ = ["unrolled", "walk"]


class Walker:
    def __init__(self, places: list[P], size: int, around: Surroundings) -> None:
        self.places, self.size, self.around = list(places), size, around
        self.says = dict(around.says)
        self.made: list[P] = []
        self.taken = self.skipped = self.turn_began = 0
        self.uses: set[tuple[str, str]] = set()
        self.stands = self.started = self.may_end = False
        self.begins: list[P] = []  # a special stitch that the starting chain begins

    # --- places

    def want(self, what: What) -> Want:
        stitch = what.stitch
        if stitch and not any(self.is_it(p, (what.kind, None, stitch)) for p in [*self.places, *self.below]):
            if not any(self.is_called(p, stitch) for p in self.below):
                raise Fails  # what is named is not there
            stitch = ""
        if what.kind == "st" and not stitch and self.below and all(p.kind == "ch" for p in self.below):
            return ("ch", None, "")  # along the underside of a chain, "sts" are its chains
        return (what.kind, what.length.at(self.size) if what.length else None, stitch)

    @staticmethod
    def is_called(place: P, name: str) -> bool:
        """Plain names go for stitches around a post, for extended and reversed ones; a cluster is one of any kind."""
        plain = place.stitch.removeprefix("FP").removeprefix("BP")
        gathered = ("puff", "bobble", "popcorn", "cluster")
        if name in gathered:
            return place.stitch in gathered or name in place.special.lower()
        return name in (plain, place.special) or (name == "sc" and place.stitch in ("rsc", "esc"))

    def seen(self, what: What) -> Want:
        """A post stitch of the row below as it looks after the turn."""
        other = {"FP": "BP", "BP": "FP"}.get(what.stitch[:2], "") + what.stitch[2:]
        turned = self.around.rows and other != what.stitch[2:]
        return self.want(
            replace(what, stitch=other) if turned and any(p.stitch == other for p in self.places) else what
        )

    @property
    def below(self) -> list[P]:
        return self._below

    def begin(self, closed: bool) -> None:
        self._below = list(self.places)
        self.closed = closed

    @staticmethod
    def is_it(place: P, want: Want) -> bool:
        kind, length, stitch = want
        if stitch and place.key and place.special == stitch:
            return True
        if place.kind not in KINDS[kind] or (stitch and place.stitch != stitch):
            return False
        return place.kind != "sp" or length in (None, place.length)

    def open_spaces(self, want: Want) -> None:
        """A space that is worked chain by chain is its chains."""
        if "ch" in KINDS[want[0]] and self.places and self.places[0].kind == "sp":
            length = self.places[0].length
            self.places[0:1] = [P("ch", begun=length >= 4)] * length

    def units(self, place: P, want: Want) -> int:
        """How many of the wanted a place is: a space where chains are wanted is so many chains."""
        return place.length if "ch" in KINDS[want[0]] and place.kind == "sp" else self.is_it(place, want)

    def ahead(self, want: Want) -> int:
        return sum(self.units(place, want) for place in self.places if not place.optional)

    def take(self, want: Want, use: bool = True) -> None:
        self.stands = False
        if want[0] == "sp" and self.closed and not self.taken and not self.made and self.ahead(want):
            # What is passed over before the first space of a round is met again at its end.
            first = next(i for i, p in enumerate(self.places) if self.is_it(p, want))
            self.places += [replace(p, optional=True) for p in self.places[:first]]
        if use:
            self.uses |= {(kind, want[2] if kind == "st" else "") for kind in KINDS[want[0]]}
        if (
            want[0] == "ch"
            and not self.taken
            and [p.stitch == "sl st" for p in self.places[:2]] in ([True], [True, False])
        ):
            del self.places[0]  # it fastened the chain
        if want[0] == "ch" and not self.places and len(self.made) > 1 and self.made[0].kind == "sp":
            self.places = [P("ch")] * self.made.pop(0).length  # the chain that it began with, met again where it ends
        while self.places:
            self.open_spaces(want)
            place = self.places[0]
            if self.is_it(place, want):
                del self.places[0]
                self.taken += 1
                if want[2] and place.special == want[2]:
                    while self.places and self.places[0].special == want[2] and not self.places[0].key:
                        del self.places[0]
                return
            if place.begun or (not want[2] and place.kind not in PASSED.get(want[0], set())):
                raise Fails
            del self.places[0]
        raise Fails

    def left(self) -> int:
        uses = self.uses or {("st", "")}
        count = 0
        for place in self.places:
            if place.optional:
                continue
            if (
                (place.kind, "") in uses
                or (place.kind, place.stitch) in uses
                or (place.key and ("st", place.special) in uses)
            ):
                count += 1
            elif place.kind == "sp" and ("ch", "") in uses:
                count += place.length
        return count

    def resolve(self, into: Into) -> int:
        size = self.size
        match into:
            case Next(count=count, what=what):
                want = self.want(what)
                for _ in range(count.at(size)):
                    self.take(want)
                return count.at(size)
            case Every(what=what, end=end):
                want = self.want(what)
                wanted = self.ahead(want) - (end.last.at(size) if end.last else 0)
                if end.what is not None:
                    stop = self.want(end.what)
                    stops = [i for i, p in enumerate(self.places) if self.is_it(p, stop) and not p.optional]
                    if len(stops) < (end.last.at(size) if end.last else 1):
                        raise Fails
                    wanted = sum(
                        self.is_it(p, want) and not p.optional
                        for p in self.places[: stops[-end.last.at(size) if end.last else 0]]
                    )
                elif want[0] == "ch" and end.last is None:  # the chain that comes next, up to a stitch
                    chains = takewhile(lambda p: p.kind != "st" or p.optional, self.places)
                    wanted = sum(self.units(p, want) for p in chains) or wanted
                self.uses |= {(kind, want[2] if kind == "st" else "") for kind in KINDS[want[0]]}
                if wanted < 0 or (wanted == 0 and end.word != "last" and not self.may_end):
                    raise Fails
                for _ in range(wanted):
                    self.take(want)
                return wanted
            case Same(what=what):
                if not self.taken:
                    self.take(self.want(what), use=False)
                return 1
            case Last(what=what):
                want = self.want(what)
                ahead = self.ahead(want)
                if ahead > 1 and not any(kind == "sp" or stitch for kind, stitch in self.uses):
                    raise Fails
                for _ in range(max(1, ahead)):
                    self.take(want)
                return 1
            case Nth(nth=nth, what=what, here=here):
                if nth.at(size) == 1 and self.stands:
                    return 1
                if here:
                    for _ in range(nth.at(size)):
                        self.take(self.want(what))
                    for _ in range(nth.at(size) - 1):  # it is the middle one of its group
                        if self.places and self.is_it(self.places[0], self.want(what)):
                            self.take(self.want(what))
                    return 1
                since = self.taken - self.turn_began  # "in 4th st" is the fourth of the row, or of this turn
                for _ in range(nth.at(size) - (since if since < nth.at(size) else 0)):
                    self.take(self.want(what))
                return 1
            case Skipped(count=count):
                if count.at(size) > self.skipped:
                    raise Fails
                self.skipped -= count.at(size)
                return count.at(size)
        raise NotImplementedError(into)

    # --- steps

    def work(self, steps: tuple[Step, ...], top: bool = False) -> None:
        for index, step in enumerate(steps):
            self.step(step, steps[index + 1] if index + 1 < len(steps) else None)
            self.started = self.started or not isinstance(step, Gesture)
            if len(self.made) == len(self.begins) and all(
                (one.kind, one.stitch, one.length) == (of.kind, of.stitch, of.length)
                for one, of in zip(self.made, self.begins, strict=True)
            ):
                self.made = list(self.begins)  # the starting chain and what follows it are that stitch

    def knots(self, into: Into) -> bool:
        """A slip stitch that makes no stitch: it levels a round that is done, or closes a loop where it began."""
        if isinstance(into, Same):
            return bool(self.made) and self.made[-1].kind == "sp"
        few = isinstance(into, Next) and 1 <= into.count.at(self.size) <= 3 and into.what.kind == "st"
        return few and self.closed and bool(self.made) and not self.places

    def turn(self, steps: tuple[Step, ...]) -> None:
        outer, self.turn_began = self.turn_began, self.taken
        self.work(steps)
        self.turn_began = outer

    def special(self, name: str) -> Special | None:
        return next((s for s in self.around.specials if s.name == name and s.steps), None)

    def step(self, step: Step, following: Step | None) -> None:
        size = self.size
        match step:
            case Work(stitch=stitch, per=per, into=into):
                special = self.special(stitch)
                if stitch == "sl st" and self.knots(into):
                    return
                if special and takes_several(special):
                    self.several(step, special)
                    return
                for _ in range(self.resolve(into)):
                    for _ in range(per.at(size)):
                        self.made += self.in_one(special.steps, special.name) if special else [P("st", stitch)]
            case Group(steps=steps, into=into):
                for _ in range(self.resolve(into)):
                    self.made += self.in_one(steps, "")
            case EachKind():
                self.each_kind(step)
            case Together(stitch=stitch, legs=legs, times=times, end=end, into=into):
                if into is not None:
                    self.made += [P("st", stitch)] * self.resolve(into)
                    return
                turns = times.at(size)
                if end is not None:
                    ahead = self.ahead(("st", None, "")) - (end.last.at(size) if end.last else 0)
                    turns, rest = divmod(ahead, legs.at(size))
                    if rest or turns < 1:
                        raise Fails
                for _ in range(turns):
                    for _ in range(legs.at(size)):
                        self.take(("st", None, ""))
                    self.made.append(P("st", stitch))
            case Skip(count=count, what=what, first=first):
                many = max(0, count.at(size) - (first and self.stands))
                for _ in range(many):
                    self.take((what.kind, what.length.at(size) if what.length else None, what.stitch))
                self.skipped += many
            case Chain():
                self.chain(step, following)
            case Onward():
                stitch, ahead = self.places[0].stitch, self.ahead(("st", None, ""))
                for _ in range(ahead):
                    self.take(("st", None, ""))
                self.made += [P("st", stitch)] * (ahead + self.around.grew)
            case Closing(space=space):
                if not self.made:
                    raise Fails
                self.made.append(P("sp", length=space.at(size)))
            case Repeat(steps=(Chain(), *_)) if not self.started:
                self.started = True  # it begins no row
                self.step(step, following)
            case Repeat(steps=steps, times=Num() as times):
                for _ in range(times.at(size)):
                    self.turn(steps)
            case Repeat(steps=steps, times=end):
                assert isinstance(end, ToEnd)
                rest = (
                    isinstance(following, Work)
                    and isinstance(following.into, Every)
                    and following.into.end.word in ("around", "across")
                )
                self.may_end = rest and end.last is None and following.into.what == What("st")
                self.to_end(steps, end, self.may_end)
            case Gesture(kind="turn") if not self.started:
                self.places.reverse()
            case Gesture(kind="both layers") if not self.taken:
                if len(self.places) % 2:
                    raise Fails
                del self.places[len(self.places) // 2 :]  # each place has another behind it
            case Gesture():
                pass

    def chain(self, step: Chain, following: Step | None) -> None:
        length = step.length.at(self.size)
        if length < 1:
            raise Fails
        if not self.started:
            counts = step.counts or self.says.get(length)
            if step.counts:
                self.says[length] = step.counts
            if counts is None and (length in (1, height_of(following)) or length == low_of(following)):
                counts = "none"
            if counts == "none":
                return
            if counts == "st":  # not said, and taken as one: it is what the row begins with
                counts = first_stitch(following)
            space = step.space.at(self.size) if step.space is not None else 0
            special = self.special(counts) if counts else None
            if special is not None:  # it begins as that one does
                whole = self.in_one(special.steps, special.name)
                counts, self.begins = whole[0].stitch, whole
                space = length - HEIGHTS[counts] if whole[1].kind == "sp" else 0
            if counts is not None:
                self.take(("st", None, ""), use=False)
                self.stands = True
                self.made.append(P("st", counts))
                if space:
                    self.made.append(P("sp", length=space))
                return
        self.made.append(P("sp", length=length))

    def several(self, step: Work, special: Special) -> None:
        """A special stitch over several places: its steps as they stand."""
        if isinstance(step.into, Every):
            one = Num(tuple(v and 1 for v in step.per.values))
            self.to_end((replace(step, into=Next(one, What("st"))),), step.into.end, False)
            return
        assert isinstance(step.into, Next)
        until, began = step.into.count.at(self.size), self.taken
        for turn in range(until):
            if step.into.over and self.taken - began >= until:
                if turn and self.taken - began > until:
                    raise Fails
                break
            before = len(self.made)
            self.work(special.steps)
            self.made[before:] = offered(self.made[before:], special.name)

    def in_one(self, steps: tuple[Step, ...], special: str) -> list[P]:
        if len(steps) == 1 and isinstance(steps[0], Group):
            steps = steps[0].steps
        made: list[P] = []
        for step in steps:
            match step:
                case Work(stitch=stitch, per=per, into=into):
                    times = per.at(self.size) * (into.count.at(self.size) if isinstance(into, Next) else 1)
                    inner = self.special(stitch)
                    for _ in range(times):
                        made += self.in_one(inner.steps, inner.name) if inner else [P("st", stitch)]
                case Together(stitch=stitch):
                    made.append(P("st", stitch))
                case Chain(counts=str() as counts, space=space) if counts != "none" and not made:
                    made += [P("st", counts), *([P("sp", length=space.at(self.size))] if space else [])]
                case Chain(length=length):
                    made.append(P("sp", length=length.at(self.size)))
                case Repeat(steps=again, times=Num() as number):
                    for _ in range(number.at(self.size)):
                        made += self.in_one(again, "")
                case Gesture():
                    pass
                case _:
                    raise Fails
        return offered(made, special) if special and made else made

    def each_kind(self, step: EachKind) -> None:
        wants = [self.seen(work.into.what) for work in step.works if isinstance(work.into, Every)]
        for kind, _, stitch in wants:
            self.uses |= {(one, stitch if one == "st" else "") for one in KINDS[kind]}
        keep: list[P] = []
        if step.end.last is not None:
            while self.ahead(("st", None, "")) and len([p for p in keep if p.kind == "st"]) < step.end.last.at(
                self.size
            ):
                keep.insert(0, self.places.pop())
        found = False
        while self.places:
            place = self.places.pop(0)
            for work, want in zip(step.works, wants, strict=True):
                if times := self.units(place, want):
                    assert isinstance(work, Work | Group)
                    self.taken += 1
                    one = [P("st", work.stitch)] * work.per.at(self.size) if isinstance(work, Work) else None
                    self.made += (self.in_one(work.steps, "") if isinstance(work, Group) else one or []) * times
                    found = True
                    break
        if not found and step.end.last is None:
            raise Fails
        self.places = keep

    def to_end(self, steps: tuple[Step, ...], end: ToEnd, whole: bool) -> None:
        wants = {self.want(what) if what.stitch else (what.kind, None, "") for what in whats(steps)}
        for kind, _, stitch in wants:
            self.uses |= {(one, stitch if one == "st" else "") for one in KINDS[kind]}
        last = end.last.at(self.size) if end.last else 0

        def left() -> int:
            if end.what is not None and not (end.last and not last):
                stop = self.want(end.what)
                stops = [i for i, p in enumerate(self.places) if self.is_it(p, stop) and not p.optional]
                needed = last or 1
                if len(stops) < needed:
                    return len(stops) - needed
                return self.counted(self.places[: stops[-needed]], wants)
            if not last:
                return self.counted(self.places, wants)
            stops = sum(p.kind == "st" and not p.optional for p in self.places)
            if stops != self.counted(self.places, wants) and not any(kind == "st" for kind, _, _ in wants):
                bare = [p.kind for p in self.places[-2:]] == ["st", "st"] and self.places[-1].chain
                return self.counted(self.places, wants) - (0 if bare and last == 1 else last)
            if stops < last:
                return stops - last
            seen, cut = 0, 0
            for index in range(len(self.places) - 1, -1, -1):
                seen += self.places[index].kind == "st" and not self.places[index].optional
                if seen == last:
                    cut = index
                    break
            return self.counted(self.places[:cut], wants)

        here, takes = left(), 0
        while here > 0 and not (whole and takes > here):
            self.turn(steps)
            now = left()
            if now >= here:
                raise Fails
            takes = takes or here - now
            here = now
        if here < 0:
            raise Fails

    def counted(self, places: list[P], wants: set[Want]) -> int:
        total = 0
        for place in places:
            if place.optional:
                continue
            if place.kind == "sp" and any("ch" in KINDS[kind] for kind, _, _ in wants):
                total += place.length
            else:
                total += any(self.is_it(place, want) for want in wants)
        return total


def walk(row: Row, size: int, edge: Edge, around: Surroundings | None = None) -> list[P] | None:
    """The places after the row, or None when it cannot be worked to its end."""
    walker = Walker(unrolled(edge), size, around or Surroundings())
    walker.begin(edge.closed and not edge.foundation)
    steps = row.steps
    try:
        if len(steps) > 2 and isinstance(steps[0], Chain) and isinstance(steps[1], Gesture) and steps[1].kind == "turn":
            walker.places.reverse()  # "ch 1, turn, ..."
            steps = (steps[0], *steps[2:])
        walker.work(steps)
    except Fails:
        return None
    left = walker.left()
    if left == spanned(steps, size) and any(isinstance(s, Gesture) and s.kind == "join" for s in steps):
        left = 0  # the last loop of a mesh reaches over them
    if left and not any(isinstance(s, Gesture) and s.kind == "leave rest unworked" for s in row.steps):
        return None
    if any(isinstance(step, Closing) for step in row.steps):  # the next round begins in the loop that was closed last
        walker.made = [walker.made[-1], *walker.made[:-1]]
    turned = any(isinstance(step, Gesture) and step.kind == "turn" for step in steps[1:])
    return walker.made[::-1] if turned else walker.made
