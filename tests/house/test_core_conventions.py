"""The core keeps its own rules: docstrings say units, source and example; rooms import one way; nothing of the server."""

import ast
import doctest
import importlib
import inspect
import pkgutil
import re
import unittest

import gurvo_core
from gurvo_core import timing
from tests.engines import quern_4

ALLOWED = {
    "errors": set(),
    "angles": set(),
    "units": {"errors"},
    "engine": {"errors", "angles", "units"},
    "motion": {"errors", "angles", "units", "engine"},
    "timing": {"errors", "angles", "units", "engine", "motion"},
    "drive": {"errors", "angles", "units", "engine", "motion"},
    "reading": {"errors", "engine", "drive", "timing"},
    "work": {"errors", "angles", "units", "engine", "motion", "timing"},
}
SERVER = {"django", "ninja", "server", "sqlite3", "requests", "shop", "config"}
# functions whose arguments cannot be written in a line; their behaviour is tested by name elsewhere
WITHOUT_EXAMPLE = {"tape_line"}


def modules():
    return [importlib.import_module(found.name) for found in pkgutil.walk_packages(gurvo_core.__path__, "gurvo_core.")]


def public_functions():
    for module in modules():
        for name in getattr(module, "__all__", []):
            thing = getattr(module, name)
            if inspect.isfunction(thing) and thing.__module__ == module.__name__:
                yield thing


class CoreConventionsTests(unittest.TestCase):
    def test_every_public_function_documents_each_argument_its_source_and_an_example(self):
        for function in public_functions():
            text = inspect.getdoc(function) or ""
            with self.subTest(function=function.__qualname__):
                arguments = [name.lstrip("*") for name in inspect.signature(function).parameters]
                described = re.search(r"Parameters\n-+\n(.*?)\n\n(?=\w+\n-+)", text, re.S)
                heads = re.findall(r"^\*?(\w[\w, ]*?) :|^(\w+(?:, \w+)+)$|^\\?\*(\w+) :", described[1] if described else "", re.M)
                names = [name.strip() for groups in heads for group in groups for name in group.split(",") if name.strip()]
                self.assertEqual(sorted(names), sorted(arguments))
                self.assertRegex(text, r"Returns\n-+\n")
                self.assertRegex(text, r"Source\n-+\n")
                if function.__name__ not in WITHOUT_EXAMPLE:
                    self.assertRegex(text, r"Example\n-+\n")

    def test_examples_in_docstrings_are_true(self):
        given = {name: getattr(module, name) for module in modules() for name in module.__all__}
        given["Wheel"] = timing.Wheel  # the drive has wheels too
        given["quern_4"] = quern_4
        tried = 0
        for module in modules():
            result = doctest.testmod(module, extraglobs=given)
            with self.subTest(module=module.__name__):
                self.assertEqual(result.failed, 0)
            tried += result.attempted
        self.assertGreater(tried, 50)

    def test_all_names_what_is_public(self):
        for module in modules():
            with self.subTest(module=module.__name__):
                self.assertTrue(all(hasattr(module, name) for name in module.__all__))

    def test_rooms_import_one_way_and_never_the_server(self):
        for module in modules():
            room = module.__name__.split(".")[1]
            tree = ast.parse(inspect.getsource(module))
            for node in ast.walk(tree):
                names = [node.module or ""] if isinstance(node, ast.ImportFrom) else []
                names += [alias.name for alias in node.names] if isinstance(node, ast.Import) else []
                for name in names:
                    with self.subTest(module=module.__name__, imports=name):
                        self.assertNotIn(name.split(".")[0], SERVER)
                        if name.startswith("gurvo_core."):
                            self.assertIn(name.split(".")[1], ALLOWED[room] | {room})
