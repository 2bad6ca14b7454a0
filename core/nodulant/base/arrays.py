"""Array names: ``Columns`` are one value per station; and what small arrays are worked with."""

import numpy as np
import numpy.typing as npt

Columns = npt.NDArray[np.float64]
"""Shape (stations,) or (stations, n) of 64-bit floats."""
Mask = npt.NDArray[np.bool_]
"""Shape (stations,) of booleans."""
Rows = npt.NDArray[np.int64]
"""Numbers of rows."""


def cross(a: Columns, b: Columns) -> Columns:
    """A x b, element by element; numpy's own is far slower on small vectors."""
    out = np.empty(a.shape if a.shape == b.shape else np.broadcast_shapes(a.shape, b.shape))
    out[..., 0] = a[..., 1] * b[..., 2] - a[..., 2] * b[..., 1]
    out[..., 1] = a[..., 2] * b[..., 0] - a[..., 0] * b[..., 2]
    out[..., 2] = a[..., 0] * b[..., 1] - a[..., 1] * b[..., 0]
    return out


def dot(a: Columns, b: Columns) -> Columns:
    """A . b along the last axis; summing up a product is far slower on small vectors."""
    return np.asarray(np.einsum("...i,...i->...", a, b))


TINY = 1e-200
"""Numbers below this are nothing in any unit here, and their scale cannot be written."""


def rounded(values: Columns, digits: int = 6) -> Columns:
    """Round to significant digits, any shape."""
    size = np.abs(values)
    nothing = size < TINY
    size[nothing] = 1.0
    scale = 10.0 ** (digits - 1 - np.floor(np.log10(size)))
    kept = np.rint(values * scale) / scale
    kept[nothing] = 0.0
    return np.asarray(kept)


def significant(values: Columns, digits: int = 6) -> list[float]:
    """Round to significant digits for a reply; shape (n,) in, list of n floats out."""
    kept: list[float] = rounded(np.asarray(values, dtype=float), digits).tolist()
    return kept


def one_significant(value: float, digits: int = 6) -> float:
    """One number rounded to significant digits."""
    return 0.0 if abs(value) < TINY else float(f"{value:.{digits}g}")
