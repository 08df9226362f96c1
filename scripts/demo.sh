#!/usr/bin/env bash
# Zafra with its demonstration data and the simulated web: installs what is missing, builds, starts.
source "$(dirname "$0")/common.sh"
need_node
need_packages
need_chromium || echo "Zafra starts without it and cannot load pages until it is there." >&2
need_build
exec node --import tsx scripts/demo.ts
