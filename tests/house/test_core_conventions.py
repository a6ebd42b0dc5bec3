"""The core keeps its own rules: docstrings say units, source and example; rooms import one way; nothing of the server."""

import ast
import doctest
import importlib
import inspect
import pkgutil
import re
import unittest
from functools import cache

import docstring_parser

import gurvo_core
from gurvo_core.work.hand_over import Note
from tests.engines import family, quern_4

# modules of a room's job that hold one small function a kind of entry, all with the same arguments; what they are given and give
# is said once, at ``ledger.Kind`` and ``ledger.Room``
ENTRY_BY_ENTRY = {"asks", "rules", "show", "take", "words"}


def modules():
    return [importlib.import_module(found.name) for found in pkgutil.walk_packages(gurvo_core.__path__, "gurvo_core.")]


def public_functions():
    """Every function that a module names as its own, kept ones among them."""
    for module in modules():
        for name in getattr(module, "__all__", []):
            thing = inspect.unwrap(getattr(module, name))
            if inspect.isfunction(thing) and thing.__module__ == module.__name__:
                yield thing


def is_own(module, name, thing):
    """Whether something public is made in this module."""
    return (
        not name.startswith("_") and getattr(thing, "__module__", None) == module.__name__ and (inspect.isclass(thing) or callable(thing))
    )


@cache
def imported_names():
    """Every (module, name) that some module of the core imports from another."""
    found = set()
    for module in modules():
        for node in ast.walk(ast.parse(inspect.getsource(module))):
            if isinstance(node, ast.ImportFrom):
                found |= {(node.module, alias.name) for alias in node.names}
    return found


def used_elsewhere(module):
    return {name for origin, name in imported_names() if origin == module.__name__}


def is_a_figure(function):
    """Whether it works out a figure: formulas say what they are, their units and their source, however short they are."""
    said = inspect.signature(function).return_annotation
    return said is float or any(word in str(said) for word in ("ndarray", "Estimate")) or str(said) == "float | None"


def sections(text):
    return re.findall(r"^(\w+)\n-+$", text, re.M)


class CoreConventionsTests(unittest.TestCase):
    def test_every_figure_documents_each_argument_its_source_and_an_example(self):
        for function in public_functions():
            text = inspect.getdoc(function) or ""
            if function.__module__.split(".")[-1] in ENTRY_BY_ENTRY:
                self.assertTrue(text, function.__qualname__)
                continue
            if not is_a_figure(function) and not sections(text):
                self.assertTrue(text.rstrip().endswith("."), function.__qualname__)  # what explains itself has one sentence
                continue
            with self.subTest(function=function.__qualname__):
                arguments = [name.lstrip("*") for name in inspect.signature(function).parameters]
                described = docstring_parser.parse(text, docstring_parser.DocstringStyle.NUMPYDOC).params
                names = [name.strip(" *\\") for param in described for name in param.arg_name.split(",")]
                self.assertEqual(sorted(names), sorted(arguments))
                self.assertLessEqual({"Returns", "Source", "Example"}, set(sections(text)))

    def test_examples_in_docstrings_are_true(self):
        given = {name: getattr(module, name) for module in modules() for name in module.__all__} | {"Note": Note}
        given |= {"quern_4": quern_4, "family": family}
        tried = 0
        for module in modules():
            result = doctest.testmod(module, extraglobs=given)
            with self.subTest(module=module.__name__):
                self.assertEqual(result.failed, 0)
            tried += result.attempted
        self.assertGreater(tried, 50)

    def test_all_names_what_is_public(self):
        for module in modules():
            exported, own = set(module.__all__), {name for name, thing in vars(module).items() if is_own(module, name, thing)}
            with self.subTest(module=module.__name__):
                self.assertTrue(all(hasattr(module, name) for name in exported))
                self.assertEqual({name for name in used_elsewhere(module) & own if name not in exported}, set())
