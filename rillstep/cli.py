"""The command line: the same services without a browser. Exit 0 clean, 1 errors found, 2 cannot be used."""

import argparse
import json
import os
import sys
from datetime import UTC, datetime
from pathlib import Path
from typing import TYPE_CHECKING, Any, Literal

from rillstep.services.errors import Refused

if TYPE_CHECKING:
    from rillstep.document import Design

# Whatever draws, prints or reads a design file is loaded by the command that does so: a check answers at once.

CLEAN, ERRORS, UNUSABLE = 0, 1, 2


class _Unusable(Exception):
    pass


# Files of other programs, whose text is taken; all others are text.
_DOCUMENTS = (".docx", ".odt", ".pdf")


def _read(path: str) -> str:
    try:
        if Path(path).suffix.lower() in _DOCUMENTS:
            return _taken(path)
        return sys.stdin.read() if path == "-" else Path(path).read_text(encoding="utf-8")
    except (OSError, UnicodeDecodeError) as error:
        raise _Unusable(f"{path} cannot be read: {error}") from None


def _taken(path: str) -> str:
    """The text of a document; what of it was left out or mended is said on standard error."""
    from rillstep.services.files import text_in

    taken = text_in(Path(path).name, Path(path).read_bytes())
    for note in taken.notes:
        print(f"{path}: note: {note}", file=sys.stderr)
    return taken.text


def _design(args: argparse.Namespace) -> "Design":
    from rillstep.services.files import design_in

    return design_in(_read(args.file), getattr(args, "grams", None), getattr(args, "metres", None))


def _print_json(content: Any) -> None:
    print(json.dumps(content, ensure_ascii=False, indent=1, default=lambda model: model.model_dump(mode="json")))


def _check(args: argparse.Namespace) -> int:
    from rillstep.services.assuming import LETTERS, answered
    from rillstep.services.reports import check_report

    design = _design(args)
    if args.answer:
        design = design.model_copy(update={"text": answered(design.text, None, dict(args.answer))})
        if args.output:
            _deliver(design.text, args.output)
    report = check_report(design)
    if args.json:
        _print_json(report)
        return CLEAN if report["ok"] else ERRORS
    for finding in report["findings"]:
        where = f"{args.file}:{finding['line']}:{finding['column']}"
        print(f"{where}: {finding['severity']}: {finding['message']} [{finding['code']}]")
        for repair in finding["repairs"]:
            print(f"    repair: {repair['message']}")
    for number, question in enumerate(report["questions"], start=1):
        lines = ", ".join(map(str, question["lines"]))
        print(f"question {number}: {question['question']} (line{'s' if len(question['lines']) > 1 else ''} {lines})")
        for letter, answer in zip(LETTERS, question["answers"], strict=False):
            told = "; ".join(filter(None, (answer["makes"], answer["decided_by"] and f"by {answer['decided_by']}")))
            assumed = " (assumed)" if question["assumed"] and letter == LETTERS[0] else ""
            print(f"    {number}={letter}  {answer['means']}{': ' + told if told else ''}{assumed}")
    many = len(report["sizes"])
    print(f"{report['counts']}, of {len(report['lines'])} lines in {many} size{'s' if many > 1 else ''}")
    return CLEAN if report["ok"] else ERRORS


def _write(args: argparse.Namespace) -> int:
    from rillstep.services.files import size_in, usable_proof
    from rillstep.services.words import pattern_html, pattern_markdown, pattern_pdf, reader_print

    design = _design(args).model_copy(update={"hand": args.hand})
    proof = usable_proof(design)
    size = None if args.size == "all" else proof.pattern.sizes[size_in(proof, args.size)]
    terms = args.terms.upper() if args.terms else proof.pattern.terms
    today, form = datetime.now(UTC).date(), getattr(args, "as")
    printed = reader_print(design, terms, size)
    if form == "pdf":
        if args.output is None:
            raise _Unusable("a PDF needs a file to go to: give one with -o")
        Path(args.output).write_bytes(pattern_pdf(design, terms, size, today))
    elif form == "text":
        _deliver(printed.text, args.output)
    elif form == "markdown":
        _deliver(pattern_markdown(design, terms, size), args.output)
    else:
        _deliver(pattern_html(design, terms, size, today), args.output)
    if printed.ok and proof.ok:
        return CLEAN
    lines = ", ".join(str(printed.source_of(line)) for line in printed.written)
    which = f" and lines {lines} stand as they were written" if lines else ""
    print(f"{args.file} is not proved{which}; run “rillstep check” to see why.", file=sys.stderr)
    return ERRORS


