"""How finished files are made: their pictures, their sound, what they are wrapped in."""
