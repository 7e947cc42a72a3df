from django.apps import AppConfig


class ToolsConfig(AppConfig):
    name = "server.tools"
