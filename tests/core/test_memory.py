"""One object owns what is remembered: bounded, replaceable, and safe under threads."""

import re
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from rillstep.core.memory import Memory, Shelf, forget, remember
from rillstep.core.proof import prove_text

ROOT = Path(__file__).parents[2]
TEXT = (ROOT / "tests" / "corpus" / "growing_loops.txt").read_text()


def test_a_result_is_kept_until_it_is_the_least_used_of_too_many() -> None:
    asked: list[int] = []

    @remember(2)
    def double(number: int) -> int:
        asked.append(number)
        return 2 * number

    with Memory().in_use() as memory:
        assert [double(n) for n in (1, 1, 2, 1, 3, 1, 2)] == [2, 2, 4, 2, 6, 2, 4]
        assert asked == [1, 2, 3, 2]
        assert memory.size() == 2
        forget()
        assert memory.size() == 0
        double(1)
        assert asked == [1, 2, 3, 2, 1]


def test_a_full_shelf_makes_room_for_the_new() -> None:
    shelf: Shelf[int, str] = Shelf(10)
    with Memory().in_use():
        for number in range(12):
            shelf.put(number, str(number))
        assert [shelf.get(number) for number in (0, 1, 2, 11)] == [None, None, "2", "11"]


def test_a_memory_of_ones_own_takes_nothing_from_the_shared_one() -> None:
    forget()
    shared = prove_text(TEXT)
    with Memory().in_use() as memory:
        own = prove_text(TEXT)
        assert memory.size() > 50
    assert own == shared and own.works[0].lines[1] is not shared.works[0].lines[1]
    assert prove_text(TEXT).works[0].lines[1] is shared.works[0].lines[1]


def test_many_threads_with_one_memory_come_to_the_same() -> None:
    texts = [TEXT.replace("24", str(number)) for number in range(20, 28)] * 3
    forget()
    alone = [prove_text(text).findings for text in texts]
    forget()
    with ThreadPoolExecutor(8) as pool:
        assert [proof.findings for proof in pool.map(prove_text, texts)] == alone


def test_nothing_else_in_the_core_remembers_for_itself() -> None:
    own = re.compile(r"@lru_cache|^_[A-Z_]+(: dict\[.*)? = \{\}", re.MULTILINE)
    rooms = [path for path in (ROOT / "rillstep" / "core").rglob("*.py") if path.name != "memory.py"]
    assert [path.name for path in rooms if own.search(path.read_text())] == []
