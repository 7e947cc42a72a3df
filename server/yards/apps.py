from django.apps import AppConfig


class YardsConfig(AppConfig):
    name = "server.yards"
