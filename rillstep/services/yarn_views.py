"""Yarn for the screen: the same figures as in print, in parts and on testers' pages."""

from rillstep.core.yarn import ColourNeed
from rillstep.design.yarn import SizeYarn, rounded
from rillstep.design.yarn_answers import YarnAnswers, enough, fits, lasts, yarn_of
from rillstep.document import Design
from rillstep.services import views


def yarn_view(design: Design, needed: SizeYarn | None) -> views.YarnView | None:
    """The yarn of a size for the screen."""
    if needed is None:
        return None
    grams, low, high = rounded(needed.whole)
    own, own_low, own_high = rounded(needed.own)
    return views.YarnView(
        metres=round(needed.metres), grams=grams, low_g=low, high_g=high, own_grams=own, own_low_g=own_low,
        own_high_g=own_high, balls=needed.balls, weighed=needed.weighed,
        colours=[_colour_view(design, one) for one in needed.colours],
        pieces=[
            views.PieceYarnView(
                piece=one.piece, grams=shown[0], low_g=shown[1], high_g=shown[2], basis=one.basis,
            )
            for one in needed.pieces for shown in (rounded(one.need),)
        ],
        within=list(dict.fromkeys(needed.within)), missing=list(needed.missing),
        once=list(needed.once), fits=fits(design, needed),
    )  # fmt: skip


def _colour_view(design: Design, need: ColourNeed) -> views.ColourYarnView:
    yarn = yarn_of(design, need.colour)
    grams, low, high = rounded(need.other)
    chance = enough(design, need)
    return views.ColourYarnView(
        colour=need.colour, yarn=yarn.name, metres=round(need.metres), grams=grams, low_g=low, high_g=high,
        balls=need.balls, grams_per_ball=yarn.grams_per_ball, left_g=round(need.left_g), have_g=yarn.have_g,
        enough=chance, lasts=lasts(chance),
    )  # fmt: skip


def answers_view(answers: YarnAnswers) -> views.YarnAnswersView:
    """What the designer asks of the yarn, for the screen."""
    return views.YarnAnswersView(
        problem=answers.problem, instead=list(answers.instead), in_drawer=answers.in_drawer, largest=answers.largest,
        scarce=answers.scarce, doubted=list(answers.doubted), tighter=answers.tighter,
    )  # fmt: skip
