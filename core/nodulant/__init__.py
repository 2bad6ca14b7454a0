"""Nodulant: the computation of suspension conversions, without any interface code.

Its systems of equations are small and banded: threads inside BLAS gain nothing and, on a machine that
others use too, wait for each other for seconds. They are held to one unless the host says otherwise;
this has to be said before numpy is loaded.
"""

import os

for _name in ("OPENBLAS_NUM_THREADS", "OMP_NUM_THREADS", "MKL_NUM_THREADS"):
    os.environ.setdefault(_name, "1")
