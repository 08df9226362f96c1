#!/usr/bin/env bash
# Installs what is missing, builds, and runs all tests; with arguments, those tests alone.
source "$(dirname "$0")/common.sh"
need_node
need_packages
need_chromium
need_build
if [ $# -gt 0 ]; then exec npx mocha "$@"; fi
# What measures and what looks at screens needs the machine for itself; the rest shares it.
failed=0
npx mocha --parallel --jobs 2 'test/core/**/*.test.ts' 'test/lib/**/*.test.ts' 'test/screens/**/*.test.ts' 'test/demo-web/**/*.test.ts' 'test/server/**/*.test.ts' || failed=1
npx mocha 'test/lab/**/*.test.ts' 'test/ui/**/*.test.ts' || failed=1
exit $failed
