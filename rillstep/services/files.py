"""A file as a design: a design file, or a pattern text by itself; what its commands ask is asked of it."""

from pydantic import BaseModel

from rillstep.core.proof import Proof
from rillstep.design import facts_of
from rillstep.document import BrokenDesign, Design, Yarn, load
from rillstep.intake import NotReadable, text_of
from rillstep.services.checking import design_of
from rillstep.services.errors import Invalid

# With these a text is no pattern that could be worked.
_UNUSABLE = ("text-too-long", "nothing-to-work")


def design_in(written: str, grams: float | None = None, metres: float | None = None) -> Design:
    """A design file, or a text, with the label of its yarn where that is given and the design names no yarn. Raises
    Invalid."""
    if written.lstrip().startswith("{"):
        try:
            design = load(written)
        except BrokenDesign as error:
            raise Invalid(str(error)) from None
    else:
        design = design_of(written)
    if grams is None and metres is None:
        return design
    if grams is None or metres is None:
        raise Invalid("a label says grams and metres of a ball: give both, --grams and --metres")
    if design.yarns:
        raise Invalid("the design names its yarn; --grams and --metres are for one that names none")
    yarn = Yarn(name="Yarn", grams_per_ball=grams, metres_per_ball=metres)
    return design.model_copy(update={"yarns": [yarn]})


class FileView(BaseModel):
    """The text of a file, and a sentence for each thing of it that the text does not hold or that was mended."""

    text: str
    notes: list[str]


def text_in(name: str, data: bytes) -> FileView:
    """The text of a file of another program. Raises Invalid."""
    try:
        taken = text_of(name, data)
    except NotReadable as error:
        raise Invalid(str(error)) from None
    return FileView(text=taken.text, notes=list(taken.notes))


def usable_proof(design: Design) -> Proof:
    """The proof of a design whose text is a pattern. Raises Invalid."""
    proof = facts_of(design).proof
    unusable = next((finding for finding in proof.findings if finding.code in _UNUSABLE), None)
    if unusable is not None:
        raise Invalid(unusable.message)
    return proof


def size_in(proof: Proof, name: str | None) -> int:
    """The index of a size by its name, in any case; of the first one where none is given. Raises Invalid."""
    names = [one.lower() for one in proof.pattern.sizes]
    if name is None:
        return 0
    if name.lower() not in names:
        known = ", ".join(proof.pattern.sizes)
        raise Invalid(f"there is no size “{name}”; choose one of {known}, or all")
    return names.index(name.lower())
