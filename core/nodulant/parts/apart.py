"""Titles that are about different work say which: the work's own name behind what several of them share."""

from collections import defaultdict
from collections.abc import Mapping, Sequence


def named_apart(titles: Sequence[tuple[str, str | None]], names: Mapping[str, str]) -> list[str]:
    """Each title of (title, operation's id), with the operation's name where several share what it says before a comma."""
    owners: defaultdict[str, set[str]] = defaultdict(set)
    for title, own in titles:
        if own is not None:
            owners[_head(title)].add(own)
    out = []
    for title, own in titles:
        name = names.get(own or "", "")
        shared = own is not None and len(owners[_head(title)]) > 1
        out.append(f"{title}: {name}" if shared and name not in title else title)
    return out


def _head(title: str) -> str:
    return title.partition(",")[0]
