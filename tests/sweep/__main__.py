"""Every property on every text of the corpus, and every changed number of the demo designs in all ways of working.

`make fuzz` runs it; `make test` tries the long properties on a share of the texts.
"""

import time
from concurrent.futures import ProcessPoolExecutor

from tests.examples import totes
from tests.sweep.properties import LONG, QUICK
from tests.sweep.test_demo_numbers import survivors
from tests.sweep.texts import CORPUS, CorpusText


def swept(index: int) -> str:
    """The name of a text of which everything holds; fails with the property that does not."""
    one = CorpusText(CORPUS[index])
    for holds in (*QUICK, *(holds for holds, _ in LONG)):
        holds(one)
    return one.name


def main() -> None:
    began = time.monotonic()
    with ProcessPoolExecutor() as pool:
        names = list(pool.map(swept, range(len(CORPUS))))
        print(f"{len(names)} texts, {len(QUICK) + len(LONG)} properties each ({time.monotonic() - began:.0f} s)")
        changed = list(pool.map(survivors, totes()))
    lost = [one for _, found in changed for one in found]
    print(
        f"{sum(tried for tried, _ in changed):,} changed numbers of the demo designs, {len(lost)} not found", *lost[:9]
    )
    assert not lost


if __name__ == "__main__":
    main()
