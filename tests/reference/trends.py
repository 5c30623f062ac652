"""Makes rank_correlation.csv and trend_line.csv with SciPy. Run once; the values are committed, SciPy is not needed at run time."""
import numpy as np
import scipy
from scipy import stats

random = np.random.default_rng(20261127)
cases = []
for n in (6, 9, 20, 60):
    for strength in (0.0, 0.6, -0.9):
        x = random.normal(30, 8, n)
        y = strength * (x - 30) / 8 + random.normal(0, 1, n)
        cases.append((x, y))
        # marks from 1 to 5, as people give them: many are alike
        cases.append((np.round(x), np.clip(np.round(3 + y), 1, 5)))


def row(*values):
    return ",".join(repr(float(v)) for v in values) + "\n"


with open("rank_correlation.csv", "w") as out:
    out.write(f"# scipy.stats.spearmanr, SciPy {scipy.__version__}: rho, two-sided p, pairs, x..., y...\n")
    for x, y in cases:
        rho, p = stats.spearmanr(x, y)
        out.write(row(rho, p, len(x), *x, *y))

with open("trend_line.csv", "w") as out:
    out.write(f"# scipy.stats.linregress and t.ppf, SciPy {scipy.__version__}: slope, half width of its 95 % interval,\n")
    out.write("# line at the most x, half width of the line's 95 % interval there, pairs, x..., y...\n")
    for x, y in cases:
        fit = stats.linregress(x, y)
        t = stats.t.ppf(0.975, len(x) - 2)
        at = x.max()
        # the line's deviation by the covariance of intercept and slope, of numpy's own least squares
        design = np.column_stack([np.ones_like(x), x])
        residual = y - design @ np.linalg.lstsq(design, y, rcond=None)[0]
        covariance = np.linalg.inv(design.T @ design) * (residual @ residual) / (len(x) - 2)
        here = np.array([1, at])
        out.write(row(fit.slope, t * fit.stderr, fit.intercept + fit.slope * at, t * np.sqrt(here @ covariance @ here), len(x), *x, *y))
