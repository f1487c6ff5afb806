"""What may happen to a tray on the rack: one declaration a kind of event, found by themselves."""
