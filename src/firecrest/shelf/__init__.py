"""The shelf: the maker's own parts and the shipped ones, shared by all designs and windows."""
