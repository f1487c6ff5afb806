"""What may happen in a test in the tub: one declaration a kind of event, found by themselves."""
