"""The practice feed: a stand-in for a service that publishes short videos.

It stands apart as somebody else's service would: accounts, an API over HTTP and pages of its own. It
knows nothing of the rest, and the rest knows nothing of it but its API.
"""
