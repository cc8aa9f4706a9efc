"""`make bench`: speed, files, phone, practice, twenty people, doubled samples, readings taken, proofs, hunts, surveys.

Exit 1 when a truth fell, a danger was cleared, a circuit was falsely called dead, or twenty people had to wait.
"""

import os
import subprocess
import sys

sys.path.insert(0, "server")
for name in ("OPENBLAS_NUM_THREADS", "OMP_NUM_THREADS"):
    os.environ.setdefault(name, "1")

from bench import crew, doubling, hunting, opening, phone, proofs, speed, steps, survival  # noqa: E402

if __name__ == "__main__":
    speed.main()
    doubling.main()
    steps.main()
    opening.main()
    subprocess.run([sys.executable, "-m", "bench.files"], env=os.environ | {"PYTHONPATH": "server"}, check=True)
    sys.exit(phone.main() | crew.main() | proofs.main() | hunting.main() | survival.main())