def _unname(args: argparse.Namespace) -> int:
    from rillstep.services.reports import unnamed_text

    _deliver(unnamed_text(_design(args)), args.output)
    return CLEAN


def _chart(args: argparse.Namespace) -> int:
    from rillstep.services.reports import line_chart

    terms: Literal["US", "UK"] = "UK" if args.terms == "uk" else "US"
    _deliver(line_chart(_design(args), args.line, args.size, terms, args.hand == "left"), args.output)
    return CLEAN


def _deliver(text: str, output: str | None) -> None:
    if output is None:
        sys.stdout.write(text)
    else:
        Path(output).write_text(text, encoding="utf-8")


def _measure(args: argparse.Namespace) -> int:
    from rillstep.services.reports import measure_report

    report = measure_report(_design(args))
    if args.json:
        _print_json(report)
        return CLEAN if report["ok"] else ERRORS
    units = report["units"]
    for one in report["measures"]:
        across = ", ".join("–" if shown is None else f"{shown}" for shown in one["shown"])
        known = any(mm is not None for mm in one["mm"])
        told = " (estimated)" if one["estimated"] else "" if known else f" ({one['why'][0]})"
        print(f"{one['piece'] or 'Bag'}: {one['label'].lower()} {across} {units}{told}")
    for side in report["sides"]:
        where = f"{side['section']}, round {side['number']}, size {side['size']}"
        about = "about " if side["about"] else ""
        step = f"; sl st in next {side['correction']} to begin at a side" if side["correction"] else ""
        print(
            f"{where}: sides at {about}{_stitch(side['left'])} and {_stitch(side['right'])}, "
            f"centres at {_stitch(side['front'])} and {_stitch(side['back'])} of {side['places']}{step}"
        )
    for note in report["notes"]:
        print(note, file=sys.stderr)
    return CLEAN if report["ok"] else ERRORS


def _stitch(number: float) -> str:
    return f"st {number:g}" if number.is_integer() else f"between {number - 0.5:g} and {number + 0.5:g}"


def _yarn(args: argparse.Namespace) -> int:
    from rillstep.services.yarn_report import other_in, report_lines, yarn_report

    other = other_in(_read(args.other)) if args.other else None
    report = yarn_report(_design(args), args.have, other)
    if args.json:
        _print_json(report)
    else:
        print("\n".join(report_lines(report)))
    return CLEAN if report["ok"] else ERRORS


def _lift(args: argparse.Namespace) -> int:
    from rillstep.services.reports import lift_report

    report = lift_report(_design(args))
    if args.json:
        _print_json(report)
    if args.output or not args.json:
        _deliver(report["text"], args.output)
    return CLEAN


def _grade(args: argparse.Namespace) -> int:
    from rillstep.services.reports import grade_report

    report = grade_report(_design(args), _read(args.to) if args.to else None)
    text = report.pop("text")
    if args.output:
        _deliver(text, args.output)
    if args.json:
        _print_json(report)
        return CLEAN if report["ok"] else ERRORS
    for one in report["numbers"]:
        held = f" (held: {one['held']})" if one["held"] else ""
        print(f"{one['name']}: {', '.join(map(str, one['values']))}{held}")
    for way in report["directions"]:
        moved = ", ".join(f"{name} {mm / 10:+.1f} cm" for name, mm in way["mm"].items() if "." not in name)
        print(f"way: {way['label']}{': ' + moved if moved else ''}")
    for note in report["notes"]:
        print(f"note: {note}")
    for one in report["not_changed"]:
        print(f"not changed: look at line {one['line']}: {one['number']} ({one['was']})")
    return CLEAN if report["ok"] else ERRORS


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


def _answer(told: str) -> tuple[int, str]:
    number, _, letter = told.partition("=")
    if not number.isdigit() or not letter:
        raise argparse.ArgumentTypeError("an answer is the number of a question and a letter: 1=a")
    return int(number), letter


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

    check = command("check", _check, "read, work and prove a pattern text")
    check.add_argument(
        "--answer", action="append", type=_answer, metavar="N=LETTER", help="answer a question that it prints"
    )
    check.add_argument("-o", "--output", help="write the text with its answers")
    write = command("write", _write, "write a proved pattern text", as_json=False)
    write.add_argument("--terms", choices=("us", "uk"), help="as the text is written, if not given")
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
    yarn.add_argument("--grams", type=float, help="grams a ball, as its label says")
    yarn.add_argument("--metres", type=float, help="metres a ball, as its label says")
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
    except (_Unusable, Refused) as error:
        print(f"rillstep: {error}", file=sys.stderr)
        return UNUSABLE


if __name__ == "__main__":
    sys.exit(main())
