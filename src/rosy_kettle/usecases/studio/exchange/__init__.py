"""A whole studio as a zip of open files: out, in, and two studios into one."""
