"""Write the OpenAPI file: python -m rillstep.web.openapi."""

import json
import sys

from rillstep.web.app import create_app
from rillstep.web.settings import Settings


def openapi() -> str:
    """The OpenAPI description of this application, as it is committed."""
    app = create_app(Settings("mysql+pymysql://nobody@127.0.0.1:1/none", "none"))
    return json.dumps(app.api_doc, indent=1, sort_keys=True) + "\n"


if __name__ == "__main__":
    sys.stdout.write(openapi())
