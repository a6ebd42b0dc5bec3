"""A shop for the tests: people, gauges, the demo engine's family, one engine on a stand."""

import time
import uuid

from django.contrib.auth.models import Group, User
from django.test import Client, TestCase
from django.utils import timezone

from engine.bridge import about_of, document_of
from engine.models import Revision
from engine.services import add_revision
from shop.confirming import PASSWORD_AT
from shop.daybook import book_all
from shop.gauges import forget_pulls
from shop.guesses import forget_guesses
from shop.models import Gauge, Shop, misfit_of_shop, working_hours
from tests.engines import LENGTHS, SETUP, STOP_IN, STOP_OUT, WRENCHES, lift, quern_4_copy, stop
from work.floor import forget
from work.models import Engine, Entry
from work.seals import document_digest, seal
from work.services import keep_summary

PASSWORD = "a-long-enough-word"
JSON = "application/json"
EVENTS = (
    ("intake", "opening", "16", "before TDC"),
    ("intake", "closing", "51.5", "after BDC"),
    ("exhaust", "opening", "54", "before BDC"),
    ("exhaust", "closing", "13.5", "after TDC"),
)


def forget_all():
    """Nothing that was kept of one test is of use to the next."""
    about_of.cache_clear()
    document_of.cache_clear()
    document_digest.cache_clear()
    forget()
    working_hours.cache_clear()
    misfit_of_shop.cache_clear()
    forget_guesses()
    forget_pulls()


def fill_shop():
    """Make people, gauges, family and engine."""
    forget_all()
    if not Shop.objects.exists():  # a test that commits leaves no row behind, not even those of migrations
        Shop.objects.create()
    for name, role in (("lena", "lead"), ("bo", "builder"), ("vi", "viewer")):
        user = User.objects.create_user(name, password=PASSWORD, first_name=name.title())
        user.groups.add(Group.objects.get_or_create(name=role)[0])
    Gauge.objects.create(code="W1", name="wheel", kind="wheel", resolution=0.5, expanded_uncertainty=0.2)
    Gauge.objects.create(code="D2", name="dial", kind="dial", resolution=0.01, expanded_uncertainty=0.008)
    plain = {"name", "kind", "resolution", "expanded_uncertainty", "least", "most"}
    Gauge.objects.bulk_create(Gauge(code=gauge.id, **gauge.model_dump(include=plain)) for gauge in (*WRENCHES, *LENGTHS))
    revision: Revision = add_revision(quern_4_copy(), by=None)
    builder = User.objects.get(username="bo")
    for stand, purpose in ((1, "test pump"), (2, "tractor")):
        engine = Engine.objects.create(serial=f"T-{stand}", revision=revision, purpose=purpose, stand=stand, builder=builder)
        keep_summary(engine)
    book_all()


def put_row(engine, **how):
    """Put a row straight into an engine's ledger, sealed, as no service would; return it."""
    plain = {"kind": "note", "at": timezone.now(), "by": engine.builder, "by_name": "Bo", "revision": engine.revision, **how}
    row = Entry(engine=engine, seq=engine.last_seq + 1, **plain)
    seal(row, engine.head)
    row.save()
    engine.last_seq, engine.last_entry, engine.head = row.seq, row.id, row.digest
    Engine.objects.filter(pk=engine.pk).update(last_seq=row.seq, last_entry=row.id, head=row.digest)
    return row


class ShopCase(TestCase):
    """Tests that talk to the API as the builder, unless they sign in as somebody else."""

    @classmethod
    def setUpTestData(cls):
        fill_shop()

    def setUp(self):
        forget_all()
        self.sign_in("bo")

    def sign_in(self, name):
        self.client = Client()
        self.client.force_login(User.objects.get(username=name), backend="shop.backends.PeopleBackend")
        session = self.client.session
        session[PASSWORD_AT] = time.time()
        session.save()

    def enter(self, body, serial="T-1", entry_id=None, **how):
        """Send one entry."""
        data = {"id": str(entry_id or uuid.uuid4()), "entry": body, **how}
        return self.client.post(f"/api/engines/{serial}/entries", data, content_type=JSON)

    def confirm(self, body, serial="T-1", password=PASSWORD, status=204, **how):
        """Show once more who is signed in, for one signature."""
        answer = self.client.post(f"/api/engines/{serial}/confirm", {"password": password, "entry": body, **how}, content_type=JSON)
        self.assertEqual(answer.status_code, status, answer.content)
        return answer

    def must(self, body, **where):
        """Send one entry that must be taken; return what the bench shows."""
        answer = self.enter(body, **where)
        self.assertIn(answer.status_code, (200, 201), answer.content)
        return answer.json()

    def refused(self, answer, status, field, words):
        """Check a refusal: status, field path, and one sentence."""
        self.assertEqual(answer.status_code, status, answer.content)
        problem = answer.json()
        self.assertEqual(problem["field"], field)
        self.assertIn(words, problem["sentence"])

    def find_tdc(self, because=""):
        """Bring the engine to where its cam can be degreed."""
        self.must(SETUP, because=because)
        self.must(STOP_IN)
        self.must(stop("before", "41.5"))
        tdc = self.must(stop("after", "41"))["state"]["timing"]["tdc"]
        self.must({"kind": "wheel_zero", "method": "positive_stop", "zero_deg": tdc["zero_deg"]})
        return self.must(STOP_OUT)

    def degree(self):
        """Take the four events."""
        self.find_tdc()
        return [self.must(lift(*event)) for event in EVENTS][-1]
