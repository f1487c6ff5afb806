"""What may happen at the bench: one declaration a kind of event, found by themselves."""
