# make demo · make test · make check · make torture · make bench · make screenshots

HOST ?= 127.0.0.1
PORT ?= 8000
YARD_PORT ?= 8010
TLS ?=
PYTHON ?= python3
VENV := .venv/bin
MANAGE := $(VENV)/python manage.py
WEB_SOURCES := $(shell find web/src web/public -type f 2>/dev/null) web/index.html web/vite.config.ts web/package-lock.json

.PHONY: demo demo-reset install build schema test torture check bench screenshots serve certificate browser format
.DEFAULT_GOAL := demo

# The last command takes the place of the shell, so that whatever ends make ends what it serves.
define SERVE
@mkdir -p $(DATA)/static
@$(MANAGE) collectstatic --noinput --verbosity 0
@$(if $(TLS),$(MAKE) --no-print-directory certificate)
@exec $(VENV)/python -m server.site.serve --host $(HOST) --port $(PORT) --yard-port $(YARD_PORT) \
  $(if $(TLS),--certificate $(TLS_FILES)/workshop.pem --key $(TLS_FILES)/workshop-key.pem)
endef

demo: install build ## install, build, load demo data, serve
	@$(MANAGE) migrate --verbosity 0
	@$(MANAGE) load_demo
	$(SERVE)

demo-reset: install ## the demo data as it was at first
	@$(MANAGE) migrate --verbosity 0
	@$(MANAGE) load_demo --reset

# A certificate of one's own, for this machine's names and addresses. It is made anew at every
# start, by an authority that is made once and that phones are told to trust.
DATA := $(or $(GRAIN_TALLY_DATA),var)
TLS_FILES := $(DATA)/tls
certificate:
	@command -v mkcert >/dev/null || \
	  { echo "Installing mkcert …"; apt-get update -qq && apt-get install -y -qq --no-install-recommends mkcert >/dev/null; } || \
	  { echo "mkcert is needed: apt-get install mkcert"; exit 1; }
	@mkdir -p $(TLS_FILES) && chmod 700 $(TLS_FILES)
	@CAROOT=$(TLS_FILES) mkcert -cert-file $(TLS_FILES)/workshop.pem -key-file $(TLS_FILES)/workshop-key.pem \
	  localhost 127.0.0.1 ::1 $$(hostname) $$(hostname -I 2>/dev/null) 2>/dev/null
	@cp $(TLS_FILES)/rootCA.pem $(DATA)/static/workshop-ca.crt

serve:
	$(SERVE)

install: .make/python .make/web ## everything into .venv/ and web/node_modules/

.make/tools:
	@mkdir -p .make
	@$(PYTHON) -c 'import sys; sys.exit(sys.version_info < (3, 11))' 2>/dev/null || \
	  { echo "Python 3.11 or newer is needed: apt-get install python3 python3-venv"; exit 1; }
	@node -e 'process.exit(Number(process.versions.node.split(".")[0]) < 20 ? 1 : 0)' 2>/dev/null || \
	  { echo "Node 20 or newer is needed: apt-get install nodejs npm"; exit 1; }
	@command -v npm >/dev/null || { echo "npm is needed: apt-get install npm"; exit 1; }
	@$(PYTHON) -c 'import ensurepip, venv' 2>/dev/null || \
	  { apt-get update -qq && apt-get install -y -qq python3-venv; } || \
	  { echo "Python's venv is needed: apt-get install python3-venv"; exit 1; }
	@touch $@

.make/python: .make/tools requirements.txt requirements-dev.txt
	@echo "Installing Python packages into .venv/ …"
	@test -x $(VENV)/python || $(PYTHON) -m venv .venv
	@$(VENV)/python -m pip install --quiet --disable-pip-version-check -r requirements-dev.txt
	@touch $@

.make/web: .make/tools web/package.json web/package-lock.json
	@echo "Installing the front end's packages into web/node_modules/ …"
	@cd web && npm ci --silent --no-audit --no-fund
	@touch $@

build: web/dist/index.html ## the front end

web/dist/index.html: .make/web $(WEB_SOURCES)
	@echo "Building the front end …"
	@cd web && npm run --silent build -- --logLevel warn
	@touch $@

schema: install ## the API's contract, and the front end's types and fields from it
	@$(MANAGE) export_contract
	@cd web && npm run --silent schema >/dev/null

browser: ## Chromium, for the tests that drive the interface
	@test -x /usr/bin/chromium-headless-shell || \
	  { echo "Installing Chromium …"; apt-get update -qq; \
	    apt-get install -y -qq --no-install-recommends chromium-headless-shell >/dev/null; } || \
	  test -x /usr/bin/chromium || apt-get install -y -qq --no-install-recommends chromium >/dev/null || \
	  { echo "Chromium is needed: apt-get install chromium-headless-shell"; exit 1; }

# One more than there are processors: browsers and solvers are waited for.
SIDE_BY_SIDE := $$(( $$(nproc) + 1 ))

TEST := DJANGO_SETTINGS_MODULE=server.site.testing $(VENV)/python -W ignore::ResourceWarning manage.py test --verbosity 1 --noinput

test: install build browser ## all tests, side by side, those of the front end beside them
	@$(TEST) carpentry server yardservice e2e --parallel $(SIDE_BY_SIDE)

torture: install build browser ## the same tests, with many random cases, others each time
	@GRAIN_TALLY_TORTURE=1 $(TEST) carpentry server --parallel

CHECKS := check-style check-types check-imports check-database check-contract \
          check-web-types check-web-lint check-web-style
.PHONY: $(CHECKS)

check: install ## linters, types, import directions, the schema in step: side by side
	@$(MAKE) --no-print-directory --jobs --output-sync=target --keep-going $(CHECKS)

check-style:
	@$(VENV)/ruff check . && $(VENV)/ruff format --check --quiet .

check-types:
	@$(VENV)/mypy

check-imports:
	@$(VENV)/lint-imports >/dev/null || $(VENV)/lint-imports

check-database:
	@$(MANAGE) makemigrations --check --dry-run --verbosity 0

check-contract:
	@$(MANAGE) export_contract --check
	@cd web && npx --no-install openapi-typescript ../server/openapi.json 2>/dev/null | cmp - src/api/schema.d.ts || \
	  { echo "web/src/api/schema.d.ts is out of step: make schema"; exit 1; }

check-web-types:
	@cd web && npm run --silent types

check-web-lint:
	@cd web && npm run --silent lint

check-web-style:
	@cd web && npx --no-install prettier --check --cache --log-level warn src

format: install
	@$(VENV)/ruff check --fix --quiet . ; $(VENV)/ruff format --quiet .
	@cd web && npx --no-install prettier --write --log-level warn src

bench: install build browser ## the figures, as ratios in one run
	@$(VENV)/python -m benchmarks

screenshots: install build browser ## docs/screenshots/ from the demo data
	@mkdir -p docs/screenshots
	@$(TEST) --verbosity 0 e2e --pattern screenshots.py
