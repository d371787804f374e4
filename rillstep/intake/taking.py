"""A file by its name and its bytes as text. Each kind has a room of its own; what is too large is refused before it is
unpacked."""

import io
import zipfile
from collections.abc import Callable
from dataclasses import dataclass

MOST_BYTES = 8_000_000
# What a document may come to when it is unpacked, in bytes and in parts.
MOST_UNPACKED, MOST_PARTS = 60_000_000, 3_000
MOST_CHARACTERS = 400_000


class NotReadable(Exception):
    """A file of which no text can be taken; the message says why, and what to do instead."""


@dataclass(frozen=True)
class FileText:
    """The text of a file, and a sentence for each thing of it that the text does not hold or that was mended."""

    text: str
    notes: tuple[str, ...] = ()


def text_of(name: str, data: bytes) -> FileText:
    """The text of a .txt, .md, .docx, .odt or .pdf file. Raises NotReadable."""
    if len(data) > MOST_BYTES:
        raise NotReadable(f"This file has {len(data) / 1e6:.1f} MB; at most {MOST_BYTES // 1_000_000} MB are read.")
    kind = _kind(name, data)
    if kind is None:
        raise NotReadable("This kind of file is not read. Save it as .docx, .odt, .pdf, .md or .txt.")
    taken = _READERS[kind](data)
    if not taken.text.strip():
        raise NotReadable("There is no text in this file.")
    if len(taken.text) > MOST_CHARACTERS:
        raise NotReadable(f"This file holds {len(taken.text):,} characters; at most {MOST_CHARACTERS:,} are read.")
    return taken


def _kind(name: str, data: bytes) -> str | None:
    """What a file is by what it begins with; by its name where that leaves it open."""
    ending = name.lower().rpartition(".")[2]
    if data.startswith(b"%PDF-"):
        return "pdf"
    if data.startswith(b"PK"):
        return _packed(data)
    if data.startswith(b"\xd0\xcf\x11\xe0"):
        raise NotReadable("This is a document of an old kind (.doc). Save it as .docx, and open that.")
    return "plain" if ending in ("txt", "md", "text", "markdown") or b"\x00" not in data[:2000] else None


def _packed(data: bytes) -> str | None:
    """Which of the packed documents it is. Raises NotReadable where it is broken, or unpacks to too much."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            parts = archive.infolist()
            if len(parts) > MOST_PARTS or sum(part.file_size for part in parts) > MOST_UNPACKED:
                raise NotReadable("This document unpacks to more than is read here. Save its text as .txt.")
            names = {part.filename for part in parts}
    except zipfile.BadZipFile:
        raise NotReadable("This file is damaged: it cannot be unpacked.") from None
    if "word/document.xml" in names:
        return "docx"
    return "odt" if "content.xml" in names else None


def _plain(data: bytes) -> FileText:
    from rillstep.intake.plain_text import decoded

    return decoded(data)


def _docx(data: bytes) -> FileText:
    from rillstep.intake.word_documents import paragraphs_of

    return paragraphs_of(data)


def _odt(data: bytes) -> FileText:
    from rillstep.intake.open_documents import lines_of_document

    return lines_of_document(data)


def _pdf(data: bytes) -> FileText:
    from rillstep.intake.pages import text_of_pages

    return text_of_pages(data)


# Each imports its library when it is needed: most requests need none of them.
_READERS: dict[str, Callable[[bytes], FileText]] = {"plain": _plain, "docx": _docx, "odt": _odt, "pdf": _pdf}
