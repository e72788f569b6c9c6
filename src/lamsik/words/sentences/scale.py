"""What is said at the scale."""

SAYS: dict[str, str] = {
    "carries-with-spare": "carries it with {margin:mass} to spare",
    "goes-under": "goes under: {margin:mass} too much",
    "scale-checked-long-ago": "{scale} was last checked {days} days ago",
    "scale-checked-too-light": (
        "it was checked with {checked:~mass}, less than half of this load: check it with a mass nearer "
        "to {load:mass,0}"
    ),
    "scale-ends": "{scale} ends at {span:~mass}",
    "scale-never-checked": "{scale} was never checked: put a known mass near the load on it",
    "slug-is-right": "that is it, as near as the scale can tell",
    "slug-too-light": "{over:mass} too light now: use it where less is wanted",
    "take-off-and-weigh": "{over:mass} over: take off about {take:mass}, then weigh again",
    "too-near-to-tell": (
        "too near to tell: {margin:mass,,+} is within ± {sd:mass} of these scales and this water"
    ),
}
"""By the name of the finding."""
