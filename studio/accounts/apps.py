from django.apps import AppConfig


class AccountsConfig(AppConfig):
    name = "studio.accounts"

    def ready(self) -> None:
        from studio.accounts import devices  # noqa: F401
