"""What measured curves say of parts."""
