"""The command line: the same services without a browser. Exit 0 clean, 1 errors found, 2 cannot be used."""

import argparse
import json
import os
import sys
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from rillstep.core.grading import GradedText, SizeWanted
from rillstep.core.lengths import in_units
from rillstep.core.measures.side_stitches import Sides, sides_of
from rillstep.core.proof import Proof, counts_of, prove_text, reader_text, reprint
from rillstep.core.stitches import Terms

# Whatever draws, prints or reads a design file is loaded by the command that does so: a check answers at once.

CLEAN, ERRORS, UNUSABLE = 0, 1, 2


class _Unusable(Exception):
    pass


def _read(path: str) -> str:
    try:
        return sys.stdin.read() if path == "-" else Path(path).read_text(encoding="utf-8")
    except (OSError, UnicodeDecodeError) as error:
        raise _Unusable(f"{path} cannot be read: {error}") from None


def _proof(path: str) -> Proof:
    proof = prove_text(_read(path))
    if any(f.code in ("text-too-long", "nothing-to-work") for f in proof.findings):
        raise _Unusable(proof.findings[0].message)
    return proof


def _print_json(content: Any) -> None:
    print(json.dumps(content, ensure_ascii=False, indent=1, default=lambda model: model.model_dump(mode="json")))


def check_report(proof: Proof) -> dict[str, Any]:
    """What `check --json` prints."""
    from rillstep.services.proof_views import finding_view

    lines = [
        {
            "line": line.line, "section": proof.pattern.sections[line.section].title, "label": line.label,
            "totals": {"sts": list(line.sts), "spaces": list(line.spaces)}, "stated": {"sts": list(line.stated)},
        }
        for line in proof.lines
    ]  # fmt: skip
    findings = [finding_view(f, proof.pattern.sizes).model_dump() for f in proof.findings]
    return {"ok": proof.ok, "sizes": list(proof.pattern.sizes), "lines": lines, "findings": findings}


def _check(args: argparse.Namespace) -> int:
    proof = _proof(args.file)
    if args.json:
        _print_json(check_report(proof))
        return CLEAN if proof.ok else ERRORS
    for finding in proof.findings:
        where = f"{args.file}:{finding.span.line}:{finding.span.column}"
        print(f"{where}: {finding.severity}: {finding.message} [{finding.code}]")
        for repair in finding.repairs:
            print(f"    repair: {repair.message}")
    many = len(proof.pattern.sizes)
    print(f"{counts_of(proof).words()}, of {len(proof.lines)} lines in {many} size{'s' if many > 1 else ''}")
    return CLEAN if proof.ok else ERRORS


def _write(args: argparse.Namespace) -> int:
    proof = _proof(args.file)
    if not proof.ok:
        print(f"{args.file} is not proved; run “rillstep check” to see why.", file=sys.stderr)
        return ERRORS
    names = [name.lower() for name in proof.pattern.sizes]
    if args.size != "all" and args.size.lower() not in names:
        raise _Unusable(f"there is no size “{args.size}”; choose one of {', '.join(proof.pattern.sizes)}, or all")
    index = None if args.size == "all" else names.index(args.size.lower())
    terms: Terms = "UK" if args.terms == "uk" else "US"
    as_text = getattr(args, "as") == "text"
    if as_text:
        printed = reader_text(proof.pattern, terms, index, hand=args.hand)
    else:
        printed = reprint(proof.pattern, terms, index, hand=args.hand)
    if not printed.ok:
        print("The print does not prove; it is not written.", file=sys.stderr)
        return ERRORS
    if as_text:
        _deliver(printed.text, args.output)
        return CLEAN
    from rillstep.publish.sheet import markdown_of, sheet

    booklet = sheet(printed, terms, args.hand)
    if getattr(args, "as") == "markdown":
        _deliver(markdown_of(booklet), args.output)
        return CLEAN
    from rillstep.publish.pdf import html_of, pdf_of

    page = html_of(
        booklet, f"{', '.join(booklet.sizes)} · {terms} terms · {args.hand}-handed", datetime.now(UTC).date()
    )
    if getattr(args, "as") == "html":
        _deliver(page, args.output)
    elif args.output is None:
        raise _Unusable("a PDF needs a file to go to: give one with -o")
    else:
        Path(args.output).write_bytes(pdf_of(page))
    return CLEAN


