"""Two leads at one family at the same time: each revision has its own number, and nothing is lost or doubled."""

import json
import threading

from django.db import connection
from django.test import TransactionTestCase

from engine.models import Revision
from engine.services import import_text
from shop.errors import Conflict
from tests.engines import quern_4_copy
from tests.server.cases import fill_shop


class ImportAtOnceTests(TransactionTestCase):
    def test_documents_taken_in_at_once_are_numbered_one_after_another(self):
        from django.contrib.auth.models import User

        fill_shop()
        lead = User.objects.get(username="lena")
        refused = []

        def take_in(nose_deg):
            data = quern_4_copy()
            data["camshafts"][0]["lobes"][0]["nose_deg"] = nose_deg
            try:
                import_text(json.dumps(data), remark=str(nose_deg), by=lead)
            except Conflict as error:
                refused.append(error.sentence)
            finally:
                connection.close()

        # four different ones, and the last of them twice
        threads = [threading.Thread(target=take_in, args=(nose_deg,)) for nose_deg in (106.5, 106.6, 106.7, 107.4, 107.4)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        numbers = sorted(Revision.objects.filter(family="quern-4").values_list("number", flat=True))
        self.assertEqual(numbers, list(range(1, len(numbers) + 1)))
        self.assertIn(len(numbers) - 1 + len(refused), {5})
