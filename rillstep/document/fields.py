"""The fields of a design as they are called on the screen, and their values in the designer's units."""

import re
from collections.abc import Sequence
from typing import Any

from rillstep.core.lengths import Units, in_units

_PART = re.compile(r"\[(\d+)\]|\.((?:(?!\.|\[\d).)+)")
_FIELDS = {
    "name": "Name of the design", "units": "Units", "terms": "Terms", "hand": "Hand", "text": "Text",
    "sample": "Sample", "sizes": "Sizes", "yarns": "Yarns", "hook_mm": "Hook (mm)",
    "swatches": "Swatches", "weighings": "Weighings", "extras": "What else uses yarn",
    "carried": "How it is carried", "weights": "How much it counts",
    "made_mm": "Measured of the sample", "parts": "Parts", "notes": "Notes", "format": "The file’s “format”",
    "version": "The file’s “version”", "document": "The design",
}  # fmt: skip
_INNER = {
    "parts.count": "Number of parts", "parts.start": "First day", "parts.every_days": "Days between the parts",
    "yarn.grams_per_ball": "Yarn: grams a ball", "yarn.metres_per_ball": "Yarn: metres a ball",
    "swatch.stitches": "Swatch: stitches", "swatch.rows": "Swatch: rows", "swatch.width_mm": "Swatch: width",
    "swatch.height_mm": "Swatch: height", "swatch.weight_g": "Swatch: weight (g)",
}  # fmt: skip
# Lists beside the text: how one of each is called, and its fields.
_LISTS = {"yarns": "Yarn", "swatches": "Swatch", "weighings": "Weighing", "extras": "Also uses yarn"}
_OF_LISTS = {
    "name": "name", "colour": "colour", "weight_class": "weight class", "fibre": "fibre", "strands": "strands together",
    "grams_per_ball": "grams a ball", "metres_per_ball": "metres a ball", "measured_m": "measured length (m)",
    "measured_g": "weight of the measured length (g)", "have_g": "in the drawer (g)", "carried": "carried along",
    "stitch": "stitches",
    "stitches": "stitches across", "rows": "rows", "width_mm": "width", "height_mm": "height", "weight_g": "weight (g)",
    "blocked": "blocked", "raw_width_mm": "width before blocking", "raw_height_mm": "height before blocking",
    "hanging_mm": "height when it hangs", "load_g": "load (g)", "yarn": "yarn", "hook_mm": "hook (mm)", "of": "piece",
    "size": "size", "grams": "grams", "balls": "balls begun", "maker": "maker",
    "kind": "kind", "measure": "measure", "length_mm": "length", "count": "how many",
}  # fmt: skip
_OF_SIZE = {
    "name": "name", "targets_mm": "wanted measures", "tolerances_mm": "tolerances", "locks": "locked numbers",
    "width_mm": "width", "height_mm": "height", "depth_mm": "depth", "drop_mm": "drop",
}  # fmt: skip


def field_called(path: str, sizes: Sequence[str] = ()) -> str:
    """A field by its path (`$.sizes[2].targets_mm.width`) as the screen calls it ("Width wanted in Rug"); sizes: the
    names of the sizes, as far as they are known. A path that is not known is given as it is, without its signs."""
    parts = [match[1] or match[2] for match in _PART.finditer(path)]
    if not parts:
        return "The file"
    if parts[0] == "made_mm" and len(parts) > 1:
        return f"Measured of the sample: {': '.join(parts[1:])}"
    if parts[0] == "weights" and len(parts) > 1:
        return f"{': '.join(parts[1:])}: how much it counts"
    if parts[0] in _LISTS and len(parts) > 1:
        one = f"{_LISTS[parts[0]]} {int(parts[1]) + 1}" if parts[1].isdigit() else _LISTS[parts[0]]
        return f"{one}: {_OF_LISTS.get(parts[2], parts[2])}" if len(parts) > 2 else one
    if parts[0] != "sizes" or len(parts) == 1:
        known = _INNER.get(".".join(parts[:2])) or _FIELDS.get(parts[0])
        return known or " ".join(parts)
    at = int(parts[1]) if parts[1].isdigit() else 0
    size = sizes[at] if at < len(sizes) else f"size {at + 1}"
    if len(parts) == 2:
        return size[:1].upper() + size[1:]
    inner = parts[2]
    if len(parts) > 3 and inner == "locks":
        return f"“{parts[3]}” locked in {size}"
    if len(parts) > 3:
        measure = ": ".join(parts[3:])  # "Cord.length" is the length of a piece
        return f"{measure[:1].upper()}{measure[1:]} {'wanted' if inner == 'targets_mm' else 'may be off by'} in {size}"
    words = _OF_SIZE.get(inner, inner)
    return f"{words[:1].upper()}{words[1:]} of {size}"


def is_length(path: str) -> bool:
    """Whether a field holds a length in mm, which is shown in the designer's units."""
    return (
        (path.endswith("_mm") and not path.endswith("hook_mm"))
        or ".targets_mm." in path
        or path.startswith("$.made_mm.")
        or ".tolerances_mm." in path
    )


def value_shown(path: str, value: Any, units: Units) -> str:
    """The value of a field as the screen shows it."""
    if value is None or value == "":
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, int | float):
        return f"{in_units(value, units):g} {units}" if is_length(path) else f"{value:g}"
    return str(value)
