"""Reads of families and revisions, and the query set that has no way to change or delete a row."""

from typing import Any, NoReturn, Self

from django.db import models


class AppendOnlyQuerySet(models.QuerySet[Any]):
    """Rows are added one at a time and never changed."""

    def update(self, **_kwargs: Any) -> NoReturn:
        """Refuse."""
        raise TypeError("These rows are never changed.")

    def delete(self) -> NoReturn:
        """Refuse."""
        raise TypeError("These rows are never deleted.")

    def bulk_update(self, *_args: Any, **_kwargs: Any) -> NoReturn:
        """Refuse."""
        raise TypeError("These rows are never changed.")

    def update_or_create(self, *_args: Any, **_kwargs: Any) -> NoReturn:
        """Refuse."""
        raise TypeError("These rows are never changed.")


class RevisionQuerySet(AppendOnlyQuerySet):
    """Reads of revisions."""

    def newest_first(self) -> Self:
        """The newest revision of each family comes first."""
        return self.order_by("family_id", "-number")

    def newest_alone(self) -> Self:
        """The newest revision of each family and no other."""
        own = self.model.objects.filter(family=models.OuterRef("family")).newest_first()
        return self.filter(pk=models.Subquery(own.values("pk")[:1])).order_by("family_id")

    def newest_of(self, family: str) -> Any:
        """The newest revision of one family, or None."""
        return self.filter(family=family).newest_first().first()
