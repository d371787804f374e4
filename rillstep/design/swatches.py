"""Swatches beside the text: whether each has its gauge, how a hand comes back to it, blocking, and hanging loads."""

from collections.abc import Callable, Iterator, Sequence

from rillstep.core.gauge import Gauge
from rillstep.core.lengths import Units, show_length
from rillstep.core.proof import Proof
from rillstep.core.tension import WITHIN, Correction, correction
from rillstep.core.yarn import read_stitches
from rillstep.design.yarn import gauge_of, in_other_hook
from rillstep.document import Design, Swatch


def sentences_of(
    design: Design, proof: Proof, swatch: Swatch, hook_mm: float | None, is_mostly_in: Callable[[str], bool]
) -> Iterator[str]:
    """What a swatch tells, in sentences. is_mostly_in: whether the bag is mostly worked in a stitch."""
    gauge = gauge_of(proof)
    other_hook = in_other_hook(design, hook_mm, swatch)
    if other_hook:
        yield (
            f"Made with {swatch.hook_mm:g} mm, while the text is worked with {hook_mm:g} mm: what it "
            "weighs counts, and its size does not."
        )
    if gauge is None:
        return
    if not other_hook and read_stitches(swatch.stitch).plain == gauge.stitch:
        own = Gauge(gauge.stitch, swatch.width_mm / swatch.stitches, swatch.height_mm / swatch.rows)
        yield _tension(gauge, own, hook_mm)
    if swatch.raw_width_mm is None and swatch.raw_height_mm is None and swatch.hanging_mm is None:
        return  # the yarn of the text is counted for the rest, at every keystroke
    # What holds for a swatch holds for a bag that is mostly worked in its stitch.
    sizes = proof.pattern.sizes if is_mostly_in(swatch.stitch) else ()
    yield from _blocking(swatch, proof, sizes, design.units)
    yield from _hanging(swatch, proof, sizes, design.units)


def _tension(gauge: Gauge, own: Gauge, hook_mm: float | None) -> str:
    """How the hand of a swatch comes to the gauge of the text."""
    across, up = own.width_mm / gauge.width_mm - 1, own.height_mm / gauge.height_mm - 1
    off = [
        f"its {name} are {100 * abs(by):.0f} % {more if by > 0 else less}"
        for name, by, more, less in (("stitches", across, "wider", "narrower"), ("rows", up, "higher", "lower"))
        if abs(by) > WITHIN
    ]
    if not off:
        return "It has the gauge of the text."
    ways = _ways(correction(gauge, own, hook_mm)) if hook_mm is not None else "say which hook it was made with"
    return f"Against the gauge of the text, {' and '.join(off)}. Write its gauge into the text, or {ways}."


def _ways(found: Correction) -> str:
    """What a hand does about its tension."""
    hook = f"take a {found.hook_mm:g} mm hook" if found.hook_mm is not None else ""
    loop = f"{'draw up' if found.loop_mm > 0 else 'keep'} each loop {abs(found.loop_mm):.1f} mm "
    loop = loop + ("higher" if found.loop_mm > 0 else "lower") if found.loop_mm else ""
    ways = " and ".join(way for way in (hook, loop) if way) or "work a little looser or tighter"
    left = f" (the nearest hook leaves {100 * abs(found.left):.0f} %)" if abs(found.left) > WITHIN and hook else ""
    return ways + left


def _by_sizes(proof: Proof, name: str) -> dict[str, float]:
    """A measure of the bag in each size, in mm, where it is known."""
    found = next((one for one in (proof.bag.measures if proof.bag is not None else ()) if one.called == name), None)
    if found is None:
        return {}
    return {size: mm for size, mm in zip(proof.pattern.sizes, found.mm, strict=True) if mm is not None}


def _blocking(swatch: Swatch, proof: Proof, sizes: Sequence[str], units: Units) -> Iterator[str]:
    """What the bag measures before it is blocked, as whoever works it will find it."""
    times = {
        name: measured / raw
        for name, measured, raw in (
            ("width", swatch.width_mm, swatch.raw_width_mm),
            ("height", swatch.height_mm, swatch.raw_height_mm),
        )
        if raw is not None
    }
    if not times:
        return
    said = " and ".join(f"{100 * (by - 1):+.0f} % in {name}".replace("-", "−") for name, by in times.items())
    before = {name: {size: mm / by for size, mm in _by_sizes(proof, name).items()} for name, by in times.items()}
    words = {"width": "wide", "height": "high"}
    said_of = [
        f"{size} {' and '.join(found)}"
        for size in sizes
        if (found := [f"{show_length(own[size], units)} {words[name]}" for name, own in before.items() if size in own])
    ]
    yield f"Blocking changes it by {said}." + (f" Before it, the bag is: {'; '.join(said_of)}." if said_of else "")


def _hanging(swatch: Swatch, proof: Proof, sizes: Sequence[str], units: Units) -> Iterator[str]:
    """How far the bag stretches with a load: so much as the swatch does with the same load on each stitch."""
    if swatch.hanging_mm is None:
        return
    times = swatch.hanging_mm / swatch.height_mm
    load = f" with {swatch.load_g:g} g" if swatch.load_g else ""
    yield f"Hanging{load} it is {100 * abs(times - 1):.0f} % {'longer' if times >= 1 else 'shorter'}."
    widths, heights = _by_sizes(proof, "width"), _by_sizes(proof, "height")
    per_mm = (swatch.load_g or 0.0) / swatch.width_mm
    said_of = [
        f"{size} {show_length(heights[size] * times, units)} high with {per_mm * 2 * widths[size] / 1000:.1f} kg in it"
        for size in sizes if per_mm and size in widths and size in heights
    ]  # fmt: skip
    if said_of:
        yield f"As much on each stitch makes the bag: {'; '.join(said_of)}."
