"""Every sentence of a proof of isolation, by what it is about: what went wrong, what is missing, what comes next."""

from evenprobe.sentences import Sentences

PROBLEMS = Sentences(
    {
        "left-unattended": "nobody was seen here for more than {minutes:g} min",
        "unlocked": "the lock was taken off {source}",
        "re-energised": "{source} was switched on again",
        "handed-over": "another person took over: they prove it dead themselves",
        "screen-alarm": "the detector gave an alarm: treat as live, find why, and test every pair again",
        "prove-failed": "the tester failed its proof: nothing it showed since counts, and it is not to be used",
        "proved-too-low": "it showed {seen:g} V on a source that should show {least:g} V or more",
        "proved-another": "the readings of {waits} wait for {waits} to be proved again; another tester cannot stand in",
        "read-by-another": "{proved} was proved, this is another tester: same tester, same leads throughout",
        "voltage-present": "{seen:g} V from {between}: something still feeds it",
        "voltage-unexplained": (
            "{seen:g} V from {between} is not nothing: "
            "repeat on low impedance with the same tester, and name the source"
        ),
        "proof-too-late": "{tester} was not proved again within {minutes:g} min of this reading; test the pair again",
        "proof-too-early": "the tester was proved more than {minutes:g} min before this reading",
        "tester-unfit": "{tester} cannot confirm safe here: {problems}",
        "step-too-high": "no lamp below {below:g} V says nothing about what is under it",
        "wrong-function": "a DC range shows 0 on a live AC conductor",
        "tested-before-isolation": "taken before every source was off and locked",
        "function-changed": "the tester was proved on the other function; prove it on this one",
        "not-proved-before": "the tester was not proved before this reading",
        "range-changed": "proved on range {proved}, read on {read}; a wrong range reads 0",
    }
)
MISSING = Sentences(
    {
        "source-not-off": "switch off {source}",
        "source-not-locked": "lock and tag {source}",
        "not-proved-before": "prove the tester on a known source",
        "pair-not-tested": "test {between}",
        "pair-not-tested-on": "test {between} on {mode}",
        "not-proved-after": "prove the same tester again",
    }
)
STEPS = Sentences(
    {
        "closed": "this proof is closed",
        "find-source": "find what feeds it, add it as a source, switch it off and lock it",
        "switch-off": "switch off {source}",
        "lock": "lock and tag {source}",
        "state": "hold to state it dead, with your name",
        "keep": "dead while you stay: return before the clock runs out",
        "prove": "prove the tester on a known source",
        "prove-once-more": "prove the tester again on a known source",
        "low-impedance": "repeat {between} on low impedance, same tester",
        "test": "test {between}",
        "prove-again": "prove the same tester again",
    }
)
RULES = Sentences(
    {
        "window": "{minutes:g} min between a proof and its readings, not {usual:g}",
        "unattended": "no longer valid after {minutes:g} min away, not {usual:g}",
        "dead-kind": "{kind} is accepted to prove dead",
    }
)
"""What of a crew's own rules is looser than the usual ones."""
