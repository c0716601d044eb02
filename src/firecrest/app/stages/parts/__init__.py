"""The Parts stage: tray of parts in use, the shelf, one part and its sheet, wiring."""
