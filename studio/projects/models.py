from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models


class Project(models.Model):
    """A person's project. Its content is the document at ``head``."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="projects")
    name = models.CharField(max_length=200)
    head = models.ForeignKey("Revision", models.PROTECT, null=True, related_name="+")
    made_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["-changed_at"]
        indexes = [models.Index(fields=["owner", "-changed_at"])]


class Revision(models.Model):
    """One step of a project's history. Revisions form a tree and never change.

    ``forward`` and ``back`` are JSON Patches from and to the parent's document; some revisions hold
    the whole document too, so that any can be had by a few patches.
    """

    project = models.ForeignKey(Project, models.CASCADE, related_name="revisions")
    # Revisions go only with their project, all at once: no need to walk down the tree.
    parent = models.ForeignKey("self", models.DO_NOTHING, null=True, related_name="children")
    next = models.ForeignKey("self", models.DO_NOTHING, null=True, related_name="+")
    """The child that redo goes to."""
    number = models.PositiveIntegerField()
    label = models.CharField(max_length=250)
    edit = models.JSONField(null=True)
    seed = models.CharField(max_length=40, blank=True)
    """Of the step that made it: sent again, the step is known by it and not done twice."""
    facts = models.JSONField(null=True)
    """`studio.projects.facts.Facts` of its document, so that lists need not rebuild it."""
    forward = models.JSONField(null=True)
    back = models.JSONField(null=True)
    snapshot = models.BinaryField(null=True)
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["id"]
        constraints = [
            models.UniqueConstraint(
                fields=["project", "seed"], condition=~models.Q(seed=""), name="one_step_of_a_seed"
            )
        ]
