#!/usr/bin/env python3
"""Entry point of the server; puts core and server on the path and keeps BLAS to one thread."""

import os
import sys
from pathlib import Path

HERE = Path(__file__).resolve().parent
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "nodulant_server.settings")
for name in ("OPENBLAS_NUM_THREADS", "OMP_NUM_THREADS", "MKL_NUM_THREADS"):
    os.environ.setdefault(name, "1")
sys.path[:0] = [str(HERE / "core"), str(HERE / "server"), str(HERE)]

if __name__ == "__main__":
    from django.core.management import execute_from_command_line

    execute_from_command_line(sys.argv)
