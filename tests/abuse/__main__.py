"""`make abuse`: python -m tests.abuse [seconds [texts]]. What one account and one stranger can do to the others."""

import sys

from tests.abuse.load import Seen, worst
from tests.abuse.phases import hung_database, long_texts, pdf_at_many
from tests.abuse.site import site

# What is promised: p95 in ms.
MOST_MS = {
    "health": 500, "save": 500, "sign-in": 500, "PDF, warm": 2000, "save beside the first PDF": 500,
    "page while it hangs": 500, "after it": 500,
}  # fmt: skip
# No request is answered later than its deadline, the wait for its turn, and a moment.
LATEST_S = 55.0
MOST_MEMORY = 600_000_000


def shown(title: str, seen: Seen) -> bool:
    """Prints what was seen; returns whether it is as promised."""
    print(f"\n{title}")
    kept = True
    for what in sorted(seen.statuses):
        counts = ", ".join(f"{many} times {status}" for status, many in sorted(seen.statuses[what].items()))
        late = seen.p95_ms(what) >= MOST_MS.get(what, 1e9) or max(seen.seconds[what]) > LATEST_S
        broken = any(status >= 500 for status in seen.statuses[what]) and what != "database hangs"
        print(f"  {what}: p95 {seen.p95_ms(what):.0f} ms, latest {max(seen.seconds[what]):.1f} s; {counts}", end="")
        print("   <- NOT as promised" if late or broken else "")
        kept &= not late and not broken
    for kind, size in seen.most_memory.items():
        print(f"  memory, {kind}: {size / 1e6:.0f} MB at most")
        kept &= size < MOST_MEMORY
    return kept


def main() -> int:
    seconds = float(sys.argv[1]) if len(sys.argv) > 1 else 180.0
    texts = int(sys.argv[2]) if len(sys.argv) > 2 else 1000
    with site(RILLSTEP_LOG_LEVEL="ERROR") as running:
        kept = shown("An account and a stranger do their worst", worst(running, seconds))
        kept &= shown("The PDF of a large design", pdf_at_many(running))
        kept &= shown("The database hangs", hung_database(running))
    with site(limits=False, RILLSTEP_LOG_LEVEL="ERROR") as running:
        kept &= shown(f"{texts} long texts", long_texts(running, texts))
    print("\nas promised" if kept else "\nNOT as promised")
    return 0 if kept else 1


if __name__ == "__main__":
    sys.exit(main())
