"""What was worked out before and may be wanted again, owned by one object: bounded, and safe under threads.

Typing in one line of a text reads and works that line anew; all others are looked up. What is looked up never changes
an answer, only its speed. Everything in a process shares one `Memory`, unless a caller makes one for itself:

    with Memory().in_use():
        ...  # tries hundreds of texts, and crowds nothing out
"""

from collections.abc import Callable, Hashable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from functools import lru_cache, wraps
from itertools import islice
from threading import Lock
from typing import Any, Generic, ParamSpec, TypeVar, cast

P = ParamSpec("P")
R = TypeVar("R")
K = TypeVar("K", bound=Hashable)
V = TypeVar("V")


class Memory:
    """The results of remembered functions (least used are forgotten first) and the shelves; each has its own bound."""

    def __init__(self) -> None:
        self.functions: dict[Callable[..., Any], Any] = {}
        self.shelves: dict[object, dict[Any, Any]] = {}
        self.weights: dict[object, int] = {}
        self.lock = Lock()

    def results_of(self, function: Callable[..., Any], most: int) -> Any:
        with self.lock:
            return self.functions.setdefault(function, lru_cache(maxsize=most)(function))

    def shelf_of(self, shelf: object) -> dict[Any, Any]:
        with self.lock:
            return self.shelves.setdefault(shelf, {})

    def forget(self) -> None:
        """Forgets everything, as a measurement needs."""
        with self.lock:
            self.functions, self.shelves, self.weights = {}, {}, {}

    def size(self) -> int:
        """How many results are kept."""
        with self.lock:
            results: int = sum(kept.cache_info().currsize for kept in self.functions.values())
            return results + sum(map(len, self.shelves.values()))

    @contextmanager
    def in_use(self) -> Iterator["Memory"]:
        """This memory in place of the shared one, for what the caller does meanwhile in its own thread."""
        token = _IN_USE.set(self)
        try:
            yield self
        finally:
            _IN_USE.reset(token)


_IN_USE: ContextVar[Memory] = ContextVar("memory", default=Memory())  # noqa: B039


def forget() -> None:
    """Forgets what the memory in use keeps."""
    _IN_USE.get().forget()


def remember(most: int) -> Callable[[Callable[P, R]], Callable[P, R]]:
    """Keeps up to so many results of a function of hashable positional arguments in the memory in use."""

    def decorate(function: Callable[P, R]) -> Callable[P, R]:
        # The results that were used last, with the memory whose they are, as this is a hot path.
        last: list[tuple[object, Any]] = [(None, None)]

        @wraps(function)
        def recall(*args: Any) -> R:
            memory = _IN_USE.get()
            owner, results = last[0]
            if owner is not memory.functions:
                owner = memory.functions
                results = memory.results_of(function, most)
                last[0] = (owner, results)
            found: R = results(*args)
            return found

        return cast(Callable[P, R], recall)

    return decorate


def _alike(_: object) -> int:
    return 1


class Shelf(Generic[K, V]):
    """Values under their keys, in the memory in use, for callers that decide what is kept.

    weigh: the weight of a value, such as its size; most: what all of them may weigh. Without it they are counted.
    """

    def __init__(self, most: int, weigh: Callable[[V], int] = _alike) -> None:
        self.most, self.weigh = most, weigh

    def get(self, key: K) -> V | None:
        memory = _IN_USE.get()
        found: V | None = (memory.shelves.get(self) or memory.shelf_of(self)).get(key)
        return found

    def put(self, key: K, value: V) -> None:
        """Keeps a value; when the shelf is full, the oldest tenth makes way."""
        memory = _IN_USE.get()
        kept = memory.shelf_of(self)
        with memory.lock:
            weight = memory.weights.get(self, 0) + self.weigh(value)
            if key in kept:
                weight -= self.weigh(kept.pop(key))
            while weight > self.most and kept:
                for old in list(islice(kept, max(1, len(kept) // 10))):
                    weight -= self.weigh(kept.pop(old))
            kept[key] = value
            memory.weights[self] = weight
