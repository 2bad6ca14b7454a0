#!/usr/bin/env python3
"""Entry point of the server; puts core and server on the path."""

import os
import sys
from pathlib import Path

HERE = Path(__file__).resolve().parent
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "nodulant_server.settings")
sys.path[:0] = [str(HERE / "core"), str(HERE / "server"), str(HERE)]

if __name__ == "__main__":
    from django.core.management import execute_from_command_line

    execute_from_command_line(sys.argv)
