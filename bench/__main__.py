"""`make bench`: speed, doubled samples, and ten thousand surveys. Exit 1 when a truth fell or a danger was cleared."""

import os
import sys

sys.path.insert(0, "server")
for name in ("OPENBLAS_NUM_THREADS", "OMP_NUM_THREADS"):
    os.environ.setdefault(name, "1")

from bench import doubling, speed, survival  # noqa: E402

if __name__ == "__main__":
    speed.main()
    doubling.main()
    sys.exit(survival.main())
