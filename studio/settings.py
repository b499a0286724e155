"""Settings, from the environment where an installation differs. Everything kept lies in one folder."""

import os
import secrets
from contextlib import suppress
from pathlib import Path

from django.utils.crypto import salted_hmac

BASE_DIR = Path(__file__).resolve().parent.parent
DATA_DIR = Path(os.environ.get("VELVET_KITE_DATA", BASE_DIR / "var")).resolve()
os.umask(0o077)
"""What this site writes only the account that it runs under can read."""
DATA_DIR.mkdir(parents=True, exist_ok=True)
with suppress(PermissionError):
    DATA_DIR.chmod(0o700)

DEBUG = os.environ.get("VELVET_KITE_DEBUG") == "1"
ALLOWED_HOSTS = os.environ.get("VELVET_KITE_HOSTS", "localhost,127.0.0.1,[::1]").split(",")
CSRF_TRUSTED_ORIGINS = [o for o in os.environ.get("VELVET_KITE_ORIGINS", "").split(",") if o]


def _secret_key() -> str:
    """The key of this installation: given, or made once and kept beside the data."""
    if given := os.environ.get("VELVET_KITE_SECRET"):
        return given
    path = DATA_DIR / "secret"
    try:
        with os.fdopen(os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "w") as file:
            file.write(secrets.token_urlsafe(50))
    except FileExistsError:
        pass
    return path.read_text()


SECRET_KEY = _secret_key()

INSTALLED_APPS = [
    "django.contrib.admin",
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.messages",
    "django.contrib.staticfiles",
    "axes",
    "huey.contrib.djhuey",
    "studio.jobs",
    "studio.accounts",
    "studio.projects",
    "studio.library",
    "studio.kit",
    "studio.playback",
    "studio.exports",
    "studio.feed",
    "practice",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "studio.policy.content_policy",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "studio.policy.private_answers",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.contrib.messages.middleware.MessageMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "axes.middleware.AxesMiddleware",
]
ROOT_URLCONF = "studio.urls"
WSGI_APPLICATION = "studio.wsgi.application"
_CONTEXT = "django.template.context_processors"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "APP_DIRS": True,
        "OPTIONS": {
            "context_processors": [
                f"{_CONTEXT}.request",
                "django.contrib.auth.context_processors.auth",
                "django.contrib.messages.context_processors.messages",
            ]
        },
    }
]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": os.environ.get("VELVET_KITE_DATABASE", DATA_DIR / "velvet-kite.sqlite3"),
        "OPTIONS": {
            # A write waits for others, and is on disk before it is acknowledged.
            "transaction_mode": "IMMEDIATE",
            "timeout": 20,
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL;",
        },
        "TEST": {"NAME": DATA_DIR / "test.sqlite3"},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTHENTICATION_BACKENDS = [
    "axes.backends.AxesStandaloneBackend",
    "django.contrib.auth.backends.ModelBackend",
]
ACCOUNTS = os.environ.get("VELVET_KITE_ACCOUNTS", "closed")
"""Who may make an account: nobody but the first (``closed``), the ``invited``, or all (``open``)."""
_VALIDATION = "django.contrib.auth.password_validation"
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"{_VALIDATION}.UserAttributeSimilarityValidator"},
    {"NAME": f"{_VALIDATION}.MinimumLengthValidator", "OPTIONS": {"min_length": 10}},
    {"NAME": f"{_VALIDATION}.CommonPasswordValidator"},
]
PASSWORD_HASHERS = ["django.contrib.auth.hashers.Argon2PasswordHasher"]
AXES_FAILURE_LIMIT = 20
AXES_COOLOFF_TIME = 0.25
"""Hours that a name, and an address, wait after so many wrong passwords."""
AXES_LOCKOUT_PARAMETERS = ["username", "ip_address"]
AXES_CLIENT_IP_CALLABLE = "studio.accounts.addresses.address_of"
AXES_LOCKOUT_CALLABLE = "studio.accounts.api.slowed_down"
AXES_VERBOSE = False

