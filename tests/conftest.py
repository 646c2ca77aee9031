"""Hypothesis's profile, for every test."""

import os

from hypothesis import HealthCheck, settings

# Machines are shared and noisy: how long an example takes is no verdict. In CI the same examples come every time.
settings.register_profile("steady", deadline=None, derandomize=bool(os.environ.get("CI")), suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("steady")
