"""Booklets as PDF, on A4, dark text on white paper, readable in black and white."""

import logging
from collections.abc import Sequence
from datetime import date

import weasyprint
from jinja2 import Environment, PackageLoader, select_autoescape

from rillstep.publish.booklet import Booklet

logging.getLogger("weasyprint").setLevel(logging.ERROR)
logging.getLogger("fontTools").setLevel(logging.ERROR)

_TEMPLATES = Environment(loader=PackageLoader("rillstep.publish"), autoescape=select_autoescape(["html"]))


def _nothing_from_outside(url: str, *_: object, **__: object) -> dict[str, object]:
    raise ValueError(f"a booklet loads nothing from outside ({url[:40]})")


def html_of(
    booklet: Booklet, subtitle: str, made: date, part: str = "", pictures: Sequence[tuple[str, str]] = ()
) -> str:
    """The booklet as one HTML page, with its print styles. pictures: the bag in each size, as its name and SVG."""
    template = _TEMPLATES.get_template("booklet.html")
    return template.render(booklet=booklet, subtitle=subtitle, made=made.isoformat(), part=part, pictures=pictures)


def pdf_of(html: str) -> bytes:
    """The page as PDF. Nothing is fetched."""
    pdf: bytes = weasyprint.HTML(string=html, url_fetcher=_nothing_from_outside).write_pdf()
    return pdf
