"""Keys of other services are kept sealed: whoever has the database alone cannot use them."""

from __future__ import annotations

from base64 import urlsafe_b64encode

from cryptography.fernet import Fernet, InvalidToken
from cryptography.hazmat.primitives.hashes import SHA256
from cryptography.hazmat.primitives.kdf.hkdf import HKDF
from django.conf import settings


def _fernet() -> Fernet:
    """By a key of its own, made from the site's secret (HKDF, RFC 5869)."""
    derived = HKDF(SHA256(), length=32, salt=None, info=b"velvet-kite keys of services")
    return Fernet(urlsafe_b64encode(derived.derive(settings.SECRET_KEY.encode())))


def seal(key: str) -> str:
    return _fernet().encrypt(key.encode()).decode()


def unseal(sealed: str) -> str | None:
    """The key; None if it was sealed under another secret of the site, or changed since."""
    try:
        return _fernet().decrypt(sealed.encode()).decode()
    except InvalidToken:
        return None
