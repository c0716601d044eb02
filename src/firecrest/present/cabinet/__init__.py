"""The Cabinet stage without pixels: its drawing, ledger, tight spots, panels and pieces."""
