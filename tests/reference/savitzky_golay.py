"""Makes savitzky_golay.csv with SciPy's savgol_coeffs. Run once; the values are committed, SciPy is not needed at run time."""
import sys

import scipy
from scipy.signal import savgol_coeffs

out = sys.stdout
out.write(f"# scipy.signal.savgol_coeffs, SciPy {scipy.__version__}\n")
out.write("# half width, degree, derivative, offset, weights padded with 0 to 15\n")
for half, degree in ((2, 2), (3, 2), (3, 3), (5, 2), (7, 2), (7, 4)):
    for derivative in (0, 1):
        for offset in (0, -1, half):
            size = 2 * half + 1
            weights = savgol_coeffs(size, degree, deriv=derivative, delta=1.0, pos=half + offset, use="dot")
            padded = list(weights) + [0.0] * (15 - size)
            out.write(",".join([str(half), str(degree), str(derivative), str(offset)] + [repr(float(w)) for w in padded]) + "\n")
