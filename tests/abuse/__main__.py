"""`make abuse`: python -m tests.abuse [seconds]. What one account and one stranger can do to the others."""

import sys

from tests.abuse.load import worst
from tests.abuse.site import site

MOST_MS, MOST_MEMORY = 500, 600_000_000


def main() -> int:
    seconds = float(sys.argv[1]) if len(sys.argv) > 1 else 180.0
    with site() as running:
        seen = worst(running, seconds)
    for what in sorted(seen.statuses):
        counts = ", ".join(f"{many} times {status}" for status, many in sorted(seen.statuses[what].items()))
        print(f"{what}: p95 {seen.p95_ms(what):.0f} ms; {counts}")
    for kind, size in seen.most_memory.items():
        print(f"memory, {kind}: {size / 1e6:.0f} MB at most")
    kept = all(seen.p95_ms(what) < MOST_MS for what in ("health", "save", "sign-in"))
    light = all(size < MOST_MEMORY for size in seen.most_memory.values())
    print("kept" if kept and light else "NOT kept")
    return 0 if kept and light else 1


if __name__ == "__main__":
    sys.exit(main())
