"""Property tests draw the same examples every time; HYPOTHESIS_PROFILE=default lets them wander."""

import os

from hypothesis import settings

settings.register_profile("same_every_time", derandomize=True, deadline=None)
settings.load_profile(os.environ.get("HYPOTHESIS_PROFILE", "same_every_time"))