_NAMES = ("number-form", "number-not-worked-out", "name-not-defined")


def _unname(args: argparse.Namespace) -> int:
    """The text with plain numbers and sets for its names."""
    from rillstep.core.printing.unnaming import without_names
    from rillstep.core.settling import read

    text = _read(args.file)
    parsed = read(text)
    wrong = next((finding for finding in parsed.findings if finding.code in _NAMES), None)
    if wrong is not None:
        raise _Unusable(f"{args.file}:{wrong.span.line}: {wrong.message}")
    _deliver(without_names(text, parsed), args.output)
    return CLEAN


def _chart(args: argparse.Namespace) -> int:
    """The stitch chart of one line."""
    from rillstep.core.chart import chart_of, rows_for
    from rillstep.publish.chart import svg_of

    proof = _proof(args.file)
    names = [name.lower() for name in proof.pattern.sizes]
    size = names[0] if args.size is None else args.size.lower()
    if size not in names:
        raise _Unusable(f"there is no size “{args.size}”; choose one of {', '.join(proof.pattern.sizes)}")
    index = names.index(size)
    try:
        rows, around = rows_for(proof.works[index], args.line)
    except ValueError as error:
        raise _Unusable(str(error)) from None
    if not rows:
        raise _Unusable(f"no round or row is worked in line {args.line} in size {proof.pattern.sizes[index]}")
    terms: Terms = "UK" if args.terms == "uk" else "US"
    title = f"{proof.pattern.name or 'Pattern'}, line {args.line}, size {proof.pattern.sizes[index]}"
    _deliver(svg_of(chart_of(rows, around), title, terms, args.hand == "left"), args.output)
    return CLEAN


def _deliver(text: str, output: str | None) -> None:
    if output is None:
        sys.stdout.write(text)
    else:
        Path(output).write_text(text, encoding="utf-8")


def _measure(args: argparse.Namespace) -> int:
    proof = _proof(args.file)
    if proof.bag is None:
        raise _Unusable("there is no “Gauge:” line in this text, so nothing can be measured")
    units, measures = proof.pattern.units, proof.bag.measures
    if args.json:
        shown = [
            {
                "name": one.name, "piece": one.piece, "label": one.label, "estimated": one.estimated, "why": one.why,
                "mm": [round(mm, 1) if mm is not None else None for mm in one.mm], "rounds": one.rounds,
                "gauges": one.gauges,
            }
            for one in measures
        ]  # fmt: skip
        _print_json({
            "ok": proof.ok, "units": units, "sizes": proof.pattern.sizes, "measures": shown,
            "sides": [
                {"size": name, **vars(one)}
                for name, sides in _sides(proof) for one in sides
            ],
        })  # fmt: skip
    else:
        for one in measures:
            across = ", ".join(f"{in_units(mm, units)}" if mm is not None else "–" for mm in one.mm)
            known = any(mm is not None for mm in one.mm)
            told = " (estimated)" if one.estimated else "" if known else f" ({one.why[0]})"
            print(f"{one.piece or 'Bag'}: {one.label.lower()} {across} {units}{told}")
        for name, sides in _sides(proof):
            for side in sides:
                where = f"{side.section}, round {side.number}, size {name}"
                about = "about " if side.about else ""
                step = f"; sl st in next {side.correction} to begin at a side" if side.correction else ""
                print(
                    f"{where}: sides at {about}{_stitch(side.left)} and {_stitch(side.right)}, "
                    f"centres at {_stitch(side.front)} and {_stitch(side.back)} of {side.places}{step}"
                )
    return CLEAN if proof.ok else ERRORS


def _sides(proof: Proof) -> list[tuple[str, list[Sides]]]:
    """The sides and centres of a wall in each size, at the rounds that need them: those on which
    openings are counted, and the last."""
    found: list[tuple[str, list[Sides]]] = []
    for name, work in zip(proof.pattern.sizes, proof.works, strict=True):
        try:
            every = sides_of(proof.bag, work.lines, work.size) if proof.bag is not None else ()
        except ValueError:
            every = ()
            print(f"{name}: a round is too long for its sides to be followed, so they are not told", file=sys.stderr)
        opened = {line.line.span.line for line in work.lines if line.openings}
        follows = zip(every, [*every[1:], None], strict=True)
        found.append((name, [
            one for one, after in follows if after is None or (after.line in opened and one.line not in opened)
        ]))  # fmt: skip
    return found


