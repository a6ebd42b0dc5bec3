"""Settings that hold everywhere. What differs is in ``shop`` (a shop's own server), ``dev`` and ``test``."""

import os
from pathlib import Path

import ninja

ROOT = Path(__file__).resolve().parents[3]
VAR = Path(os.environ.get("GURVO_VAR", ROOT / "var"))
EXAMPLES = ROOT / "demo" / "families"
WEB_DIST = ROOT / "web" / "dist"

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "axes",
    "csp",
    "ninja",
    "shop",
    "engine",
    "work",
    "writer",
]
MIDDLEWARE = [
    "config.doors.doors",
    "django.middleware.security.SecurityMiddleware",
    "csp.middleware.CSPMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "shop.idle.idle_limit",
    "shop.who.note_who",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "axes.middleware.AxesMiddleware",
]
ROOT_URLCONF = "config.urls"
WSGI_APPLICATION = "config.wsgi.application"
TEMPLATES = [{"BACKEND": "django.template.backends.django.DjangoTemplates", "APP_DIRS": True}]

# What was acknowledged survives a power cut: WAL with full sync. Writers queue at once instead of failing half-way.
DATABASES = {
    "default": {
        "ENGINE": "config.one_writer",
        "NAME": os.environ.get("GURVO_DB", VAR / "shop.sqlite3"),
        "CONN_MAX_AGE": None,
        "OPTIONS": {
            "timeout": 20,
            "transaction_mode": "IMMEDIATE",
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL;",
        },
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator"},
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator"},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
    {"NAME": "django.contrib.auth.password_validation.NumericPasswordValidator"},
    {"NAME": "shop.passwords.NotBlankValidator"},
]
# Argon2 is harder on whoever guesses, and a PIN at the bench takes a third of the time; what was kept the older way still holds.
PASSWORD_HASHERS = ["shop.hashing.QuietArgon2", "django.contrib.auth.hashers.PBKDF2PasswordHasher"]
AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "shop.backends.PeopleBackend"]
AXES_FAILURE_LIMIT = 5
AXES_COOLOFF_TIME = "shop.lockout.pause"
AXES_ENABLE_ACCESS_FAILURE_LOG = True
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_RESET_ON_SUCCESS = True
AXES_VERBOSE = False
AXES_LOCKOUT_CALLABLE = "shop.lockout.locked_out"

USE_TZ = True
TIME_ZONE = os.environ.get("GURVO_TIME_ZONE", "UTC")
DATA_UPLOAD_MAX_MEMORY_SIZE = 1024 * 1024
FIRST_KEY = os.environ.get("GURVO_FIRST_KEY", "")  # printed by ./gurvo serve, asked of whoever begins a new shop
SESSION_COOKIE_AGE = 14 * 24 * 3600
SESSION_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SAMESITE = "Lax"
SESSION_IDLE_S = 3600 * float(os.environ.get("GURVO_IDLE_HOURS", "12"))
X_FRAME_OPTIONS = "DENY"
# scripts and all else from here alone; styles may be in line, since the widgets place themselves so
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": ["'none'"],
        "script-src": ["'self'"],
        "style-src": ["'self'", "'unsafe-inline'"],
        "img-src": ["'self'", "data:", "blob:"],  # blob: a picture that was taken and is not sent yet
        "font-src": ["'self'"],
        "connect-src": ["'self'"],
        "manifest-src": ["'self'"],
        "worker-src": ["'self'"],
        "base-uri": ["'none'"],
        "form-action": ["'self'"],
        "frame-ancestors": ["'none'"],
    }
}
STATIC_URL = "/static/"
# the page of the API's documents comes with its package
STATIC_ROOT = Path(ninja.__file__).parent / "static"
WHITENOISE_ROOT = WEB_DIST
WHITENOISE_INDEX_FILE = False


def _is_hashed(_path: str, url: str) -> bool:
    """Vite's files carry their content's hash in the name: they may be kept for ever."""
    return url.startswith("/assets/")


WHITENOISE_IMMUTABLE_FILE_TEST = _is_hashed
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
}

# further rooms of the bench, as dotted names; they stand before the one that closes the record
EXTRA_ROOMS: list[str] = []
