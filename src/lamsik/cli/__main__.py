"""`python -m lamsik.cli`."""

from lamsik.cli.main import main

raise SystemExit(main())
