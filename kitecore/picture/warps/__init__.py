"""Bending pictures: meshes from outlines, pins, grids."""
