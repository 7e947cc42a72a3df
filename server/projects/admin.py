from django.contrib import admin

from server.projects.models import Project


@admin.register(Project)
class ProjectAdmin(admin.ModelAdmin):
    list_display = ["name", "owner", "unit", "version", "updated"]
    readonly_fields = ["version"]
