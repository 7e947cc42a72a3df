from django.apps import AppConfig


class StocksConfig(AppConfig):
    name = "server.stocks"
    label = "materials"  # its tables are called so
