#!/usr/bin/env bash
# Installs what is missing, builds, and runs all tests. With the name of a lane, that lane alone (core, server, lab, ui);
# with other arguments, those tests alone.
source "$(dirname "$0")/common.sh"
need_node
need_packages
together() { npx mocha --parallel --jobs 2 "$@"; }
core() { together 'test/core/**/*.test.ts' 'test/lib/**/*.test.ts'; }
server() { together 'test/server/**/*.test.ts' 'test/screens/**/*.test.ts' 'test/demo-web/**/*.test.ts'; }
# What compares times with theory, and what looks at screens, needs the machine for itself; what asks for outcomes does not.
TIMED='calm|controlPage|coverage|lab|paints|profiles|shaper|truth'
lab() {
	local timed rest failed=0
	timed=$(ls test/lab/*.test.ts | grep -E "/($TIMED)\.test" || true)
	rest=$(ls test/lab/*.test.ts | grep -vE "/($TIMED)\.test" || true)
	npx mocha $timed || failed=1
	together $rest || failed=1
	return $failed
}
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
	if [ -n "${ZAFRA_TEST_LONG:-}" ]; then
		echo "Once more beside a process that burns a processor ..."
		node -e 'for (;;);' &
		burner=$!
		trap 'kill $burner' EXIT
		unset ZAFRA_TEST_LONG
		for lane in core server lab ui; do $lane || failed=1; done
	fi
	exit $failed
	;;
server | lab | ui) "$1" ;;
*) exec npx mocha "$@" ;;
esac
