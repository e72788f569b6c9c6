"""Documents as earlier versions wrote them: layers as flat coats."""

FLAT = {
    "paint": {"colour": "colour", "density_g_cm3": "density_g_cm3", "caution": "caution"},
    "place": {"cover_share": "cover_share", "reach_share": "reach_share", "count": "count"},
}


def coat_of(layer):
    left = {name: layer[name] for name in ("key", "name", "film_um", "wait_h", "window_h", "mass_g", "note")}
    own = {was: layer[part][now] for part, names in FLAT.items() for now, was in names.items()}
    return {"role": layer["kind"], **left, **own}


def with_coats(document, **more):
    """A document as it was before layers."""
    new = ("layers", "adjustments")
    kept = {name: value for name, value in document.items() if name not in new}
    return {**kept, "coats": [coat_of(layer) for layer in document["layers"]], **more}
