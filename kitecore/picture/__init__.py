"""Pixels: premultiplied RGBA, uint8, C-contiguous, shape (height, width, 4)."""
