#!/usr/bin/env bash
# The built app alone, with an empty or existing data folder.
source "$(dirname "$0")/common.sh"
need_node
need_packages
need_build
exec node scripts/serve.mjs
