"""Documents of word processors (.docx): their paragraphs and tables in order."""

import io
from collections import Counter
from typing import Any

import docx
from docx.document import Document
from docx.opc.exceptions import PackageNotFoundError
from docx.oxml.ns import qn
from docx.table import Table
from docx.text.paragraph import Paragraph

from rillstep.intake.taking import FileText, NotReadable


def paragraphs_of(data: bytes) -> FileText:
    """Each paragraph a line, each row of a table a line with tabs between its cells; numbered lists with their
    numbers. Raises NotReadable."""
    try:
        document = docx.Document(io.BytesIO(data))
        lines, numbered = _lines(document)
        notes = _left_out(document)
    except (PackageNotFoundError, KeyError, ValueError, AttributeError):
        raise NotReadable("This document is damaged, or protected by a password: it cannot be opened.") from None
    if numbered:
        notes.append("Numbers that the word processor writes before list items were put in; look at them.")
    return FileText("\n".join(lines).strip("\n") + "\n", tuple(notes))


def _lines(document: Document) -> tuple[list[str], bool]:
    lines: list[str] = []
    counted: Counter[tuple[str, str]] = Counter()
    for block in document.iter_inner_content():
        if isinstance(block, Table):
            lines += _rows(block)
            continue
        label = _list_label(document, block, counted)
        lines += f"{label}{block.text}".split("\n")
    return lines, bool(counted)


def _rows(table: Table) -> list[str]:
    """The rows of a table; a cell that goes over several columns once."""
    lines = []
    for row in table.rows:
        cells: list[str] = []
        seen: list[object] = []
        for cell in row.cells:
            if cell._tc in seen:
                continue
            seen.append(cell._tc)
            cells.append(" ".join(cell.text.split()))
        lines.append("\t".join(cells).rstrip("\t"))
    return lines


def _list_label(document: Document, paragraph: Paragraph, counted: Counter[tuple[str, str]]) -> str:
    """ "3. " or "Row 3: " of an item of a numbered list, which its text does not hold; "" of any other paragraph."""
    numbering = paragraph._p.find(f".//{qn('w:numPr')}")
    if numbering is None and paragraph.style is not None:
        numbering = paragraph.style.element.find(f".//{qn('w:numPr')}")
    if numbering is None or not paragraph.text.strip():
        return ""
    number, level = _value(numbering, "w:numId"), _value(numbering, "w:ilvl") or "0"
    described = _level(document, number, level)
    if described is None or _value(described, "w:numFmt") not in ("decimal", "decimalZero"):
        return ""
    first = int(_value(described, "w:start") or "1")
    counted[number, level] += 1
    at = first + counted[number, level] - 1
    return (_value(described, "w:lvlText") or f"%{int(level) + 1}.").replace(f"%{int(level) + 1}", str(at)) + " "


def _level(document: Document, number: str, level: str) -> Any:
    """How a level of a numbered list is written, in the part of a document that says so."""
    try:
        lists = document.part.numbering_part.element
    except (KeyError, NotImplementedError):
        return None
    one = next((num for num in lists.findall(qn("w:num")) if num.get(qn("w:numId")) == number), None)
    called = _value(one, "w:abstractNumId") if one is not None else ""
    kinds = (kind for kind in lists.findall(qn("w:abstractNum")) if kind.get(qn("w:abstractNumId")) == called)
    return next((lvl for kind in kinds for lvl in kind.findall(qn("w:lvl")) if lvl.get(qn("w:ilvl")) == level), None)


def _value(element: Any, name: str) -> str:
    """The value of a child of an element; "" where it has none."""
    child = element.find(qn(name))
    return "" if child is None else child.get(qn("w:val")) or ""


def _left_out(document: Document) -> list[str]:
    """What of a document no line holds."""
    notes = []
    pictures = len(document.element.findall(f".//{qn('w:drawing')}")) + len(
        document.element.findall(f".//{qn('w:pict')}")
    )
    if pictures:
        notes.append(f"{pictures} {'picture was' if pictures == 1 else 'pictures were'} left out.")
    boxes = document.element.findall(f".//{qn('w:txbxContent')}")
    if boxes:
        notes.append("What stands in text boxes was left out: copy it in by hand.")
    edges = {
        paragraph.text.strip()
        for section in document.sections
        for part in (section.header, section.footer)
        for paragraph in part.paragraphs
        if paragraph.text.strip()
    }
    if edges:
        notes.append(f"Heads and feet of pages were left out: {'; '.join(sorted(edges))[:200]}.")
    if document.element.findall(f".//{qn('w:del')}"):
        notes.append("Deleted text that is still tracked was left out.")
    return notes