def _stitch(number: float) -> str:
    return f"st {number:g}" if number.is_integer() else f"between {number - 0.5:g} and {number + 0.5:g}"


def _yarn(args: argparse.Namespace) -> int:
    from rillstep.document import BrokenDesign
    from rillstep.yarn_command import NoYarn, design_in, other_in, report_lines, yarn_report

    try:
        other = other_in(_read(args.other)) if args.other else None
        report = yarn_report(design_in(_read(args.file), args), args.have, other)
    except (BrokenDesign, NoYarn) as error:
        raise _Unusable(str(error)) from None
    if args.json:
        _print_json(report)
    else:
        print("\n".join(report_lines(report)))
    return CLEAN if report["ok"] else ERRORS


def _lift(args: argparse.Namespace) -> int:
    from rillstep.core.grading import lift

    lifted = lift(_read(args.file))
    if lifted is None:
        raise _Unusable("a text in one size is lifted, where it reads back to the same tree with its names")
    if args.json:
        _print_json({
            "text": lifted.text,
            "names": [{"name": name, "value": value, "places": places} for name, value, places in lifted.names],
            "held": [vars(one) for one in lifted.held],
        })  # fmt: skip
    if args.output or not args.json:
        _deliver(lifted.text, args.output)
    return CLEAN


def _grade(args: argparse.Namespace) -> int:
    from rillstep.document import BrokenDesign, load
    from rillstep.services.grading import size_wanted

    written = _read(args.file)
    if not written.lstrip().startswith("{"):
        return _grade_text(args, written, [])
    try:
        design = load(written)
    except BrokenDesign as error:
        raise _Unusable(str(error)) from None
    return _grade_text(args, design.text, [size_wanted(design, one) for one in design.sizes])


def _grade_text(args: argparse.Namespace, text: str, own: list[SizeWanted]) -> int:
    """A text: to the sizes of a JSON file of targets, or to those of its own design file."""
    from rillstep.core.grading import NotGraded, grade_text
    from rillstep.document.targets import sizes_wanted

    if not args.to and not own:
        raise _Unusable("a text is graded to targets: --to TARGETS, a JSON file of sizes")
    try:
        graded = grade_text(text, sizes_wanted(_read(args.to)) if args.to else own)
    except NotGraded as error:
        raise _Unusable(str(error)) from None
    if args.output:
        _deliver(graded.text, args.output)
    if args.json:
        _print_json(_shown(graded))
    else:
        for name, values in graded.values.items():
            held = f" (held: {graded.stuck[name]})" if name in graded.stuck else ""
            print(f"{name}: {', '.join(map(str, values))}{held}")
        for way in graded.ways:
            moved = ", ".join(f"{name} {mm / 10:+.1f} cm" for name, mm in way.mm.items() if "." not in name)
            print(f"way: {way.label}{': ' + moved if moved else ''}")
        for note in graded.notes:
            print(f"note: {note}")
        for one in graded.kept:
            print(f"not changed: look at line {one.line}: {one.number} ({one.was})")
    return ERRORS if graded.notes else CLEAN


def _shown(graded: GradedText) -> dict[str, object]:
    """A graded text as JSON."""
    measures = graded.proof.bag.measures if graded.proof.bag is not None else ()
    return {
        "ok": not graded.notes, "sizes": graded.proof.pattern.sizes,
        "numbers": [
            {"name": name, "values": values, "free": name not in graded.stuck, "held": graded.stuck.get(name)}
            for name, values in graded.values.items()
        ],
        "directions": [{"label": way.label, "step": dict(way.step), "mm": way.mm} for way in graded.ways],
        "multiples": [f"{way.label}: {way.multiple}" for way in graded.ways if way.multiple],
        "rules": [way.rule for way in graded.ways],
        "next_best": {
            size: [{"numbers": one.values, "mm": one.made_mm} for one in found]
            for size, found in graded.next_best.items()
        },
        "measures": [
            {"name": one.called, "mm": one.mm} for one in measures
        ],
        "notes": graded.notes,
        "not_changed": [{"line": one.line, "number": one.number, "was": one.was} for one in graded.kept],
    }  # fmt: skip


