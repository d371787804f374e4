"""Documents with a pattern in them, written in memory."""

import io
import warnings

import docx
from odf import opendocument, table, text
from weasyprint import HTML

ROWS = (
    "Rnd 1: 6 sc in magic ring. (6)",
    "Rnd 2: Inc in each st around. (12)",
    "Rnd 3: *Sc in next st, inc; rep from * around. (18)",
)
PATTERN = "\n".join(("Dobson Pouch", "", *ROWS))


def word_document() -> bytes:
    """A .docx with headings, rows, a table, a numbered list, a picture's place taken by a head."""
    document = docx.Document()
    document.add_heading("Dobson Pouch", 1)
    document.add_paragraph("")
    for row in ROWS:
        document.add_paragraph(row)
    grid = document.add_table(rows=0, cols=3)
    for cells in (("Rnd 4", "sc in each st around", "18"), ("Rnd 5", "sc in each st around", "18")):
        for cell, words in zip(grid.add_row().cells, cells, strict=True):
            cell.text = words
    document.add_paragraph("Weave in ends.", style="List Number")
    document.add_paragraph("Sew on a button.", style="List Number")
    document.sections[0].header.paragraphs[0].text = "Observing Night Bags"
    written = io.BytesIO()
    document.save(written)
    return written.getvalue()


def open_document() -> bytes:
    """An .odt with a heading, rows and a table."""
    document = opendocument.OpenDocumentText()
    document.text.addElement(text.H(outlinelevel=1, text="Dobson Pouch"))
    document.text.addElement(text.P(text=""))
    for row in ROWS:
        document.text.addElement(text.P(text=row))
    grid = table.Table(name="rounds")
    row = table.TableRow()
    for words in ("Rnd 4", "sc in each st around", "18"):
        cell = table.TableCell()
        cell.addElement(text.P(text=words))
        row.addElement(cell)
    grid.addElement(row)
    document.text.addElement(grid)
    written = io.BytesIO()
    document.save(written)
    return written.getvalue()


def pages(body: str, style: str = "") -> bytes:
    """A .pdf of some HTML."""
    head = f"<style>@page {{ size: A4; margin: 20mm }} body {{ font: 11pt serif }} {style}</style>"
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        made = HTML(string=f"<html lang=en><head>{head}</head><body>{body}</body></html>").write_pdf()
    assert isinstance(made, bytes)
    return made
