"""The hash tree over ledgers against the published one."""

import unittest

from gurvo_core.ledger.heads import root_of

LEAVES = [
    bytes.fromhex(text) for text in ("", "00", "10", "2021", "3031", "40414243", "5051525354555657", "606162636465666768696a6b6c6d6e6f")
]
# of the first so many leaves, as the reference implementations of RFC 6962 are tried by; from memory
ROOTS = {
    0: "e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855",
    1: "6e340b9cffb37a989ca544e6bb780a2c78901d3fb33738768511a30617afa01d",
    2: "fac54203e7cc696cf0dfcb42c92a1d9dbaf70ad9e621f4bd8d98662f00e3c125",
    3: "aeb6bcfe274b70a14fb067a5e5578264db0fa9b51af5e0ba159158f329e06e77",
    8: "5dc9da79a70659a9ad559cb701ded9a2ab9d823aad2f4960cfe370eff4604328",
}


class HeadsTests(unittest.TestCase):
    def test_roots_are_the_published_ones(self):
        """Standard: RFC 6962, the trees its implementations are tried by."""
        for count, root in ROOTS.items():
            with self.subTest(count=count):
                self.assertEqual(root_of(LEAVES[:count]), root)
