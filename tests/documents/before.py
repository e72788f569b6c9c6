"""Documents as earlier versions wrote them: layers as flat coats, or at a typed share of the surface."""

REACH = {"fade": ("bottom", "at_percent"), "bars": ("bottom", "at_percent"), "eyes": ("size_percent",)}
PLAIN = ("key", "name", "film_um", "wait_h", "window_h", "mass_g", "note")


def reach_of(layer):
    """How far down the flank it reached, or an eye's diameter over the depth."""
    here = layer["place"]
    for step in REACH.get(layer["kind"], ()):
        here = here[step]
    return here / 100.0 if layer["kind"] in REACH else 0.5


def coat_of(layer):
    paint = {name: layer["paint"][name] for name in ("colour", "density_g_cm3", "caution")}
    left = {name: layer[name] for name in PLAIN}
    place = {"cover_share": layer["place"]["cover_percent"] / 100.0, "reach_share": reach_of(layer)}
    return {"role": layer["kind"], **left, **paint, **place, "count": layer["place"]["count"]}


def layer_of_2(layer):
    """A layer of version 2."""
    paint = {name: layer["paint"][name] for name in ("colour", "density_g_cm3", "caution", "name")}
    place = {
        "cover_share": layer["place"]["cover_percent"] / 100.0,
        "reach_share": reach_of(layer),
        "count": layer["place"]["count"],
        "edge_share": layer["place"]["edge_percent"] / 100.0,
        "side": layer["place"]["side"],
    }
    left = {name: layer[name] for name in (*PLAIN, "kind", "passes")}
    return {**left, "paint": paint, "place": place}


def with_coats(document, **more):
    """A document as it was before layers."""
    new = ("layers", "adjustments")
    kept = {name: value for name, value in document.items() if name not in new}
    return {**kept, "coats": [coat_of(layer) for layer in document["layers"]], **more}
