"""Samples: float32, stereo, 48 kHz, shape (count, 2), full scale 1."""
