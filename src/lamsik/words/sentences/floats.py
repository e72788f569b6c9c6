"""What is said of floats."""

SAYS: dict[str, str] = {
    "another-dowel": "a {d:~length} dowel instead of {diameter:~length}",
    "bait-over-the-water": "the bait would hang over the water: less than the depth",
    "carries-more": (
        "It carries {off:mass} more: print {measured:mass}, or load it with {off:mass} (about one "
        "{shot} of {shot_g:~mass}) to {nominal:mass}."
    ),
    "carries-what-it-says": "It carries what it says: print {nominal:mass}.",
    "denser-dowel": "dowel 10 % denser",
    "displace-less-than-nothing": (
        "with its own mass they displace {least:#volume,0} to {most:volume,0}, and by the line through "
        "them {at_nothing:volume,0} at no length at all: a float cannot displace less than nothing; "
        "weigh them again, and look whether the foam is as thick as typed"
    ),
    "drill-the-caps": "Drill the caps {pipe:~length}, {cap:~length} deep",
    "drill-the-foam": "Drill the foam {foam_bore:~length}, from both ends, centres marked",
    "every-tube-flooded": "every tube flooded",
    "every-tube-sealed": "every tube sealed",
    "fittings-cannot-lift": (
        "the line through them carries {fixed:mass,1} at no length at all: fittings cannot lift"
    ),
    "fixed-float-does": (
        "no: a fixed float does, set {stop:distance,2} over the hook; this rod fishes it down to "
        "{fixed:distance}"
    ),
    "gains-too-much": (
        "from {short:~#length} to {long:~length} it gained {more:mass,1}, a foam of no mass gives "
        "{most:mass,1}: one of the two is wrong"
    ),
    "in-water": "in {water}",
    "light-take-off": (
        "It came out {off:mass} light: print {measured:mass} on it, or take {off:mass} of its own "
        "loading off."
    ),
    "light-wood": "It came out {off:mass} light: print {measured:mass} on it; wood cannot be put back.",
    "longer-carries-less": (
        "{long:~length} carried {more:~mass}, {short:~length} already {less:~mass}: that would be "
        "negative displacement; weigh both again"
    ),
    "more-varnish": "{coat:mass} of varnish more",
    "sanded-off": "{sanding:~length} sanded off all round",
    "scour-the-pipe": "Scour the pipe before gluing",
    "slider-needed": (
        "yes: with a {rod_m:~distance} rod a fixed float fishes {fixed:distance}; put the stop "
        "{stop:distance,2} over the hook"
    ),
}
"""By the name of the finding."""
