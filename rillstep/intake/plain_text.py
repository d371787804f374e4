"""Plain text in whatever way its characters are written."""

from rillstep.intake.taking import FileText, NotReadable


def decoded(data: bytes) -> FileText:
    """The text of some bytes: UTF-8 or UTF-16 by their mark, else UTF-8, else as older programs write it. Raises
    NotReadable."""
    if data.startswith((b"\xff\xfe", b"\xfe\xff")):
        try:
            return FileText(_lines(data.decode("utf-16")))
        except UnicodeDecodeError:
            raise NotReadable("This text is damaged: its characters cannot be read.") from None
    try:
        return FileText(_lines(data.decode("utf-8-sig")))
    except UnicodeDecodeError:
        note = "The file is not in Unicode; it was read as Windows text. Look at its letters and fractions."
        return FileText(_lines(data.decode("cp1252", errors="replace")), (note,))


def _lines(text: str) -> str:
    return text.replace("\r\n", "\n").replace("\r", "\n")
