"""Ready bags: texts to begin with, each of another build, in one size, proved and gradable."""

from dataclasses import dataclass
from importlib.resources import files

from rillstep.document.design import Design, Size


@dataclass(frozen=True)
class ReadyBag:
    """key: its name in an address; title and build: as they are shown."""

    key: str
    title: str
    build: str

    @property
    def text(self) -> str:
        """The text of the bag."""
        return (files("rillstep.document") / "ready_texts" / f"{self.key}.txt").read_text("utf-8")


READY_BAGS = (
    ReadyBag("round_pouch", "Round pouch", "A disc and a wall in rounds, with eyelets and a cord."),
    ReadyBag("oval_tote", "Tote with handles", "An oval base, a wall, and two handles worked as part of the edge."),
    ReadyBag("flat_tote", "Flat tote", "One piece in rounds, its foundation sewn flat, with two openings to carry it."),
    ReadyBag("oval_mesh", "Oval mesh bag", "An oval base, a wall of chain loops, a band at the mouth, and a strap."),
    ReadyBag("string_bag", "String bag", "A disc, a net of long loops, a band at the mouth, and a strap."),
    ReadyBag("granny_squares", "Granny squares", "Squares in rounds, laid out, sewn and folded, with a strap."),
    ReadyBag("two_panels", "Two panels", "A front and a back in rows, sewn together, with a strap."),
    ReadyBag("gusset_panels", "Panels with a gusset", "A front and a back with a gusset between them, and a strap."),
    ReadyBag("folded_clutch", "Folded clutch", "One panel in rows, folded into front, back and flap."),
)


def ready_design(key: str) -> Design | None:
    """A design that begins with a ready bag; None for another key."""
    bag = next((bag for bag in READY_BAGS if bag.key == key), None)
    return None if bag is None else Design(name=bag.title, text=bag.text, sizes=[Size(name="One size")])
