"""`python -m fandle.cli`."""

from fandle.cli import main

if __name__ == "__main__":
    main()
