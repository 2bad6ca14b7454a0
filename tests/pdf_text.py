"""What stands on a PDF's pages, as words in the order they are set."""

import base64
import re
import zlib


def text_of(data: bytes) -> str:
    """Every text of a PDF whose streams are Flate in base 85, as our papers are."""
    streams = re.findall(rb"stream\r?\n(.*?)endstream", data, re.S)
    text = b" ".join(
        zlib.decompress(
            base64.a85decode(s.strip(), adobe=False)
            if not s.strip().endswith(b"~>")
            else base64.a85decode(b"<~" + s.strip(), adobe=True)
        )
        for s in streams
    )
    shown = b" ".join(re.findall(rb"\(((?:[^()\\]|\\.)*)\) Tj", text)).decode("latin-1")
    return " ".join(re.sub(r"\\(.)", r"\1", shown).split())
