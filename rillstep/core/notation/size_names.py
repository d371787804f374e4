"""Names of sizes as people list them: "S, M, L", "S (M, L)", "S[M:L]", "S/M/L", "S-M-L", "Small (20 cm), Large (26
cm)"."""

import re
from collections.abc import Sequence

# Names of sizes in ordinary use; letters only as capitals.
NAME = re.compile(
    r"\b(?:(?i:extra[ -]?(?:small|large)|x-(?:small|large)|small|medium|large|mini|midi|"
    r"maxi|petite|tiny|standard|regular|oversized|baby|infant|child|kids?|junior|youth|"
    r"toddler|teen|adult|sm|med|lg|lrg|sml)"
    r"|XXS|XS|S|M|L|XL|XXL|[23]XL)\b"
)
_LENGTH = r"\d{1,3}(?:\.\d)?\s?(?:cm|mm|inches|inch|in|\"|ml|l)"
_MEASURES_SET = re.compile(
    rf"({_LENGTH})\s?[(\[]({_LENGTH}(?:\s?[,;/]\s?{_LENGTH}){{0,8}})[)\]](?:\s[a-z]+)?", re.IGNORECASE
)
_MEASURED = re.compile(r"(?P<name>[A-Za-z][\w /-]{0,20}):\s*(?:about |approx\.? )?\d[^:;]{1,60}")
_MEASURE = re.compile(r"\s{0,3}\([^()]{0,60}\d[^()]*\)|\s{0,3}[–—-]\s{0,3}\d.*$|\s{0,3}:\s{0,3}\d.*$")


def size_names(text: str) -> tuple[str, ...]:
    """ "S, M, L", "S (M, L)", "S[M:L]", "S/M/L", "Small (20 cm), Large (26 cm)"."""
    if (one := re.match(r"\s*(one size)\s*(?:[;.(]|fits\b|$)", text, re.IGNORECASE)) is not None:
        return (one[1],)  # "One size; see the notes for a bigger one"
    text = re.sub(
        r"\s*[(\[](?:given|shown|written|listed|instructions)\b.*$", "", text, flags=re.IGNORECASE
    )  # "S, M, L (given as S (M, L))"
    text = re.sub(r"^\s*[(\[]([^()\[\]]+)[)\]]\s*$", r"\1", text)  # "(1, 2, 3)"
    text = re.split(r"(?<=[a-z)])\.\s+(?=[A-Z])", text.strip(), maxsplit=1)[0]
    text = re.sub(r"^.{0,40}\b(?:two|three|four|five|six|\d)\s+sizes\s*[-–:]\s*", "", text.strip(), flags=re.IGNORECASE)
    text = re.sub(
        r"^(?:two|three|four|five|six|\d)\s+sizes\s*[(\[]([^()\[\]]+)[)\]]$", r"\1", text.strip(), flags=re.IGNORECASE
    )
    measured = _MEASURES_SET.fullmatch(text)
    if measured is not None:  # "20cm [25cm, 30cm] across"
        return tuple(" ".join(part.split()) for part in (measured[1], *re.split(r"[,;/]", measured[2])))
    turns = re.fullmatch(
        rf"{NAME.pattern}\s?\({NAME.pattern}\)\s?{NAME.pattern}(?:\s?\({NAME.pattern}\)(?:\s?{NAME.pattern})?)?", text
    )
    if turns is not None:  # "S (M) L (XL)"
        return tuple(match[0] for match in NAME.finditer(text))
    text = re.sub(r"^([^()\[\]\d]+[(\[][^()\[\]\d]+[)\]])\s+[a-z]{3,12}\.?$", r"\1", text)  # "Standard (Wide) mat"
    counted = re.fullmatch(r"(\d{1,4})\s*[(\[]\s*([\d\s,;:/]{1,40})[)\]]\s*([A-Za-z]+)", text)
    if counted is not None:  # "12 (14) loops"
        return tuple(f"{number} {counted[3]}" for number in (counted[1], *re.findall(r"\d+", counted[2])))
    told = [_MEASURED.fullmatch(part) for part in re.split(r"\s*[;,]\s+", text)]
    if len(told) > 1 and all(told):  # "A: 60 sts around; B: 72 sts around"
        return tuple(part["name"].strip() for part in told if part is not None)
    text = re.split(r"\s{2,}(?!\()|\s+\bfinished\b", text.strip(), maxsplit=1, flags=re.IGNORECASE)[0].rstrip(".")
    each = re.fullmatch(r"([^()\[\]{},]+)((?:\s*(?:\([^()]+\)|\[[^\[\]]+\]|\{[^{}]+\})){2,})", text)
    if each is not None:  # "1 [2] {3}"
        text = ",".join([each[1], *re.findall(r"[^()\[\]{}\s][^()\[\]{}]*", each[2])])
    if ";" in text and "," not in text and "(" not in text:
        text = text.replace(";", ",")
    bracket = re.match(r"^([^(\[{]+)[(\[{]([^)\]}]*)[)\]}]$", text)
    if bracket is not None and "," not in bracket[1] and not re.search(r"\d\s*(?:cm|in|mm|\")", bracket[2]):
        slash = "" if "/" in bracket[1] else "/"  # "S/M (L/XL)" are two
        text = f"{bracket[1]},{re.sub(rf'[;:{slash}|]', ',', bracket[2])}"
    elif "," not in text and re.search(r"[/|;]", text):
        text = re.sub(r"[/|;]", ",", text)
    text = (
        re.sub(r",?\s+(?:and|&)\s+(?=[^,]*$)", ", ", text)
        if "," in text or re.fullmatch(r"\S+\s+(?:and|&)\s+\S+", text)
        else text
    )
    text = re.sub(r"^\s*to fit(?:\s+an?|\s+your)?\s+(?=[a-z])", "", text, flags=re.IGNORECASE)
    names = [" ".join(name.split()) for name in re.split(r",(?![^(]*\))", text)]
    if len(names) == 1 and re.fullmatch(r"\w+(?:-\w+)+", text) and all(map(NAME.fullmatch, text.split("-"))):
        names = text.split("-")  # "S-M-L"
    if len(names) == 1 and re.fullmatch(r"[\w/-]+(?::[\w/-]+)+", names[0]):
        names = names[0].split(":")  # "S:M:L"
    if len(names) > 1 and all(re.search(r"\d\s*(?:cm|in|mm|\")", name) for name in names):
        names = [_MEASURE.sub("", name).strip() for name in names]
    return tuple(name for name in names if name)


def bare_name(name: str) -> str:
    """ "size S" without its first word."""
    return re.sub(r"^sizes?\s+", "", name, flags=re.IGNORECASE)


def are_names(names: Sequence[str]) -> bool:
    """Are these names of sizes, or letters or numbers in their order?"""
    bare = [bare_name(name) for name in names]
    in_order = [str(at) for at in range(1, len(bare) + 1)]
    return bare == in_order or all(
        NAME.fullmatch(part) or re.fullmatch("[A-Z]", part) for name in bare for part in name.split("/")
    )
