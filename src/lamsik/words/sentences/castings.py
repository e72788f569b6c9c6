"""What is said of castings."""

SAYS: dict[str, str] = {
    "boards-ready": "Boards and clamps lie ready; wells are clean",
    "caution-read": "I have read the caution and the product's safety data sheet",
    "charge-packed": (
        "packed {overpack:number} times tighter than it rises by itself: close the lid and hold it; "
        "open, {overflow:volume,0} would run over"
    ),
    "charge-too-little": "too little to fill it at {target:density,2}: it comes out lighter, or not full",
    "colours-blend": "{under} and {over} hot on hot blend; the heavier pigment sinks to the {side}",
    "density-out-of-reach": (
        "{density:density,2} is out of reach of this resin and filler ({cast:~#density} and "
        "{filler:~density})"
    ),
    "filler-shares": (
        "{mass_share:percent} filler by mass ({volume_share:percent,0} by volume) for "
        "{density:density,2}{hard}{full}"
    ),
    "foam-at": "foam at {density:density,2}",
    "hard-to-pour": "; hard to pour into thin parts",
    "hot-waits-for-cure": "hot material waits for the mould's full cure: not before {ends}",
    "insert-covered": "covered",
    "insert-may-show": "too little: it may show",
    "insert-stands-out": "it stands out of the casting",
    "inserts-are-in": "Wire, ballast and tubes are in: {inserts} for each cavity, clean and dry",
    "lay-out": "Mould, cups, sticks, inserts, bands, a place for drips: all within reach",
    "more-than-packs": "; more than packs into the resin",
    "mould-is-dry": "Mould and jug are dry: a drop of water spits; no shared kitchen oven, microwave or jug",
    "mould-not-fully-cured": (
        "the mould is not fully cured before {ends}: a cold casting may be tried, the mould can tear or tack"
    ),
    "mould-not-set": "the mould's own material is not set: not before {when}",
    "point-covered": "{squeezed:length} of point stand out when it is squeezed; covered at rest",
    "point-shows": "{squeezed:length} of point stand out when it is squeezed; it shows at rest as well",
    "point-stays-under": (
        "the point stays {under:length} under: a wider gap, a thinner body or softer plastic"
    ),
    "poured-too-soon": "too soon: wait {first:minutes,0} more, or the second sinks into the first",
    "protect-yourself": "Gloves and glasses on, room aired, as the caution beside says",
    "release-is-on": "Release is on where the material needs it, and dry",
    "rises-to-the-rim": "it rises just to the rim: an open mould will do",
    "sharp-line-between": "{under} first; let it skin over before {over}: a sharp line between them",
    "stands-level": "Bench and mould stand level",
    "stands-propped": "Mould is propped at {tilt:angle,0} and stands firm",
    "thin-zone": (
        "thin at {first:#length,0} to {last:length,0} ({thinnest:length}): a heat gun rounds it off. "
        "Say yes to go over it all the same."
    ),
    "too-late-to-bond": "{gap:minutes,0} too late to bond by itself: roughen the face, or it may part there",
    "tubs-stirred": "Tubs stirred for {stir:seconds,0} each, to the bottom",
}
"""By the name of the finding."""
