"""JSON that comes from outside: what no design and no request can mean is refused before anything is made of it."""

import json
import re
from typing import Any

_HALF_CHARACTER = re.compile(rb"\\u[dD][89abAB]", re.ASCII)


class NotJson(ValueError):
    """The text is no JSON that is taken; the message says why and, where it is known, at which line and column."""


def parsed(source: str | bytes) -> Any:
    """What a JSON text says. Raises NotJson: also where it is nested too deeply, has numbers of thousands of digits, or
    characters that are halves of one."""
    try:
        content = json.loads(source)
    except json.JSONDecodeError as error:
        raise NotJson(f"this is not JSON (line {error.lineno}, column {error.colno})") from None
    except RecursionError:
        raise NotJson("this JSON is nested too deeply") from None
    except UnicodeDecodeError:
        raise NotJson("this is not JSON: it is not written in UTF-8") from None
    except ValueError:
        raise NotJson("this JSON has a number of too many digits") from None
    raw = source.encode("utf-8", "surrogatepass") if isinstance(source, str) else source
    if _HALF_CHARACTER.search(raw) and not _is_whole(content):
        raise NotJson("this JSON has half a character (a lone surrogate)")
    return content


def _is_whole(content: Any) -> bool:
    """Whether all that is said can be written down."""
    try:
        json.dumps(content, ensure_ascii=False).encode()
    except UnicodeEncodeError:
        return False
    return True