HTTPS = os.environ.get("VELVET_KITE_HTTPS") == "1"
BEHIND_PROXY = os.environ.get("VELVET_KITE_PROXY") == "1"
"""Whether every request comes through a proxy of ours, which tells address and scheme."""
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = HTTPS
SECURE_SSL_REDIRECT = HTTPS
SECURE_REDIRECT_EXEMPT = [r"^api/health$"]
SECURE_HSTS_SECONDS = 60 * 60 * 24 * 365 if HTTPS else 0
SECURE_HSTS_INCLUDE_SUBDOMAINS = HTTPS
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https") if BEHIND_PROXY else None
SILENCED_SYSTEM_CHECKS = ["security.W021"]
"""Whether browsers shall know the domain beforehand is for whoever owns the domain."""
SESSION_COOKIE_SAMESITE = CSRF_COOKIE_SAMESITE = "Strict"
SESSION_COOKIE_AGE = 60 * 60 * 24 * 30
X_FRAME_OPTIONS = "DENY"

USE_TZ = True
TIME_ZONE = "UTC"
LANGUAGE_CODE = "en"
STATIC_URL = "static/"
WEB_DIST = BASE_DIR / "web" / "dist"
WHITENOISE_USE_FINDERS = True
WHITENOISE_ROOT = WEB_DIST if WEB_DIST.exists() else None

MEDIA_DIR = DATA_DIR / "takes"
CACHE_DIR = DATA_DIR / "cache"
EXPORT_DIR = DATA_DIR / "exports"
PRACTICE_DIR = DATA_DIR / "practice"
"""Where the practice feed, which is not ours, keeps its films."""
PRACTICE_PARTNER = salted_hmac("practice.partner", "velvet-kite", secret=SECRET_KEY).hexdigest()
"""With this secret a program may make members of the practice feed."""
FEED_ADDRESS = os.environ.get(
    "VELVET_KITE_FEED", f"http://127.0.0.1:{os.environ.get('PORT', '8000')}/practice/"
)
"""Where films are posted; a folder of an address."""
FEED_PAGES = os.environ.get("VELVET_KITE_FEED", "")
"""What addresses of its pages begin with, for browsers; nothing where it is served with this site."""

UPLOAD_LIMIT = int(os.environ.get("VELVET_KITE_UPLOAD_GB", "16")) * 2**30
"""Bytes of one file that is brought in."""
LIBRARY_LIMIT = int(os.environ.get("VELVET_KITE_LIBRARY_GB", "200")) * 2**30
"""Bytes of all takes of one person."""
WORKER_SILENCE = int(os.environ.get("VELVET_KITE_SILENT", "15"))
"""Seconds without a sign of life after which a worker counts as gone."""
STREAM_SECONDS = 25
"""After so long a stream of events ends, and the browser opens it anew."""
PIECE_CACHE_BYTES = 2 * 2**30
EXPORT_PIECE_BYTES = 8 * 2**30
DATA_UPLOAD_MAX_MEMORY_SIZE = 8 * 2**20

JOBS_EACH = max(2, os.cpu_count() or 1)
"""Of one person so many long works go on at once; a worker more than that waits for the others."""

REDIS_URL = os.environ.get("VELVET_KITE_REDIS_URL", "")
"""Of a Redis server, through which workers on other machines are reached."""
HUEY = {
    "name": "velvet-kite",
    "huey_class": "huey.RedisHuey" if REDIS_URL else "huey.SqliteHuey",
    "immediate": False,
    "results": False,
    **({"url": REDIS_URL} if REDIS_URL else {"filename": str(DATA_DIR / "queue.sqlite3")}),
    "consumer": {
        "workers": JOBS_EACH + 1,
        "worker_type": "process",
        "initial_delay": 0.1,
        "max_delay": 0.5,
    },
}

TEST_RUNNER = "studio.testing.Runner"
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
    "loggers": {"axes": {"level": "ERROR"}, "studio": {"level": "INFO"}},
}
