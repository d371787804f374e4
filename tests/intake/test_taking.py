"""The text of each kind of file, what is said of what it lost, and what is refused."""

import io
import zipfile

import pytest

from rillstep.core.proof import prove_text
from rillstep.intake import NotReadable, text_of
from rillstep.intake.taking import MOST_BYTES, MOST_UNPACKED
from tests.intake.documents import PATTERN, ROWS, open_document, pages, word_document


def test_a_word_document_is_taken_whole_and_proved() -> None:
    taken = text_of("pouch.docx", word_document())
    lines = taken.text.split("\n")
    assert lines[:5] == PATTERN.split("\n")
    assert lines[5:9] == [
        "Rnd 4\tsc in each st around\t18",
        "Rnd 5\tsc in each st around\t18",
        "1. Weave in ends.",
        "2. Sew on a button.",
    ]
    assert "Heads and feet of pages were left out: Observing Night Bags." in taken.notes
    assert any("Numbers" in note for note in taken.notes)
    assert sum(line.proved for line in prove_text(taken.text).lines) == 5


def test_an_open_document_is_taken_whole_and_proved() -> None:
    taken = text_of("pouch.odt", open_document())
    assert taken.text == PATTERN + "\nRnd 4\tsc in each st around\t18\n"
    assert taken.notes == ()
    assert all(line.proved for line in prove_text(taken.text).lines)


def test_rows_that_go_over_lines_of_a_page_are_one_line() -> None:
    long = (
        "Rnd 4: Ch 1, "
        + "sc in same st as joining and in each of next 30 sts, ch 1, sk next st, " * 3
        + "sc in last st. (99)"
    )
    taken = text_of("pouch.pdf", pages("".join(f"<p>{row}</p>" for row in ("Dobson Pouch", *ROWS, long))))
    lines = [line for line in taken.text.split("\n") if line]
    assert lines == ["Dobson Pouch", *ROWS, " ".join(long.split())]


def test_columns_are_read_one_after_the_other() -> None:
    left = "".join(f"<p>{row}</p>" for row in ROWS) + "<p>Rnd 4: Sc in each st around. (18)</p>"
    right = "".join(f"<p>Rnd {at}: Sc in each st around. (18)</p>" for at in range(5, 10))
    style = ".c { display: flex; gap: 12mm } .c > div { width: 48% }"
    taken = text_of(
        "pouch.pdf", pages(f"<h1>Dobson Pouch</h1><div class=c><div>{left}</div><div>{right}</div></div>", style)
    )
    numbers = [line.split(":")[0] for line in taken.text.split("\n") if line.startswith("Rnd")]
    assert numbers == [f"Rnd {at}" for at in range(1, 10)]
    assert "1 page has columns: they are read one after the other." in taken.notes


def test_words_that_a_line_cuts_are_put_together_and_hyphens_of_the_craft_stay() -> None:
    style = "p { width: 60mm; hyphens: manual; text-align: justify }"
    body = "<p>Work in single crochet throughout this little ob&shy;serving pouch, and then fasten&shy;ing off with care at the end.</p>"
    taken = text_of("pouch.pdf", pages(body, style))
    assert "observing" in taken.text
    assert "fastening" in taken.text


def test_feet_of_pages_are_left_out_and_it_is_said() -> None:
    style = "@page { @bottom-center { content: 'Dobson Pouch, page ' counter(page) } }"
    body = "".join(
        f"<p style='page-break-after: always'>Rnd {at}: Sc in each st around. (18)</p>" for at in range(4, 9)
    )
    taken = text_of("pouch.pdf", pages(body, style))
    assert "page" not in taken.text
    assert any("left out once for all" in note and "page" in note for note in taken.notes)
    assert [line for line in taken.text.split("\n") if line] == [
        f"Rnd {at}: Sc in each st around. (18)" for at in range(4, 9)
    ]


@pytest.mark.parametrize(
    "data",
    ["Größe: S\n".encode(), "Größe: S\n".encode("utf-16"), b"\xef\xbb\xbfGr\xc3\xb6\xc3\x9fe: S\r\n"],
    ids=["utf-8", "utf-16", "marked"],
)
def test_plain_text_is_read_in_unicode(data: bytes) -> None:
    assert text_of("a.txt", data).text == "Größe: S\n"
    assert text_of("a.txt", data).notes == ()


def test_plain_text_of_older_programs_is_read_and_it_is_said() -> None:
    taken = text_of("a.txt", "Größe: 4½ cm".encode("cp1252"))
    assert taken.text == "Größe: 4½ cm"
    assert len(taken.notes) == 1


def packed(name: str, size: int) -> bytes:
    written = io.BytesIO()
    with zipfile.ZipFile(written, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr(name, b"\0" * size)
    return written.getvalue()


@pytest.mark.parametrize(
    ("name", "data", "why"),
    [
        ("a.pdf", b"%PDF-1.4 nothing more", "damaged"),
        ("a.pdf", pages("<p></p>"), "pictures of its pages and no text"),
        ("a.docx", b"PK\x03\x04broken", "damaged"),
        ("a.docx", packed("word/document.xml", 100), "damaged"),
        ("a.docx", packed("word/document.xml", MOST_UNPACKED + 1), "unpacks to more"),
        ("a.odt", packed("content.xml", 100), "damaged"),
        ("a.zip", packed("anything", 100), "kind of file"),
        ("a.doc", b"\xd0\xcf\x11\xe0" + b"\0" * 100, ".doc"),
        ("a.png", b"\x89PNG\r\n\x1a\n\x00\x00", "kind of file"),
        ("a.txt", b"  \n ", "no text"),
        ("a.txt", b"x" * (MOST_BYTES + 1), "at most 8 MB"),
    ],
    ids=lambda value: "bytes" if isinstance(value, bytes) else value,
)
def test_what_cannot_be_read_says_why(name: str, data: bytes, why: str) -> None:
    with pytest.raises(NotReadable, match=why):
        text_of(name, data)
