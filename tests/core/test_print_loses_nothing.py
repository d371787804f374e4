"""A number that is lost in print is found to be lost; the sweep looks for such in every text of the corpus."""

from tests.sweep.printed import REASONS, lost_numbers


def test_there_are_at_most_six_reasons() -> None:
    assert len(REASONS) <= 6


def test_a_number_that_is_lost_is_found_to_be_lost() -> None:
    assert lost_numbers("Ch 24.\nRnd 2: Sc in 7 sts. (12)\nSew on 8 stars.", "Ch 24.") == [
        (2, "7"),
        (2, "12"),
        (3, "8"),
    ]
