from django.contrib import admin

from server.yards.models import Yard


@admin.register(Yard)
class YardAdmin(admin.ModelAdmin):
    list_display = ["name", "owner", "currency", "version", "updated"]
    readonly_fields = ["version"]
