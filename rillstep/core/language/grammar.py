"""All tables together: the forms of every category, and what builds their nodes."""

from collections.abc import Callable
from typing import Any

from rillstep.core.language.forms import counts, ends, into, kinds, totals
from rillstep.core.language.patterns import GrammarForm, forms_of

_TABLES = (kinds, ends, counts, into, totals)
FORMS: dict[str, tuple[GrammarForm, ...]] = forms_of("\n".join(table.TABLE for table in _TABLES))
BUILDERS: dict[str, Callable[..., Any]] = {name: build for table in _TABLES for name, build in table.BUILDERS.items()}
