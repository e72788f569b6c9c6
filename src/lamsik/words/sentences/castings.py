"""What is said of castings."""

SAYS: dict[str, str] = {
    "bench-mould-stand-level": "Bench and mould stand level",
    "boards-clamps-lie-ready": "Boards and clamps lie ready; wells are clean",
    "covered": "covered",
    "filler-mass-volume": (
        "{mass_share:percent} filler by mass ({volume_share:percent,0} by volume) for "
        "{density:density,2}{hard}{full}"
    ),
    "first-let-skin-before": "{under} first; let it skin over before {over}: a sharp line between them",
    "foam-at": "foam at {density:density,2}",
    "gloves-glasses-room-aired": "Gloves and glasses on, room aired, as the caution beside says",
    "hard-pour-into-thin": "; hard to pour into thin parts",
    "hot-hot-blend-heavier": "{under} and {over} hot on hot blend; the heavier pigment sinks to the {side}",
    "hot-material-waits-moulds": "hot material waits for the mould's full cure: not before {ends}",
    "more-packs-into-resin": "; more than packs into the resin",
    "mould-cups-sticks-inserts": "Mould, cups, sticks, inserts, bands, a place for drips: all within reach",
    "mould-jug-dry-drop": (
        "Mould and jug are dry: a drop of water spits; no shared kitchen oven, microwave or jug"
    ),
    "mould-not-fully-cured": (
        "the mould is not fully cured before {ends}: a cold casting may be tried, the mould can tear or tack"
    ),
    "mould-propped-stands-firm": "Mould is propped at {tilt:angle,0} and stands firm",
    "moulds-own-material-not": "the mould's own material is not set: not before {when}",
    "out-reach-resin-filler": (
        "{density:density,2} is out of reach of this resin and filler ({cast:~#density} and "
        "{filler:~density})"
    ),
    "packed-times-tighter-rises": (
        "packed {overpack:number} times tighter than it rises by itself: close the lid and hold it; "
        "open, {overflow:volume,0} would run over"
    ),
    "point-covered": "{squeezed:length} of point stand out when it is squeezed; covered at rest",
    "point-shows": "{squeezed:length} of point stand out when it is squeezed; it shows at rest as well",
    "point-stays-under": (
        "the point stays {under:length} under: a wider gap, a thinner body or softer plastic"
    ),
    "read-caution-products-safety": "I have read the caution and the product's safety data sheet",
    "release-where-material-needs": "Release is on where the material needs it, and dry",
    "rises-just-rim-open": "it rises just to the rim: an open mould will do",
    "stands-out-casting": "it stands out of the casting",
    "thin-heat-gun-rounds": (
        "thin at {first:#length,0} to {last:length,0} ({thinnest:length}): a heat gun rounds it off. "
        "Say yes to go over it all the same."
    ),
    "too-late-bond-itself": (
        "{gap:minutes,0} too late to bond by itself: roughen the face, or it may part there"
    ),
    "too-little-fill-comes": "too little to fill it at {target:density,2}: it comes out lighter, or not full",
    "too-little-may-show": "too little: it may show",
    "too-soon-wait-more": "too soon: wait {first:minutes,0} more, or the second sinks into the first",
    "tubs-stirred-bottom": "Tubs stirred for {stir:seconds,0} each, to the bottom",
    "wire-ballast-tubes-cavity": "Wire, ballast and tubes are in: {inserts} for each cavity, clean and dry",
}
"""By the name of the finding."""
