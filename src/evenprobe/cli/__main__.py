"""`python -m evenprobe.cli`."""

import sys

from evenprobe.cli import main

sys.exit(main())
