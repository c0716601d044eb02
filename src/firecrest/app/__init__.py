"""The window: the only part that knows Qt. It draws what ``present`` prepares."""
