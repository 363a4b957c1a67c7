"""How Alembic finds the migrations."""

from pathlib import Path

from alembic.config import Config
from alembic.script import ScriptDirectory

MIGRATIONS = Path(__file__).parent / "migrations"


def config_of() -> Config:
    """Alembic's configuration; the connection is handed over in its attributes."""
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS).replace("%", "%%"))
    config.set_main_option("path_separator", "os")
    return config


def head() -> str:
    """The newest migration."""
    return str(ScriptDirectory.from_config(config_of()).get_current_head())


def known_versions() -> set[str]:
    """Every migration this version knows."""
    return {script.revision for script in ScriptDirectory.from_config(config_of()).walk_revisions()}
