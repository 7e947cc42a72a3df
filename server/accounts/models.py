"""The people who own projects and yards."""

import uuid

from django.contrib.auth.models import AbstractUser
from django.db import models


class User(AbstractUser):
    """A builder's account."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
