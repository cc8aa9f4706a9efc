"""Who is signed in, with the crew: one query a request."""

from django.contrib.auth import get_user_model
from django.contrib.auth.backends import ModelBackend
from django.contrib.auth.models import User


class WithCrew(ModelBackend):
    def get_user(self, user_id: int) -> User | None:
        user = get_user_model().objects.select_related("membership__crew").filter(pk=user_id).first()
        return user if user is not None and self.user_can_authenticate(user) else None
