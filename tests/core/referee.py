"""The referee: a plain walker that works a row stitch by stitch over a list of single places.

Written apart from `core.fabric` on purpose, with no runs and no counting ahead: both must agree.
A place is "st", "ch" (a foundation chain, or one chain of a space), or ("sp", n). A row that
cannot be worked gives None.
"""

from rillstep.core.fabric import Edge, Run
from rillstep.core.notation.tree import (
    Chain,
    Every,
    FromHook,
    Gesture,
    Last,
    Next,
    Num,
    Repeat,
    Row,
    Same,
    Skip,
    Step,
    Together,
    What,
    Work,
)


def unrolled(edge: Edge) -> list[object]:
    return _single(edge.runs)


def _single(runs: tuple[Run, ...]) -> list[object]:
    places: list[object] = []
    for run in runs:
        if run.inner:
            places += _single(run.inner) * run.count
            continue
        one: object = ("sp", run.place.length) if run.place.kind == "sp" else run.place.kind
        places += [one] * run.count
    return places


class Walker:
    def __init__(self, places: list[object], size: int) -> None:
        self.places, self.size = list(places), size
        self.made: list[object] = []
        self.at = 0
        self.uses: set[str] = set()
        self.first_done = False

    def fits(self, place: object, what: What) -> bool:
        if isinstance(place, tuple):
            if what.kind in ("sp", "st and sp"):
                return what.length is None or what.length.at(self.size) == place[1]
            return False
        return (
            place in {"st": ["st"], "ch": ["ch"], "st and ch": ["st", "ch"], "st and sp": ["st"], "sp": []}[what.kind]
        )

    def open_space(self, what: What) -> None:
        """A space that is worked chain by chain is its chains."""
        place = self.places[self.at]
        if what.kind in ("ch", "st and ch") and isinstance(place, tuple):
            self.places[self.at : self.at + 1] = ["ch"] * place[1]

    def ahead(self, what: What) -> int:
        count = 0
        for place in self.places[self.at :]:
            if isinstance(place, tuple) and what.kind in ("ch", "st and ch"):
                count += place[1]
            else:
                count += self.fits(place, what)
        return count

    def passes(self, place: object, what: What) -> bool:
        kind = "sp" if isinstance(place, tuple) else place
        return kind in {"st": ["sp", "ch"], "sp": ["st", "ch", "sp"], "st and sp": ["ch"]}.get(what.kind, [])

    def take(self, what: What) -> bool:
        self.uses |= {"st": {"st"}, "ch": {"ch"}, "sp": {"sp"}, "st and ch": {"st", "ch"}, "st and sp": {"st", "sp"}}[
            what.kind
        ]
        while self.at < len(self.places):
            self.open_space(what)
            place = self.places[self.at]
            self.at += 1
            if self.fits(place, what):
                self.first_done = True
                return True
            if not self.passes(place, what):
                self.at -= 1
                return False
        return False

    def left(self) -> int:
        count = 0
        for place in self.places[self.at :]:
            if isinstance(place, tuple):
                count += place[1] if "ch" in self.uses else ("sp" in self.uses)
            else:
                count += place in self.uses
        return count

    def work(self, steps: tuple[Step, ...], top: bool) -> bool:
        return all(self.step(step, top and index == 0) for index, step in enumerate(steps))

    def step(self, step: Step, opening: bool) -> bool:
        size = self.size
        match step:
            case Work(per=per, into=Next(count=count, what=what)):
                for _ in range(count.at(size)):
                    if not self.take(what):
                        return False
                    self.made += ["st"] * per.at(size)
            case Work(per=per, into=Every(what=what, end=end)):
                self.uses |= {"st and ch": {"st", "ch"}, "st and sp": {"st", "sp"}}.get(what.kind, {what.kind})
                wanted = self.ahead(what) - (end.last.at(size) if end.last else 0)
                if wanted < (0 if end.last else 1):
                    return False
                for _ in range(wanted):
                    if not self.take(what):
                        return False
                    self.made += ["st"] * per.at(size)
            case Work(per=per, into=Same(what=what)):
                if not self.first_done and not self.take(what):
                    return False
                self.made += ["st"] * per.at(size)
            case Work(per=per, into=Last(what=what)):
                if not self.take(what) or self.ahead(what):
                    return False
                self.made += ["st"] * per.at(size)
            case Work(into=FromHook()):
                return False  # foundations are walked by hand in the tests
            case Together(legs=legs, times=times):
                for _ in range(times.at(size)):
                    if not all(self.take(What("st")) for _ in range(legs.at(size))):
                        return False
                    self.made.append("st")
            case Skip(count=count, what=what):
                return all(self.take(what) for _ in range(count.at(size)))
            case Chain(length=length, counts=counts):
                if opening and (counts == "none" or length.at(size) == 1):
                    return True
                if opening and counts is not None:
                    self.made.append("st")
                    return self.take(What("st"))
                self.made.append(("sp", length.at(size)))
            case Repeat(steps=steps, times=Num() as times):
                return all(self.work(steps, False) for _ in range(times.at(size)))
            case Repeat(steps=steps, times=end):
                return self.to_end(steps, end.last.at(size) if end.last else 0)  # type: ignore[union-attr]
            case Gesture():
                pass
        return True

    def to_end(self, steps: tuple[Step, ...], last: int) -> bool:
        self.uses |= kinds_in(steps)
        while self.left() > last:
            before = self.left()
            if not self.work(steps, False) or self.left() >= before:
                return False
        return self.left() == last


def kinds_in(steps: tuple[Step, ...]) -> set[str]:
    found: set[str] = set()
    for step in steps:
        match step:
            case Work(into=(Next(what=what) | Every(what=what) | Same(what=what) | Last(what=what))) | Skip(what=what):
                found |= {"st and ch": {"st", "ch"}, "st and sp": {"st", "sp"}}.get(what.kind, {what.kind})
            case Together():
                found.add("st")
            case Repeat(steps=inner):
                found |= kinds_in(inner)
    return found


def walk(row: Row, size: int, edge: Edge) -> list[object] | None:
    """The places after the row, or None when it cannot be worked to its end."""
    walker = Walker(unrolled(edge), size)
    if not walker.work(row.steps, True) or walker.left():
        return None
    turned = any(isinstance(step, Gesture) and step.kind == "turn" for step in row.steps)
    return walker.made[::-1] if turned else walker.made
