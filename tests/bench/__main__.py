"""`make bench`: speeds and ratios, all measured in one run on this machine. Nothing here passes or fails."""

from tests.bench import edit, expressions, grading, keystroke

if __name__ == "__main__":
    keystroke.report()
    print()
    edit.report()
    print()
    expressions.report()
    print()
    grading.report()
