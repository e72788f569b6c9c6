"""Products a new shop begins with, by their chemistry only: a maker types what stands on the tin."""

from lamsik.core.mixes.product import Part, Product

STARTERS = (
    Product(
        "Casting resin", "resin", "volume", (Part("A", 1, 1.10), Part("B", 1, 1.02)), 3.0, 5.0, 8.0, 0.75, 24.0, 20.0,
        open_days=180, stir_s=20, caution="isocyanate", cured_g_cm3=1.05, shrink_percent=0.3,
    ),
    Product(
        "Rigid foam 0.16", "foam", "mass", (Part("A, polyol", 100, 1.06), Part("B, isocyanate", 110, 1.23)), 4.0, 0.6, 3.0, 0.5, 24.0, 20.0,
        open_days=180, stir_s=10, caution="isocyanate", free_rise_g_cm3=0.16,
    ),
    Product(
        "Mould silicone, condensation", "silicone", "mass", (Part("base", 100, 1.20), Part("catalyst", 4, 0.98)), 10.0, 40.0, 90.0, 12.0, 72.0, 23.0,
        open_days=365, stir_s=60, caution="silicone", family="condensation", shrink_percent=0.4, heat_limit_c=180.0,
    ),
    Product(
        "Mould silicone, addition", "silicone", "mass", (Part("A", 1, 1.10), Part("B", 1, 1.10)), 5.0, 30.0, 60.0, 5.0, 24.0, 23.0,
        open_days=365, stir_s=30, caution="silicone", family="addition", shrink_percent=0.1, heat_limit_c=220.0,
    ),
    Product(
        "Soft plastisol", "plastisol", "mass", (Part("plastisol", 1, 1.05),), 5.0, 6.0, 1.0, 0.1, 1.0, 20.0,
        open_days=720, stir_s=60, caution="plastisol", shrink_percent=1.5, process_c=172.0,
    ),
    Product(
        "Slow epoxy", "epoxy", "volume", (Part("resin", 2, 1.15), Part("hardener", 1, 0.98)), 5.0, 40.0, 240.0, 24.0, 72.0, 20.0, 4.0, 24.0,
        open_days=365, caution="epoxy",
    ),
)  # fmt: skip
"""Generic chemistries: ratio and clocks vary by maker."""
