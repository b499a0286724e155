"""What the program draws itself: fills, shapes, text. Lines and letters by Skia."""
