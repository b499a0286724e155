"""Speech: what a mouth does while something is said.

Sounds of a language are shown as a few poses (`kitecore.document.poses`). They are found from a
recording alone (`ear`), or from words: those are read aloud (`reading`) and the reading is laid over the
recording (`aligning`). `mouthing` makes of either what a mouth can do.
"""
