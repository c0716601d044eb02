"""What is shown, without pixels: curves, rows, sentences. Shared by window, command line, report."""
