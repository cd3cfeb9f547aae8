"""The product's settings with one more address: an empty JSON answer behind the same sign-in."""

from config.settings import *

ROOT_URLCONF = "bench.urls"
