#!/usr/bin/env bash
# Installs what is missing, builds, and runs all tests.
source "$(dirname "$0")/common.sh"
need_node
need_packages
need_chromium
need_build
exec npx mocha "$@"
