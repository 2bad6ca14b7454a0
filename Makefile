# make demo    build what is missing, load the demo shop, serve on 127.0.0.1
# make shop    serve a shop over https on its own network, with copies every hour
# make test    lint, types, layers and all tests      make bench    speeds as ratios
# make harness long comparisons, not part of make test
# make shots   refresh docs/screenshots               make figures  sizes and shares of the code
SHELL := /bin/bash
PY := .venv/bin/python
WEB_SOURCES := $(shell find web/src web/public -type f 2>/dev/null) web/index.html web/vite.config.ts web/tsconfig.json
PORT ?= 8321
export PYTHONPATH := core:server
.DELETE_ON_ERROR:
.PHONY: audit demo shop postgres test harness bench shots figures schemas build lint types check-generated clean fix serve

.stamps/venv: requirements/run.txt
	@mkdir -p .stamps
	@test -x $(PY) || python3 -m venv .venv || { echo "Python's venv is missing: install python3-venv"; exit 1; }
	$(PY) -m pip install --quiet --disable-pip-version-check --require-hashes -r requirements/run.txt
	@touch $@

.stamps/dev: requirements/dev.txt .stamps/venv
	$(PY) -m pip install --quiet --disable-pip-version-check --require-hashes -r requirements/dev.txt
	@touch $@

.stamps/npm: web/package-lock.json
	@mkdir -p .stamps
	cd web && npm ci --no-progress
	@touch $@

web/dist/index.html: .stamps/npm .stamps/venv $(WEB_SOURCES)
	cd web && npx vite build --logLevel warn
	$(PY) -m whitenoise.compress --quiet web/dist
	@touch $@

build: web/dist/index.html

demo: .stamps/venv build
	@bin/demo $(PORT)

serve: .stamps/venv build
	$(PY) manage.py migrate --verbosity 0
	$(PY) manage.py serve --port $(PORT)

shop: .stamps/venv build
	@bin/shop

schemas: .stamps/dev .stamps/npm
	$(PY) manage.py write_schemas
	cd web && npx openapi-typescript openapi.json -o src/api/schema.d.ts

check-generated: .stamps/dev .stamps/npm
	$(PY) manage.py makemigrations --check --dry-run
	$(PY) manage.py write_schemas --check
	cd web && npx openapi-typescript openapi.json -o ../.stamps/schema.d.ts >/dev/null
	@cmp .stamps/schema.d.ts web/src/api/schema.d.ts || { echo "web/src/api/schema.d.ts is out of date: run 'make schemas'"; exit 1; }

lint: .stamps/dev .stamps/npm
	.venv/bin/ruff check .
	.venv/bin/ruff format --check .
	.venv/bin/lint-imports
	cd web && npx biome check --error-on-warnings src

types: .stamps/dev .stamps/npm
	.venv/bin/mypy core server
	cd web && npx tsc --noEmit

fix: .stamps/dev .stamps/npm
	.venv/bin/ruff check --fix . ; .venv/bin/ruff format .
	cd web && npx biome check --write src

test: lint types check-generated build postgres
	bin/ensure-chromium
	bin/ensure-nginx
	$(PY) manage.py test tests --settings=tests.settings --parallel 2 --noinput

# what is stored, on PostgreSQL too; all of tests/server passes on it
STORED := $(addprefix tests.server.test_,jobs shops people storage revisions job_list work faults heavy floor tape machines)
postgres: .stamps/dev build
	NODULANT_TEST_URL=$$(bin/ensure-postgres) $(PY) manage.py test $(STORED) --settings=tests.settings --parallel 2 --noinput
	bin/ensure-postgres stop

audit: .stamps/venv .stamps/npm
	$(PY) -m pip install --quiet pip-audit && $(PY) -m pip_audit -r requirements/run.txt --disable-pip --require-hashes
	cd web && npm audit --omit=dev

harness: .stamps/dev
	$(PY) manage.py test tests.harness --pattern 'harness_*.py' --settings=tests.settings --parallel 2 --noinput

bench: .stamps/dev build
	$(PY) -m bench --write

shots: .stamps/dev build
	bin/ensure-chromium
	$(PY) manage.py test tests.shots --settings=tests.settings --noinput

figures: .stamps/dev
	$(PY) bench/figures.py

clean:
	rm -rf .venv .stamps web/node_modules web/dist var
