"""What the figures that a shop may see otherwise are called."""

FIGURES = {
    "bench": {
        "wall_mm": "Wall left round a hole",
        "cover_mm": "Filler over a slug",
        "slug_step_g": "Cut slugs to",
    },
    "bands": {
        "suspends_cm_s": "Suspends below",
        "slow_cm_s": "Slow below",
        "drag": "Drag coefficient C_d",
        "steady_hz": "Roll steady from, Hz",
    },
    "saw": {
        "kerf_mm": "Saw kerf",
        "block_spare_mm": "Spare round a block",
        "hinge_mm": "Thinnest printed hinge",
    },
    "blades": {
        "free_ratio": "Snap swings from, × wire",
        "edge_share": "Metal at a hole, × thickness",
        "edge_mm": "Metal at a hole, at least",
        "uneven_deg": "Cups of a blade alike within",
    },
    "mixing": {
        "step_g": "The mixing scale shows",
        "room_c": "The shop is at",
        "scoop_ml": "A level scoop holds",
        "near_percent": "Pour slowly from",
        "in_percent": "A part is in within ±",
        "counts_percent": "A reading counts from",
    },
    "casting": {
        "pour_min": "Hands to pour a shot",
        "demould_min": "Hands to demould a shot",
        "half_min": "Hands to pour a half of a mould",
        "half_h": "A half cures, where no product says",
        "silicone_g_cm3": "Mould silicone, where no product says",
        "good_percent": "Good of all that is cast",
        "jug_g": "Plastisol heated at once",
        "heat_min": "Heating plastisol",
        "shot_min": "One hot shot",
        "squeeze_percent": "A soft bait is squeezed by",
        "shank_mm": "Across a hook shank cast in",
    },
    "heat": {
        "margin_c": "Margin under the limit",
    },
}
"""By the setting they are kept in, and their key."""
