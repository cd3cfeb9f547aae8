"""Settings. Secrets and ports are read from the installation's own file, made by ./start and never
committed."""

import json
from collections.abc import MutableMapping
from ipaddress import ip_network
from pathlib import Path

import environ
from csp.constants import NONE, SELF

SERVER = Path(__file__).resolve().parent.parent
ROOT = SERVER.parent

env = environ.Env()
DATA = Path(env.str("ZERODIP_DATA", default=str(ROOT / ".data")))
env.read_env(DATA / "secrets.env")  # what the environment says itself goes first

SECRET_KEY = env.str("ZERODIP_SECRET_KEY")
DEBUG = False
ALLOWED_HOSTS = env.list("ZERODIP_HOSTS", default=["127.0.0.1", "localhost", "[::1]"])
CSRF_TRUSTED_ORIGINS = env.list("ZERODIP_ORIGINS", default=[])
DEMO = env.bool("ZERODIP_DEMO", default=False)
DEMO_PASSWORD = env.str("ZERODIP_DEMO_PASSWORD", default="")
ADDRESS = env.str("ZERODIP_ADDRESS", default="").rstrip(
    "/"
)  # where others reach this server, for codes and links
HTTPS = env.bool("ZERODIP_HTTPS", default=False)
# The stand-ins' door on this machine, and the networks in which gauges on the wire may stand.
STAND_IN_PORT = env.int("ZERODIP_STAND_IN_PORT", default=0)
STAND_IN_SPEED = env.float("ZERODIP_STAND_IN_SPEED", default=1.0)  # of real time
_PRIVATE = ["10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "fc00::/7"]
GAUGE_NETWORKS = [ip_network(each) for each in env.list("ZERODIP_GAUGE_NETWORKS", default=_PRIVATE)]

INSTALLED_APPS = [
    "common",  # first: its `migrate` stands before Django's
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "django.contrib.postgres",
    "django_otp",
    "django_otp.plugins.otp_totp",
    "django_otp.plugins.otp_static",
    "csp",
    "django_vite",
    "accounts",
    "audit",
    "practice",
    "gauges",
    "sites",
    "visits",
    "documents",
    "device",
    "exchange",
    "procrastinate.contrib.django",
    "recordings",
    "live",
    "calibrations",
    "config",
]

MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "common.incoming.Incoming",
    "common.compressed.Compressed",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "csp.middleware.CSPMiddleware",
]

ROOT_URLCONF = "config.urls"
WSGI_APPLICATION = "config.wsgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [SERVER / "templates"],
        "APP_DIRS": True,
        "OPTIONS": {"context_processors": ["django.template.context_processors.request"]},
    }
]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.postgresql",
        "NAME": env.str("ZERODIP_DB_NAME", default="zerodip"),
        "USER": env.str("ZERODIP_DB_USER", default="zerodip"),
        "PASSWORD": env.str("ZERODIP_DB_PASSWORD", default=""),
        "HOST": env.str("ZERODIP_DB_HOST", default="127.0.0.1"),
        "PORT": env.int("ZERODIP_DB_PORT", default=5433),
        "CONN_MAX_AGE": 0,
        "CONN_HEALTH_CHECKS": True,  # a connection that died with the database is not handed out
        # A database that is away is said within two seconds, not after the pool's half minute.
        "OPTIONS": {
            "pool": {"min_size": 1, "max_size": 8, "timeout": 1.5},
            "connect_timeout": 2,
            "sslmode": env.str("ZERODIP_DB_SSLMODE", default="prefer"),
        },
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_USER_MODEL = "accounts.User"
PASSWORD_HASHERS = ["django.contrib.auth.hashers.Argon2PasswordHasher"]
AUTH_PASSWORD_VALIDATORS = [
    {
        "NAME": "django.contrib.auth.password_validation.MinimumLengthValidator",
        "OPTIONS": {"min_length": 12},
    },
    *(
        {"NAME": f"django.contrib.auth.password_validation.{name}Validator"}
        for name in ("CommonPassword", "UserAttributeSimilarity")
    ),
]
OTP_TOTP_ISSUER = "Zero Dip"
# Wrong codes are counted as wrong passwords are (accounts.limits), so not here too.
OTP_TOTP_THROTTLE_FACTOR = OTP_STATIC_THROTTLE_FACTOR = 0

SESSION_ENGINE = "accounts.sessions"
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_NAME = "__Host-sessionid" if HTTPS else "sessionid"  # set by this host, for it alone
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = SECURE_SSL_REDIRECT = HTTPS
SECURE_REDIRECT_EXEMPT = [r"^health/"]  # asked from within, without TLS
SECURE_HSTS_SECONDS = 365 * 24 * 3600 if HTTPS else 0
SECURE_HSTS_INCLUDE_SUBDOMAINS = SECURE_HSTS_PRELOAD = HTTPS
# A proxy that ends TLS says so by this header, and takes it off what comes from outside.
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https") if HTTPS else None
CSRF_FAILURE_VIEW = "common.errors.csrf_failure"
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
SECURE_CROSS_ORIGIN_OPENER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        "img-src": [SELF, "data:"],
        "frame-ancestors": [NONE],
        "base-uri": [NONE],
        "form-action": [SELF],
        "object-src": [NONE],
    }
}
DATA_UPLOAD_MAX_MEMORY_SIZE = 1_000_000  # bytes

STATIC_URL = "/static/"
STATIC_ROOT = DATA / "static"
WEB_DIST = ROOT / "web" / "dist"
STATICFILES_DIRS = [WEB_DIST]
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"},
}
WHITENOISE_AUTOREFRESH = False
WHITENOISE_USE_FINDERS = False
WHITENOISE_MIMETYPES = {
    ".webmanifest": "application/manifest+json",
    ".mjs": "text/javascript",
    ".wasm": "application/wasm",
}
_BUILT = WEB_DIST / "version.json"
# Of the page that was built: one that is open somewhere learns by it that it is another.
VERSION = json.loads(_BUILT.read_text())["version"] if _BUILT.exists() else "none"
DJANGO_VITE = {"default": {"manifest_path": WEB_DIST / "manifest.json"}}


def _hashed_by_vite(path: str, url: str) -> bool:
    """Vite puts a hash into the names under assets/: they never change, so a phone may keep
    them."""
    return "/assets/" in url


WHITENOISE_IMMUTABLE_FILE_TEST = _hashed_by_vite


def _held_in(headers: MutableMapping[str, str], path: str, url: str) -> None:
    """A worker lives under the policy that came with its own script: Python needs WebAssembly
    there, and the page itself does not."""
    if url.endswith(".js"):
        policy = "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'"
        headers["Content-Security-Policy"] = policy


WHITENOISE_ADD_HEADERS_FUNCTION = _held_in

LANGUAGE_CODE = "en"
USE_I18N = False
USE_TZ = True
TIME_ZONE = "UTC"
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "loggers": {
        "django.request": {"handlers": ["console"], "level": "ERROR", "propagate": False},
        # Anyone can send another host's name: a refusal, and no news.
        "django.security.DisallowedHost": {"level": "CRITICAL"},
        "weasyprint": {"level": "ERROR"},  # it warns of what the screen alone reads
    },
    "root": {"handlers": ["console"], "level": "WARNING"},
}
