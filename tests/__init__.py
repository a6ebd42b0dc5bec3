"""The tests, and the one profile by which hypothesis runs in all of them: a busy machine is slow, and that is no fault of the code."""

from hypothesis import HealthCheck, settings

settings.register_profile("gurvo", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("gurvo")
