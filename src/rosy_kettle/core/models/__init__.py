"""One folder for each subject: its parameters, its model, the readings it gives."""
