"""What the product does, shown to those who are not signed in: a bag in its sizes, its lines proved, one refuted."""

from importlib.resources import files

from pydantic import BaseModel

from rillstep.core.memory import remember
from rillstep.core.proof import prove_text
from rillstep.document import Design
from rillstep.services import views
from rillstep.services.drawing_views import ViewOfSizes, drawings_view
from rillstep.services.words import booklet_view

# A number of the text that is made wrong, to show what is said of it.
_TRUE, _WRONG = "118 (138, 160) sts", "118 (139, 160) sts"
_SHOWN = 7


class ExampleView(BaseModel):
    """A bag in its sizes; lines: some of its instructions, with their proved totals; refuted: what is said of a line
    with one number wrong, which is given as it stands."""

    title: str
    sizes: list[str]
    bag: ViewOfSizes
    lines: list[views.BookletLineView]
    refuted_line: str
    refuted: str


@remember(1)
def example_view() -> ExampleView:
    """The example, worked as any other text is."""
    text = (files("rillstep.document") / "ready_texts" / "shown.txt").read_text("utf-8")
    design = Design(name="Evening tote", text=text)
    drawings = drawings_view(design)
    rows = [
        line for section in booklet_view(design, "US", None).sections for line in section.lines if line.kind == "row"
    ]
    wrong = text.replace(_TRUE, _WRONG, 1)
    finding = next(f for f in prove_text(wrong).findings if f.severity == "error")
    return ExampleView(
        title=design.name, sizes=drawings.sizes, bag=drawings.views[0], lines=rows[-_SHOWN:-1],
        refuted_line=wrong.split("\n")[finding.span.line - 1], refuted=finding.message,
    )  # fmt: skip
