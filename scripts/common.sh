# Shared by the start scripts: puts in place what is missing, and says what it does.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
export IBM_TELEMETRY_DISABLED=true

need_node() {
	if ! command -v node >/dev/null; then
		echo "Node.js 20.19 or later is needed and was not found." >&2
		exit 1
	fi
	node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)' || {
		echo "Node.js 20.19 or later is needed; this is $(node --version)." >&2
		exit 1
	}
}

# Compares what is installed with the lock file; compiling better-sqlite3 takes some minutes the first time.
need_packages() {
	if [ ! -f node_modules/.package-lock.json ] || [ package-lock.json -nt node_modules/.package-lock.json ]; then
		echo "Installing packages (the database driver is compiled: 2 to 4 minutes the first time) ..."
		npm ci --no-audit --no-fund --loglevel=error
		touch node_modules/.package-lock.json
	fi
}

has_chromium() {
	[ -n "${ZAFRA_CHROMIUM:-}" ] && [ -x "${ZAFRA_CHROMIUM}" ] && return 0
	command -v chromium >/dev/null || command -v chromium-browser >/dev/null || [ -x /usr/bin/chromium ]
}

need_chromium() {
	has_chromium && return 0
	if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; then
		echo "Installing Chromium ..."
		apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium >/dev/null || true
	fi
	has_chromium && return 0
	echo "Chromium was not found and could not be installed. Install it with:" >&2
	echo "    sudo apt-get install chromium" >&2
	echo "or name it in ZAFRA_CHROMIUM." >&2
	return 1
}

need_build() {
	# A copy for production has no sources: what was built is all there is.
	if [ ! -d src ] && [ -f build/handler.js ]; then return 0; fi
	if [ ! -f build/handler.js ] || [ ! -f build/verify/verify.mjs ] || [ ! -f build/processes/runner.mjs ] || [ -n "$(find src static package-lock.json svelte.config.js vite.config.ts vite.verify.config.ts scripts/verify.ts scripts/processes.mjs scripts/pageBundle.mjs -newer build/handler.js -type f -print -quit)" ]; then
		echo "Building ..."
		npm run build >/tmp/zafra-build-$$.log 2>&1 || { cat /tmp/zafra-build-$$.log >&2; rm -f /tmp/zafra-build-$$.log; exit 1; }
		rm -f /tmp/zafra-build-$$.log
	fi
}
