"""`python -m zerodip`, the same as the command `zerodip`."""

import sys

from zerodip.cli import main

sys.exit(main())
