"""Reading and writing: the .firecrest container and the autosave journal."""
