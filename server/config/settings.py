"""Settings of a program that runs on the quilter's own computer, with no network beyond it."""

import os
import secrets
import sys
from contextlib import suppress
from pathlib import Path

import tzlocal
from csp.constants import NONCE, NONE, SELF

HOME = Path(__file__).resolve().parent.parent.parent
sys.path.insert(0, str(HOME / "core"))
TESTING = "test" in sys.argv
DATA = Path(os.environ.get("ENTRETOILE_DATA", HOME / "data"))
WEB = HOME / "web" / "dist"


def _private_folder() -> None:
    """What is kept is nobody else's: the folder, and every file that is made from here on."""
    os.umask(0o077)
    DATA.mkdir(parents=True, exist_ok=True)
    with suppress(OSError):
        DATA.chmod(0o700)
        for file in DATA.glob("entretoile.sqlite3*"):
            file.chmod(0o600)


def _secret_key() -> str:
    """Made once and kept beside the database; nothing secret is in the repository."""
    kept = DATA / "secret_key"
    if not kept.exists():
        kept.write_text(secrets.token_urlsafe(50))
        kept.chmod(0o600)
    return kept.read_text()


_private_folder()
SECRET_KEY = _secret_key()
DEBUG = False
ALLOWED_HOSTS = ["127.0.0.1", "localhost", *(["testserver"] if TESTING else [])]
ROOT_URLCONF = "config.urls"
WSGI_APPLICATION = "config.wsgi.application"
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
USE_TZ = True
# A day is the day of whoever works here: her computer knows where she is.
TIME_ZONE = "UTC" if TESTING else tzlocal.get_localzone_name() or "UTC"

INSTALLED_APPS = [
    "django.contrib.staticfiles",
    "rest_framework",
    "drf_spectacular",
    "csp",
    "workrooms",
    "setups",
    "projects",
    "measuring",
    "planning",
    "blocks",
    "cutting",
    "papers",
    "exchange",
    "diagnosis",
    "progress",
    "records",
    "timing",
    "journal",
    "keeping",
    "demo",
]
MIDDLEWARE = [
    "api.middleware.QuietMiddleware",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "api.turns.TurnMiddleware",
    "django.middleware.common.CommonMiddleware",
    "csp.middleware.CSPMiddleware",
    "api.middleware.SameOriginMiddleware",
    "workrooms.once.OnceMiddleware",
    "api.looked_up.OneAnswerMiddleware",
]
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [WEB],
        "OPTIONS": {"context_processors": ["django.template.context_processors.request"]},
    }
]
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DATA / "entretoile.sqlite3",
        "OPTIONS": {
            "transaction_mode": "IMMEDIATE",
            "timeout": 10,
            "init_command": "" if TESTING else "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL;",
        },
        # A file, since the in-memory database is one connection shared by the threads of a live server.
        "TEST": {"NAME": DATA / "test.sqlite3"},
    }
}

STATIC_URL = "assets/"
STATICFILES_DIRS = [WEB / "assets"] if (WEB / "assets").exists() else []
STATIC_ROOT = DATA / "static"
STATIC_ROOT.mkdir(parents=True, exist_ok=True)
STORAGES = {"staticfiles": {"BACKEND": "whitenoise.storage.CompressedStaticFilesStorage"}}
WHITENOISE_USE_FINDERS = TESTING
WHITENOISE_MAX_AGE = 31_536_000
WHITENOISE_ALLOW_ALL_ORIGINS = False

SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [NONE],
        "script-src": [SELF],
        "style-src": [SELF, NONCE],
        "font-src": [SELF],
        "img-src": [SELF, "data:", "blob:"],
        "connect-src": [SELF],
        "base-uri": [NONE],
        "form-action": [SELF],
        "frame-ancestors": [NONE],
        "object-src": [NONE],
        "worker-src": [SELF],
    }
}
DATA_UPLOAD_MAX_MEMORY_SIZE = 2_000_000

REST_FRAMEWORK = {
    "DEFAULT_RENDERER_CLASSES": ["rest_framework.renderers.JSONRenderer"],
    "DEFAULT_PARSER_CLASSES": ["api.parsers.SoundJSONParser"],
    "DEFAULT_AUTHENTICATION_CLASSES": [],
    "DEFAULT_PERMISSION_CLASSES": [],
    "UNAUTHENTICATED_USER": None,
    "EXCEPTION_HANDLER": "api.problems.problem_response",
    "DEFAULT_SCHEMA_CLASS": "drf_spectacular.openapi.AutoSchema",
}
SPECTACULAR_SETTINGS = {
    "TITLE": "Entretoile",
    "DESCRIPTION": "Plans oversized cuts, trims true, and finds out why a block came out small.",
    "VERSION": "0.1.0",
    "OAS_VERSION": "3.1.0",
    "SERVE_INCLUDE_SCHEMA": False,
    "COMPONENT_SPLIT_REQUEST": True,
    "POSTPROCESSING_HOOKS": [
        "drf_spectacular.hooks.postprocess_schema_enums",
        "exchange.openapi.files_described",
        "api.schema.refusals_told",
    ],
    "ENUM_NAME_OVERRIDES": {
        "BenchStageEnum": "progress.models.STAGES",
        "MeasureEnum": "workrooms.models.MEASURES",
        "SchoolEnum": "projects.models.SCHOOLS",
        "KindEnum": "projects.serializers.KINDS",
        "CutterEnum": "workrooms.models.CUTTERS",
        "ClothKindEnum": "cutting.models.KINDS",
        "GoalEnum": "cutting.models.GOALS",
        "OrderEnum": "blocks.models.ORDERS",
        "SettingEnum": "blocks.models.SETTINGS",
        "SpreadEnum": "blocks.models.SPREADS",
        "LyingEnum": "blocks.models.LYINGS",
        "SizeBasisEnum": "projects.models.SIZE_BASES",
        "DirectionEnum": "projects.models.DIRECTIONS",
        "ValueEnum": "projects.models.VALUES",
        "ReadingKindEnum": "measuring.models.KINDS",
        "CauseEnum": "diagnosis.serializers.CAUSES",
        "TurnedOutEnum": "diagnosis.models.TURNED_OUT",
        "SeamTestKindEnum": "records.commands.TEST_KINDS",
        "SpoiledWhyEnum": "progress.models.WHYS",
        "UnitOrBlockEnum": "progress.subject.UNIT_OR_BLOCK",
        "WorkStageEnum": "timing.models.STAGES",
        "StatusEnum": "diagnosis.serializers.STATUSES",
    },
}
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "ERROR" if TESTING else "WARNING"},
}
if TESTING:
    LOGGING["loggers"] = {"django.request": {"level": "CRITICAL"}}
