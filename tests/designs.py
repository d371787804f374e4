"""Demo designs in all ways of working, and the texts that are written from them.

`python -m tests.designs` writes the texts anew, after a change of wording; tests of the core read them from there.
"""

from pathlib import Path

from rillstep.demo.data import nightfield, steward
from rillstep.document import Design
from rillstep.services import workbench

TOTES = Path(__file__).parent / "totes"


def every_way() -> list[Design]:
    designs = [nightfield(), steward()]
    for stitch, height_mm in (("sc", 60.0), ("hdc", 87.0), ("dc", 125.0)):
        for rounds, counts in (("joined", False), ("joined", True), ("spiral", False)):
            base = nightfield()
            swatch = base.swatch.model_copy(
                update={"stitch": stitch, "stitches": 15, "rows": 10, "width_mm": 100.0, "height_mm": height_mm}
            )
            way = base.way.model_copy(
                update={"rounds": rounds, "chain_counts": counts, "increases": "shifted" if counts else "stacked"}
            )
            designs.append(base.model_copy(update={"swatch": swatch, "way": way}))
    return designs


def written() -> dict[str, str]:
    """The text of each design, by the name of its file."""
    texts = {}
    for index, design in enumerate(every_way()):
        counts = "counts" if design.way.chain_counts else "plain"
        texts[f"{index:02d}_{design.swatch.stitch}_{design.way.rounds}_{counts}.txt"] = workbench.work(design).text
    return texts


if __name__ == "__main__":
    for name, text in written().items():
        (TOTES / name).write_text(text)
