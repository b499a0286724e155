"""Projects and their parts in open formats, in and out."""
