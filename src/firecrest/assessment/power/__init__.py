"""What the power stage asks of a design: truth of boards, hours, flow, charging, wiring."""
