"""All tables together: the forms of every category, what builds their nodes, and the terminals."""

from collections.abc import Callable
from typing import Any

from rillstep.core.language import terminals
from rillstep.core.language.forms import again, counts, ends, gestures, into, joins, kinds, set_up, totals
from rillstep.core.language.patterns import GrammarForm, forms_of
from rillstep.core.language.terminals import Terminal

TABLES = (kinds, ends, counts, into, totals, gestures, joins, again, set_up)
FORMS: dict[str, tuple[GrammarForm, ...]] = forms_of("\n".join(table.TABLE for table in TABLES))
BUILDERS: dict[str, Callable[..., Any]] = {name: build for table in TABLES for name, build in table.BUILDERS.items()}
TERMINALS: dict[str, Terminal] = {**terminals.TERMINALS, **gestures.TERMINALS, **joins.TERMINALS, **set_up.TERMINALS}
