"""Reference values of water, made once with the general property library python3-iapws 1.5.3 (Debian bookworm) and SciPy 1.10.1.

Saturation, density and heat capacity come from IAPWS-95, the Helmholtz formulation for scientific use, which shares no equation with
the industrial formulation IF97 that the application computes with; viscosity from that library's R12-08. Run: /usr/bin/python3 water.py
"""
import iapws
from iapws.iapws95 import IAPWS95

rows = ["# python3-iapws 1.5.3: IAPWS-95 saturation and liquid, R12-08 viscosity", "# temperature_c,saturation_bar,liquid_kg_m3,liquid_cp_kj_kg_k,viscosity_upa_s"]
for c in range(5, 181, 5):
    liquid = IAPWS95(T=c + 273.15, x=0)
    viscosity = iapws._iapws._Viscosity(liquid.rho, c + 273.15)
    rows.append(f"{c},{liquid.P * 10:.9g},{liquid.rho:.9g},{liquid.cp:.9g},{viscosity * 1e6:.9g}")
open("water.csv", "w", newline="\n").write("\n".join(rows) + "\n")
