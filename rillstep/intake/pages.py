"""Pages (.pdf) with a text layer: their lines in the order in which they are read, columns one after the other, and
words that a line's end cut in two put together as far as they tell it."""

import io
import re
from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from pdfminer.high_level import extract_pages
from pdfminer.layout import LAParams, LTContainer, LTImage, LTTextLine
from pdfminer.pdfdocument import PDFEncryptionError, PDFPasswordIncorrect, PDFTextExtractionNotAllowed
from pdfminer.pdfexceptions import PDFException
from pdfminer.pdfparser import PDFSyntaxError
from pdfminer.psexceptions import PSException

from rillstep.core.watch import look
from rillstep.intake.taking import FileText, NotReadable

MOST_PAGES = 80
# A gutter has at least so many lines on each side, and no line that stands across it but heads.
LEAST_IN_COLUMN, MOST_ACROSS = 4, 0.2
# A line goes on in the next where it reaches the edge of its column within so much of its width.
REACHES = 0.12
# Cells of a table stand apart by so many times the height of a line.
CELL_GAP = 1.2
# Heads and feet stand within so much of a page from its ends.
MARGIN = 0.09


@dataclass(frozen=True)
class Printed:
    """A line where it stands on its page, in points from the lower left corner."""

    x0: float
    y0: float
    x1: float
    y1: float
    text: str
    in_margin: bool

    @property
    def height(self) -> float:
        return self.y1 - self.y0


def text_of_pages(data: bytes) -> FileText:
    """The text of a PDF. Raises NotReadable."""
    try:
        pages, pictures = _pages(data)
    except (PDFPasswordIncorrect, PDFEncryptionError, PDFTextExtractionNotAllowed):
        raise NotReadable("This PDF is protected. Save it without its protection, and open that.") from None
    except (PDFSyntaxError, PDFException, PSException, ValueError, KeyError, TypeError, AssertionError):
        raise NotReadable("This PDF is damaged: it cannot be opened.") from None
    if not any(pages):
        raise NotReadable("This PDF holds pictures of its pages and no text, as a scan does; its text cannot be taken.")
    notes: list[str] = []
    edges = _repeated(pages)
    if edges:
        notes.append(f"What stands on each page was left out once for all: {'; '.join(sorted(edges))[:200]}.")
    pages = [[line for line in page if not (line.in_margin and _alike(line.text) in edges)] for page in pages]
    lines: list[str] = []
    mended: list[str] = []
    columns = 0
    for page in pages:
        for block in _in_order(page):
            lines += _joined(block, mended)
        columns += len(_in_order(page)) > 1
    if columns:
        notes.append(
            f"{columns} {'page has' if columns == 1 else 'pages have'} columns: they are read one after the other."
        )
    if mended:
        notes.append(f"Words cut by the end of a line were put together: {', '.join(dict.fromkeys(mended))[:200]}.")
    empty = [str(at + 1) for at, page in enumerate(pages) if not page]
    if empty:
        notes.append(f"No text stands on page {', '.join(empty)}.")
    if pictures:
        notes.append(f"{pictures} {'picture was' if pictures == 1 else 'pictures were'} left out.")
    return FileText("\n".join(lines).strip("\n") + "\n", tuple(notes))


def _pages(data: bytes) -> tuple[list[list[Printed]], int]:
    """The lines of each page, and how many pictures there are. Raises NotReadable where there are too many pages."""
    pages: list[list[Printed]] = []
    pictures = 0
    for layout in extract_pages(io.BytesIO(data), laparams=LAParams(boxes_flow=None)):
        look()
        if len(pages) == MOST_PAGES:
            raise NotReadable(f"This PDF has more than {MOST_PAGES} pages; save those of the pattern alone.")
        found: list[Printed] = []
        for element in _leaves(layout):
            if isinstance(element, LTImage):
                pictures += 1
            elif isinstance(element, LTTextLine) and (text := _plain(element.get_text())):
                margin = element.y1 < MARGIN * layout.height or element.y0 > (1 - MARGIN) * layout.height
                found.append(Printed(element.x0, element.y0, element.x1, element.y1, text, margin))
        pages.append(found)
    return pages, pictures


def _leaves(element: object) -> Iterator[object]:
    """The lines and pictures of a layout."""
    if isinstance(element, LTTextLine) or not isinstance(element, LTContainer):
        yield element
        return
    for child in element:
        yield from _leaves(child)


_LIGATURES = str.maketrans(
    {
        "\ufb00": "ff",
        "\ufb01": "fi",
        "\ufb02": "fl",
        "\ufb03": "ffi",
        "\ufb04": "ffl",
        "\u00ad": "-",
        "\u2010": "-",
        "\u2011": "-",
    }
)


def _plain(text: str) -> str:
    return " ".join(text.translate(_LIGATURES).split())


_BEGINS = re.compile(r"(?:[•*–-]\s|\(?\d{1,3}[.):]|(?:rows?|rnds?|rounds?|r)\.?\s?\d|[A-Z][\w ]{0,30}:)", re.IGNORECASE)


