"""What follows from a design is worked once for a state of it, and only what is asked for."""

from collections import Counter
from collections.abc import Callable
from functools import cached_property
from typing import Any

import pytest

from rillstep.core.memory import Memory
from rillstep.demo.data import nightfield
from rillstep.design import Facts, facts_of
from rillstep.services import crochet_along, drawing_views, sample_gauges, words, workbench, yarn_reach
from rillstep.services.snapshots import snapshot_of_test

PARTS = [name for name, part in vars(Facts).items() if isinstance(part, cached_property)]


@pytest.fixture
def worked(monkeypatch: pytest.MonkeyPatch) -> Counter[str]:
    """How often each part of the facts is worked, for each proof it is worked of."""
    counted: Counter[str] = Counter()

    def counting(name: str, part: Callable[[Facts], Any]) -> Callable[[Facts], Any]:
        def count(facts: Facts) -> Any:
            counted[f"{name} of {id(facts.proof)}"] += 1
            return part(facts)

        return count

    for name in PARTS:
        again = cached_property(counting(name, vars(Facts)[name].func))
        again.__set_name__(Facts, name)
        monkeypatch.setattr(Facts, name, again)
    return counted


def test_each_part_is_worked_once_for_all_that_is_shown(worked: Counter[str]) -> None:
    design = nightfield()
    with Memory().in_use():
        workbench.work(design)
        workbench.work(nightfield())
        drawing_views.drawings_view(design)
        sample_gauges.sample_gauge_view(design)
        words.booklet_view(design, "US", None)
        words.pattern_html(design, "UK", "Atlas", nightfield().parts.start)
        crochet_along.parts_view(design, "US")
        yarn_reach.largest_view(design, None)
        snapshot_of_test(design.model_dump_json())
    assert {name: many for name, many in worked.items() if many > 1} == {}
    assert len(worked) >= 20


def test_only_what_is_asked_for_is_worked(worked: Counter[str]) -> None:
    with Memory().in_use():
        drawing_views.drawings_view(nightfield())
    assert {name.split()[0] for name in worked} == {"drawings", "measures"}


def test_another_state_has_facts_of_its_own() -> None:
    design = nightfield()
    heavier = design.model_copy(update={"weighings": []})
    assert facts_of(design) is facts_of(nightfield()) is not facts_of(heavier)
    assert facts_of(design).proof is facts_of(heavier).proof
    assert facts_of(design).known != facts_of(heavier).known
