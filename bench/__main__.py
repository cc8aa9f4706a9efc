"""`make bench`: speed, files, the page on a phone, doubled samples, readings it takes, proofs, hunts, 2 000 surveys.

Exit 1 when a truth fell, a danger was cleared, or a circuit was falsely called dead.
"""

import os
import subprocess
import sys

sys.path.insert(0, "server")
for name in ("OPENBLAS_NUM_THREADS", "OMP_NUM_THREADS"):
    os.environ.setdefault(name, "1")

from bench import doubling, hunting, phone, proofs, speed, steps, survival  # noqa: E402

if __name__ == "__main__":
    speed.main()
    doubling.main()
    steps.main()
    subprocess.run([sys.executable, "-m", "bench.files"], env=os.environ | {"PYTHONPATH": "server"}, check=True)
    sys.exit(phone.main() | proofs.main() | hunting.main() | survival.main())
