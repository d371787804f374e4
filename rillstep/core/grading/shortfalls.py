"""Wishes for a size that are not met, in sentences: by how much, what stands in the way, what each way out costs."""

from collections.abc import Mapping, Sequence

from rillstep.core.grading.nearest_size import Candidate, Model, Obstacle, SizeFound, SizeWanted, missed
from rillstep.core.proof import Proof

# A flap may lie over the edges of the mouth by so much.
_WIDER = 1.05


def nothing_near(size: SizeWanted, answer: SizeFound, why: str) -> str:
    """The sentence for a size of which no numbers come out: the lock that no step meets, or what refutes the nearest
    ones (why)."""
    for name, near in answer.unlockable:
        told = " or ".join(map(str, near))
        return f"{size.name}: “{name}” cannot be {size.locks[name]}: it can be {told}. It is left as the sample."
    return f"{size.name}: no numbers near its targets come out; it is left as the sample. {why}".strip()


def not_met(model: Model, size: SizeWanted, best: Candidate, answer: SizeFound, why: str, unmoved: str) -> list[str]:
    """A sentence for each target that is missed. why: what refutes nearer numbers. unmoved: why nothing may move it."""
    targets = missed(model, size, best.made_mm)
    notes = [_miss(model, size, best, target, answer.obstacles, why, unmoved) for target in targets]
    if not answer.whole:
        notes.append(f"{size.name}: there are very many numbers to choose from; nearer ones may be passed over.")
    return notes


def not_met_by_length(size: SizeWanted, made_mm: Mapping[str, float | None], model: Model) -> list[str]:
    """A sentence for each target that a line by measure does not come to: it is worked in whole rounds, or chains."""
    notes = []
    for name, got in made_mm.items():
        if got is None or abs(got - size.targets_mm[name]) > max(model.row_mm, model.stitch_mm) / 2 + 0.5:
            told = "is not known at this length" if got is None else f"comes to {_cm(got)}"
            notes.append(
                f"{size.name}: {name} {told}, not {_cm(size.targets_mm[name])}: its line is worked to a length."
            )
    return notes


def out_of_place(proof: Proof, size: str, at: int) -> list[str]:
    """What a size measures that no bag can: a flap wider than the mouth, an opening wider than the bag."""
    found = proof.bag.measures if proof.bag is not None else ()
    made = {(one.piece, one.name): mm for one in found if (mm := one.mm[at]) is not None}
    across = made.get((None, "mouth"), made.get((None, "width"), 0.0))
    notes = []
    for (piece, name), mm in made.items():
        wide = name == "opening" or (name == "width" and piece is not None and "flap" in piece.lower())
        if wide and across and mm > across * _WIDER:
            told = f"{piece}.{name}" if piece else name
            notes.append(
                f"{size}: {told} comes to {_cm(mm)}, wider than the bag at its mouth ({_cm(across)}): "
                "ask for less of it, or for a wider bag."
            )
    return notes


def _miss(
    model: Model, size: SizeWanted, best: Candidate, target: str, obstacles: Sequence[Obstacle], why: str, unmoved: str
) -> str:
    """What a target comes to, what stands in its way, and what each way out costs."""
    got = best.made_mm.get(target)
    if got is None:
        return f"{size.name}: {target} is not known at these numbers."
    told = f"{size.name}: {target} comes to {_cm(got)}, not {_cm(size.targets_mm[target])}:"
    moving = {way.label: way for way in model.ways if target in way.mm}
    if not moving:
        return f"{told} nothing in the text moves it. {unmoved}".rstrip()
    reasons = []
    for one in obstacles:
        if one.target != target:
            continue
        without = f"without it, {target} comes to {_cm(one.without_mm)}"
        match one.kind:
            case "lock":
                reasons.append(f"“{one.name}” is locked at {size.locks[one.name]}; {without}.")
            case "least":
                reasons.append(f"“{one.name}” cannot be less than {best.values[one.name]}; {without}.")
            case "run":
                reasons.append(f"{one.name} come to their end: no run is less than nothing; {without}.")
            case "target":
                reasons.append(f"the target of {one.name} stands against it; {without}.")
            case "multiple":
                way = moving[one.name]
                step = f"{one.name} is a step of {_cm(abs(way.mm[target]))}, and a smaller one does not come out"
                reasons.append(f"{step} ({way.multiple.rstrip('.')}); else {target} comes to {_cm(one.without_mm)}.")
    return " ".join([told, *(reasons or [why or "its steps are no finer."])])


def _cm(mm: float) -> str:
    return f"{mm / 10:.1f} cm"
