"""All tables together: the forms of every category, and what builds their nodes."""

from collections.abc import Callable
from typing import Any

from rillstep.core.language.forms import totals
from rillstep.core.language.patterns import Form, forms_of

FORMS: dict[str, tuple[Form, ...]] = forms_of(totals.TABLE)
BUILDERS: dict[str, Callable[..., Any]] = {**totals.BUILDERS}
