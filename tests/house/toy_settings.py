"""The test settings with one more room."""

from config.settings.test import *

EXTRA_ROOMS = ["tests.house.toy_room.ROOM"]
