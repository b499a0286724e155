"""Things followed through a moving picture. Pure: grey pictures in, places out."""
