#!/usr/bin/env bash
# Installs what is missing, builds, and runs all tests. With the name of a lane, that lane alone (core, server, lab, ui);
# with other arguments, those tests alone.
source "$(dirname "$0")/common.sh"
need_node
need_packages
together() { npx mocha --parallel --jobs 2 "$@"; }
core() { together 'test/core/**/*.test.ts' 'test/lib/**/*.test.ts'; }
server() { together 'test/server/**/*.test.ts' 'test/screens/**/*.test.ts' 'test/demo-web/**/*.test.ts'; }
# What measures and what looks at screens needs the machine for itself.
lab() { npx mocha 'test/lab/**/*.test.ts'; }
ui() { npx mocha 'test/ui/**/*.test.ts'; }
if [ "${1:-}" = core ]; then
	core
	exit
fi
need_chromium
need_build
case "${1:-}" in
'')
	failed=0
	for lane in core server lab ui; do $lane || failed=1; done
	exit $failed
	;;
server | lab | ui) "$1" ;;
*) exec npx mocha "$@" ;;
esac
