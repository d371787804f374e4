"""Cautions that apply to a bag: short, plain, and not legal advice."""

from dataclasses import dataclass

# Fibres that soften or melt under an iron.
_MELTING = ("acrylic", "polyester", "nylon", "polyamide", "polypropylene", "synthetic", "raffia")
_LONG_STRAP_MM = 220.0


@dataclass(frozen=True)
class Caution:
    """`code` is stable; `text` is one or two plain sentences."""

    code: str
    text: str


def cautions_for(fibre: str, drop_mm: float) -> tuple[Caution, ...]:
    """The cautions for a bag in this fibre with handles of this drop (mm)."""
    found = [
        Caution(
            "carrying",
            "The handles are the weak point of a bag. Try it with a light load first; no load is guaranteed.",
        )
    ]
    if drop_mm > _LONG_STRAP_MM:
        found.append(
            Caution(
                "long-strap",
                "Long straps are a strangling hazard for small children. Do not give this bag to a small child, "
                "and follow your local product-safety rules.",
            )
        )
    if any(word in fibre.lower() for word in _MELTING):
        found.append(
            Caution("melting", "This fibre can melt. Use no hot iron or steam; try a press cloth on the swatch first.")
        )
    else:
        found.append(Caution("steam", "Try steam and heat on the swatch first. Mind your fingers: steam burns."))
    found.append(Caution("hands", "Rest hands and wrists often. Count pins and needles before you put the work away."))
    found.append(Caution("selling", "Bags that are sold fall under local rules for goods; those rules come first."))
    return tuple(found)
