"""Open documents (.odt): their headings, paragraphs, lists and tables in order."""

import io
from typing import Any
from xml.sax import SAXException

from odf import draw, table, teletype
from odf.namespaces import DRAWNS, TABLENS, TEXTNS
from odf.opendocument import load

from rillstep.intake.taking import FileText, NotReadable


def lines_of_document(data: bytes) -> FileText:
    """Each heading and paragraph a line, each row of a table a line with tabs between its cells. Raises NotReadable."""
    try:
        document = load(io.BytesIO(data))
    except (SAXException, KeyError, ValueError, AttributeError, TypeError):
        raise NotReadable("This document is damaged, or protected by a password: it cannot be opened.") from None
    if not hasattr(document, "text"):
        raise NotReadable("This is a spreadsheet or a drawing, and no text. Save its text as .odt or .txt.")
    lines: list[str] = []
    _walk(document.text, lines)
    pictures = len(document.getElementsByType(draw.Image))
    notes = []
    if pictures:
        notes.append(f"{pictures} {'picture was' if pictures == 1 else 'pictures were'} left out.")
    if document.getElementsByType(draw.TextBox):
        notes.append("What stands in text boxes was left out: copy it in by hand.")
    return FileText("\n".join(lines).strip("\n") + "\n", tuple(notes))


def _walk(element: Any, lines: list[str]) -> None:
    """Adds the lines of what an element holds."""
    for child in element.childNodes:
        kind = getattr(child, "qname", None)
        if kind in ((TEXTNS, "p"), (TEXTNS, "h")):
            lines += teletype.extractText(child).split("\n")
        elif kind == (TABLENS, "table-row"):
            lines.append(_row(child))
        elif kind is not None and kind not in ((TEXTNS, "tracked-changes"), (DRAWNS, "frame")):
            _walk(child, lines)


def _row(row: Any) -> str:
    cells = row.getElementsByType(table.TableCell)
    return "\t".join(" ".join(teletype.extractText(cell).split()) for cell in cells).rstrip("\t")
