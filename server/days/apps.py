from django.apps import AppConfig


class DaysConfig(AppConfig):
    name = "server.days"
