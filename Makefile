# Two commands: `make demo` and `make test`. Each does all the set-up it needs on a fresh Debian machine.
SHELL := /bin/bash
export DOTNET_CLI_TELEMETRY_OPTOUT := 1
OUT := build
STAMPS := .stamps
SERVER_SOURCES := $(shell find src -name '*.cs' -not -path '*/obj/*' -not -path '*/bin/*') $(shell find src -name '*.csproj' -o -name '*.sql') Directory.Build.props Directory.Packages.props
CLIENT_SOURCES := $(shell find client/src client/public -type f -not -name openapi.json -not -name schema.d.ts) client/index.html client/package-lock.json client/vite.config.ts client/compress.mjs
DEMO_DATA ?= $(CURDIR)/data/demo
TODAY ?= 2027-06-07

.PHONY: demo dev build test check bench screenshots clean

demo: build
	SPRING_LOFT_DATA="$${SPRING_LOFT_DATA:-$(DEMO_DATA)}" $(OUT)/SpringLoft.Server --demo --today $(TODAY) $(ARGS)

# Both sides with hot reload, on a demo school of its own.
dev: $(STAMPS)/client-packages
	trap 'kill 0' EXIT; \
	SPRING_LOFT_DATA="$(CURDIR)/data/dev" dotnet watch --project src/SpringLoft.Server --non-interactive run -- --demo --today $(TODAY) --urls http://127.0.0.1:5080 & \
	cd client && npm run -s dev

build: $(STAMPS)/client

# Compiled for this machine: it starts sooner, here and in every test.
$(STAMPS)/server: $(SERVER_SOURCES)
	@mkdir -p $(STAMPS)
	dotnet publish src/SpringLoft.Server -c Release --use-current-runtime --no-self-contained -p:PublishReadyToRun=true -o $(OUT) --nologo -v quiet
	@touch $@

$(STAMPS)/client-packages: client/package-lock.json
	@mkdir -p $(STAMPS)
	cd client && npm ci --no-fund --no-audit --loglevel=error
	@touch $@

$(STAMPS)/client: $(STAMPS)/server $(STAMPS)/client-packages $(CLIENT_SOURCES)
	cd client && npm run -s types && npm run -s build
	rm -rf $(OUT)/wwwroot && cp -r client/dist $(OUT)/wwwroot
	@touch $@

# What the tests use besides the SDK and Node: Debian's Chromium, and stock tools that the packages are checked with.
$(STAMPS)/tools:
	@mkdir -p $(STAMPS)
	@for t in chromium:chromium pdftotext:poppler-utils zip:zip unzip:unzip sqlite3:sqlite3 sha512sum:coreutils openssl:openssl; do \
	  command -v $${t%%:*} >/dev/null || need="$$need $${t##*:}"; done; \
	/usr/bin/python3 -c "import icalendar" 2> /dev/null || need="$$need python3-icalendar"; \
	if [ -n "$$need" ]; then apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq $$need; fi
	@touch $@

$(STAMPS)/e2e-packages: tests/e2e/package-lock.json
	@mkdir -p $(STAMPS)
	cd tests/e2e && PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1 npm ci --no-fund --no-audit --loglevel=error
	@touch $@

test: build $(STAMPS)/tools $(STAMPS)/e2e-packages
	bash tests/run-all.sh

# Style and contract: fails if the committed contract is not what the build makes.
check: build
	dotnet format --verify-no-changes --no-restore
	cd client && npm run -s check
	git diff --exit-code -- client/src/api

bench: build $(STAMPS)/tools
	bash bench/run-all.sh

screenshots: build $(STAMPS)/tools $(STAMPS)/e2e-packages
	cd tests/e2e && node take-screenshots.mjs

clean:
	rm -rf $(OUT) $(STAMPS) client/dist data/demo
