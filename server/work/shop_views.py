"""Every table of the shop that somebody may want to read, as views of SQLite under names that stay: docs/formats/views.md.

They are taken away before the database is brought into a newer shape and put back after it: SQLite renames no table that a view asks for.
"""

__all__ = ["VIEWS", "put_views", "take_views_away"]

from django.db import connection

VIEWS = {
    "shop_engines": """
        SELECT e.serial, r.family_id AS family, r.number AS revision, e.purpose, e.stand, e.whereabouts, e.aside_because,
               u.first_name AS builder, e.promised, e.begun, e.last_seq AS entries, e.head AS seal,
               s.step, s.waits_for, s.waits_on, s.loose_ends, s.verdict, s.signed
        FROM work_engine e JOIN engine_revision r ON r.id = e.revision_id
        LEFT JOIN auth_user u ON u.id = e.builder_id LEFT JOIN work_enginesummary s ON s.engine_id = e.serial""",
    "shop_entries": """
        SELECT engine_id AS serial, seq, id, at, by_name, kind, version, body, gauges, si_values, digest AS seal FROM work_entry""",
    "shop_figures": """
        SELECT engine_id AS serial, family, sort, of, name, place, value, unit, least, most, gauge, at FROM work_figureseen""",
    "shop_happenings": "SELECT engine_id AS serial, family, sort, title, because, at FROM work_happening",
    "shop_minutes": "SELECT engine_id AS serial, family, step, minutes FROM work_steptime",
    "shop_families": """
        SELECT f.code, f.name, r.number AS revision, r.at, r.remark, r.document
        FROM engine_family f JOIN engine_revision r ON r.family_id = f.code""",
    "shop_gauges": """
        SELECT code, name, kind, resolution, expanded_uncertainty, least, most, calibrated, due, certificate FROM shop_gauge""",
    "shop_gauge_checks": 'SELECT gauge_id AS gauge, against_id AS against, "true" AS was, shown, note, at, by_name FROM shop_gaugecheck',
    "shop_gauge_uses": "SELECT gauge_id AS gauge, serial, seq, kind, at, by_name FROM shop_gaugeuse",
    "shop_stock": "SELECT part, size, lot, count FROM shop_stockitem",
    "shop_stock_taken": "SELECT serial, part, size, pieces FROM shop_stocktaken",
    "shop_people": """
        SELECT u.username, u.first_name AS name, u.is_active = 0 AS has_left, g.name AS role
        FROM auth_user u LEFT JOIN auth_user_groups ug ON ug.user_id = u.id LEFT JOIN auth_group g ON g.id = ug.group_id""",
}


def take_views_away() -> None:
    """Leave the tables alone."""
    with connection.cursor() as cursor:
        for name in VIEWS:
            cursor.execute(f"DROP VIEW IF EXISTS {name}")


def put_views() -> None:
    """Put every view in place."""
    take_views_away()
    with connection.cursor() as cursor:
        for name, query in VIEWS.items():
            cursor.execute(f"CREATE VIEW {name} AS {query}")
