"""What is said of mixes."""

SAYS: dict[str, str] = {
    "and-the-ratio": "; {ratio}",
    "lot-expired": "lot {lot} expired on {ends:%-d %b %Y}: test a little of it first, or open another",
    "lot-good-until": "lot {lot} is good until {ends:%-d %b}",
    "lot-settled": "{part}, lot {lot}, has settled: stir it for {stir:seconds,0}, to the bottom",
    "mix-as-it-is": "{ratio:^}: mix it as it is.",
    "mix-is-right": "It is right.",
    "mix-over-plan": (
        "{off:percent} over plan: {total} instead of {planned}{ratio}. Mix it, pour what the job takes "
        "and weigh what is left over."
    ),
    "mix-under-plan": (
        "{off:percent} under plan: {total} instead of {planned}{ratio}. It may not fill the job: add of "
        "every part, or mix it as it is."
    ),
    "more-of-part": "{more} more {part}",
    "no-tub-has-so-much": (
        "Out of tolerance: {more} would be needed and no tub of {short} has so much. Do not pour it."
    ),
    "puts-it-right": "{more:^} puts it right: {total} in all.",
    "puts-it-right-over-plan": "{more:^} puts it right: {total} in all, {over:percent} over plan.",
    "ratio-within": "the ratio is off by {error:percent}, within the {tolerance:~percent} it allows",
}
"""By the name of the finding."""