def _alike(text: str) -> str:
    """A line without its numbers, by which the feet of pages are alike."""
    return re.sub(r"\d+", "0", text)


def _repeated(pages: Sequence[Sequence[Printed]]) -> set[str]:
    """The heads and feet that stand on most pages, as they are alike."""
    edges: Counter[str] = Counter()
    for page in pages:
        edges.update({_alike(line.text) for line in page if line.in_margin and not _BEGINS.match(line.text)})
    return {text for text, often in edges.items() if len(pages) > 2 and often > 0.6 * len(pages)}


def _in_order(page: Sequence[Printed]) -> list[list[Printed]]:
    """The lines of a page from top to bottom, in blocks: where it has two columns, the left one before the right one,
    between lines that stand across both."""
    ordered = sorted(page, key=lambda line: (-round(line.y1), line.x0))
    gutter = _gutter(ordered)
    if gutter is None:
        return [_rows(ordered)] if ordered else []
    blocks: list[list[Printed]] = []
    left: list[Printed] = []
    right: list[Printed] = []
    for line in ordered:
        if line.x1 <= gutter:
            left.append(line)
        elif line.x0 >= gutter:
            right.append(line)
        else:
            blocks += [left, right, [line]]
            left, right = [], []
    return [_rows(block) for block in (*blocks, left, right) if block]


def _gutter(lines: Sequence[Printed]) -> float | None:
    """Where two columns are parted; None where a page has one."""
    if len(lines) < 2 * LEAST_IN_COLUMN:
        return None
    low, high = min(line.x0 for line in lines), max(line.x1 for line in lines)
    best: tuple[int, float] | None = None
    for x in sorted({line.x0 - 1 for line in lines}):
        if not low + 0.25 * (high - low) < x < low + 0.75 * (high - low):
            continue
        across = sum(line.x0 < x < line.x1 for line in lines)
        sides = sum(line.x1 <= x for line in lines), sum(line.x0 >= x for line in lines)
        if min(sides) >= LEAST_IN_COLUMN and across <= MOST_ACROSS * len(lines) and (best is None or across < best[0]):
            best = across, x
    return None if best is None else best[1]


def _rows(lines: Sequence[Printed]) -> list[Printed]:
    """Lines that stand beside each other, as cells of a table, as one with tabs between them."""
    rows: list[Printed] = []
    for line in sorted(lines, key=lambda one: (-one.y1, one.x0)):
        before = rows[-1] if rows else None
        if before is not None and abs(before.y0 - line.y0) < 0.4 * line.height and line.x0 >= before.x1:
            # Words that were set apart to fill a line stand closer than the cells of a table.
            between = "\t" if line.x0 - before.x1 > CELL_GAP * line.height else " "
            rows[-1] = replace(before, x1=line.x1, text=f"{before.text}{between}{line.text}")
        else:
            rows.append(line)
    return rows


def _joined(block: Sequence[Printed], mended: list[str]) -> list[str]:
    """The lines of a block, each with what it goes on with in the next; a gap between them is an empty line."""
    if not block:
        return []
    edge = max(line.x1 for line in block)
    width = edge - min(line.x0 for line in block)
    found: list[str] = []
    for before, line in zip((None, *block[:-1]), block, strict=True):
        if before is None:
            found.append(line.text)
            continue
        gap = before.y0 - line.y1
        apart = gap > 0.9 * line.height
        reaches = before.x1 >= edge - REACHES * width
        if not apart and reaches and not _BEGINS.match(line.text) and "\t" not in line.text:
            found[-1] = _put_together(found[-1], line.text, mended)
        else:
            found += ["", line.text] if apart else [line.text]
    return [*found, ""]


_CUT = re.compile(r"([A-Za-z]{2,})-$")


def _put_together(before: str, after: str, mended: list[str]) -> str:
    """Two lines as one. "cro-" and "chet" are one word; a hyphen behind an abbreviation, or before a number, stays:
    "ch-" and "2 sp"."""
    cut = _CUT.search(before)
    rest = re.match(r"[a-z]{2,}", after)
    if cut is None:
        return before + after if before.endswith("-") and after[:1].isdigit() else f"{before} {after}"
    if rest is None or cut[1].lower() in _KEEP_HYPHEN or rest[0] in _KEEP_HYPHEN:
        return before + after
    mended.append(cut[1] + rest[0])
    return before[:-1] + after


# With these a hyphen is written anyway: "sc-blo", "V-st", "turning-ch".
_KEEP_HYPHEN = frozenset((
    "sc", "hdc", "dc", "tr", "dtr", "htr", "ch", "st", "sts", "sp", "sps", "sl", "ss", "blo", "flo", "fp", "bp", "tog",
    "inc", "dec", "puff", "shell", "picot", "back", "front", "half", "one", "two", "three", "four", "five", "double",
    "single", "extra", "self", "non", "pre", "co",
))  # fmt: skip
