"""``python -m nodulant``."""

import sys

from nodulant.cli.main import main

sys.exit(main())
