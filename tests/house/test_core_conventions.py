"""The core keeps its own rules: figures say their units, what has a source shows an example; what is public is named."""

import ast
import doctest
import importlib
import inspect
import pkgutil
import re
import unittest
from functools import cache

import gurvo_core
from gurvo_core.work.hand_over import Note
from tests.engines import family, quern_4

# a name that ends in one of these says its unit by itself; what has none is a share, a factor or a count
UNITS = {"mm", "deg", "nm", "n", "mpa", "um", "u", "c", "s", "m", "kg", "hz", "percent", "minutes", "bits", "px"}
WITHOUT_UNIT = {"ratio", "friction", "share", "factor", "k", "times", "turns", "counts", "waves"}


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


def says_its_unit(name, text):
    """Whether the unit of an argument stands in its name, or in square brackets behind it."""
    words = set(name.lower().split("_"))
    return (
        bool(words & (UNITS | WITHOUT_UNIT))
        or re.search(rf"^[\w*, ]*\b{name}\b[\w, ]*: [^\n]*(\n    [^\n]*)*\[[^\]]+\]", text, re.M) is not None
    )


class CoreConventionsTests(unittest.TestCase):
    def test_what_is_public_says_in_a_sentence_what_it_does(self):
        for function in public_functions():
            with self.subTest(function=function.__qualname__):
                first = (inspect.getdoc(function) or "").split("\n\n")[0]
                self.assertTrue(first.endswith((".", ":")))

    def test_figures_say_the_units_of_what_they_are_given(self):
        for function in filter(is_a_figure, public_functions()):
            text = inspect.getdoc(function) or ""
            for name, argument in inspect.signature(function).parameters.items():
                if argument.annotation is float or "ndarray" in str(argument.annotation):
                    with self.subTest(function=function.__qualname__, argument=name):
                        self.assertTrue(says_its_unit(name, text))

    def test_what_has_a_source_outside_shows_an_example(self):
        found = [function for function in public_functions() if "\nSource: " in (inspect.getdoc(function) or "")]
        self.assertGreater(len(found), 50)
        for function in found:
            with self.subTest(function=function.__qualname__):
                self.assertIn(">>> ", inspect.getdoc(function))

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
