"""Files in: what they are, their frames and samples, and the small copies made of them."""
