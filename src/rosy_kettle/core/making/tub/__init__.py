"""The tub: what a test in the bath showed, beside what was foretold."""
