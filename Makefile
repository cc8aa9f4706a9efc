# Even Probe. `make demo` to try it, `make lan` to try it on a phone, `make test` to test it; all install what they need.

PYTHON ?= python3
VENV := .venv
BIN := $(VENV)/bin
MANAGE := $(BIN)/python server/manage.py
PORT ?= 8000
LAN_PORT ?= 8443
METER_PORT ?= 5025
export METER_PORT

.PHONY: demo lan test test-postgres postgres check bench attack docs screenshots dev build client chromium clean

demo: $(VENV)/.installed build
	$(MANAGE) migrate -v0
	$(MANAGE) load_demo
	@echo
	@echo "  Even Probe is at http://127.0.0.1:$(PORT)   sign in as demo, password larkspur-demo"
	@echo
	$(MANAGE) standin_meter --port $(METER_PORT) & trap "kill $$!" EXIT; \
	PLAIN_HTTP=1 $(BIN)/gunicorn --chdir server --no-control-socket --workers 1 --threads 8 --bind 127.0.0.1:$(PORT) project.wsgi

lan: $(VENV)/.installed build
	$(MANAGE) migrate -v0
	$(MANAGE) load_demo
	@echo
	@echo "  Sign in as demo, password larkspur-demo"
	$(MANAGE) lan --port $(LAN_PORT)

test: $(VENV)/.installed build chromium
	cd web && npm test
	OPENBLAS_NUM_THREADS=1 $(BIN)/pytest -n 2 --dist worksteal

test-postgres: $(VENV)/.installed postgres
	OPENBLAS_NUM_THREADS=1 pg_virtualenv sh -c \
		'DATABASE_URL="postgresql://$$PGUSER:$$PGPASSWORD@$$PGHOST:$$PGPORT/postgres" $(BIN)/pytest -n 2 tests/server'

check: $(VENV)/.installed web/node_modules/.installed
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	$(BIN)/mypy src server bench tests
	PYTHONPATH=server DJANGO_SETTINGS_MODULE=project.settings $(BIN)/lint-imports
	$(MANAGE) makemigrations --check --dry-run -v0
	$(MAKE) client
	git diff --exit-code -- web/src/api/openapi.json web/src/api/schema.d.ts web/src/api/reference.json
	cd web && npm run check

bench: $(VENV)/.installed build chromium
	$(BIN)/python -m bench

attack: $(VENV)/.installed
	$(BIN)/python -m bench.document
	$(BIN)/python -m bench.kills
	$(BIN)/python -m bench.crowds
	$(BIN)/python -m bench.spoilt_files

docs: $(VENV)/.installed
	$(BIN)/pip install --quiet --disable-pip-version-check -r docs/requirements.txt
	$(BIN)/sphinx-build -q -W --keep-going -b html docs build/docs
	@echo "The documentation is in build/docs/index.html"

screenshots: $(VENV)/.installed build chromium
	$(BIN)/python -m docs.screenshots.take

dev: $(VENV)/.installed web/node_modules/.installed
	$(MANAGE) migrate -v0
	$(MANAGE) load_demo
	PLAIN_HTTP=1 DEBUG=1 $(MANAGE) runserver $(PORT) & cd web && npx vite; kill %1

client: $(VENV)/.installed web/node_modules/.installed
	cd server && ../$(BIN)/python manage.py export_openapi_schema --api project.api.api --indent 1 --output ../web/src/api/openapi.json
	cd web && npx openapi-typescript src/api/openapi.json -o src/api/schema.d.ts
	$(BIN)/python -c "from evenprobe.formats.reference import reference; print(reference().model_dump_json(indent=1))" > web/src/api/reference.json

build: web/dist/index.html

web/dist/index.html: web/node_modules/.installed web/index.html web/vite.config.ts $(shell find web/src web/public -type f)
	cd web && npm run build

web/node_modules/.installed: web/package.json web/package-lock.json
	cd web && npm install --no-save --no-audit --no-fund
	touch $@

$(VENV)/.installed: pyproject.toml requirements.lock
	$(PYTHON) -m venv $(VENV)
	$(BIN)/pip install --quiet --disable-pip-version-check -r requirements.lock
	$(BIN)/pip install --quiet --disable-pip-version-check --no-deps -e .
	touch $@

chromium:
	@command -v chromium >/dev/null || { \
		if [ "$$(id -u)" = 0 ] && command -v apt-get >/dev/null; then \
			apt-get update -qq && apt-get install -y -qq chromium; \
		else \
			echo "The browser tests need Debian's chromium: sudo apt-get install chromium"; exit 1; \
		fi; }

postgres:
	@command -v pg_virtualenv >/dev/null || { \
		if [ "$$(id -u)" = 0 ] && command -v apt-get >/dev/null; then \
			apt-get update -qq && apt-get install -y -qq postgresql; \
		else \
			echo "These tests need Debian's postgresql: sudo apt-get install postgresql"; exit 1; \
		fi; }

clean:
	rm -rf $(VENV) web/node_modules web/dist data
