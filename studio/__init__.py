"""The site: who may, what is kept, how the browser asks."""
