"""What is said of a plan."""

from evenprobe.sentences import Sentences

TWO_PEOPLE = Sentences(
    {
        "live-open": "live parts are open at {points}: have a second person within call; local rules may ask for more",
        "several-sources": "{sources}: somebody has to see that each stays off",
    }
)
