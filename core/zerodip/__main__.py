"""`python -m zerodip`, the same as the command `zerodip`."""

import sys

from .cli import main

sys.exit(main())
