"""What is said of moulds."""

SAYS: dict[str, str] = {
    "at-its-thinnest": "it is {thinnest:length} at its thinnest",
    "cavity-and-key": "cavity {cavity} and a key",
    "cavity-and-wall": "cavity {cavity} and the wall",
    "comes-out": "{poured} comes out of silicone by itself",
    "comes-out-and-longer": "{poured} comes out of silicone by itself; release lets the mould live longer",
    "demouldings-left": "good for {left} more demouldings of {expected}",
    "demouldings-not-limited": "{done} demouldings; how many it stands is not noted",
    "flat-side": "it has a flat side of {flat_mm2:area}: pour over it, nothing to part",
    "flat-side-up": "its flat side is up: pull it the other way",
    "heat-close": (
        "{casting:both} is close to the {limit:temperature,0} that {material} stands: let it cool "
        "between pours"
    ),
    "heat-over": (
        "{casting:both} is {over:~warming} over what {material} may take: it stands "
        "{limit:temperature,0}, less {margin:~warming} of margin"
    ),
    "heat-stands": "{material} stands {limit:temperature,0}; it is poured at {casting:both}",
    "heat-unknown": (
        "nobody has said what heat {material} stands: type its limit, from its own sheet, before "
        "{casting:both} goes in"
    ),
    "inject-it": "{slim}: push it in under pressure",
    "inject-many": "pays for its gates only from many pieces",
    "lets-go": "it lets go of {against}",
    "master-comes-out-once": (
        "it is expected to come out once more, perhaps hurt: cast a durable copy first, of a good casting"
    ),
    "master-lifts": (
        "it lifts with {net:mass,1} once silicone gets under it: glue it to the bed or hold it with "
        "{pins} pins; a soft master needs them at both ends"
    ),
    "master-not-weighed": "weigh the master: whether it floats in the silicone is not known",
    "master-stays-down": "it is {net:mass,1} heavier than the silicone it displaces: it stays down",
    "master-worn-out": (
        "{done} demouldings of {expected} it was expected to stand: cast a durable copy from the mould "
        "and keep that as the master"
    ),
    "may-stay-sticky": (
        "addition silicone may stay sticky against {against}: seal it and pour a test patch first"
    ),
    "no-flat-side": "it has no flat side to lie on",
    "no-overhangs": "prints without support, parting face up",
    "no-second-half": "a flat side needs no second half",
    "nothing-holds-it": "nothing holds it: a plain parting is easier",
    "overhangs": "{overhang_cm2:area} hang over by more than {steep:angle,0}: support them, or turn the half",
    "press-it": "{slim}: press it out of an over-filled half, air leaves over the wells",
    "press-not-over-filled": (
        "Not over-filled: a press mould needs 5 to 15 % more than its cavities hold, or air stays in."
    ),
    "press-runs-over": (
        "{excess:volume,1} are pushed out and wells and film take {wells:volume,1}: {missing:volume,1} "
        "run over. Cut deeper wells or fill less."
    ),
    "press-wells-take": "{excess:volume,1} are pushed out; wells and film take {wells:volume,1}.",
    "share-of-outline": "{undercut_share:percent,0} of its outline",
    "silicone-bonds": (
        "silicone bonds to silicone: release on the first half, every corner, before the second is poured"
    ),
    "soaks-it-up": "{against} soaks it up: seal it, then release",
    "sticks-to": "{poured} sticks to {against}: release, in two thin coats",
    "thick-enough": "thick enough to be poured",
    "too-thin-to-pour": "{slim}: a funnel pour may not reach it",
    "two-cavities": "cavities {one} and {other}",
    "two-part-suits": "round on both sides, nothing leans in, thick enough to fill by a funnel",
    "undercut-split": "{share} leans in under the halves: a mould cut open like a book lets it out",
    "undercut-two-part": "{share} leans in: it would have to be bent out",
}
"""By the name of the finding."""
