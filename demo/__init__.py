"""Paper Weather: a small workshop that folds paper kites, made up from nothing but programs."""
