"""Linear forms in named numbers: what a number is made of, so that it is known how it moves when a name does."""

from dataclasses import dataclass
from fractions import Fraction


@dataclass(frozen=True)
class Form:
    """A constant and so many times each name, names in alphabetical order: 2 side + 6."""

    constant: Fraction = Fraction(0)
    terms: tuple[tuple[str, Fraction], ...] = ()

    def plus(self, other: "Form", times: Fraction = Fraction(1)) -> "Form":
        """This form and so many times another."""
        sums = dict(self.terms)
        for name, factor in other.terms:
            sums[name] = sums.get(name, Fraction(0)) + times * factor
        terms = tuple(sorted((name, factor) for name, factor in sums.items() if factor))
        return Form(self.constant + times * other.constant, terms)

    def times(self, factor: Fraction) -> "Form":
        return Form().plus(self, factor)

    def more(self, by: int) -> "Form":
        return Form(self.constant + by, self.terms)

    def of(self, name: str) -> Fraction:
        """By how much the number grows when a name grows by one."""
        return dict(self.terms).get(name, Fraction(0))


def constant(value: Fraction | int) -> Form:
    """The form of a plain number."""
    return Form(Fraction(value))


def of_name(name: str) -> Form:
    """The form of a name by itself."""
    return Form(terms=((name, Fraction(1)),))