def _schema(args: argparse.Namespace) -> int:
    from rillstep.document import design_schema

    _deliver(json.dumps(design_schema(), indent=1, sort_keys=True) + "\n", args.output)
    return CLEAN


def _demo(args: argparse.Namespace) -> int:
    from rillstep.demo.run import run

    return run(Path(args.folder), args.port, datetime.now(UTC))


def _migrate(args: argparse.Namespace) -> int:
    from rillstep.store.database import WouldDrop, migrate

    url = os.environ.get("RILLSTEP_DATABASE_URL")
    if not url:
        raise _Unusable("set RILLSTEP_DATABASE_URL to the database to bring up to date")
    try:
        migrate(url, args.revision, args.drop_data)
    except WouldDrop as error:
        raise _Unusable(str(error)) from None
    return CLEAN


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="rillstep", description="Work, prove, measure and write crochet bag patterns."
    )
    commands = parser.add_subparsers(dest="command", required=True)

    def command(name: str, run: Any, text: str, file: bool = True, as_json: bool = True) -> argparse.ArgumentParser:
        sub = commands.add_parser(name, help=text)
        sub.set_defaults(run=run)
        if file:
            sub.add_argument("file", help="a file, or - for standard input")
        if as_json:
            sub.add_argument("--json", action="store_true")
        return sub

    command("check", _check, "read, work and prove a pattern text")
    write = command("write", _write, "write a proved pattern text", as_json=False)
    write.add_argument("--terms", choices=("us", "uk"), default="us")
    write.add_argument("--size", default="all")
    write.add_argument("--hand", choices=("right", "left"), default="right")
    write.add_argument("--as", choices=("text", "html", "pdf", "markdown"), default="text")
    write.add_argument("-o", "--output")
    unname = command("unname", _unname, "write a text with plain numbers for its names", as_json=False)
    unname.add_argument("-o", "--output")
    chart = command("chart", _chart, "draw the stitch chart of one line as SVG", as_json=False)
    chart.add_argument("--line", type=int, required=True, help="the line of the text, counted from 1")
    chart.add_argument("--size", help="the first one if not given")
    chart.add_argument("--terms", choices=("us", "uk"), default="us")
    chart.add_argument("--hand", choices=("right", "left"), default="right")
    chart.add_argument("-o", "--output")
    command("measure", _measure, "measure a pattern text by its gauge")
    lifting = command("lift", _lift, "write a text in one size with names for the numbers that may move")
    lifting.add_argument("-o", "--output")
    grading = command("grade", _grade, "the numbers of a text with names, or of a design file, for other sizes")
    grading.add_argument("--to", metavar="TARGETS", help="JSON: the sizes with their targets")
    grading.add_argument("-o", "--output")
    yarn = command("yarn", _yarn, "estimate the yarn of a pattern text, or of a design file with its weighings")
    yarn.add_argument("--grams", type=float, default=100.0, help="grams a ball")
    yarn.add_argument("--metres", type=float, default=200.0, help="metres a ball")
    yarn.add_argument("--have", type=float, metavar="GRAMS", help="how large with so much")
    yarn.add_argument("--other", metavar="YARN", help="JSON: another yarn or hook for the whole design")
    schema = command("schema", _schema, "write the JSON Schema of the design file", file=False, as_json=False)
    schema.add_argument("-o", "--output")
    demo = command("demo", _demo, "run the application with demo data", file=False, as_json=False)
    demo.add_argument("--folder", default="var/demo")
    demo.add_argument("--port", type=int, default=8710)
    migration = command("migrate", _migrate, "bring the database's schema up to date", file=False, as_json=False)
    migration.add_argument("revision", nargs="?", default="head")
    migration.add_argument("--drop-data", action="store_true", help="go down, though it drops tables and their data")
    return parser


def main(arguments: list[str] | None = None) -> int:
    """The console script."""
    args = _parser().parse_args(arguments)
    try:
        return int(args.run(args))
    except _Unusable as error:
        print(f"rillstep: {error}", file=sys.stderr)
        return UNUSABLE


if __name__ == "__main__":
    sys.exit(main())
