"""A meter on the wire: which tester of the kit has a link, what it shows now, and a stand-in that can be measured."""
