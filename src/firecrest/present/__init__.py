"""What is shown, without pixels: curves, rows, sentences; shared by window and command line."""
